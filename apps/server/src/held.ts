/** What this process holds for somebody at the moment, by what it is: all of it goes back when they are gone. */
export interface Held {
  readonly watch: (what: string, count: () => number) => void
  readonly counts: () => Readonly<Record<string, number>>
}

export function createHeld(): Held {
  const watched = new Map<string, () => number>()
  return {
    watch: (what, count) => void watched.set(what, count),
    counts: () => Object.fromEntries([...watched].map(([what, count]) => [what, count()])),
  }
}
