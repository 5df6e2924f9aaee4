import {
  ENDING_SHARE,
  MOST_STRAINERS,
  endingOf,
  findWire,
  isString,
  wireEndings,
} from '../catalogue/index.ts'
import type { Wire } from '../catalogue/index.ts'
import type { FrameDesign, WireChoice } from '../design/index.ts'
import type { Lever, Tries } from './levers.ts'
import { stepsUp } from './tries-by-field.ts'

/** Slacker than that a wire is not the one that was wanted. */
const SHARES_DOWN = [0.9, 0.8, 0.7, 0.6, 0.5, 0.4]
const SHARES_UP = [1.1, 1.25, 1.5, 1.75, 2, 2.5, 3, 4]

const choiceOf = (design: FrameDesign, of: 'main' | 'light'): WireChoice | null =>
  of === 'main' ? design : design.light
const withChoice = (design: FrameDesign, of: 'main' | 'light', choice: Partial<WireChoice>): FrameDesign =>
  of === 'main' ? { ...design, ...choice } : { ...design, light: { ...design.light!, ...choice } }

/** Less pull and more, on round figures: what is nearer to how it is set now comes first. */
export function tensionTries(lever: Lever, of: 'main' | 'light'): Tries {
  return ({ design, grain }) => {
    const now = choiceOf(design, of)?.tensionN
    if (now === undefined) return []
    const rounded = [...SHARES_DOWN, ...SHARES_UP]
      .map((share) => Math.max(1, Math.round((now * share) / grain.forceN)) * grain.forceN)
      .filter((N) => Math.abs(N - now) > 1e-6)
    return [...new Set(rounded)]
      .sort((a, b) => Math.abs(Math.log(a / now)) - Math.abs(Math.log(b / now)))
      .map((N) => ({
        lever,
        from: { is: 'force', N: now } as const,
        to: { is: 'force', N } as const,
        design: withChoice(design, of, { tensionN: N }),
      }))
  }
}

const workingLoadN = (wire: Wire) => wire.breakingLoadN * wire.workingShare

/** Stronger wires, those of the same stuff first; string is changed for string only. */
export function wireTries(lever: Lever, of: 'main' | 'light'): Tries {
  return ({ design, catalogue }) => {
    const now = findWire(catalogue, choiceOf(design, of)?.wireId ?? '')
    if (!now) return []
    const isOther = (wire: Wire) => Number(wire.material !== now.material)
    return catalogue.wires
      .filter((wire) => workingLoadN(wire) > workingLoadN(now) && isString(wire) === isString(now))
      .sort((a, b) => isOther(a) - isOther(b) || workingLoadN(a) - workingLoadN(b))
      .map((wire) => ({
        lever,
        from: { is: 'wire', id: now.id } as const,
        to: { is: 'wire', id: wire.id } as const,
        design: withChoice(design, of, { wireId: wire.id, rolls: wire.rolls.map((roll) => ({ ...roll })) }),
      }))
  }
}

/** Ends that leave more of the wire's strength: what is wrapped is clipped, what is clipped is pressed. */
export const endingTries: Tries = ({ design, catalogue }) => {
  const wire = findWire(catalogue, design.wireId)
  if (!wire || isString(wire)) return []
  const now = endingOf(wire, design.wireEnding)
  return wireEndings
    .filter((ending) => ENDING_SHARE[ending] > ENDING_SHARE[now])
    .sort((a, b) => ENDING_SHARE[a] - ENDING_SHARE[b])
    .map((ending) => ({
      lever: 'wire-ending',
      from: { is: 'ending', id: now },
      to: { is: 'ending', id: ending },
      design: { ...design, wireEnding: ending },
    }))
}

export const strainerTries: Tries = ({ design }) =>
  stepsUp(design.strainers + 1, MOST_STRAINERS).map((n) => ({
    lever: 'strainers',
    from: { is: 'count', n: design.strainers },
    to: { is: 'count', n },
    design: { ...design, strainers: n },
  }))

export const fixingTries: Tries = ({ design, catalogue }) =>
  catalogue.fixings
    .filter(({ id }) => id !== design.fixingId)
    .sort((a, b) => a.price - b.price)
    .map(({ id }) => ({
      lever: 'fixing',
      from: { is: 'fixing', id: design.fixingId },
      to: { is: 'fixing', id },
      design: { ...design, fixingId: id },
    }))
