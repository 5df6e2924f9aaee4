import { STRAINER_TRAVEL_M } from '../catalogue/index.ts'
import { SAG_SHARE, allowedN, hardestState, shareBorne } from '../loads/index.ts'
import type { WireLine } from '../loads/index.ts'
import { check, same, worstOf } from './check.ts'
import type { Check, CheckContext } from './check.ts'

/** Each wire at its hardest and its slackest hour, and what the strainer takes up. */
export function wireChecks({ lines, design }: CheckContext): Check[] {
  const longest = (line: WireLine) => line.spansM.reduce((most, spanM) => Math.max(most, spanM), 0)
  const pulled = worstOf(lines, shareBorne)
  const sagging = worstOf(lines, (line) => line.greatestSag.sagM / longest(line))
  const strained = worstOf(lines, (line) => line.travel.totalM)
  if (!pulled || !sagging || !strained) return []
  const hardest = hardestState(pulled)
  return [
    check({
      code: 'wire-pull',
      subject: pulled.wire.id,
      need: hardest.tensionN,
      holding: same(allowedN(pulled, hardest)),
      unit: 'N',
      assumptions: ['rigid-ends', 'even-load', 'ends-made-off'],
      source: 'irvine',
    }),
    check({
      code: 'wire-sag',
      subject: sagging.wire.id,
      need: sagging.greatestSag.sagM,
      holding: same(longest(sagging) * SAG_SHARE),
      unit: 'm',
      assumptions: ['even-load'],
      source: 'irvine',
    }),
    check({
      code: 'strainer-travel',
      subject: strained.wire.id,
      need: strained.travel.totalM,
      holding: same(design.strainers * STRAINER_TRAVEL_M),
      unit: 'm',
      assumptions: ['two-years-stretch'],
      source: 'statics',
    }),
  ]
}
