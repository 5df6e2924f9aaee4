import { levelWires } from '../../level-wires.ts'
import { cutPolyline, polylineLengthM } from '../../../geometry/index.ts'
import { option } from '../../options.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { Option, Stretch } from '../../question.ts'
import { mainsQuestion } from './mains.ts'
import { rose } from './base.ts'

const SIDES = ['left', 'right'] as const
/** The angles of a fan on each side, from the level, degrees. */
const FAN_ANGLES = [15, 35, 55, 75] as const

function layFan(stem: Stem, stretches: readonly FanStretch[], points: number): Option[] {
  return stretches.flatMap(({ angleDeg, side, stretch }) => {
    const path = cutPolyline([stem.base, ...stretch.path.slice(1)], stem.lengthM)
    const lengthM = polylineLengthM(path)
    return [
      option(`fan-${angleDeg}-${side}`, 'lay', {
        cost: -points,
        buds: Math.floor(lengthM / stem.internodeM),
        cutM: stem.lengthM - lengthM > 0.005 ? lengthM : null,
        aboveBuds: stem.lengthM - lengthM > 0.005 ? Math.floor(lengthM / stem.internodeM) : null,
        path,
        covers: [{ track: stretch.id, fromM: 0, toM: Math.min(stretch.lengthM, lengthM) }],
        towards: side,
        wire: null,
      }),
    ]
  })
}

interface FanStretch {
  readonly angleDeg: number
  readonly side: 'left' | 'right'
  readonly stretch: Stretch
}

/** Rays from the foot to the edge of the plant's share or its topmost wire. */
function fanStretches(view: PlantView): FanStretch[] {
  const xM = view.input.plant.xM
  const topM = levelWires(view).at(-1)?.heightM ?? 2
  return SIDES.flatMap((side) => {
    const sign = side === 'left' ? -1 : 1
    const roomM = Math.abs((side === 'left' ? view.share.fromM : view.share.toM) - xM)
    return FAN_ANGLES.flatMap((angleDeg): FanStretch[] => {
      const angle = (angleDeg * Math.PI) / 180
      const lengthM = Math.min(roomM / Math.cos(angle), topM / Math.sin(angle))
      if (lengthM < 0.5) return []
      const path = [
        { xM, yM: view.input.plant.footYM },
        {
          xM: xM + sign * Math.cos(angle) * lengthM,
          yM: view.input.plant.footYM + Math.sin(angle) * lengthM,
        },
      ]
      const stretch = {
        id: `fan:${angleDeg}:${side}`,
        lengthM,
        wanted: [[0, lengthM]] as const,
        frameId: null,
        lineId: null,
        wire: null,
        path,
      }
      return [{ angleDeg, side, stretch }]
    })
  })
}

export const roseFan = rose('rose-fan', 'fan-mains', (view) => {
  const stretches = fanStretches(view)
  return mainsQuestion(
    view,
    'fan-mains',
    stretches.map(({ stretch }) => stretch),
    (stem, points) =>
      stem.lengthM < (levelWires(view)[0]?.heightM ?? 0) ? [] : layFan(stem, stretches, points),
  )
})
