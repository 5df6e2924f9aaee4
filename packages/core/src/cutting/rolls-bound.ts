/**
 * Lower bounds for cutting from rolls by dual feasible functions (Lueker 1983; Fekete and Schepers 2001).
 * Each function is superadditive on [0, 1], so whatever fits in a roll of length c has Σ f(piece) ≤ f(c). A
 * set of rolls whose Σ f(roll) stays below Σ f(piece) for any one function cannot hold the pieces.
 */
export interface BoundTable {
  /** Σ f over all pieces, one item per function. */
  readonly need: readonly number[]
  /** f of each roll size: `room[function][stock]`. */
  readonly room: readonly (readonly number[])[]
}

type Share = (x: number) => number

const EPS = 1e-9
const MAX_THRESHOLDS = 24
const MAX_STEPS = 12

export function makeBoundTable(
  pieces: readonly { length: number; quantity: number }[],
  rollLengths: readonly number[],
): BoundTable {
  const longest = Math.max(...rollLengths)
  const shares = pieces.map((p) => ({ x: p.length / longest, quantity: p.quantity }))
  const rolls = rollLengths.map((length) => length / longest)
  const functions = familyFor(shares.map((s) => s.x))
  return {
    need: functions.map((f) => shares.reduce((sum, s) => sum + s.quantity * f(s.x), 0)),
    room: functions.map((f) => rolls.map(f)),
  }
}

/** False when some function proves that `counts` rolls of each size cannot hold the pieces. */
export function mayHold(table: BoundTable, counts: readonly number[]): boolean {
  return table.need.every((need, f) => {
    const room = table.room[f]!.reduce((sum, share, s) => sum + share * counts[s]!, 0)
    return room >= need - EPS * Math.max(1, need)
  })
}

function familyFor(xs: readonly number[]): Share[] {
  const small = [...new Set(xs.filter((x) => x <= 0.5))].sort((a, b) => a - b)
  const stride = Math.max(1, Math.ceil(small.length / MAX_THRESHOLDS))
  const thresholds: Share[] = [
    (x) => x,
    ...small.filter((_, i) => i % stride === 0).map(dropBelow),
    ...[1 / 2, 1 / 3, 1 / 4].map(dropBelow),
  ]
  const steps = Array.from({ length: MAX_STEPS }, (_, k) => stepped(k + 1))
  return thresholds.flatMap((drop) => [
    drop,
    ...steps.map(
      (step): Share =>
        (x) =>
          step(drop(x)),
    ),
  ])
}

/**
 * Pieces shorter than ε count nothing, those longer than 1 − ε a whole roll (Martello and Toth 1990, bound
 * L2).
 */
function dropBelow(epsilon: number): Share {
  return (x) => (x < epsilon - EPS ? 0 : x > 1 - epsilon + EPS ? 1 : x)
}

/** u(k): x where (k+1)x is whole, otherwise ⌊(k+1)x⌋/k. */
function stepped(k: number): Share {
  return (x) => {
    const scaled = (k + 1) * x
    const nearest = Math.round(scaled)
    return Math.abs(scaled - nearest) < EPS * (k + 1) ? nearest / (k + 1) : Math.floor(scaled) / k
  }
}
