import highs from 'highs'
import type { PieceDemand, RollSize } from '../src/cutting/index.ts'

const solver = await highs()
/** Ways to cut one order beyond which a case is left out: the program would be too large. */
const MOST_PATTERNS = 3000

/**
 * The least that an order can cost, by another way than ours: every way to cut each size is a column of an
 * integer program (Gilmore and Gomory 1961), solved by branch and cut. `null` where there are too many ways or
 * the solver ran out of time.
 */
export function exactCost(demands: readonly PieceDemand[], sizes: readonly RollSize[]): number | null {
  const wanted = new Map<number, number>()
  for (const { lengthM, quantity } of demands) {
    const cm = Math.round(lengthM * 100)
    wanted.set(cm, (wanted.get(cm) ?? 0) + quantity)
  }
  const pieces = [...wanted].filter(([, quantity]) => quantity > 0).sort(([a], [b]) => b - a)
  if (pieces.length === 0) return 0
  const columns: { readonly counts: readonly number[]; readonly price: number }[] = []
  for (const { lengthM, price = 1 } of sizes) {
    const found = waysToCut(pieces, Math.round(lengthM * 100))
    if (!found) return null
    columns.push(...found.map((counts) => ({ counts, price })))
  }
  if (columns.length > MOST_PATTERNS) return null
  const sum = (terms: readonly string[]) => (terms.length > 0 ? terms.join(' + ') : '0 c0')
  const cost = sum(columns.map(({ price }, c) => `${price} c${c}`))
  const rows = pieces.map(([, quantity], i) => {
    const terms = columns.flatMap(({ counts }, c) => (counts[i]! > 0 ? [`${counts[i]} c${c}`] : []))
    return `${sum(terms)} >= ${quantity}`
  })
  const names = columns.map((_, c) => `c${c}`).join(' ')
  const solution = solver.solve(
    `Minimize\n ${cost}\nSubject To\n ${rows.join('\n ')}\nGeneral\n ${names}\nEnd\n`,
    {
      time_limit: 20,
      mip_rel_gap: 0,
    },
  )
  return solution.Status === 'Optimal' ? solution.ObjectiveValue : null
}

/** Every way to cut a length to which no wanted piece can be added; `null` where there are too many. */
function waysToCut(pieces: readonly (readonly [number, number])[], lengthCm: number): number[][] | null {
  const found: number[][] = []
  const counts = pieces.map(() => 0)
  const fill = (i: number, room: number): boolean => {
    if (found.length > MOST_PATTERNS) return false
    if (i === pieces.length) {
      const isFull = pieces.every(([cm, quantity], k) => counts[k]! >= quantity || cm > room)
      if (isFull && counts.some((n) => n > 0)) found.push([...counts])
      return true
    }
    const [cm, quantity] = pieces[i]!
    for (let n = Math.min(quantity, Math.floor(room / cm)); n >= 0; n--) {
      counts[i] = n
      if (!fill(i + 1, room - n * cm)) return false
    }
    counts[i] = 0
    return true
  }
  return fill(0, lengthCm) ? found : null
}
