import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import { clauses } from '../../i18n/clauses.ts'
import { formatNumber, listPlain } from '../../i18n/language.ts'
import type { Catalogue } from '@klados/core/catalogue'
import { yearlyCare, leafyOutline } from '@klados/core/loads'
import { planFrame } from '@klados/core/plan'
import type { FramePlan } from '@klados/core/plan'
import { drawSite } from '@klados/core/drawing'
import { findKind } from '@klados/core/kinds'
import type { FrameBody, Place } from '@klados/contract'
import type { TFunction } from '../../i18n/texts.ts'
import { useMemo } from 'react'
import { Link, useParams } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useGardenQuery } from '../../data/api.ts'
import { usePlaces, useFrames } from '../../data/documents.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { useAppSelector } from '../../data/store.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import { drawLaid } from '../../plan/lay-out.ts'
import { useNames } from '../../plan/names.ts'
import type { Names } from '../../plan/names.ts'
import { outcomeWords } from '../../plan/verdict.ts'
import { NotHere } from '../../ui/NotHere.tsx'
import { Loading } from '../../ui/Message.tsx'
import { formatMoney } from '../../ui/money.ts'
import { useUnits } from '../../ui/units.tsx'
import type { Units } from '../../ui/units.tsx'
import { framesHere } from './FrameBench.tsx'

/** What a year of ties is priced in. */
const USUAL_TIE = 'soft-jute'

interface Variant {
  readonly frameId: string
  readonly body: FrameBody
  readonly isDraft: boolean
  readonly plan: FramePlan
}

/** All frames of a place side by side, drafts too: what each takes to build and to live with, line by line. */
export function Variants() {
  const { gardenId, placeId } = useParams() as { gardenId: string; placeId: string }
  const { t } = useTranslation()
  const units = useUnits()
  const places = usePlaces(gardenId)
  const frames = useFrames(gardenId)
  const { data: garden } = useGardenQuery(gardenId)
  const drafts = useAppSelector((state) => state.drafts)
  const catalogue = useCatalogue(gardenId)
  const names = useNames()
  const place = places?.find((one) => one.id === placeId)
  const variants = useMemo(() => {
    if (!place || !frames) return []
    return framesHere(placeId, frames, drafts).map(({ frameId, stored }): Variant => {
      const body = drafts[frameId]?.body ?? stored!.body
      return {
        frameId,
        body,
        isDraft: drafts[frameId] !== undefined,
        plan: planFrame(place.body, body.design, { catalogue, effort: 'quick' }),
      }
    })
  }, [place, frames, drafts, placeId, catalogue])
  if (!places || !frames || !garden) return <Loading>{t('app.loading')}</Loading>
  if (!place) return <NotHere gardenId={gardenId} />
  const tiePrice = catalogue.ties.find((tie) => tie.id === USUAL_TIE)?.price ?? 0
  const words = { t, units, names, catalogue, currency: garden.currency, tiePrice }
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-baseline gap-4">
        <ScreenTitle>{t('variants.title', { place: place.body.name })}</ScreenTitle>
        <p className="min-w-[min(16rem,100%)] flex-1 text-slate">{t('variants.intro')}</p>
      </div>
      <div className="overflow-x-auto">
        <table className="w-full min-w-[640px] table-fixed border-collapse">
          <caption className="sr-only">{t('variants.title', { place: place.body.name })}</caption>
          <thead>
            <tr className="align-bottom">
              <td className="w-36" />
              {variants.map((variant) => (
                <Head
                  key={variant.frameId}
                  base={`/g/${gardenId}/places/${placeId}/frame`}
                  place={place}
                  catalogue={catalogue}
                  variant={variant}
                />
              ))}
            </tr>
          </thead>
          <tbody>
            {rowsOf(words).map(({ label, cell, isDeciding }) => {
              const cells = variants.map((variant) => cell(variant))
              // A line that is nothing in all of them says nothing.
              if (cells.every((text) => text === '')) return null
              return (
                <tr key={label} className="border-b border-dotted border-faint align-baseline">
                  <th scope="row" className="py-1 pr-3 text-left font-normal text-slate">
                    {label}
                  </th>
                  {cells.map((text, i) => (
                    <td
                      key={variants[i]!.frameId}
                      className={`py-1 pr-6 ${isDeciding ? 'text-[1.0625rem] font-bold' : ''}`}
                    >
                      {text || '–'}
                    </td>
                  ))}
                </tr>
              )
            })}
            <tr className="align-baseline">
              <th scope="row" className="py-1 pr-3 text-left font-normal text-slate">
                {t('check.title')}
              </th>
              {variants.map(({ frameId, plan }) => (
                <td
                  key={frameId}
                  className={`py-1 pr-6 ${plan.takeOff && plan.outcome.verdict === 'holds' ? 'text-verdigris' : 'text-iron'}`}
                >
                  {plan.takeOff ? outcomeWords(t, plan.outcome) : t('variants.impossible')}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
    </div>
  )
}

interface HeadProps {
  readonly base: string
  readonly place: Place
  readonly catalogue: Catalogue
  readonly variant: Variant
}

function Head({ base, place, catalogue, variant: { frameId, body, isDraft, plan } }: HeadProps) {
  const { t } = useTranslation()
  return (
    <th scope="col" className="pr-6 pb-2 text-left font-normal">
      <h2 className="text-[1.0625rem]">
        <Link to={`${base}/${frameId}`}>{body.name}</Link>
      </h2>
      <p className="text-[0.8125rem] text-slate">
        {t(`frame.${body.design.pattern.kind}`)}, {t(`frame.stages.${body.stage}`)}
        {isDraft && <span className="text-ochre">; {t('frame.unsaved')}</span>}
      </p>
      <StillElevation
        label={body.name}
        wall={place.body}
        surface={place.body.surface}
        list={[
          ...drawSite(place.body, place.body.surface),
          ...(plan.frame ? drawLaid(plan.frame, catalogue) : []),
        ]}
        maxHeight="200px"
      />
    </th>
  )
}

interface Words {
  readonly t: TFunction
  readonly units: Units
  readonly names: Names
  readonly catalogue: Catalogue
  readonly currency: string
  readonly tiePrice: number
}

interface Row {
  readonly label: string
  readonly isDeciding?: boolean
  readonly cell: (variant: Variant) => string
}

const count = (n: number) => (n > 0 ? String(n) : '')

/** What one compares, in the order in which one asks: cost, hours, what it is made of, what it asks for each year. */
function rowsOf({ t, units, names, catalogue, currency, tiePrice }: Words): Row[] {
  const hours = (minutes: number) => t('slip.hoursOf', { hours: formatNumber(minutes / 60, 1) })
  const careOf = ({ plan: { frame }, body: { design } }: Variant) =>
    frame && yearlyCare(frame, design, design.plantKindId === null ? undefined : findKind(design.plantKindId))
  const figure = (key: 'cover-area' | 'seams', text: (value: number) => string) => (variant: Variant) => {
    const found = variant.plan.frame?.figures.find((one) => one.key === key)
    return found && found.value > 0 ? text(found.value) : ''
  }
  return [
    {
      label: t('slip.cost'),
      isDeciding: true,
      cell: ({ plan }) => (plan.takeOff ? formatMoney(plan.takeOff.cost, currency) : ''),
    },
    {
      label: t('slip.hours'),
      isDeciding: true,
      cell: ({ plan }) => (plan.takeOff ? hours(plan.takeOff.minutes) : ''),
    },
    {
      label: t('variants.posts'),
      cell: ({ plan }) => count((plan.frame?.members.filter(({ foot }) => foot).length ?? 0) * plan.repeat),
    },
    {
      label: t('variants.anchors'),
      cell: ({ plan }) =>
        listPlain(
          (plan.takeOff?.items ?? []).flatMap((item) =>
            item.what === 'screw' ? [`${item.quantity} × ${names.item(item, catalogue)}`] : [],
          ),
        ),
    },
    { label: t('variants.seams'), cell: figure('seams', (m) => units.length(m)) },
    { label: t('figure.cover-area'), cell: figure('cover-area', (m2) => units.area(m2)) },
    {
      label: t('variants.eyes'),
      cell: ({ plan }) =>
        count((plan.frame?.nodes.filter(({ joint }) => joint === 'eye').length ?? 0) * plan.repeat),
    },
    {
      label: t('variants.wireOf'),
      cell: ({ plan }) =>
        clauses(
          t,
          plan.wires.flatMap(({ wire, stringing }) =>
            stringing
              ? [
                  t('variants.metresOf', {
                    length: units.length(stringing.cutLengthM * plan.repeat),
                    wire: names.wire(wire),
                  }),
                ]
              : [],
          ),
        ),
    },
    {
      label: t('slip.endPull'),
      cell: ({ plan }) => (plan.end ? units.force(plan.end.totalN) : ''),
    },
    {
      label: t('check.code.cover-uplift'),
      cell: ({ plan }) => {
        const lift = plan.checks.find(({ code }) => code === 'cover-uplift')
        return lift?.need ? t('variants.eachAnchor', { pull: units.force(lift.need) }) : ''
      },
    },
    {
      label: t('variants.ties'),
      cell: (variant) => {
        const ties = careOf(variant)?.ties ?? null
        if (ties === null) return ''
        if (ties === 0) return t('variants.noTies')
        const price = formatMoney(ties * tiePrice, currency)
        return t('variants.tiesOf', { count: ties, price, tie: names.tie(USUAL_TIE) })
      },
    },
    {
      label: t('variants.tucking'),
      cell: (variant) => {
        const care = careOf(variant)
        if (!care) return ''
        const parts = (['tie', 'tuck', 'lift'] as const).flatMap((what) => {
          const minutes = care[`${what}Minutes`]
          return minutes >= 1 ? [t(`variants.spent.${what}`, { hours: hours(minutes) })] : []
        })
        const all = care.tieMinutes + care.tuckMinutes + care.liftMinutes
        return parts.length > 0 ? `${hours(all)}: ${listPlain(parts)}` : ''
      },
    },
    {
      label: t('variants.leafy'),
      cell: ({ plan }) => (plan.frame ? units.area(leafyOutline(plan.frame).areaM2) : ''),
    },
  ]
}
