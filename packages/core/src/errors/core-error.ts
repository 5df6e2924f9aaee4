/**
 * Every code that core throws, with what it means. A test checks that each key is used under its own name.
 */
export const coreErrorCodes = {
  'core/not-finite': 'A number is missing, infinite or not a number.',
  'core/out-of-range': 'A number lies outside the range in which the formula or the pattern makes sense.',
  'frame/cell-too-large': 'One cell is wider or higher than the space it has to fit in.',
  'frame/heights-out-of-order': 'Tier heights do not rise from the lowest to the highest.',
  'frame/wires-out-of-order': 'A wire of a row does not lie above the one below it.',
  'frame/wire-above-posts': 'A wire of a row, lifted or not, lies above its posts.',
  'frame/height-outside-wall': 'A tier lies below the first fork or above the usable height.',
  'frame/too-many-nodes': 'The pattern would have more nodes than anyone could drill.',
  'frame/levels-do-not-clear': 'Two levels of bars are nearer to each other than a bar is thick.',
  'frame/unknown-choice': 'A parameter has none of the values that it may have.',
  'frame/same-id': 'Two parts of one design have the same id.',
  'frame/unknown-stock': 'The frame is built of something that the catalogue does not have.',
  'frame/wider-than-pot': 'What stands in a pot is wider at its foot than the pot.',
  'frame/not-in-pot': 'What stands in the ground of a pot does not fit into it.',
  'stringing/piece-too-short': 'One run with its end wraps is longer than the greatest handling length.',
  'materials/piece-longer-than-roll': 'A piece is longer than every roll on offer.',
  'materials/no-rolls': 'There is no roll to cut from.',
  'geometry/points-in-line': 'Three of four marked points lie in one line, or two coincide.',
  'geometry/points-crossed': 'Four marked points are not in the same order on the photo and on the wall.',
  'geometry/beyond-horizon': 'A place on the photo lies beyond the horizon of the wall that the marks set.',
  'laying/no-option': 'A candidate has no option to choose.',
  'laying/unknown': 'A track, candidate or option is named that is not there.',
  'units/unknown-gauge': 'The gauge number is not in the table of that gauge system.',
} as const

export type CoreErrorCode = keyof typeof coreErrorCodes

/**
 * What a computation refuses, with the values that a message needs. Lengths in `details` are metres unless
 * the key says else.
 */
export class CoreError extends Error {
  override readonly name = 'CoreError'
  constructor(
    readonly code: CoreErrorCode,
    message: string,
    readonly details: Readonly<Record<string, number | string>> = {},
  ) {
    super(message)
  }
}

/**
 * Throws `core/not-finite` or `core/out-of-range` unless `value` is finite and inside [min, max]; returns it.
 */
export function requireRange(
  name: string,
  value: number,
  min: number,
  max: number = Number.POSITIVE_INFINITY,
): number {
  if (!Number.isFinite(value)) {
    throw new CoreError('core/not-finite', `${name} must be a finite number, got ${value}`, { field: name })
  }
  if (value < min || value > max) {
    throw new CoreError('core/out-of-range', `${name} must lie between ${min} and ${max}, got ${value}`, {
      field: name,
      value,
      min,
      max,
    })
  }
  return value
}

/** As `requireRange`, and the number must be whole. */
export function requireWhole(name: string, value: number, min: number, max: number): number {
  requireRange(name, value, min, max)
  if (!Number.isInteger(value)) {
    throw new CoreError('core/out-of-range', `${name} must be a whole number, got ${value}`, {
      field: name,
      value,
      min,
      max,
    })
  }
  return value
}

/** Throws `core/not-finite` unless `value` is a finite number; returns it. */
export function requireFinite(name: string, value: number): number {
  return requireRange(name, value, -Number.MAX_VALUE, Number.MAX_VALUE)
}

/** As `requireRange`, but zero is out of range too. */
export function requirePositive(name: string, value: number, max: number = Number.POSITIVE_INFINITY): number {
  return requireRange(name, value, Number.MIN_VALUE, max)
}
