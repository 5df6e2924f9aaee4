import { useEffect } from 'react'
import { isAmong } from './journal.ts'
import { canAsk } from './connection.ts'
import { bringPlace } from './read-journal.ts'
import { useAppDispatch, useAppSelector } from './store.ts'

/** `away` where it lies on the server alone, which does not answer: then what stands is all that there is to see. */
export type History = 'coming' | 'here' | 'away'

/**
 * Has all that was ever written at a place brought to this window; tells whether it is here. Of a large garden only
 * what stands is held without being asked.
 */
export function useHistory(placeId: string): History {
  const dispatch = useAppDispatch()
  const isReady = useAppSelector(({ journal }) => journal.status === 'ready')
  const isHere = useAppSelector(({ journal }) => isAmong(journal.placesAtHand, placeId))
  const couldNot = useAppSelector(({ journal }) => journal.placesAway.has(placeId))
  const isServerAway = !useAppSelector(canAsk)
  useEffect(() => {
    if (isReady && !isHere && !(couldNot && isServerAway)) void dispatch(bringPlace(placeId))
  }, [dispatch, isReady, isHere, couldNot, isServerAway, placeId])
  if (isReady && isHere) return 'here'
  return isReady && couldNot ? 'away' : 'coming'
}
