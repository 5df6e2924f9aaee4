export interface Letter {
  readonly pieceId: string
  readonly letter: string
  readonly x: number
  readonly y: number
}
export type PutLetter = Letter & { readonly tipX: number; readonly tipY: number }

/** Letters above the tips of stems; those that would lie on each other are moved apart, along their row and then up. */
export function spreadLetters(tips: readonly Letter[], abovePx: number, apartPx: number): PutLetter[] {
  const placed: PutLetter[] = []
  for (const one of [...tips].sort((a, b) => a.x - b.x)) {
    let { x, y } = { x: one.x, y: one.y - abovePx }
    for (let tries = 0; tries < 60; tries++) {
      const near = placed.find((other) => Math.hypot(other.x - x, other.y - y) < apartPx)
      if (!near) break
      if (tries % 3 === 2) y -= apartPx / 2
      else x = near.x + apartPx
    }
    placed.push({ ...one, x, y, tipX: one.x, tipY: one.y })
  }
  return placed
}

/** Those whose letters stand free of each other where their tips are, the foremost first. */
export function withRoom<T extends { readonly x: number; readonly y: number; readonly rank: number }>(
  all: readonly T[],
  apartPx: number,
): T[] {
  const free: T[] = []
  for (const one of [...all].sort((a, b) => a.rank - b.rank))
    if (free.every(({ x, y }) => Math.hypot(x - one.x, y - one.y) >= apartPx)) free.push(one)
  return free
}
