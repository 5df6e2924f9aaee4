import { formatNumber } from '../../i18n/language.ts'
import type { TakeOff } from '@klados/core/bill'
import type { FramePlan } from '@klados/core/plan'
import type { FrameBody, FrameStage, Place } from '@klados/contract'
import type { TFunction } from '../../i18n/texts.ts'
import { memo } from 'react'
import type { ReactNode } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useCatalogue } from '../../data/catalogue.ts'
import { quantityText, useNames } from '../../plan/names.ts'
import { usePlantWants } from '../../plan/plant-wants.ts'
import { formatMoney } from '../../ui/money.ts'
import { SlipGroup, SlipRow } from '../../ui/Slip.tsx'
import { useUnits } from '../../ui/units.tsx'
import type { Units } from '../../ui/units.tsx'
import { Checks } from './Checks.tsx'
import { MarkOutTable } from './MarkOutTable.tsx'
import { Stringing } from './Stringing.tsx'
import type { BenchPlan } from '../../plan/use-plan.ts'
import { figureText, kitWords } from '../../plan/words.ts'
import type { Step } from './Stringing.tsx'
import { Wires } from './Wires.tsx'

interface ConsequencesProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly design: FrameBody['design']
  readonly plan: BenchPlan
  readonly currency: string
  readonly stage: FrameStage
  readonly nodeId: string | null
  readonly onNode: (id: string) => void
  readonly step: Step | null
  readonly onStep: (step: Step | null) => void
  /** Takes a remedy; `null` where nothing may be changed. */
  readonly onTake: ((design: FrameBody['design']) => void) | null
}

/** What follows from the design, grouped by the question it answers. */
export const Consequences = memo(function Consequences(props: ConsequencesProps) {
  const catalogue = useCatalogue(props.gardenId)
  return (
    <>
      <PatternFigures {...props} />
      <Checks {...props} catalogue={catalogue} />
      <Wires {...props} setC={props.design.setC} />
      <Stringing plan={props.plan} design={props.design} step={props.step} onStep={props.onStep} />
      {/* What stands is not bought and built again. */}
      {props.stage !== 'stands' && <Materials {...props} />}
      <MarkOutTable {...props} />
      {props.stage !== 'stands' && <Work plan={props.plan} />}
      <HowKnown />
    </>
  )
})

function PatternFigures({ gardenId, place, design, plan, stage, currency }: ConsequencesProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const wants = usePlantWants(gardenId, place, plan.frame)
  const { frame } = plan
  if (!frame) return null
  const takeOff = stage === 'stands' ? null : plan.takeOff
  const fixings = frame.nodes.filter((node) => node.number > 0)
  const count = (state: string) => fixings.filter((node) => node.state === state).length
  const moved = count('moved') + frame.shifts.length
  const dragged = count('dragged')
  const posts = frame.members.filter((member) => member.foot !== null && member.label !== null).length
  return (
    <SlipGroup title={t('slip.pattern')}>
      {frame.cells && (
        <SlipRow label={t('slip.cells')} isDeciding>
          {t(frame.cells.half > 0 ? 'slip.cellsWholeHalf' : 'slip.cellsWhole', { ...frame.cells })}
        </SlipRow>
      )}
      {frame.cells && frame.cells.remainderM > 5e-4 && (
        <SlipRow label={t('slip.remainder')}>{units.length(frame.cells.remainderM, 'short')}</SlipRow>
      )}
      {fixings.length > 0 && (
        <SlipRow label={t('slip.nodes')} isDeciding={!frame.cells}>
          {fixings.length}
        </SlipRow>
      )}
      {posts > 0 && (
        <SlipRow label={t('slip.posts')} isDeciding={fixings.length === 0}>
          {posts}
        </SlipRow>
      )}
      {frame.anchors.length > 0 && <SlipRow label={t('slip.anchors')}>{frame.anchors.length}</SlipRow>}
      {plan.end && (
        <>
          <SlipRow label={t('slip.endPull')} isDeciding>
            {t('slip.endPullAt', {
              pull: units.force(plan.end.totalN),
              height: units.length(plan.end.atM, 'short'),
            })}
          </SlipRow>
          {plan.end.heldN !== null && (
            <SlipRow label={t('slip.endHeld')}>{units.force(plan.end.heldN)}</SlipRow>
          )}
          {plan.end.ties && (
            <SlipRow label={t('slip.tieStrained')}>
              {t('slip.tieStrandsEach', {
                count: plan.end.ties.strands,
                pull: units.force(plan.end.ties.setN),
              })}
            </SlipRow>
          )}
          {Math.abs(plan.end.downN) > 1 && (
            <SlipRow label={t(plan.end.downN > 0 ? 'slip.endDown' : 'slip.endUp')}>
              {units.force(Math.abs(plan.end.downN))}
            </SlipRow>
          )}
          <SlipRow label={t('slip.endDepth')}>{endDepthText(units, plan.end.depthM)}</SlipRow>
        </>
      )}
      {frame.figures.map((one) => (
        <SlipRow key={one.key} label={t(`figure.${one.key}`)}>
          {figureText(units, one)}
        </SlipRow>
      ))}
      {moved > 0 && (
        <SlipRow label={t('slip.moved')} tone="due">
          {moved}
        </SlipRow>
      )}
      {dragged > 0 && <SlipRow label={t('slip.dragged')}>{dragged}</SlipRow>}
      {wants && (
        <SlipRow label={t('slip.plants')}>
          {t('slip.plantsOf', { have: wants.have, want: wants.want })}
        </SlipRow>
      )}
      {takeOff?.drill && (
        <SlipRow label={t('slip.drill')}>
          {takeOff.drill.plugMm === null
            ? t('slip.pilotBit', { bit: takeOff.drill.bitMm })
            : t('slip.plugBit', { bit: takeOff.drill.bitMm, plug: takeOff.drill.plugMm })}
        </SlipRow>
      )}
      {takeOff && (
        <SlipRow
          label={design.repeat > 1 ? t('slip.costOf', { count: design.repeat }) : t('slip.cost')}
          isDeciding
        >
          {formatMoney(takeOff.cost, currency)}
        </SlipRow>
      )}
      {takeOff && design.boughtPrice !== null && (
        <SlipRow label={t('slip.against', { price: formatMoney(design.boughtPrice, currency) })}>
          {againstBought(t, withoutPot(takeOff) / plan.repeat, design.boughtPrice, plan.repeat, currency)}
        </SlipRow>
      )}
      {takeOff && (
        <SlipRow label={t('slip.hours')}>
          {t('slip.hoursOf', { hours: formatNumber(takeOff.minutes / 60, 1) })}
        </SlipRow>
      )}
    </SlipGroup>
  )
}

/** From the better to the worse end of the soil; one figure where they are the same mark of the tape. */
function endDepthText(units: Units, [low, high]: readonly [number, number]): string {
  const [from, to] = [units.length(low, 'short'), units.length(high, 'short')]
  return from === to ? to : `${from} – ${to}`
}

/** What a pot and its soil cost one has to buy for a bought one too. */
const OF_POTS: ReadonlySet<string> = new Set(['pot', 'tub', 'soil', 'charcoal', 'gravel'])
const withoutPot = ({ cost, items }: TakeOff): number =>
  items.reduce(
    (left, item) => (item.what === 'good' && OF_POTS.has(item.goodId) ? left - item.price : left),
    cost,
  )

/** What one costs made at home, and what all of them save or cost more than bought ones. */
function againstBought(
  t: TFunction,
  eachCost: number,
  bought: number,
  count: number,
  currency: string,
): string {
  const saved = (bought - eachCost) * count
  return t(saved >= 0 ? 'slip.saves' : 'slip.costsMore', {
    each: formatMoney(eachCost, currency),
    sum: formatMoney(Math.abs(saved), currency),
  })
}

function Materials({ gardenId, plan, currency }: ConsequencesProps) {
  const { t } = useTranslation()
  const catalogue = useCatalogue(gardenId)
  const units = useUnits()
  const names = useNames()
  if (!plan.takeOff || plan.takeOff.items.length === 0) return null
  return (
    <details>
      <summary className="font-display text-[0.9375rem] font-semibold">{t('sheet.materials')}</summary>
      <dl>
        {plan.takeOff.items.map((item, i) => (
          <SlipRow key={i} label={names.item(item, catalogue)}>
            {quantityText(units, item, catalogue)}{' '}
            <span className="text-slate">{formatMoney(item.price, currency)}</span>
          </SlipRow>
        ))}
      </dl>
    </details>
  )
}

/** The steps of the work with their time, tools, gear, and what can hurt in each. */
function Work({ plan }: { plan: FramePlan }): ReactNode {
  const { t } = useTranslation()
  if (!plan.takeOff) return null
  return (
    <section>
      <h2>{t('slip.cautions')}</h2>
      <ol className="flex flex-col gap-1.5">
        {plan.takeOff.steps.map((step) => (
          <li key={step.kind}>
            <p>
              <span className="font-semibold">{t(`step.${step.kind}`)}</span>,{' '}
              {step.minutes > 180
                ? t('slip.hoursOf', { hours: formatNumber(step.minutes / 60, 1) })
                : t('slip.minutes', { minutes: Math.round(step.minutes) })}
              . {kitWords(t, step)}
            </p>
            {step.cautions.map((caution) => (
              <p key={caution} className="text-slate">
                {t(`caution.${caution}`)}
              </p>
            ))}
          </li>
        ))}
      </ol>
    </section>
  )
}

function HowKnown() {
  const { t } = useTranslation()
  return (
    <details className="text-slate">
      <summary>{t('slip.howKnown')}</summary>
      <ul className="mt-1 flex flex-col gap-1">
        {(['sag', 'pieces', 'rolls', 'rates', 'weights'] as const).map((key) => (
          <li key={key}>{t(`known.${key}`)}</li>
        ))}
      </ul>
    </details>
  )
}
