import type { LineId } from '@klados/core/frame'
import type { FrameCondition } from '@klados/core/journal'
import type { FramePlan } from '@klados/core/plan'
import { isTieFarOff, strandPullN, tieLines } from '@klados/core/strength'
import type { Pattern } from '@klados/core/frame'
import { useState } from 'react'
import { formatDate } from '../../data/dates.ts'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Pick } from '../../ui/Choice.tsx'
import { ForceField } from '../../ui/ForceField.tsx'
import { Message } from '../../ui/Message.tsx'
import { onePress } from '../../ui/one-press.ts'
import { useUnits } from '../../ui/units.tsx'

interface TiesProps {
  readonly plan: FramePlan
  readonly pattern: Pattern
  readonly condition: FrameCondition
  readonly temperatureC: number
  /** Writes down what a tie was found at; not given where nothing may be written. */
  readonly onFound: ((line: LineId, name: string, tensionN: number) => void) | null
}

/** The ties of a row: pulled taut by hand, and read after straining against what statics gives. */
export function Ties({ plan, pattern, condition, temperatureC, onFound }: TiesProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const { frame, lines } = plan
  const posts: ReadonlyMap<LineId, string> = frame ? tieLines(frame) : new Map()
  const ids = [...posts.keys()]
  const expectedN = frame && strandPullN(frame, pattern, lines, temperatureC)
  const [chosen, setChosen] = useState<LineId | null>(null)
  const [readN, setReadN] = useState<number | null>(null)
  const lineId = ids.find((id) => id === chosen) ?? ids[0]
  if (!frame || expectedN === null || lineId === undefined) return null
  const nameOf = (id: LineId) => t('tension.tieAt', { post: posts.get(id) })
  const found = (condition.tensions.get(lineId) ?? []).filter(({ what }) => what === 'found').at(-1)
  const thenN = found && strandPullN(frame, pattern, lines, found.temperatureC)
  return (
    <section className="mt-4 flex flex-col gap-3">
      <h2>{t('tension.ties')}</h2>
      <p>{t('tension.tiesTaut', { pull: units.force(expectedN) })}</p>
      <Pick
        label={t('tension.tie')}
        value={lineId}
        options={ids.map((id) => ({ value: id, label: nameOf(id) }))}
        onChange={(id) => setChosen(ids.find((one) => one === id) ?? null)}
      />
      {found && (
        <p>
          {t('tension.tieFound', {
            pull: units.force(found.tensionN),
            date: formatDate(found.on),
            temperature: units.temperature(found.temperatureC),
          })}
        </p>
      )}
      {found && thenN && isTieFarOff(found.tensionN, thenN) && (
        <Message tone="limit">
          {t(found.tensionN < thenN ? 'tension.tieSlack' : 'tension.tieTight', { pull: units.force(thenN) })}
        </Message>
      )}
      {onFound && (
        <div className="grid grid-cols-2 items-end gap-2">
          <ForceField
            label={t('tension.tiePull')}
            valueN={readN ?? Math.round(expectedN)}
            onChange={setReadN}
          />
          <button
            type="button"
            className="btn min-h-14 text-[1.0625rem]"
            onClick={onePress(() => onFound(lineId, nameOf(lineId), readN ?? Math.round(expectedN)))}
          >
            {t('tension.tieRecord')}
          </button>
        </div>
      )}
    </section>
  )
}
