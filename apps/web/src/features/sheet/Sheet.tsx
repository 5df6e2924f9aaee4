import type { FramePlan } from '@klados/core/plan'
import type { FrameBody, FrameDocument, Place } from '@klados/contract'
import { drawSite } from '@klados/core/drawing'
import { useTranslation } from 'react-i18next'
import { Link, Navigate, useParams } from 'react-router'
import { useGardenQuery } from '../../data/api.ts'
import { usePlaces, useFrames } from '../../data/documents.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { formatDate, todayHere } from '../../data/dates.ts'
import { useAppSelector } from '../../data/store.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import { drawLaid } from '../../plan/lay-out.ts'
import { quantityText, useNames } from '../../plan/names.ts'
import { usePlan } from '../../plan/use-plan.ts'
import { checkWords, outcomeWords } from '../../plan/verdict.ts'
import { alongStyle, pieceLetter } from '../../plan/words.ts'
import { Loading } from '../../ui/Message.tsx'
import { formatMoney } from '../../ui/money.ts'
import { useUnits } from '../../ui/units.tsx'

/**
 * The sheet to take to the wall: drawing, mark-out, materials, cut list, stringing order, cautions. Fits A4
 * and Letter.
 */
export function Sheet() {
  const { gardenId, placeId, frameId } = useParams() as { gardenId: string; placeId: string; frameId: string }
  const { t } = useTranslation()
  const places = usePlaces(gardenId)
  const frames = useFrames(gardenId)
  const { data: garden } = useGardenQuery(gardenId)
  const draft = useAppSelector((state) => state.drafts[frameId])
  const place = places?.find((one) => one.id === placeId)
  const stored = frames?.find((one) => one.id === frameId)
  const body = draft?.body ?? stored?.body
  if (!places || !frames || !garden) return <Loading>{t('app.loading')}</Loading>
  if (!place || !body) return <Navigate replace to={`/g/${gardenId}/places`} />
  return (
    <SheetOf
      gardenId={gardenId}
      place={place}
      frameId={frameId}
      stored={stored}
      body={body}
      isDraft={draft !== undefined}
      currency={garden.currency}
    />
  )
}

interface SheetOfProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly stored: FrameDocument | undefined
  readonly body: FrameBody
  readonly isDraft: boolean
  readonly currency: string
}

function SheetOf({ gardenId, place, frameId, stored, body, isDraft, currency }: SheetOfProps) {
  const { t } = useTranslation()
  const plan = usePlan(gardenId, frameId, place.body, body.design)
  return (
    <article className="sheet mx-auto flex w-full max-w-[186mm] flex-col gap-4 bg-paper p-4 print:p-0">
      <p className="no-print flex items-center gap-4">
        <Link to={`/g/${gardenId}/places/${place.id}/frame/${frameId}`}>{t('sheet.back')}</Link>
        <button type="button" className="btn btn-main" onClick={() => window.print()}>
          {t('sheet.print')}
        </button>
        <span className="text-slate">{t('sheet.paper')}</span>
      </p>
      <header className="flex flex-wrap items-baseline gap-x-4">
        <h1>{t('sheet.title', { frame: body.name, place: place.body.name })}</h1>
        <p className="text-slate">
          {t('sheet.madeOn', { date: formatDate(todayHere()), version: stored?.version ?? 0 })}
          {isDraft ? `, ${t('sheet.draft')}` : ''}
          {body.design.repeat > 1 ? `, ${t('sheet.repeat', { count: body.design.repeat })}` : ''}
        </p>
      </header>
      <Drawing gardenId={gardenId} place={place} plan={plan} />
      <Checks gardenId={gardenId} plan={plan} />
      <Cautions plan={plan} />
      <MarkOut place={place} plan={plan} />
      <Materials gardenId={gardenId} plan={plan} currency={currency} />
      <CutList plan={plan} />
      <Order plan={plan} />
    </article>
  )
}

function Drawing({ gardenId, place, plan }: { gardenId: string; place: Place; plan: FramePlan }) {
  const { t } = useTranslation()
  const catalogue = useCatalogue(gardenId)
  const { frame } = plan
  const views = frame?.hasDepth ? (['elevation', 'side', 'plan'] as const) : (['elevation'] as const)
  return (
    <>
      {views.map((view) => (
        <section key={view} className="break-inside-avoid">
          {views.length > 1 && <h2>{t(`frame.views.${view}`)}</h2>}
          <StillElevation
            label={t('sheet.elevation')}
            wall={place.body}
            surface={place.body.surface === 'open' ? 'open' : 'render'}
            from={view}
            list={[
              ...(view === 'elevation' ? drawSite(place.body, place.body.surface) : []),
              ...(frame ? drawLaid(frame, catalogue, view) : []),
            ]}
            tapeAlong
            showNumbers
            maxHeight="66mm"
          />
        </section>
      ))}
    </>
  )
}

function MarkOut({ place, plan }: { place: Place; plan: FramePlan }) {
  const { t } = useTranslation()
  const units = useUnits()
  if (!plan.markOut || plan.markOut.rows.length === 0) return null
  const { rows, diagonalM } = plan.markOut
  const isMoved = rows.some((row) => row.movedM > 5e-4)
  const hasHeights = rows.some((row) => row.what === 'node')
  const hasDepth = rows.some((row) => Math.abs(row.outM) > 1e-3)
  return (
    <section>
      <h2>{t('slip.markOut')}</h2>
      <p>
        {t(hasHeights ? 'slip.markOutFrom' : 'slip.markOutGround', {
          end: t(`place.${place.body.viewingEnd}`),
        })}{' '}
        {diagonalM !== null && `${t('slip.diagonal')} ${units.length(diagonalM, 'short')}.`}
      </p>
      <div
        className={`mt-1 gap-8 text-[13px] ${isMoved || hasDepth ? 'columns-1 sm:columns-2 print:columns-2' : 'columns-2 sm:columns-3 print:columns-3'}`}
      >
        {rows.map((row) => (
          <p
            key={`${row.what} ${row.partId}`}
            className="flex break-inside-avoid gap-2 whitespace-nowrap border-b border-dotted border-faint"
          >
            <span aria-hidden="true">☐</span>
            <span className="min-w-6 font-semibold">{row.label}</span>
            <span className="flex-1 text-right">
              {units.length(row.alongM, alongStyle(row, place.body.widthM))}
            </span>
            {hasHeights && (
              <span className="flex-1 text-right">
                {row.what === 'node' ? units.length(row.heightM, 'short') : ''}
              </span>
            )}
            {hasDepth && <span className="flex-1 text-right">{units.length(row.outM, 'short')}</span>}
            {isMoved && (
              <span className="w-32 text-right text-ochre">
                {row.movedM > 5e-4 &&
                  (row.what === 'node'
                    ? `${t('sheet.ideal')} ${units.length(row.idealAlongM, 'short')}, ${units.length(row.idealHeightM, 'short')}`
                    : t('elevation.moved', { distance: units.length(row.movedM, 'short') }))}
              </span>
            )}
          </p>
        ))}
      </div>
    </section>
  )
}

function Materials({ gardenId, plan, currency }: { gardenId: string; plan: FramePlan; currency: string }) {
  const { t } = useTranslation()
  const catalogue = useCatalogue(gardenId)
  const names = useNames()
  if (!plan.takeOff) return null
  const { items, cost } = plan.takeOff
  return (
    <section className="break-inside-avoid">
      <h2>{t('sheet.materials')}</h2>
      <table className="w-full">
        <thead className="text-left text-[13px] text-slate">
          <tr>
            <th className="font-normal" scope="col">
              {t('sheet.item')}
            </th>
            <th className="text-right font-normal" scope="col">
              {t('sheet.quantity')}
            </th>
            <th className="text-right font-normal" scope="col">
              {t('sheet.price')}
            </th>
          </tr>
        </thead>
        <tbody>
          {items.map((item, i) => (
            <tr key={i} className="border-b border-dotted border-faint">
              <td>{names.item(item, catalogue)}</td>
              <td className="text-right">{quantityText(t, item, catalogue)}</td>
              <td className="text-right">{formatMoney(item.price, currency)}</td>
            </tr>
          ))}
          <tr className="font-bold">
            <td colSpan={2}>{t('sheet.total')}</td>
            <td className="text-right">{formatMoney(cost, currency)}</td>
          </tr>
        </tbody>
      </table>
    </section>
  )
}

/** A hundred rows repeat the same roll; past these the rest is the same again. */
const ROLLS_LISTED = 24

function CutList({ plan }: { plan: FramePlan }) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const strung = plan.wires.filter((one) => one.cutting !== null && one.stringing !== null)
  if (strung.length === 0 && plan.stock.length === 0) return null
  return (
    <section>
      <h2>{t('sheet.cutList')}</h2>
      {strung.map(({ name, wire, cutting, stringing }) => (
        <div key={name} className="break-inside-avoid">
          <p className="text-slate">{names.wire(wire)}</p>
          {cutting!.rolls.slice(0, ROLLS_LISTED).map((roll, n) => (
            <p key={n}>
              <strong>{t('sheet.roll', { n: n + 1, length: units.length(roll.lengthM) })}</strong>:{' '}
              {t('sheet.cuts', {
                pieces: roll.cuts
                  .map((cut) => `${pieceLetter(cut)} ${units.length(stringing!.pieces[cut]!.cutLengthM)}`)
                  .join(', '),
                offcut: units.length(roll.offcutM),
              })}
            </p>
          ))}
        </div>
      ))}
      {plan.stock.map(({ stock, lengthsM }) => (
        <p key={stock.id} className="break-inside-avoid">
          <strong>{names.stock(stock)}</strong>:{' '}
          {grouped(lengthsM)
            .map(([lengthM, count]) => `${count} × ${units.length(lengthM)}`)
            .join(', ')}
        </p>
      ))}
    </section>
  )
}

/** Equal lengths together, longest first: to the millimetre, as a saw cuts. */
function grouped(lengthsM: readonly number[]): [number, number][] {
  const byMm = new Map<number, number>()
  for (const lengthM of lengthsM) {
    const mm = Math.round(lengthM * 1000)
    byMm.set(mm, (byMm.get(mm) ?? 0) + 1)
  }
  return [...byMm].sort(([a], [b]) => b - a).map(([mm, count]) => [mm / 1000, count])
}

function Order({ plan }: { plan: FramePlan }) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const { frame } = plan
  const strung = plan.wires.filter((one) => one.stringing !== null)
  if (strung.length === 0 || !frame) return null
  return (
    <section>
      <h2>{t('sheet.order')}</h2>
      <p>{t('sheet.strainer')}</p>
      {strung.map(({ name, wire, stringing }) => (
        <div key={name}>
          {strung.length > 1 && <h3 className="font-semibold">{names.wire(wire)}</h3>}
          <ol>
            {stringing!.pieces.map((piece, i) => {
              const [from, ...rest] = piece.nodes.map((index) => frame.nodes[index]!.label)
              const to = rest.pop()
              return (
                <li key={i} className="break-inside-avoid border-b border-dotted border-faint py-0.5">
                  <strong>
                    {t('sheet.piece', { letter: pieceLetter(i), length: units.length(piece.cutLengthM) })}
                  </strong>
                  :{' '}
                  {rest.length > 0
                    ? t('sheet.steps', { from, through: rest.join(', '), to })
                    : t('sheet.stepsDirect', { from, to })}
                </li>
              )
            })}
          </ol>
        </div>
      ))}
    </section>
  )
}

/** Step by step what it takes and what can hurt, before anything is begun. */
function Cautions({ plan }: { plan: FramePlan }) {
  const { t } = useTranslation()
  return (
    <section className="break-inside-avoid border-2 border-ink p-2">
      <h2>{t('slip.cautions')}</h2>
      <ul>
        {plan.takeOff?.steps.map((step) => (
          <li key={step.kind}>
            <strong>{t(`step.${step.kind}`)}</strong>:{' '}
            {step.tools
              .map((tool) => t(`tool.${tool}`))
              .concat(step.gear.map((gear) => t(`gear.${gear}`)))
              .join(', ')}
            . {step.cautions.map((caution) => t(`caution.${caution}`)).join(' ')}
          </li>
        ))}
      </ul>
    </section>
  )
}

/**
 * How it stands with what has to hold, before anything is bought; what does not hold or cannot be told in
 * full.
 */
function Checks({ gardenId, plan }: { gardenId: string; plan: FramePlan }) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const catalogue = useCatalogue(gardenId)
  if (plan.checks.length === 0) return null
  return (
    <section className="break-inside-avoid">
      <h2>{t('check.title')}</h2>
      <p className={plan.outcome.verdict === 'holds' ? '' : 'font-semibold'}>
        {outcomeWords(t, plan.outcome)}
      </p>
      <ul>
        {plan.checks.map((check, i) => {
          const words = checkWords({ t, units, names, catalogue }, check)
          return (
            <li key={i}>
              {words.title}: <strong>{words.verdict}</strong>
              {check.verdict !== 'holds' && `. ${words.needs} ${words.remedy ?? ''}`}
            </li>
          )
        })}
      </ul>
      {plan.checks.some((check) => check.isStructural) && <p>{t('check.structural')}</p>}
    </section>
  )
}
