import { lineNames } from '@klados/core/frame'
import type { Frame, LineId, LineName } from '@klados/core/frame'
import type { TFunction } from '../i18n/texts.ts'

/** A wire as its grower calls it: by what it is for, from below, and its side of a pair. */
export function lineWords(t: TFunction, { role, number, side }: LineName): string {
  const name = t(`line.${role}`, { number })
  return side === null ? name : t('line.ofPair', { name, side: t(`line.side.${side}`) })
}

/** Names of all wires of a frame. */
export function linesInWords(t: TFunction, frame: Frame): ReadonlyMap<LineId, string> {
  return new Map([...lineNames(frame)].map(([id, name]) => [id, lineWords(t, name)]))
}
