import { CoreError } from '../../errors/index.ts'
import { length, whole } from '../field.ts'
import {
  LEAST_M,
  MAX_SIZE_M,
  MAIN_ONLY,
  ON_FACE,
  ON_FACE_CHECKS,
  LATTICE_WIRE,
  frameKind,
  wishesNear,
} from '../kind.ts'
import { LayoutBuilder, MAX_NODES, wholeTimes } from '../layout.ts'
import { alongToX, usableRect } from '../site.ts'

/**
 * Level lines in equal steps over the usable height, corners of each level over the middles of the bases
 * below, joined by slanting wires. As many whole bases as fit from the viewing end.
 */
export const triangles = frameKind({
  kind: 'triangles',
  fields: { baseM: length(LEAST_M, MAX_SIZE_M), rows: whole(1, 50) },
  traits: ON_FACE,
  places: { wall: 5, fence: 5 },
  usualPlant: 'star-jasmine',
  startWith: LATTICE_WIRE,
  start: ({ widthM }) => ({ kind: 'triangles', baseM: Math.min(1, widthM), rows: 2 }),
  wires: MAIN_ONLY,
  checks: ON_FACE_CHECKS,
  sheet: ['stringing'],
  fit: ({ widthM }, pattern, toleranceShare) =>
    wishesNear(widthM, pattern.baseM, toleranceShare, 0, (baseM) => ({ ...pattern, baseM })),
  lay: ({ site, idsOf }, { baseM, rows }) => {
    const bases = wholeTimes(site.widthM, baseM)
    if (bases < 1) {
      throw new CoreError('frame/cell-too-large', `A base ${baseM} m wide does not fit ${site.widthM} m`, {
        side: 'width',
        cellM: baseM,
        spaceM: site.widthM,
      })
    }
    if ((bases + 1) * (rows + 1) > MAX_NODES) {
      throw new CoreError('frame/too-many-nodes', `${bases * rows} triangles are too many`, {
        cells: bases * rows,
      })
    }
    const { bottomM, topM } = usableRect(site)
    const builder = new LayoutBuilder()
    const stepM = (topM - bottomM) / rows
    const corners = idsOf(
      builder,
      'corner',
      Array.from({ length: bases + 1 }, (_, i) => i * baseM),
    )
    const levels = idsOf(
      builder,
      'level',
      Array.from({ length: rows + 1 }, (_, i) => bottomM + i * stepM),
    )
    // Odd levels are half a base further along and so have one corner fewer.
    const cornersOn = (level: number) => bases + 1 - (level % 2)
    const at = (level: number, i: number) =>
      builder.node(
        `a${levels[level]}.${corners[i]}`,
        alongToX(site, (i + (level % 2) / 2) * baseM),
        bottomM + level * stepM,
        level === 0,
      )
    for (let level = 0; level <= rows; level++) {
      const line = builder.line(`l${levels[level]}`, 'carrying')
      for (let i = 1; i < cornersOn(level); i++) builder.run(at(level, i - 1), at(level, i), line)
      if (level === 0) continue
      const [odd, even] = level % 2 === 1 ? [level, level - 1] : [level - 1, level]
      for (let i = 0; i < cornersOn(odd); i++) {
        builder.wire(at(even, i), at(odd, i))
        builder.wire(at(odd, i), at(even, i + 1))
      }
    }
    return builder.build({
      whole: bases * rows,
      half: 0,
      remainderM: Math.max(0, site.widthM - bases * baseM),
    })
  },
})
