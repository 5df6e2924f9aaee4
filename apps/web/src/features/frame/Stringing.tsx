import type { FramePlan } from '@klados/core/plan'
import type { FrameBody } from '@klados/contract'
import type { Frame } from '@klados/core/frame'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { pieceLetter } from '../../plan/words.ts'
import { useUnits } from '../../ui/units.tsx'

/** Where one stands in the stringing: which wire, which piece, and how many of its runs are on. */
export interface Step {
  /** Which of the frame's wires. */
  readonly wire: number
  readonly piece: number
  readonly runs: number
}

interface StringingProps {
  readonly plan: FramePlan
  readonly design: FrameBody['design']
  readonly step: Step | null
  readonly onStep: (step: Step | null) => void
}

/**
 * One step on or back through all pieces of all wires, in the order of stringing; `null` before the first and
 * after the last.
 */
export function stepBy(plan: FramePlan, step: Step | null, by: 1 | -1): Step | null {
  const all = plan.wires.flatMap((one, wire) =>
    (one.stringing?.pieces ?? []).flatMap((piece, p) =>
      piece.runs.map((_, i): Step => ({ wire, piece: p, runs: i + 1 })),
    ),
  )
  if (step === null) return (by === 1 ? all[0] : all.at(-1)) ?? null
  const at = all.findIndex(
    (one) => one.wire === step.wire && one.piece === step.piece && one.runs === step.runs,
  )
  return all[at + by] ?? null
}

/** What to do at a step, in words: from which node, through or to which. */
function stepWords(frame: Frame, plan: FramePlan, step: Step): { from: string; to: string; isLast: boolean } {
  const piece = plan.wires[step.wire]!.stringing!.pieces[step.piece]!
  const label = (index: number) => frame.nodes[piece.nodes[index]!]!.label
  return { from: label(step.runs - 1), to: label(step.runs), isLast: step.runs === piece.runs.length }
}

/**
 * Fewest continuous pieces, each to be followed on the drawing; step through with the buttons or with comma
 * and full stop.
 */
export function Stringing({ plan, design, step, onStep }: StringingProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const { frame } = plan
  if (!frame || plan.wires.every((one) => one.stringing === null)) return null
  const words =
    step && plan.wires[step.wire]?.stringing?.pieces[step.piece] ? stepWords(frame, plan, step) : null
  return (
    <section>
      <h2>{t('slip.stringing')}</h2>
      <div className="my-1 flex flex-wrap items-center gap-2">
        <button type="button" className="btn" onClick={() => onStep(stepBy(plan, step, -1))}>
          {t('string.back')}
        </button>
        <button type="button" className="btn" onClick={() => onStep(stepBy(plan, step, 1))}>
          {t('string.on')}
        </button>
        <p role="status" className="min-w-[min(10rem,100%)] flex-1">
          {words && step
            ? t(step.runs === 1 ? 'string.start' : words.isLast ? 'string.end' : 'string.through', {
                piece: pieceLetter(step.piece),
                ...words,
              })
            : [t('string.hint'), ...(plan.lines.length > 0 ? [t('string.strainersFirst')] : [])].join(' ')}
        </p>
      </div>
      {plan.wires.map(
        ({ name, stringing }, wire) =>
          stringing && (
            <div key={name}>
              <p className="mb-1 text-slate">
                {plan.wires.length > 1 && `${t(`row.wires.${name}`)}: `}
                {t('slip.pieces', { length: units.length(design.handlingLengthM) })}:{' '}
                <strong className="text-ink">
                  {stringing.pieces.length === stringing.leastPieces
                    ? t('slip.piecesLeast', { count: stringing.pieces.length })
                    : t('slip.piecesAtLeast', {
                        count: stringing.pieces.length,
                        least: stringing.leastPieces,
                      })}
                </strong>
                {stringing.endsElsewhere > 0 &&
                  ` ${t('slip.endsElsewhere', { count: stringing.endsElsewhere })}`}
              </p>
              <ol className="max-h-44 overflow-y-auto" tabIndex={0} aria-label={t('slip.stringing')}>
                {stringing.pieces.map((one, i) => {
                  const isOpen = step?.wire === wire && step.piece === i
                  return (
                    <li key={i} className={isOpen ? 'bg-wash' : ''}>
                      <button
                        type="button"
                        className="flex w-full gap-3 py-[3px] text-left"
                        aria-pressed={isOpen}
                        onClick={() => onStep(isOpen ? null : { wire, piece: i, runs: one.runs.length })}
                      >
                        <span className="w-6 font-semibold">{pieceLetter(i)}</span>
                        <span className="flex-1">
                          {frame.nodes[one.nodes[0]!]!.label} … {frame.nodes[one.nodes.at(-1)!]!.label}
                        </span>
                        <span>{units.cut(one.cutLengthM, 'shears')}</span>
                      </button>
                    </li>
                  )
                })}
              </ol>
            </div>
          ),
      )}
    </section>
  )
}
