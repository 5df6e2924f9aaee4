import { cableOf, tensionToday, wireYear } from '@klados/core/loads'
import type { Conditions } from '@klados/core/design'
import type { WireLine, WireLoads } from '@klados/core/loads'
import { loosening } from '@klados/core/cable'
import type { FrameCondition } from '@klados/core/journal'
import { daysBetween } from '@klados/core/season'
import type { Hemisphere } from '@klados/core/season'
import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts'
import { METRES_PER, NEWTONS_PER_LBF } from '@klados/core/units'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { todayHere } from '../../data/dates.ts'
import { SlipRow } from '../../ui/Slip.tsx'
import { useUnits } from '../../ui/units.tsx'
import { monthName } from '../../data/dates.ts'

interface WireYearProps {
  readonly line: WireLine
  readonly loads: WireLoads
  readonly conditions: Conditions
  readonly hemisphere: Hemisphere
  readonly condition: FrameCondition
  readonly todayC: number
}

/**
 * One wire through a year: pull in the coldest night and the warmest day of each month, and how far it sags
 * with its load.
 */
export function WireYear({ line, loads, conditions, hemisphere, condition, todayC }: WireYearProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const aged = ageOf(line, condition)
  const year = wireYear(line, loads, conditions, hemisphere, aged.strain)
  const isMetric = units.system === 'metric'
  const [unitN, unitM] = isMetric ? [1, 0.001] : [NEWTONS_PER_LBF, METRES_PER.in]
  const words = { force: isMetric ? 'N' : 'lbf', sag: isMetric ? 'mm' : 'in' }
  const months = year.map((month) => ({
    name: monthName(month.month),
    cold: month.coldTensionN / unitN,
    warm: month.warmTensionN / unitN,
    sag: month.sagM / unitM,
  }))
  const force = (value: unknown) => units.force(Number(value) * unitN)
  const sag = (value: unknown) => units.length(Number(value) * unitM, 'fine')
  const limit = line.safe.peakN / unitN
  const most = Math.max(limit, ...months.map(({ cold }) => cold))
  return (
    <div className="flex flex-col gap-1 py-1">
      <dl>
        <SlipRow label={t('wire.setToday', { temperature: units.temperature(todayC) })} isDeciding>
          {units.force(tensionToday(line, todayC))}
        </SlipRow>
        {aged.last && (
          <SlipRow
            label={t(`wire.last.${aged.last.what}`, {
              temperature: units.temperature(aged.last.temperatureC),
            })}
          >
            {units.force(aged.last.tensionN)}
          </SlipRow>
        )}
        {aged.forecastN !== null && (
          <SlipRow
            label={t('wire.forecast')}
            tone={aged.forecastN < 0.7 * line.setTensionN ? 'due' : undefined}
          >
            {units.force(aged.forecastN)}
          </SlipRow>
        )}
      </dl>
      <p className="text-[0.78125rem] text-slate" id="pull-by-month">
        {t('wire.pullByMonth', { unit: words.force })}
      </p>
      <ResponsiveContainer width="100%" height={150}>
        <LineChart
          data={months}
          margin={{ top: 6, right: 6, bottom: 0, left: -14 }}
          accessibilityLayer
          title={t('wire.pullByMonth', { unit: words.force })}
        >
          <CartesianGrid stroke="var(--faint)" strokeDasharray="2 3" vertical={false} />
          <XAxis dataKey="name" tick={{ fontSize: 11, fill: 'var(--slate)' }} interval={1} />
          <YAxis tick={{ fontSize: 11, fill: 'var(--slate)' }} domain={[0, Math.ceil(most / 100) * 100]} />
          <Tooltip
            formatter={force}
            contentStyle={{ background: 'var(--paper)', border: '1px solid var(--slate)' }}
          />
          <ReferenceLine
            y={limit}
            stroke="var(--iron)"
            strokeDasharray="6 3"
            label={{ value: t('wire.limit'), fontSize: 11, fill: 'var(--iron)', position: 'insideTopRight' }}
          />
          <Line
            isAnimationActive={false}
            dataKey="cold"
            name={t('wire.coldNight')}
            stroke="var(--ink)"
            strokeWidth={2}
            dot={false}
          />
          <Line
            isAnimationActive={false}
            dataKey="warm"
            name={t('wire.warmDay')}
            stroke="var(--ink)"
            strokeWidth={1.4}
            strokeDasharray="5 3"
            dot={false}
          />
        </LineChart>
      </ResponsiveContainer>
      <p className="text-[0.78125rem] text-slate">{t('wire.sagByMonth', { unit: words.sag })}</p>
      <ResponsiveContainer width="100%" height={90}>
        <LineChart
          data={months}
          margin={{ top: 4, right: 6, bottom: 0, left: -14 }}
          accessibilityLayer
          title={t('wire.sagByMonth', { unit: words.sag })}
        >
          <XAxis dataKey="name" tick={{ fontSize: 11, fill: 'var(--slate)' }} interval={1} />
          <YAxis reversed tick={{ fontSize: 11, fill: 'var(--slate)' }} />
          <Tooltip
            formatter={sag}
            contentStyle={{ background: 'var(--paper)', border: '1px solid var(--slate)' }}
          />
          <Line
            isAnimationActive={false}
            dataKey="sag"
            name={t('slip.sag')}
            stroke="var(--verdigris)"
            strokeWidth={2}
            dot={false}
          />
        </LineChart>
      </ResponsiveContainer>
      <p className="text-[0.78125rem] text-slate">{t('wire.yearAssumes')}</p>
    </div>
  )
}

/**
 * How much the wire has stretched since it was last set, by the readings in the journal; nothing while it was
 * never set.
 */
function ageOf(line: WireLine, condition: FrameCondition) {
  const log = line.ids.flatMap((id) => condition.tensions.get(id) ?? [])
  const sets = log.filter((entry) => entry.what === 'set')
  const set = sets.at(-1)
  if (!set) return { strain: 0, last: log.at(-1) ?? null, forecastN: null }
  const installed = { spansM: line.spansM, horizontalTensionN: set.tensionN, temperatureC: set.temperatureC }
  const readings = log
    .filter((entry) => entry.what === 'found' && entry.on >= set.on)
    .map((entry) => ({
      afterDays: daysBetween(set.on, entry.on),
      tensionN: entry.tensionN,
      temperatureC: entry.temperatureC,
    }))
  const strain = loosening(cableOf(line.wire), installed, line.wire.firstYearStrain, readings).strainAfter(
    daysBetween(set.on, todayHere()),
  )
  const forecastN =
    line.slope > 0
      ? null
      : tensionToday({ ...line, setTensionN: set.tensionN, setC: set.temperatureC }, line.setC, strain)
  return { strain, last: log.at(-1)!, forecastN }
}
