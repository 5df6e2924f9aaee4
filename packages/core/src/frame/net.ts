import { CoreError, requirePositive, requireRange } from '../errors/index.ts'
import { at3 } from '../geometry/index.ts'
import { LayoutBuilder, MAX_NODES, fewestParts } from './layout.ts'
import type { Layout } from './layout.ts'
import type { NetPattern } from './pattern.ts'
import type { Site } from './site.ts'

/**
 * Posts on a grid over the place, cables over them along and across, each cable tied down to an anchor
 * outside the grid at both its ends, and a cover in panels that run across. Interior posts stand on flanged
 * screws or in holes; those of the edge stand in holes, where cables change direction.
 */
export function layNet(site: Site, pattern: NetPattern): Layout {
  const depthM = requirePositive('depthM', pattern.depthM, 500)
  const heightM = requirePositive('heightM', pattern.heightM, 20)
  const buriedM = requireRange('postBuriedM', pattern.postBuriedM, 0, 5)
  const outM = requirePositive('anchorOutM', pattern.anchorOutM, 20)
  const panelM = requirePositive('panelWidthM', pattern.panelWidthM)
  const dropM = requireRange('dropM', pattern.dropM, 0, heightM)
  const nx = fewestParts(site.widthM, requirePositive('maxSpacingAlongM', pattern.maxSpacingAlongM)) + 1
  const nz = fewestParts(depthM, requirePositive('maxSpacingAcrossM', pattern.maxSpacingAcrossM)) + 1
  if (nx * nz * 2 > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${nx * nz} posts are too many`, { posts: nx * nz })
  const panels = fewestParts(site.widthM, panelM)
  if (panels > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${panels} panels are too many`, { panels })
  const builder = new LayoutBuilder()
  const x = (i: number) => (i * site.widthM) / (nx - 1)
  const z = (j: number) => (j * depthM) / (nz - 1)
  for (let j = 0; j < nz; j++) {
    for (let i = 0; i < nx; i++) {
      const isEdge = i === 0 || j === 0 || i === nx - 1 || j === nz - 1
      const foot = at3(x(i), 0, z(j))
      const label = `P${j * nx + i + 1}`
      const inHole = isEdge || pattern.interior === 'hole'
      const path = [at3(x(i), inHole ? -buriedM : 0, z(j)), at3(x(i), heightM, z(j))]
      builder.member({
        id: `p${i}.${j}`,
        part: 'post',
        path,
        stockId: pattern.postStockId,
        buriedM: inHole ? buriedM : 0,
        foot,
        label,
      })
      if (!inHole)
        builder.anchor({
          id: `f${i}.${j}`,
          head: 'flange',
          screwId: pattern.flangeScrewId,
          at: foot,
          towards: at3(x(i), heightM, z(j)),
          label: `F${j * nx + i + 1}`,
        })
    }
  }
  for (let j = 0; j < nz; j++) cable(`x${j}`, nx, (i) => at3(x(i), heightM, z(j)), 1, 0)
  for (let i = 0; i < nx; i++) cable(`z${i}`, nz, (j) => at3(x(i), heightM, z(j)), 0, 1)
  for (let k = 0; k < panels; k++) {
    const [from, to] = [(k * site.widthM) / panels, ((k + 1) * site.widthM) / panels]
    const lengthM = depthM + 2 * dropM
    const outline = [
      at3(from, heightM, 0),
      at3(to, heightM, 0),
      at3(to, heightM, depthM),
      at3(from, heightM, depthM),
    ]
    builder.sheet({
      id: `c${k}`,
      good: 'net',
      outline,
      areaM2: (to - from) * lengthM,
      cut: { widthM: to - from, lengthM },
      seamM: k > 0 ? lengthM : 0,
    })
  }
  if (dropM > 0) {
    ;[0, site.widthM].forEach((xM, side) => {
      const outline = [
        at3(xM, heightM, 0),
        at3(xM, heightM, depthM),
        at3(xM, heightM - dropM, depthM),
        at3(xM, heightM - dropM, 0),
      ]
      builder.sheet({
        id: `e${side}`,
        good: 'net',
        outline,
        areaM2: dropM * depthM,
        cut: { widthM: dropM, lengthM: depthM },
        seamM: depthM,
      })
    })
  }
  builder.figure('cover-area', 'm2', site.widthM * depthM)
  builder.figure('seams', 'm', (panels - 1) * (depthM + 2 * dropM) + (dropM > 0 ? 2 * depthM : 0))
  return builder.build()

  /** One cable over `count` posts, down to an anchor at both ends; `dx`, `dz` is the way it runs. */
  function cable(
    line: string,
    count: number,
    at: (i: number) => ReturnType<typeof at3>,
    dx: number,
    dz: number,
  ): void {
    const anchored = (end: 'first' | 'last') => {
      const top = at(end === 'first' ? 0 : count - 1)
      const way = end === 'first' ? -1 : 1
      const ground = at3(top.xM + way * dx * outM, 0, top.zM + way * dz * outM)
      const label = `A${line}${end === 'first' ? 'a' : 'b'}`
      builder.anchor({
        id: `${line}-${end}`,
        head: 'eye',
        screwId: pattern.anchorScrewId,
        at: ground,
        towards: top,
        label,
      })
      return builder.joint(`${line}-${end}`, ground, 'through', { label })
    }
    let before = anchored('first')
    for (let i = 0; i < count; i++) {
      const node = builder.joint(`${line}.${i}`, at(i), 'staple', { label: `${line}.${i + 1}` })
      builder.run(before, node, { line: i === 0 ? `${line}-down-first` : line })
      before = node
    }
    builder.run(before, anchored('last'), { line: `${line}-down-last` })
  }
}
