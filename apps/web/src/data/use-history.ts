import { useEffect } from 'react'
import { bringPlace, isAmong } from './journal.ts'
import { useAppDispatch, useAppSelector } from './store.ts'

/**
 * Has all that was ever written at a place brought to this window; tells whether it is here. Of a large garden only
 * what stands is held without being asked.
 */
export function useHistory(placeId: string): boolean {
  const dispatch = useAppDispatch()
  const isReady = useAppSelector(({ journal }) => journal.status === 'ready')
  const isHere = useAppSelector(({ journal }) => isAmong(journal.placesAtHand, placeId))
  useEffect(() => {
    if (isReady && !isHere) void dispatch(bringPlace(placeId))
  }, [dispatch, isReady, isHere, placeId])
  return isReady && isHere
}
