import { isNewer } from '@klados/core/journal'
import type { JournalEntry } from '@klados/core/journal'
import { addDays } from '@klados/core/season'
import { useEffect, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { formatDate } from '../../data/dates.ts'
import { usePlants } from '../../data/documents.ts'
import { selectByPlant } from '../../data/entries.ts'
import { readKind } from '../../data/read-journal.ts'
import { useAppDispatch, useAppSelector } from '../../data/store.ts'
import type { Recorder } from '../../data/use-recorder.ts'
import type { Choosing } from './choose/use-choosing.ts'
import type { Reading } from './use-reading-keys.ts'

const KEY = 'klados.lesson'
const LEFT = 'left'
const steps = ['choose', 'open', 'otherwise', 'plan', 'undo'] as const
/** A choice among fewer teaches little. */
const ENOUGH = 4

interface LessonProps {
  readonly gardenId: string
  readonly reading: Reading
  readonly isAsked: boolean
  readonly choosing: Choosing | null
  readonly recorder: Recorder
}

/** Five presses that show how one chooses here, on whatever plant has a question; once left it does not come again. */
export function Lesson(props: LessonProps) {
  const [hasLeft, setHasLeft] = useState(() => localStorage.getItem(KEY) === LEFT)
  if (hasLeft) return null
  const leave = () => {
    localStorage.setItem(KEY, LEFT)
    setHasLeft(true)
  }
  return <Steps {...props} onLeave={leave} />
}

function Steps({
  gardenId,
  reading,
  isAsked,
  choosing,
  recorder,
  onLeave,
}: LessonProps & { onLeave: () => void }) {
  const { t } = useTranslation()
  const [step, setStep] = useState(0)
  const isDone = {
    choose: reading === 'choose' && choosing !== null,
    open: choosing !== null && choosing.focused !== null,
    otherwise: choosing !== null && choosing.overrides.size > 0,
    plan: reading === 'do' && recorder.last !== null,
    undo: recorder.news?.kind === 'undone',
  }
  const current = steps[step]
  if (current && isDone[current]) setStep(step + 1)
  const example = useExample(gardenId, !isAsked && step === 0)
  // With no question here and no choice anywhere there is nothing to learn on yet.
  if (!isAsked && step === 0 && !example) return null
  return (
    <div
      className="no-print flex flex-wrap items-center gap-x-3 gap-y-1 border-l-2 border-verdigris pl-3"
      role="status"
    >
      <span>
        <span className="text-slate">
          {current ? t('lesson.step', { n: step + 1, of: steps.length }) : t('lesson.title')}
        </span>{' '}
        {!current ? (
          t('lesson.end')
        ) : isAsked || step > 0 ? (
          t(`lesson.${current}`)
        ) : (
          <Link to={example!.to}>
            {t('lesson.example', { name: example!.name, date: formatDate(example!.on) })}
          </Link>
        )}
      </span>
      <button type="button" className="btn btn-plain" onClick={onLeave}>
        {t(current ? 'lesson.leave' : 'lesson.close')}
      </button>
    </div>
  )
}

/** The latest choice of this garden among several candidates, the day before it was made. */
function useExample(gardenId: string, isWanted: boolean) {
  const byPlant = useAppSelector(selectByPlant)
  const plants = usePlants(gardenId)
  const here = useMemo(
    () => (isWanted ? latestChoice([...byPlant.values()].flat()) : null),
    [byPlant, isWanted],
  )
  const there = useChoicesThere(isWanted && here === null)
  return useMemo(() => {
    const made = here ?? latestChoice(there)
    const plant = plants?.find(({ id }) => id === made?.plantId)
    if (!isWanted || !made || !plant || plant.isRemoved) return null
    const on = addDays(made.at, -1)
    return {
      name: plant.body.name,
      on,
      to: `/g/${gardenId}/places/${plant.body.placeId}/wood?on=${on}&plant=${plant.id}`,
    }
  }, [here, there, plants, gardenId, isWanted])
}

function latestChoice(entries: readonly JournalEntry[]): JournalEntry | null {
  let made: JournalEntry | null = null
  for (const entry of entries)
    if (
      entry.kind === 'choice.made' &&
      !isNewer(entry) &&
      (!made || entry.at > made.at) &&
      entry.body.as === 'done' &&
      entry.body.decided.length >= ENOUGH
    )
      made = entry
  return made
}

const NONE: readonly JournalEntry[] = []

/** Choices as the server has them, where a window holds only what came of them. */
function useChoicesThere(isAsked: boolean): readonly JournalEntry[] {
  const dispatch = useAppDispatch()
  const isLean = useAppSelector(({ journal }) => journal.status === 'ready' && journal.partsAtHand !== 'all')
  const [found, setFound] = useState(NONE)
  useEffect(() => {
    if (!isAsked || !isLean) return
    let isOver = false
    void dispatch(readKind('choice.made')).then((entries) => !isOver && setFound(entries))
    return () => {
      isOver = true
    }
  }, [dispatch, isAsked, isLean])
  return found
}
