import { CoreError } from '../../errors/index.ts'
import { at3 } from '../../geometry/index.ts'
import type { Point3 } from '../../geometry/index.ts'
import { length, stock, whole } from '../field.ts'
import {
  LEAST_M,
  MAIN_ONLY,
  MAX_SIZE_M,
  WALL_WIRE,
  WIRE_CHECKS,
  centimetres,
  frameKind,
  wishesNear,
} from '../kind.ts'
import type { Laying, PatternOf } from '../kind.ts'
import { LayoutBuilder, MAX_NODES, equalSteps, fewestParts } from '../layout.ts'
import type { Layout } from '../layout.ts'

const fields = {
  depthM: length(LEAST_M, 100),
  headroomM: length(LEAST_M, 20),
  maxBayM: length(LEAST_M, MAX_SIZE_M),
  postStockId: stock('post'),
  postBuriedM: length(0, 20, 'short'),
  beamStockId: stock('beam'),
  overhangM: length(0, 3, 'short'),
  maxRafterSpacingM: length(LEAST_M, MAX_SIZE_M),
  wireSpacingM: length(LEAST_M, MAX_SIZE_M, 'short'),
  backWires: whole(0, 40),
} as const
export type OverheadPattern = PatternOf<'overhead', typeof fields>

/**
 * Pergola or arbour: posts in two lines along the place, a beam on each line, rafters across, wires over the
 * rafters along the whole length, and up the back for an arbour. Heights are above level ground; the headroom
 * is the underside of the beams.
 */
export const overhead = frameKind({
  kind: 'overhead',
  fields,
  traits: {
    stands: 'over-ground',
    isOverPeople: 'always',
    fills: 'outline',
    posts: 'in-concrete',
    followsSlope: false,
    isCover: false,
    touchesFlesh: false,
  },
  places: { bed: 1, terrace: 1 },
  usualPlant: 'hardy-kiwi',
  startWith: { ...WALL_WIRE, wireId: 'stainless-rope-3' },
  start: ({ usableHeightM, firstForkM }) => ({
    kind: 'overhead',
    depthM: 2.4,
    headroomM: centimetres(Math.max(2.1, Math.min(2.3, usableHeightM + firstForkM))),
    maxBayM: 2.4,
    postStockId: 'post-square-100',
    postBuriedM: 0.7,
    beamStockId: 'beam-50x150',
    overhangM: 0.3,
    maxRafterSpacingM: 0.8,
    wireSpacingM: 0.5,
    backWires: 0,
  }),
  wires: MAIN_ONLY,
  checks: () => [
    ...WIRE_CHECKS,
    'beam-bending',
    'beam-deflection',
    'rafter-sideways',
    'post-bearing',
    'post-buckling',
    'post-bending',
    'post-uplift',
    'post-sideways',
    'post-frost',
  ],
  sheet: ['stringing', 'members'],
  later: ['postStockId', 'postBuriedM', 'beamStockId', 'overhangM', 'maxRafterSpacingM', 'backWires'],
  fit: ({ widthM }, pattern, toleranceShare) =>
    wishesNear(widthM, widthM / fewestParts(widthM, pattern.maxBayM), toleranceShare, 0, (maxBayM) => ({
      ...pattern,
      maxBayM,
    })),
  lay: layOverhead,
})

function layOverhead({ site, options, idsOf }: Laying, pattern: OverheadPattern): Layout {
  const { depthM, headroomM, postBuriedM: buriedM, overhangM, backWires } = pattern
  const bays = fewestParts(site.widthM, pattern.maxBayM)
  const rafterBays = fewestParts(site.widthM, pattern.maxRafterSpacingM)
  const wireSteps = fewestParts(depthM, pattern.wireSpacingM)
  if ((rafterBays + 1) * (wireSteps + 1) + (bays + 1) * (backWires + 2) > MAX_NODES) {
    throw new CoreError('frame/too-many-nodes', `${rafterBays + 1} rafters are too many`, {
      rafters: rafterBays + 1,
    })
  }
  const builder = new LayoutBuilder()
  const beamDeepM = options.stockDepthM(pattern.beamStockId)
  const postsM = equalSteps(site.widthM, bays)
  const posts = idsOf(builder, 'post', postsM)
  const beamM = headroomM + beamDeepM / 2
  ;[0, depthM].forEach((zM, side) => {
    const line = 'fb'[side]!
    postsM.forEach((xM, i) => {
      const foot = at3(xM, 0, zM)
      const label = `${line.toUpperCase()}${i + 1}`
      const path = [at3(xM, -buriedM, zM), at3(xM, headroomM, zM)]
      const id = `p${line}${posts[i]}`
      builder.member({ id, role: 'post', path, stockId: pattern.postStockId, buriedM, foot, label })
      builder.joint(`h${line}${posts[i]}`, at3(xM, beamM, zM), 'bolt', { label })
      builder.plant(`plant-${line}${posts[i]}`, foot)
    })
    for (let i = 0; i < bays; i++) {
      const from = i === 0 ? -overhangM : postsM[i]!
      const to = i === bays - 1 ? site.widthM + overhangM : postsM[i + 1]!
      const path = [at3(from, beamM, zM), at3(to, beamM, zM)]
      builder.member({ id: `b${line}${posts[i]}`, role: 'beam', path, stockId: pattern.beamStockId })
    }
  })
  const rafterM = headroomM + beamDeepM * 1.5
  const raftersM = equalSteps(site.widthM, rafterBays)
  const rafters = idsOf(builder, 'rafter', raftersM)
  raftersM.forEach((xM, i) => {
    const path = [at3(xM, rafterM, -overhangM), at3(xM, rafterM, depthM + overhangM)]
    builder.member({ id: `r${rafters[i]}`, role: 'rafter', path, stockId: pattern.beamStockId })
    ;[0, depthM].forEach((zM, side) =>
      builder.joint(`r${rafters[i]}.${'fb'[side]!}`, at3(xM, rafterM - beamDeepM / 2, zM), 'bolt'),
    )
  })
  const acrossM = equalSteps(depthM, wireSteps)
  idsOf(builder, 'wire', acrossM).forEach((id, k) =>
    wire(`o${id}`, String(k), rafters, (i) => at3(raftersM[i]!, rafterM + beamDeepM / 2, acrossM[k]!)),
  )
  const backM = Array.from({ length: backWires }, (_, k) => (headroomM * (k + 1)) / (backWires + 1))
  idsOf(builder, 'back-wire', backM).forEach((id, k) =>
    wire(`s${id}`, String(k), posts, (i) => at3(postsM[i]!, backM[k]!, depthM)),
  )
  builder.measure({ bayM: site.widthM / bays })
  builder.figure('headroom', 'm', headroomM)
  builder.figure('span', 'm', site.widthM / bays)
  return builder.build()

  function wire(id: string, label: string, supports: readonly string[], at: (i: number) => Point3): void {
    const line = builder.line(id, 'carrying')
    supports.forEach((support, i) => {
      const joint = i === 0 || i === supports.length - 1 ? 'end' : 'staple'
      const node = builder.joint(`${id}.${support}`, at(i), joint, { label })
      if (i > 0) builder.run(node - 1, node, line)
    })
  }
}
