import type { FrameBody, Place } from '@klados/contract'
import type { FramePlan } from '@klados/core/materials'
import { useState } from 'react'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { pieceLetter } from '../../plan/words.ts'
import { usePlantWants } from '../../plan/plant-wants.ts'
import { formatMoney } from '../../ui/money.ts'
import { SlipGroup, SlipRow } from '../../ui/Slip.tsx'
import { useUnits } from '../../ui/units.tsx'

interface ConsequencesProps {
  readonly gardenId: string
  readonly place: Place
  readonly design: FrameBody['design']
  readonly plan: FramePlan
  readonly currency: string
  readonly nodeId: string | null
  readonly onNode: (id: string) => void
  readonly piece: number | null
  readonly onPiece: (piece: number | null) => void
}

/** What follows from the design, grouped by the question it answers. */
export function Consequences(props: ConsequencesProps) {
  return (
    <>
      <PatternFigures {...props} />
      <WireFigures {...props} />
      <Stringing {...props} />
      <MarkOutTable {...props} />
      <Cautions plan={props.plan} />
      <HowKnown />
    </>
  )
}

function PatternFigures({ gardenId, place, plan, currency }: ConsequencesProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const wants = usePlantWants(gardenId, place, plan.frame)
  const { frame, takeOff } = plan
  if (!frame) return null
  const count = (state: string) => frame.nodes.filter((node) => node.state === state).length
  const moved = count('moved')
  const dragged = count('dragged')
  return (
    <SlipGroup title={t('slip.pattern')}>
      {frame.cells && (
        <SlipRow label={t('slip.cells')} isDeciding>
          {t(frame.cells.half > 0 ? 'slip.cellsWholeHalf' : 'slip.cellsWhole', { ...frame.cells })}
        </SlipRow>
      )}
      {frame.cells && frame.cells.remainderM > 5e-4 && <SlipRow label={t('slip.remainder')}>{units.length(frame.cells.remainderM, 'short')}</SlipRow>}
      <SlipRow label={t('slip.nodes')} isDeciding={!frame.cells}>{frame.nodes.length}</SlipRow>
      {moved > 0 && <SlipRow label={t('slip.moved')} tone="due">{moved}</SlipRow>}
      {dragged > 0 && <SlipRow label={t('slip.dragged')}>{dragged}</SlipRow>}
      {wants && <SlipRow label={t('slip.plants')}>{t('slip.plantsOf', { have: wants.have, want: wants.want })}</SlipRow>}
      {takeOff && (
        <SlipRow label={t('slip.drill')}>
          {takeOff.drill.plugMm === null ? t('slip.pilotBit', { bit: takeOff.drill.bitMm }) : t('slip.plugBit', { bit: takeOff.drill.bitMm, plug: takeOff.drill.plugMm })}
        </SlipRow>
      )}
      {takeOff && <SlipRow label={t('slip.cost')} isDeciding>{formatMoney(takeOff.cost, currency)}</SlipRow>}
      {takeOff && <SlipRow label={t('slip.hours')}>{((takeOff.minutes.marking + takeOff.minutes.drilling + takeOff.minutes.stringing) / 60).toFixed(1)} h</SlipRow>}
    </SlipGroup>
  ) // prettier-ignore
}

function WireFigures({ design, plan, currency }: ConsequencesProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const { stringing, cutting, spans, workingLoadN } = plan
  const longest = spans[0]
  const share = workingLoadN && longest ? longest.maxTensionN / workingLoadN : null
  const bought = design.rolls.flatMap((roll, size) => {
    const count = cutting?.rolls.filter((cut) => cut.size === size).length ?? 0
    return count > 0 ? [t('slip.rollsOf', { count, length: units.length(roll.lengthM) })] : []
  })
  const isPriced = design.rolls.length > 1
  return (
    <SlipGroup title={t('slip.wire')}>
      {stringing && <SlipRow label={t('slip.net')}>{units.length(stringing.netLengthM)}</SlipRow>}
      {stringing && <SlipRow label={t('slip.cut')} isDeciding>{units.length(stringing.cutLengthM)}</SlipRow>}
      {cutting && (
        <SlipRow label={<>{t('slip.buy')} <span className="text-slate">({cutting.isProvenLeast ? t(isPriced ? 'slip.provenCost' : 'slip.proven') : isPriced ? t('slip.notProvenCost', { saving: formatMoney(cutting.cost - cutting.leastCost, currency) }) : t('slip.notProven')})</span></>} isDeciding>
          {bought.join(' + ')}
        </SlipRow>
      )}
      {cutting && <SlipRow label={t('slip.offcuts')}>{cutting.rolls.map((roll) => units.length(roll.offcutM)).join(', ')}</SlipRow>}
      {spans.length > 0 && <SlipRow label={t('slip.spans')}>{spans.slice(0, 2).map((span) => t('slip.spanOf', { count: span.count, length: units.length(span.lengthM) })).join('; ')}{spans.length > 2 ? ' …' : ''}</SlipRow>}
      {longest && <SlipRow label={t('slip.sag')}>{units.length(longest.sagM, 'fine')}</SlipRow>}
      {share !== null && <SlipRow label={t('slip.load')} tone={share > 1 ? 'limit' : undefined}>{Math.round(share * 100)} %</SlipRow>}
    </SlipGroup>
  ) // prettier-ignore
}

function Stringing({ design, plan, piece, onPiece }: ConsequencesProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const { stringing, frame } = plan
  if (!stringing || !frame) return null
  const { pieces, leastPieces } = stringing
  const number = (index: number) => frame.nodes[index]!.number
  return (
    <section>
      <h2>{t('slip.stringing')}</h2>
      <p className="mb-1 text-slate">
        {t('slip.pieces', { length: units.length(design.handlingLengthM) })}:{' '}
        <strong className="text-ink">{pieces.length === leastPieces ? t('slip.piecesLeast', { count: pieces.length }) : t('slip.piecesAtLeast', { count: pieces.length, least: leastPieces })}</strong>
      </p>
      <ol className="max-h-44 overflow-y-auto" tabIndex={0} aria-label={t('slip.stringing')}>
        {pieces.map((one, i) => (
          <li key={i} className={i === piece ? 'bg-wash' : ''}>
            <button type="button" className="flex w-full gap-3 py-[3px] text-left" aria-pressed={i === piece} onClick={() => onPiece(i === piece ? null : i)}>
              <span className="w-6 font-semibold">{pieceLetter(i)}</span>
              <span className="flex-1">{number(one.nodes[0]!)} … {number(one.nodes.at(-1)!)}</span>
              <span>{units.length(one.cutLengthM)}</span>
            </button>
          </li>
        ))}
      </ol>
    </section>
  ) // prettier-ignore
}

const ROWS_AT_FIRST = 8

function MarkOutTable({ place, plan, nodeId, onNode }: ConsequencesProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const [isWhole, setIsWhole] = useState(false)
  const { markOut } = plan
  if (!markOut) return null
  const rows = isWhole ? markOut.rows : markOut.rows.slice(0, ROWS_AT_FIRST)
  return (
    <section>
      <h2>{t('slip.markOut')}</h2>
      <p className="mb-1 text-slate">{t('slip.markOutFrom', { end: t(`place.${place.body.viewingEnd}`) })}</p>
      <table className="w-full text-right">
        <thead className="text-[13px] text-slate">
          <tr>
            <th className="text-left font-normal" scope="col">{t('slip.node')}</th>
            <th className="font-normal" scope="col">{t('slip.along')}</th>
            <th className="font-normal" scope="col">{t('slip.height')}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.nodeId} className={row.nodeId === nodeId ? 'bg-wash' : ''}>
              <th scope="row" className="text-left font-normal">
                <button type="button" className="min-h-6 min-w-6 text-left underline decoration-faint underline-offset-4" onClick={() => onNode(row.nodeId)}>{row.number}</button>
              </th>
              <td className={row.movedM > 5e-4 ? 'text-ochre' : ''}>{units.length(row.alongM, 'short')}</td>
              <td className={row.movedM > 5e-4 ? 'text-ochre' : ''}>{units.length(row.heightM, 'short')}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {!isWhole && markOut.rows.length > ROWS_AT_FIRST && (
        <button type="button" className="btn btn-plain px-0" onClick={() => setIsWhole(true)}>{t('slip.showAll', { count: markOut.rows.length })}</button>
      )}
      {markOut.diagonalM !== null && (
        <dl><SlipRow label={t('slip.diagonal')}>{units.length(markOut.diagonalM, 'short')}</SlipRow></dl>
      )}
    </section>
  ) // prettier-ignore
}

function Cautions({ plan }: { plan: FramePlan }): ReactNode {
  const { t } = useTranslation()
  if (!plan.takeOff) return null
  return (
    <section>
      <h2>{t('slip.cautions')}</h2>
      <ul className="flex flex-col gap-1 text-slate">
        {plan.takeOff.cautions.map((caution) => (
          <li key={caution}>{t(`caution.${caution}`)}</li>
        ))}
      </ul>
    </section>
  )
}

function HowKnown() {
  const { t } = useTranslation()
  return (
    <details className="text-slate">
      <summary>{t('slip.howKnown')}</summary>
      <ul className="mt-1 flex flex-col gap-1">
        {(['sag', 'pieces', 'rolls', 'rates'] as const).map((key) => (
          <li key={key}>{t(`known.${key}`)}</li>
        ))}
      </ul>
    </details>
  )
}
