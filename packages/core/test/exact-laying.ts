import highs from 'highs'
import type { LayingInstance, OptionRef } from '../src/laying/index.ts'

const solver = await highs()

export interface ExactLaying {
  /** `null` where no choice meets what is asked. */
  readonly objective: number | null
  readonly isProven: boolean
}

/** The least that a laying can cost, by another way than ours: as an integer program, solved by branch and cut. */
export function exactLaying(instance: LayingInstance, timeLimitS = 20): ExactLaying {
  const text = programText(instance)
  const solution = solver.solve(text, {
    time_limit: timeLimitS,
    mip_rel_gap: 0,
    mip_abs_gap: 0,
    output_flag: false,
  })
  if (solution.Status === 'Infeasible') return { objective: null, isProven: true }
  return { objective: solution.ObjectiveValue, isProven: solution.Status === 'Optimal' }
}

function programText(instance: LayingInstance): string {
  const names = new Map<string, string>()
  const key = ([candidate, option]: OptionRef) => JSON.stringify([candidate, option])
  instance.candidates.forEach(({ id, options }, c) =>
    options.forEach((option, o) => names.set(key([id, option.id]), `x${c}_${o}`)),
  )
  const objective: string[] = []
  const rows: string[] = []
  const term = (factor: number, name: string) => `${factor < 0 ? '-' : '+'} ${Math.abs(factor)} ${name}`
  instance.candidates.forEach(({ options }, c) => {
    options.forEach(({ cost }, o) => cost !== 0 && objective.push(term(cost, `x${c}_${o}`)))
    rows.push(`${options.map((_, o) => `+ x${c}_${o}`).join(' ')} = 1`)
  })
  addTracks(instance, objective, rows, term)
  instance.crossings.forEach(({ a, b, cost }, i) => {
    objective.push(term(cost, `z${i}`))
    rows.push(`z${i} - ${names.get(key(a))} - ${names.get(key(b))} >= -1`)
  })
  for (const { a, b } of instance.conflicts) rows.push(`${names.get(key(a))} + ${names.get(key(b))} <= 1`)
  for (const { options, min, max } of instance.requirements) {
    const sum = options.map((ref) => `+ ${names.get(key(ref))}`).join(' ') || '+ 0 one'
    rows.push(`${sum} >= ${min}`, `${sum} <= ${max}`)
  }
  const buds = instance.candidates
    .flatMap(({ options }, c) =>
      options.map((option, o) => (option.buds > 0 ? `+ ${option.buds} x${c}_${o}` : '')),
    )
    .filter(Boolean)
    .join(' ')
  if (buds && instance.buds.costPerBud > 0) {
    objective.push(term(instance.buds.costPerBud, 'few'), term(instance.buds.costPerBud, 'many'))
    rows.push(`${buds} + few >= ${instance.buds.min}`, `${buds} - many <= ${instance.buds.max}`)
  } else if (instance.buds.costPerBud > 0)
    objective.push(term(instance.buds.costPerBud * instance.buds.min, 'one'))
  const binaries = [...names.values(), ...instance.crossings.map((_, i) => `z${i}`)]
  return `Minimize\n obj: ${objective.join('\n ') || '0 one'}\nSubject To\n ${rows.join('\n ')}\n one = 1\nBinary\n ${binaries.join('\n ')}\nEnd\n`
}

/** Each track in the pieces between all ends of what covers it: bare where nothing lies, double above the first. */
function addTracks(
  { tracks, candidates, weights }: LayingInstance,
  objective: string[],
  rows: string[],
  term: (factor: number, name: string) => string,
): void {
  tracks.forEach((track, t) => {
    const covers = candidates.flatMap(({ options }, c) =>
      options.flatMap((option, o) =>
        option.covers.filter((one) => one.track === track.id).map((one) => ({ ...one, name: `x${c}_${o}` })),
      ),
    )
    const ends = new Set([0, track.lengthM])
    for (const { fromM, toM } of covers)
      for (const at of [fromM, toM]) ends.add(Math.min(track.lengthM, Math.max(0, at)))
    for (const [fromM, toM] of track.wanted) ends.add(fromM).add(toM)
    const cuts = [...ends].sort((a, b) => a - b)
    cuts.slice(1).forEach((toM, s) => {
      const fromM = cuts[s]!
      const middle = (fromM + toM) / 2
      const lengthM = toM - fromM
      if (lengthM < 1e-9 || middle > track.lengthM) return
      const on = covers.filter((one) => one.fromM < middle && one.toM > middle).map(({ name }) => `+ ${name}`)
      const isWanted = track.wanted.some(([a, b]) => a < middle && b > middle)
      if (isWanted && weights.gapPerM > 0) {
        objective.push(term(weights.gapPerM * lengthM, `u${t}_${s}`))
        rows.push(`${on.join(' ')} + u${t}_${s} >= 1`)
      }
      if (on.length > 1 && weights.overlapPerM > 0) {
        objective.push(term(weights.overlapPerM * lengthM, `v${t}_${s}`))
        rows.push(`${on.join(' ')} - v${t}_${s} <= 1`)
      }
    })
  })
}
