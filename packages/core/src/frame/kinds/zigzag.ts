import { CoreError } from '../../errors/index.ts'
import { length } from '../field.ts'
import {
  LEAST_M,
  MAX_SIZE_M,
  MAIN_ONLY,
  ON_FACE,
  ON_FACE_CHECKS,
  LATTICE_WIRE,
  frameKind,
  centimetres,
  wishesNear,
} from '../kind.ts'
import { LayoutBuilder, MAX_NODES, wholeTimes } from '../layout.ts'
import { alongToX, usableRect } from '../site.ts'

/**
 * One line to and fro between the first fork and the top: whole strokes only, the first up from the viewing
 * end.
 */
export const zigzag = frameKind({
  kind: 'zigzag',
  fields: { strokeWidthM: length(LEAST_M, MAX_SIZE_M) },
  traits: ON_FACE,
  places: { wall: 4, fence: 4 },
  usualPlant: 'star-jasmine',
  startWith: LATTICE_WIRE,
  start: ({ widthM, usableHeightM }) => ({
    kind: 'zigzag',
    // The taller the strokes, the closer, or each bears more leaf than its two eyes hold.
    strokeWidthM: Math.min(centimetres(Math.min(0.8, 0.35 * usableHeightM)), widthM),
  }),
  wires: MAIN_ONLY,
  checks: ON_FACE_CHECKS,
  sheet: ['stringing'],
  fit: ({ widthM }, pattern, toleranceShare) =>
    wishesNear(widthM, pattern.strokeWidthM, toleranceShare, 0, (strokeWidthM) => ({
      ...pattern,
      strokeWidthM,
    })),
  lay: ({ site, idsOf }, { strokeWidthM }) => {
    const strokes = wholeTimes(site.widthM, strokeWidthM)
    if (strokes < 1) {
      throw new CoreError(
        'frame/cell-too-large',
        `A stroke ${strokeWidthM} m wide does not fit ${site.widthM} m`,
        { side: 'width', cellM: strokeWidthM, spaceM: site.widthM },
      )
    }
    if (strokes > MAX_NODES)
      throw new CoreError('frame/too-many-nodes', `${strokes} strokes are too many`, { strokes })
    const { bottomM, topM } = usableRect(site)
    const builder = new LayoutBuilder()
    const alongM = Array.from({ length: strokes + 1 }, (_, i) => i * strokeWidthM)
    const corners = idsOf(builder, 'corner', alongM)
    alongM.forEach((along, i) => {
      const isLow = i % 2 === 0
      const node = builder.node(`z${corners[i]}`, alongToX(site, along), isLow ? bottomM : topM, isLow)
      if (i > 0) builder.wire(node - 1, node)
    })
    return builder.build({
      whole: strokes,
      half: 0,
      remainderM: Math.max(0, site.widthM - strokes * strokeWidthM),
    })
  },
})
