import { allowedN } from '@klados/core/loads'
import type { CuttingPlan } from '@klados/core/cutting'
import type { FramePlan } from '@klados/core/plan'
import type { Place } from '@klados/contract'
import { lazy, Suspense, useState } from 'react'
import { listPlain } from '../../i18n/language.ts'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useHemisphere } from '../../data/agenda.ts'
import { useNames } from '../../plan/names.ts'
import { useCondition } from '../../plan/use-plan.ts'
import type { BenchPlan } from '../../plan/use-plan.ts'
import { formatMoney } from '../../ui/money.ts'
import { SlipRow, SlipSection } from '../../ui/Slip.tsx'
import { TemperatureField } from '../../ui/TemperatureField.tsx'
import { useUnits } from '../../ui/units.tsx'

/** Charts are a third of the app's weight: fetched when one is looked at. */
const WireYear = lazy(async () => ({ default: (await import('./WireYear.tsx')).WireYear }))

interface WireBoughtProps {
  readonly strung: FramePlan['wires'][number]
  readonly isNamed: boolean
  readonly currency: string
  readonly isSearching: boolean
}

/** One wire of the frame: how long it is, what to buy of it, what is left. */
function WireBought({ strung, isNamed, currency, isSearching }: WireBoughtProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const { wire, choice, stringing, cutting } = strung
  const isPriced = choice.rolls.length > 1
  const bought = choice.rolls.flatMap((roll, size) => {
    const count = cutting?.rolls.filter((cut) => cut.size === size).length ?? 0
    return count > 0 ? [t('slip.rollsOf', { count, length: units.length(roll.lengthM) })] : []
  })
  const howCheap = (of: CuttingPlan) => {
    if (of.isProvenLeast) return t(isPriced ? 'slip.provenCost' : 'slip.proven')
    if (isSearching) return t('slip.searching')
    if (!isPriced) return t('slip.notProven')
    return t('slip.notProvenCost', { saving: formatMoney(of.cost - of.leastCost, currency) })
  }
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
                {t('slip.buy')} <span className="text-slate">({howCheap(cutting)})</span>
              </>
            }
            isDeciding
          >
            {bought.join(' + ')}
          </SlipRow>
        )}
        {cutting && cutting.rolls.length <= 6 && (
          <SlipRow label={t('slip.offcuts')}>
            {listPlain(cutting.rolls.map((roll) => units.length(roll.offcutM)))}
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
      <thead className="text-[0.8125rem] text-slate">
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
            <td className={state.tensionN > allowedN(line, state) ? 'font-semibold text-iron' : ''}>
              {units.force(state.tensionN)}
            </td>
            <td>{units.length(state.sagM, 'fine')}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

interface WiresProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  /** How warm it is when the wires are set, degrees Celsius. */
  readonly setC: number
  readonly plan: BenchPlan
  readonly currency: string
}

/** How much of each wire to buy, and what each line carries and how it hangs over the year. */
export function Wires({ gardenId, place, frameId, setC, plan, currency }: WiresProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const hemisphere = useHemisphere(gardenId)
  const condition = useCondition(frameId)
  const [openLine, setOpenLine] = useState<string | null>(null)
  const [todayC, setTodayC] = useState(setC)
  if (plan.wires.length === 0) return null
  return (
    <SlipSection title={t('slip.wire')}>
      {plan.wires.map((strung) => (
        <WireBought
          isSearching={plan.isSearching}
          key={strung.name}
          strung={strung}
          isNamed={plan.wires.length > 1}
          currency={currency}
        />
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
