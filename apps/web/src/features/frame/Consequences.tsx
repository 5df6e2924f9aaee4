import type { FramePlan } from '@klados/core/plan'
import { isWoundWrongly } from '@klados/core/strength'
import type { FrameBody, Place } from '@klados/contract'
import { lazy, Suspense, useState } from 'react'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { useHemisphere } from '../../data/agenda.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { quantityText, useNames } from '../../plan/names.ts'
import { usePlantWants } from '../../plan/plant-wants.ts'
import { useCondition } from '../../plan/use-plan.ts'
import { formatMoney } from '../../ui/money.ts'
import { SlipGroup, SlipRow, SlipSection } from '../../ui/Slip.tsx'
import { TemperatureField } from '../../ui/TemperatureField.tsx'
import { useUnits } from '../../ui/units.tsx'
import { Checks } from './Checks.tsx'
import { Stringing } from './Stringing.tsx'
import { alongStyle, figureText } from '../../plan/words.ts'
import type { Step } from './Stringing.tsx'

/** Charts are a third of the app's weight: fetched when one is looked at. */
const WireYear = lazy(async () => ({ default: (await import('./WireYear.tsx')).WireYear }))

interface ConsequencesProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly design: FrameBody['design']
  readonly plan: FramePlan
  readonly currency: string
  readonly nodeId: string | null
  readonly onNode: (id: string) => void
  readonly step: Step | null
  readonly onStep: (step: Step | null) => void
}

/** What follows from the design, grouped by the question it answers. */
export function Consequences(props: ConsequencesProps) {
  const catalogue = useCatalogue(props.gardenId)
  return (
    <>
      <PatternFigures {...props} />
      <Checks plan={props.plan} catalogue={catalogue} />
      <Wires {...props} />
      <Stringing plan={props.plan} design={props.design} step={props.step} onStep={props.onStep} />
      <Materials {...props} />
      <MarkOutTable {...props} />
      <Work plan={props.plan} />
      <HowKnown />
    </>
  )
}

function PatternFigures({ gardenId, place, design, plan, currency }: ConsequencesProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const wants = usePlantWants(gardenId, place, plan.frame)
  const { frame, takeOff } = plan
  if (!frame) return null
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
      {isWoundWrongly(design) === true && (
        <SlipRow label={t('slip.winding')} tone="limit">
          {t('slip.windsOther')}
        </SlipRow>
      )}
      {isWoundWrongly(design) === false && (
        <SlipRow label={t('slip.winding')} tone="sound">
          {t('slip.windsSame')}
        </SlipRow>
      )}
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
      {takeOff && (
        <SlipRow label={t('slip.hours')}>
          {t('slip.hoursOf', { hours: (takeOff.minutes / 60).toFixed(1) })}
        </SlipRow>
      )}
    </SlipGroup>
  )
}

interface WireBoughtProps {
  readonly strung: FramePlan['wires'][number]
  readonly isNamed: boolean
  readonly currency: string
}

/** One wire of the frame: how long it is, what to buy of it, what is left. */
function WireBought({ strung, isNamed, currency }: WireBoughtProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const { wire, choice, stringing, cutting } = strung
  const isPriced = choice.rolls.length > 1
  const bought = choice.rolls.flatMap((roll, size) => {
    const count = cutting?.rolls.filter((cut) => cut.size === size).length ?? 0
    return count > 0 ? [t('slip.rollsOf', { count, length: units.length(roll.lengthM) })] : []
  })
  return (
    <div className="mb-2">
      {isNamed && <h3 className="font-semibold">{names.wire(wire)}</h3>}
      <dl>
        {stringing && <SlipRow label={t('slip.net')}>{units.length(stringing.netLengthM)}</SlipRow>}
        {stringing && (
          <SlipRow label={t('slip.cut')} isDeciding>
            {units.length(stringing.cutLengthM)}
          </SlipRow>
        )}
        {cutting && (
          <SlipRow
            label={
              <>
                {t('slip.buy')}{' '}
                <span className="text-slate">
                  (
                  {cutting.isProvenLeast
                    ? t(isPriced ? 'slip.provenCost' : 'slip.proven')
                    : isPriced
                      ? t('slip.notProvenCost', {
                          saving: formatMoney(cutting.cost - cutting.leastCost, currency),
                        })
                      : t('slip.notProven')}
                  )
                </span>
              </>
            }
            isDeciding
          >
            {bought.join(' + ')}
          </SlipRow>
        )}
        {cutting && cutting.rolls.length <= 6 && (
          <SlipRow label={t('slip.offcuts')}>
            {cutting.rolls.map((roll) => units.length(roll.offcutM)).join(', ')}
          </SlipRow>
        )}
      </dl>
    </div>
  )
}

/** What a wire carries and how it hangs, in each kind of weather. */
function LineStates({ line }: { line: FramePlan['lines'][number] }) {
  const { t } = useTranslation()
  const units = useUnits()
  return (
    <table className="my-1 w-full text-right">
      <thead className="text-[13px] text-slate">
        <tr>
          <th scope="col" className="text-left font-normal">
            {t('wire.when')}
          </th>
          <th scope="col" className="font-normal">
            {t('wire.pull')}
          </th>
          <th scope="col" className="font-normal">
            {t('wire.sag')}
          </th>
        </tr>
      </thead>
      <tbody>
        {line.states.map((state) => (
          <tr key={state.scenario}>
            <th scope="row" className="text-left font-normal">
              {t(`wire.scenario.${state.scenario}`, {
                temperature: units.temperature(state.temperatureC),
              })}
            </th>
            <td className={state.tensionN > line.workingLoadN ? 'font-semibold text-iron' : ''}>
              {units.force(state.tensionN)}
            </td>
            <td>{units.length(state.sagM, 'fine')}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function Wires({ gardenId, place, frameId, design, plan, currency }: ConsequencesProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const hemisphere = useHemisphere(gardenId)
  const condition = useCondition(frameId)
  const [openLine, setOpenLine] = useState<string | null>(null)
  const [todayC, setTodayC] = useState(design.setC)
  if (plan.wires.length === 0) return null
  return (
    <SlipSection title={t('slip.wire')}>
      {plan.wires.map((strung) => (
        <WireBought key={strung.name} strung={strung} isNamed={plan.wires.length > 1} currency={currency} />
      ))}
      {plan.lines.length > 0 && <h3 className="mt-1 font-semibold">{t('wire.through')}</h3>}
      {plan.lines.slice(0, 8).map((line) => (
        <details
          key={line.id}
          className="border-b border-dotted border-faint py-[3px]"
          open={openLine === line.id}
          onToggle={(event) => {
            // Read now: by the time the state is changed the event is spent.
            const { open } = event.currentTarget
            setOpenLine((old) => (open ? line.id : old === line.id ? null : old))
          }}
        >
          <summary className="flex items-baseline gap-3">
            <span className="flex-1">
              {t('wire.lines', {
                count: line.ids.length,
                length: units.length(line.lengthM),
                spans: line.spansM.length,
              })}
            </span>
            <span>{t('wire.sags', { sag: units.length(line.greatestSag.sagM, 'fine') })}</span>
          </summary>
          {openLine === line.id && (
            <>
              <LineStates line={line} />
              <TemperatureField label={t('wire.todayC')} valueC={todayC} onChange={setTodayC} />
              <Suspense fallback={<p className="text-slate">{t('app.loading')}</p>}>
                <WireYear
                  line={line}
                  loads={plan.loads}
                  conditions={place.body.conditions}
                  hemisphere={hemisphere}
                  condition={condition}
                  todayC={todayC}
                />
              </Suspense>
            </>
          )}
        </details>
      ))}
    </SlipSection>
  )
}

function Materials({ gardenId, plan, currency }: ConsequencesProps) {
  const { t } = useTranslation()
  const catalogue = useCatalogue(gardenId)
  const units = useUnits()
  const names = useNames()
  if (!plan.takeOff || plan.takeOff.items.length === 0) return null
  return (
    <details>
      <summary className="font-display text-[15px] font-semibold">{t('sheet.materials')}</summary>
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

const ROWS_AT_FIRST = 8

function MarkOutTable({ place, plan, nodeId, onNode }: ConsequencesProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const [isWhole, setIsWhole] = useState(false)
  const { markOut } = plan
  if (!markOut || markOut.rows.length === 0) return null
  const rows = isWhole ? markOut.rows : markOut.rows.slice(0, ROWS_AT_FIRST)
  const hasHeights = markOut.rows.some((row) => row.what === 'node')
  const hasDepth = markOut.rows.some((row) => Math.abs(row.outM) > 1e-3)
  return (
    <section>
      <h2>{t('slip.markOut')}</h2>
      <p className="mb-1 text-slate">
        {t(hasHeights ? 'slip.markOutFrom' : 'slip.markOutGround', {
          end: t(`place.${place.body.viewingEnd}`),
        })}
      </p>
      <table className="w-full text-right">
        <thead className="text-[13px] text-slate">
          <tr>
            <th className="text-left font-normal" scope="col">
              {t(hasHeights ? 'slip.node' : 'slip.mark')}
            </th>
            <th className="font-normal" scope="col">
              {t('slip.along')}
            </th>
            {hasHeights && (
              <th className="font-normal" scope="col">
                {t('slip.height')}
              </th>
            )}
            {hasDepth && (
              <th className="font-normal" scope="col">
                {t('slip.back')}
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={`${row.what} ${row.partId}`} className={row.partId === nodeId ? 'bg-wash' : ''}>
              <th scope="row" className="text-left font-normal">
                <button
                  type="button"
                  className="min-h-6 min-w-6 text-left underline decoration-faint underline-offset-4"
                  onClick={() => onNode(row.partId)}
                >
                  {row.label}
                </button>
              </th>
              <td className={row.movedM > 5e-4 ? 'text-ochre' : ''}>
                {units.length(row.alongM, alongStyle(row, place.body.widthM))}
              </td>
              {hasHeights && (
                <td className={row.movedM > 5e-4 ? 'text-ochre' : ''}>
                  {row.what === 'node' ? units.length(row.heightM, 'short') : ''}
                </td>
              )}
              {hasDepth && <td>{units.length(row.outM, 'short')}</td>}
            </tr>
          ))}
        </tbody>
      </table>
      {!isWhole && markOut.rows.length > ROWS_AT_FIRST && (
        <button type="button" className="btn btn-plain px-0" onClick={() => setIsWhole(true)}>
          {t('slip.showAll', { count: markOut.rows.length })}
        </button>
      )}
      {markOut.diagonalM !== null && (
        <dl>
          <SlipRow label={t('slip.diagonal')}>{units.length(markOut.diagonalM, 'short')}</SlipRow>
        </dl>
      )}
    </section>
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
                ? t('slip.hoursOf', { hours: (step.minutes / 60).toFixed(1) })
                : t('slip.minutes', { minutes: Math.round(step.minutes) })}
              .{' '}
              {step.tools
                .map((tool) => t(`tool.${tool}`))
                .concat(step.gear.map((gear) => t(`gear.${gear}`)))
                .join(', ')}
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
