import { isNewer } from '@klados/core/journal'
import type { JournalEntry } from '@klados/core/journal'
import { addDays } from '@klados/core/season'
import { useEffect, useMemo, useState } from 'react'
import { usePlants } from '../../data/documents.ts'
import { selectByPlant } from '../../data/entries.ts'
import { readKind } from '../../data/read-journal.ts'
import { useAppDispatch, useAppSelector } from '../../data/store.ts'

/** A choice among fewer teaches little. */
const ENOUGH = 4

/** The latest choice of this garden among several candidates, the day before it was made. */
export function useExample(gardenId: string, isWanted: boolean) {
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
