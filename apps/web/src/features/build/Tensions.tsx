import { useTranslation } from '../../i18n/use-translation.tsx'
import type { CsvReading } from '../../documents/readings-csv.ts'
import type { LineId, Pattern } from '@klados/core/frame'
import { weatherAt } from '@klados/core/design'
import { stateUnder, strainDue, tensionToday } from '@klados/core/loads'
import type { StrainReason } from '@klados/core/loads'
import type { Due } from '@klados/core/season'
import type { TFunction } from '../../i18n/texts.ts'
import type { FramePlan } from '@klados/core/plan'
import type { WireLine } from '@klados/core/loads'
import type { Place } from '@klados/contract'
import { simulatedReading } from '@klados/core/cable'
import type { FrameCondition } from '@klados/core/journal'
import { useState } from 'react'
import { formatDate, todayHere } from '../../data/dates.ts'
import type { NewEntry } from '../../data/record.ts'
import type { Recorder } from '../../data/use-recorder.ts'
import { onePress } from '../../ui/one-press.ts'
import { Pick } from '../../ui/Choice.tsx'
import { ForceField } from '../../ui/ForceField.tsx'
import { readSmall } from '../../ui/read-small.ts'
import { Message } from '../../ui/Message.tsx'
import { linesInWords } from '../../plan/line-words.ts'
import { TemperatureField } from '../../ui/TemperatureField.tsx'
import { useUnits } from '../../ui/units.tsx'
import { Ties } from './Ties.tsx'

interface TensionsProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly plan: FramePlan
  readonly pattern: Pattern
  readonly condition: FrameCondition
  readonly canWrite: boolean
  readonly recorder: Recorder
}

/**
 * The pull of each wire: what to set it to today, what it was set to and found at, readings from a meter or a
 * file.
 */
export function Tensions({ place, frameId, plan, pattern, condition, canWrite, recorder }: TensionsProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const ids = plan.lines.flatMap((line) => line.ids)
  const names = plan.frame ? linesInWords(t, plan.frame) : new Map<LineId, string>()
  const nameOf = (id: LineId) => names.get(id) ?? id
  const [lineId, setLineId] = useState(ids[0]!)
  const line = plan.lines.find((one) => one.ids.includes(lineId)) ?? plan.lines[0]!
  const [temperatureC, setTemperatureC] = useState(line.setC)
  const [tensionN, setTensionN] = useState(Math.round(line.setTensionN))
  const log = condition.tensions.get(lineId) ?? []
  const due = strainDue(line, log, { loads: plan.loads, hottestC: weatherAt(place.body).hottestC })
  const entry = (
    kind: 'wire.tensioned' | 'wire.measured',
    of: { line: LineId; tensionN: number; temperatureC: number; on: string },
  ): NewEntry =>
    ({
      kind,
      placeId: place.id,
      plantId: null,
      at: of.on,
      body: { v: 1, frameId, line: of.line, tensionN: of.tensionN, temperatureC: of.temperatureC },
    }) as NewEntry
  const write = (kind: 'wire.tensioned' | 'wire.measured', pull: number) =>
    recorder.write(
      t(`tension.${kind === 'wire.tensioned' ? 'didSet' : 'didFind'}`, {
        wire: nameOf(lineId),
        pull: units.force(pull),
      }),
      [entry(kind, { line: lineId, tensionN: pull, temperatureC, on: todayHere() })],
    )
  const readMeter = () =>
    setTensionN(simulatedReading(pullNow(line, log.at(-1), temperatureC), meterChance(lineId, log.length)))
  return (
    <section className="flex flex-col gap-3">
      <Message tone="plain">{t('caution.eye-protection')}</Message>
      <div className="grid grid-cols-2 items-end gap-2">
        <Pick
          label={t('tension.wire')}
          value={lineId}
          options={ids.map((id) => ({ value: id, label: nameOf(id) }))}
          onChange={(id) => setLineId(ids.find((one) => one === id)!)}
        />
        <TemperatureField label={t('wire.todayC')} valueC={temperatureC} onChange={setTemperatureC} />
      </div>
      <p className="text-[1.375rem] font-bold">
        {t('tension.setTo', { pull: units.force(tensionToday(line, temperatureC)) })}
      </p>
      {due && <p>{dueWords(t, due)}</p>}
      {canWrite && (
        <div className="slip flex flex-col gap-3">
          <ForceField label={t('tension.pull')} valueN={tensionN} onChange={setTensionN} />
          <div className="grid grid-cols-2 gap-2">
            <button
              type="button"
              className="btn btn-main min-h-14 text-[1.0625rem]"
              onClick={onePress(() => write('wire.tensioned', tensionN))}
            >
              {t('tension.set')}
            </button>
            <button
              type="button"
              className="btn min-h-14 text-[1.0625rem]"
              onClick={onePress(() => write('wire.measured', tensionN))}
            >
              {t('tension.found')}
            </button>
          </div>
          <button type="button" className="btn min-h-12" onClick={readMeter}>
            {t('tension.meter')}
          </button>
          <p className="text-slate">{t('tension.meterHint')}</p>
        </div>
      )}
      <Ties
        plan={plan}
        pattern={pattern}
        condition={condition}
        temperatureC={temperatureC}
        onFound={
          canWrite
            ? (line, name, pull) =>
                recorder.write(t('tension.didFind', { wire: name, pull: units.force(pull) }), [
                  entry('wire.measured', { line, tensionN: pull, temperatureC, on: todayHere() }),
                ])
            : null
        }
      />
      {recorder.last && (
        <button type="button" className="btn min-h-12 self-start" onClick={recorder.undo}>
          {t('wood.undo', { what: recorder.last.what })}
        </button>
      )}
      <h2>{t('tension.log')}</h2>
      {log.length === 0 ? (
        <p className="text-slate">{t('tension.none')}</p>
      ) : (
        <ol>
          {log.map((one, i) => (
            <li key={i} className="flex gap-3 border-b border-dotted border-faint py-1">
              <span className="flex-1">
                {formatDate(one.on)},{' '}
                {t(`wire.last.${one.what}`, { temperature: units.temperature(one.temperatureC) })}
              </span>
              <strong>{units.force(one.tensionN)}</strong>
            </li>
          ))}
        </ol>
      )}
      {canWrite && (
        <ImportReadings
          lines={
            new Map(
              ids.flatMap((id) => [
                [String(id).toLowerCase(), id],
                [nameOf(id).toLowerCase(), id],
              ]),
            )
          }
          onReadings={(readings) =>
            recorder.write(
              t('tension.imported', { count: readings.length }),
              readings.map((reading) => entry('wire.measured', reading)),
            )
          }
        />
      )}
    </section>
  )
}

/** When it wants straining again, and how that is known. */
function dueWords(t: TFunction, { dueOn, reason, range }: Due<StrainReason>): string {
  if (reason === 'yearly' || !range) return t('tension.again.yearly', { date: formatDate(dueOn) })
  const from = formatDate(range.earliestOn)
  if (range.latestOn === null) return t('tension.again.from', { from })
  return range.latestOn === range.earliestOn
    ? t('tension.again.on', { date: from })
    : t('tension.again.between', { from, to: formatDate(range.latestOn) })
}

/**
 * What pulls on the wire as the journal has it last, at another temperature; the design's pull where nothing
 * is written.
 */
function pullNow(
  line: WireLine,
  last: { tensionN: number; temperatureC: number } | undefined,
  temperatureC: number,
): number {
  if (!last) return tensionToday(line, temperatureC)
  return stateUnder(
    { ...line, setTensionN: last.tensionN, setC: last.temperatureC },
    { temperatureC, verticalNPerM: 0, windNPerM: 0 },
  ).tensionN
}

/** The stand-in meter errs the same way each time it is clipped on in the same place, as real ones do. */
function meterChance(lineId: string, count: number): number {
  let hash = 7 + count
  for (const c of lineId) hash = (hash * 31 + c.charCodeAt(0)) % 997
  return hash / 997
}

interface ImportReadingsProps {
  readonly lines: ReadonlyMap<string, LineId>
  readonly onReadings: (readings: readonly CsvReading[]) => void
}

function ImportReadings({ lines, onReadings }: ImportReadingsProps) {
  const { t } = useTranslation()
  const [news, setNews] = useState<string[]>([])
  const take = async (file: File | undefined) => {
    if (!file) return
    const text = await readSmall(file)
    if (text === null) return setNews([t('app.tooLarge')])
    const { readReadings } = await import('../../documents/readings-csv.ts')
    const { readings, problems } = readReadings(text, lines, todayHere())
    if (readings.length > 0) onReadings(readings)
    setNews([
      t('tension.imported', { count: readings.length }),
      ...problems.slice(0, 5).map(({ row, what }) => t(`tension.problem.${what}`, { row })),
    ])
  }
  return (
    <div className="flex flex-col gap-2">
      <label className="btn min-h-12 cursor-pointer self-start">
        {t('tension.import')}
        <input
          type="file"
          className="sr-only"
          accept=".csv,text/csv"
          onChange={(event) => void take(event.target.files?.[0])}
        />
      </label>
      <p className="text-slate">{t('tension.importHint')}</p>
      {news.length > 0 && (
        <Message tone="plain">
          {news.map((line) => (
            <p key={line}>{line}</p>
          ))}
        </Message>
      )}
    </div>
  )
}
