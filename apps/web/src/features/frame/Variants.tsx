import { leafyOutline, tiesPerYear } from '@klados/core/loads'
import { planFrame } from '@klados/core/plan'
import { drawSite } from '@klados/core/drawing'
import { findKind } from '@klados/core/kinds'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, Navigate, useParams } from 'react-router'
import { useGardenQuery } from '../../data/api.ts'
import { usePlaces, useFrames } from '../../data/documents.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { useAppSelector } from '../../data/store.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import { drawLaid } from '../../plan/lay-out.ts'
import { useNames } from '../../plan/names.ts'
import { outcomeWords } from '../../plan/verdict.ts'
import { Loading } from '../../ui/Message.tsx'
import { formatMoney } from '../../ui/money.ts'
import { SlipRow } from '../../ui/Slip.tsx'
import { useUnits } from '../../ui/units.tsx'
import { framesHere } from './FrameBench.tsx'

/** What a year of ties is priced in. */
const USUAL_TIE = 'soft-jute'

/** All frames of a place side by side, drafts too: what each costs to build and to live with. */
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
    return framesHere(placeId, frames, drafts).map(({ frameId, stored }) => {
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
  if (!place) return <Navigate replace to={`/g/${gardenId}/places`} />
  const base = `/g/${gardenId}/places/${placeId}/frame`
  const jute = catalogue.ties.find((tie) => tie.id === USUAL_TIE)?.price ?? 0
  const tiesText = (count: number) =>
    t('variants.tiesOf', {
      count,
      price: formatMoney(count * jute, garden.currency),
      tie: names.tie(USUAL_TIE),
    })
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-baseline gap-4">
        <h1>{t('variants.title', { place: place.body.name })}</h1>
        <p className="min-w-64 flex-1 text-slate">{t('variants.intro')}</p>
      </div>
      <ul className="grid gap-x-8 gap-y-6 md:grid-cols-2">
        {variants.map(({ frameId, body, isDraft, plan }) => {
          const { frame, takeOff } = plan
          const kind = body.design.plantKindId === null ? undefined : findKind(body.design.plantKindId)
          return (
            <li key={frameId} className="min-w-0 border-t border-faint pt-2">
              <h2 className="text-[17px]">
                <Link to={`${base}/${frameId}`}>{body.name}</Link>{' '}
                {isDraft && (
                  <span className="font-sans text-[13px] font-normal text-ochre">{t('frame.unsaved')}</span>
                )}
              </h2>
              <StillElevation
                label={body.name}
                wall={place.body}
                surface={place.body.surface}
                list={[
                  ...drawSite(place.body, place.body.surface),
                  ...(frame ? drawLaid(frame, catalogue) : []),
                ]}
                maxHeight="240px"
              />
              {frame && takeOff ? (
                <dl>
                  <SlipRow label={t('slip.cost')} isDeciding>
                    {formatMoney(takeOff.cost, garden.currency)}
                  </SlipRow>
                  <SlipRow label={t('slip.hours')}>
                    {t('slip.hoursOf', { hours: (takeOff.minutes / 60).toFixed(1) })}
                  </SlipRow>
                  <SlipRow label={t('variants.fixings')}>
                    {frame.nodes.filter((node) => node.number > 0).length +
                      frame.anchors.length +
                      frame.members.filter((m) => m.foot).length}
                  </SlipRow>
                  <SlipRow label={t('slip.cut')}>
                    {units.length(plan.wires.reduce((sum, one) => sum + (one.stringing?.cutLengthM ?? 0), 0))}
                  </SlipRow>
                  <SlipRow label={t('variants.ties')}>{tiesText(tiesPerYear(frame, kind))}</SlipRow>
                  <SlipRow label={t('variants.leafy')}>{units.area(leafyOutline(frame).areaM2)}</SlipRow>
                  <SlipRow
                    label={t('check.title')}
                    tone={plan.outcome.verdict === 'holds' ? 'sound' : 'limit'}
                  >
                    {outcomeWords(t, plan.outcome)}
                  </SlipRow>
                </dl>
              ) : (
                <p className="text-iron">{t('variants.impossible')}</p>
              )}
            </li>
          )
        })}
      </ul>
    </div>
  )
}
