import { CoreError, requireRange } from '../../errors/index.ts'
import { at3 } from '../../geometry/index.ts'
import type { Point3 } from '../../geometry/index.ts'
import { choice, flag, length, screw, stock } from '../field.ts'
import { LEAST_M, FIELD_WIRE, MAIN_ONLY, MAX_SIZE_M, WIRE_CHECKS, frameKind, wishesNear } from '../kind.ts'
import type { Laying, PatternOf } from '../kind.ts'
import { LayoutBuilder, MAX_NODES, equalSteps, fewestParts } from '../layout.ts'
import type { Layout } from '../layout.ts'

const fields = {
  depthM: length(LEAST_M, 500),
  heightM: length(LEAST_M, 20),
  maxSpacingAlongM: length(LEAST_M, MAX_SIZE_M),
  maxSpacingAcrossM: length(LEAST_M, MAX_SIZE_M),
  postStockId: stock('post'),
  interior: choice('screw', 'hole'),
  postBuriedM: length(0, 20, 'short'),
  flangeScrewId: screw('flange'),
  anchorScrewId: screw('eye'),
  anchorOutM: length(LEAST_M, 20),
  panelWidthM: length(LEAST_M, MAX_SIZE_M),
  /** How far the cover hangs down at the sides. */
  dropM: length(0, 20),
  /** Netting, or what lets neither air nor water through. */
  cover: choice('net', 'film'),
  /** Taken off before snow: it then bears none. */
  offInWinter: flag,
} as const
export type NetPattern = PatternOf<'net', typeof fields>

/**
 * Posts on a grid over the place, cables over them along and across, each cable tied down to an anchor
 * outside the grid at both its ends, and a cover in panels that run across. Interior posts stand on flanged
 * screws or in holes; those of the edge stand in holes, where cables change direction.
 */
export const net = frameKind({
  kind: 'net',
  fields,
  traits: {
    stands: 'over-ground',
    isOverPeople: 'always',
    fills: 'outline',
    posts: 'in-concrete',
    followsSlope: false,
    isCover: true,
    touchesFlesh: false,
  },
  places: { row: 2, bed: 3 },
  usualPlant: 'sweet-pea',
  startWith: { ...FIELD_WIRE, wireId: 'stainless-rope-6', wireEnding: 'clip' },
  start: () => ({
    kind: 'net',
    depthM: 12,
    heightM: 2.2,
    maxSpacingAlongM: 5,
    maxSpacingAcrossM: 5,
    postStockId: 'post-steel-48',
    interior: 'screw',
    postBuriedM: 0.8,
    flangeScrewId: 'screw-flange-1400',
    anchorScrewId: 'screw-eye-1600',
    anchorOutM: 3,
    panelWidthM: 6,
    dropM: 2.2,
    cover: 'net',
    offInWinter: true,
  }),
  wires: MAIN_ONLY,
  checks: () => [
    ...WIRE_CHECKS,
    'guy-pull',
    'anchor-pull',
    'cover-uplift',
    'post-bearing',
    'post-buckling',
    'post-frost',
  ],
  sheet: ['stringing', 'members', 'anchors'],
  later: ['postStockId', 'interior', 'postBuriedM', 'flangeScrewId', 'anchorScrewId', 'panelWidthM', 'dropM'],
  fit: ({ widthM }, pattern, toleranceShare) =>
    wishesNear(
      widthM,
      widthM / fewestParts(widthM, pattern.maxSpacingAlongM),
      toleranceShare,
      0,
      (maxSpacingAlongM) => ({ ...pattern, maxSpacingAlongM }),
    ),
  lay: layNet,
})

function layNet({ site, idsOf }: Laying, pattern: NetPattern): Layout {
  const { depthM, heightM, postBuriedM: buriedM, dropM } = pattern
  requireRange('dropM', dropM, 0, heightM)
  const baysX = fewestParts(site.widthM, pattern.maxSpacingAlongM)
  const baysZ = fewestParts(depthM, pattern.maxSpacingAcrossM)
  const count = (baysX + 1) * (baysZ + 1)
  if (count * 2 > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${count} posts are too many`, { posts: count })
  const panels = fewestParts(site.widthM, pattern.panelWidthM)
  if (panels > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${panels} panels are too many`, { panels })
  const builder = new LayoutBuilder()
  const [alongM, acrossM] = [equalSteps(site.widthM, baysX), equalSteps(depthM, baysZ)]
  const along = idsOf(builder, 'along', alongM)
  const across = idsOf(builder, 'across', acrossM)
  const top = (i: number, j: number) => at3(alongM[i]!, heightM, acrossM[j]!)
  acrossM.forEach((_, j) => alongM.forEach((_, i) => post(i, j)))
  acrossM.forEach((_, j) => cable(`x${across[j]}`, along, (i) => top(i, j), 1, 0))
  alongM.forEach((_, i) => cable(`z${along[i]}`, across, (j) => top(i, j), 0, 1))
  layCover()
  builder.measure({ coverM2: site.widthM * depthM, bayM: site.widthM / baysX, bayAcrossM: depthM / baysZ })
  builder.figure('cover-area', 'm2', site.widthM * depthM)
  builder.figure('seams', 'm', (panels - 1) * (depthM + 2 * dropM) + (dropM > 0 ? 2 * depthM + 4 * dropM : 0))
  return builder.build()

  function post(i: number, j: number): void {
    const isEdge = i === 0 || j === 0 || i === baysX || j === baysZ
    const number = j * (baysX + 1) + i + 1
    const inHole = isEdge || pattern.interior === 'hole'
    const foot = { ...top(i, j), yM: 0 }
    builder.member({
      id: `p${along[i]}.${across[j]}`,
      role: 'post',
      path: [{ ...foot, yM: inHole ? -buriedM : 0 }, top(i, j)],
      stockId: pattern.postStockId,
      buriedM: inHole ? buriedM : 0,
      foot,
      label: `P${number}`,
    })
    if (inHole) return
    builder.anchor({
      id: `f${along[i]}.${across[j]}`,
      head: 'flange',
      screwId: pattern.flangeScrewId,
      at: foot,
      towards: top(i, j),
      label: `F${number}`,
    })
  }

  /** One cable over the posts of an axis, down to an anchor at both ends; `dx`, `dz` is the way it runs. */
  function cable(
    id: string,
    posts: readonly string[],
    at: (i: number) => Point3,
    dx: number,
    dz: number,
  ): void {
    const anchored = (end: 'first' | 'last') => {
      const from = at(end === 'first' ? 0 : posts.length - 1)
      const outM = (end === 'first' ? -1 : 1) * pattern.anchorOutM
      const ground = at3(from.xM + dx * outM, 0, from.zM + dz * outM)
      const label = `A${id}${end === 'first' ? 'a' : 'b'}`
      const anchor = { id: `${id}-${end}`, head: 'eye', screwId: pattern.anchorScrewId } as const
      builder.anchor({ ...anchor, at: ground, towards: from, label })
      return builder.joint(`${id}-${end}`, ground, 'through', { label })
    }
    const line = builder.line(id, 'carrying')
    let before = anchored('first')
    posts.forEach((post, i) => {
      const node = builder.joint(`${id}.${post}`, at(i), 'staple', { label: `${id}.${i + 1}` })
      builder.run(before, node, i === 0 ? builder.line(`${id}-down-first`, 'tie-back') : line)
      before = node
    })
    builder.run(before, anchored('last'), builder.line(`${id}-down-last`, 'tie-back'))
  }

  function layCover(): void {
    const lengthM = depthM + 2 * dropM
    const at = (xM: number, yM: number, zM: number) => at3(xM, yM, zM)
    for (let k = 0; k < panels; k++) {
      const [from, to] = [(k * site.widthM) / panels, ((k + 1) * site.widthM) / panels]
      builder.sheet({
        id: `c${k}`,
        good: 'net',
        outline: [
          at(from, heightM, 0),
          at(to, heightM, 0),
          at(to, heightM, depthM),
          at(from, heightM, depthM),
        ],
        areaM2: (to - from) * lengthM,
        cut: { widthM: to - from, lengthM },
        seamM: k > 0 ? lengthM : 0,
      })
    }
    if (dropM === 0) return
    ;[0, site.widthM].forEach((xM, side) => {
      const lowM = heightM - dropM
      builder.sheet({
        id: `e${side}`,
        good: 'net',
        outline: [at(xM, heightM, 0), at(xM, heightM, depthM), at(xM, lowM, depthM), at(xM, lowM, 0)],
        areaM2: dropM * depthM,
        cut: { widthM: dropM, lengthM: depthM },
        // Along the edge above, and down both its corners.
        seamM: depthM + 2 * dropM,
      })
    })
  }
}
