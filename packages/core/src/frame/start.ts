import { centimetres } from './kind.ts'
import type { StartPlace } from './kind.ts'
import type { Pot } from './pot.ts'

const POT_HEIGHT_M = 0.4
const MOST_TUB_M = 1.2

/** The pot that a frame starts in at places that have no ground. */
export function potAt({ kind, widthM }: StartPlace): Pot | null {
  if (kind !== 'bench' && kind !== 'tub' && kind !== 'terrace') return null
  return {
    shape: 'round',
    // A tub is measured itself; what stands elsewhere is given a pot that one can carry.
    widthM: Math.min(kind === 'tub' ? MOST_TUB_M : 0.45, Math.max(0.2, widthM)),
    heightM: POT_HEIGHT_M,
    ballastKg: 0,
    drainageM: 0,
    hasCharcoal: false,
    isThere: false,
  }
}

/** As tall as wanted, or as the place has room for, its pot taken off. */
export function tallAt(place: StartPlace, wantedM: number): number {
  const roomM = place.usableHeightM + place.firstForkM - (potAt(place) ? POT_HEIGHT_M : 0)
  return centimetres(Math.max(0.3, Math.min(wantedM, roomM)))
}
