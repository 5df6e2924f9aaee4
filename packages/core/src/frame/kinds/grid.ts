import { CoreError } from '../../errors/index.ts'
import { whole } from '../field.ts'
import { MAIN_ONLY, ON_FACE, ON_FACE_CHECKS, WALL_WIRE, frameKind, wishesNear } from '../kind.ts'
import { LayoutBuilder, MAX_NODES, equalSteps } from '../layout.ts'
import { alongToX, usableRect } from '../site.ts'

const STEP_M = 0.5

/** Equally spaced uprights and levels from edge to edge, fixed where they cross. */
export const grid = frameKind({
  kind: 'grid',
  fields: { verticals: whole(2, 500), horizontals: whole(2, 100) },
  traits: ON_FACE,
  places: { wall: 6, fence: 6 },
  usualPlant: 'clematis',
  startWith: WALL_WIRE,
  start: ({ widthM, usableHeightM }) => ({
    kind: 'grid',
    verticals: Math.max(2, Math.min(60, Math.round(widthM / STEP_M) + 1)),
    horizontals: Math.max(2, Math.min(12, Math.round(usableHeightM / STEP_M) + 1)),
  }),
  wires: MAIN_ONLY,
  checks: ON_FACE_CHECKS,
  sheet: ['stringing'],
  fit: ({ widthM }, pattern, toleranceShare) =>
    wishesNear(widthM, widthM / Math.max(1, pattern.verticals - 1), toleranceShare, 0, (_, count) => ({
      ...pattern,
      verticals: count + 1,
    })),
  lay: ({ site, idsOf }, { verticals, horizontals }) => {
    const crossings = verticals * horizontals
    if (crossings > MAX_NODES)
      throw new CoreError('frame/too-many-nodes', `${crossings} crossings are too many`, { crossings })
    const { bottomM, topM } = usableRect(site)
    const builder = new LayoutBuilder()
    const alongM = equalSteps(site.widthM, verticals - 1)
    const heightsM = equalSteps(topM - bottomM, horizontals - 1).map((m) => bottomM + m)
    const uprights = idsOf(builder, 'upright', alongM)
    const levels = idsOf(builder, 'level', heightsM)
    const upright = uprights.map((id) => builder.line(`v${id}`, 'carrying'))
    const level = levels.map((id) => builder.line(`h${id}`, 'carrying'))
    const at = (i: number, j: number) =>
      builder.node(`g${levels[j]}.${uprights[i]}`, alongToX(site, alongM[i]!), heightsM[j]!, j === 0)
    for (let j = 0; j < horizontals; j++) {
      for (let i = 0; i < verticals; i++) {
        if (i > 0) builder.run(at(i - 1, j), at(i, j), level[j]!)
        if (j > 0) builder.run(at(i, j - 1), at(i, j), upright[i]!)
      }
    }
    return builder.build()
  },
})
