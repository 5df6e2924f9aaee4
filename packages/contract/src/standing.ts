import type { KeptFold } from '@klados/core/part-fold'

/** What stands in a garden, in place of the journal that it came from. */
export interface Standing {
  /** The number of the garden's latest entry. */
  readonly head: number
  /** Up to which number the folds go; 0 where the garden was said to be small, and is better read whole. */
  readonly upTo: number
  /** By which rules they were folded. */
  readonly rules: string
  /** The greatest id in the journal. */
  readonly greatestId: string | null
  /** The folds of all parts, each with its brief. */
  readonly folds: readonly KeptFold[]
}

export type StandingHead = Omit<Standing, 'folds'>
/** The last line: a text without it was cut off. */
const END = 'end'

/**
 * What stands as lines of text: the head, then of each part its name, its brief and its fold, which are JSON themselves and have
 * no line ends. As JSON once more, a garden of thirty years takes server and page a quarter of a second longer.
 */
export const headLine = (head: StandingHead): string => `${JSON.stringify(head)}\n`
export const foldLines = (folds: readonly KeptFold[]): string =>
  folds.map(({ part, brief, text }) => `${part}\n${brief}\n${text}\n`).join('')
export const endLine = END

/** The same read again; throws where it is not whole. */
export function readStanding(text: string): Standing {
  const lines = text.split('\n')
  if (lines.pop() !== END || (lines.length - 1) % 3 !== 0) throw new Error('Not all of what stands was read')
  const head = JSON.parse(lines[0]!) as StandingHead
  const folds: KeptFold[] = []
  for (let n = 1; n < lines.length; n += 3)
    folds.push({ part: lines[n]!, brief: lines[n + 1]!, text: lines[n + 2]! })
  return { ...head, folds }
}
