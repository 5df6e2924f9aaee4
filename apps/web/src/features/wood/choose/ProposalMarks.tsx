import { polylineLengthM, pointAlong } from '@klados/core/geometry'
import type { Point } from '@klados/core/geometry'
import type { Bare, Deed, PlantView } from '@klados/core/training'
import { curveCatmullRom, line } from 'd3-shape'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import type { View } from '../../../elevation/view.ts'
import { useUnits } from '../../../ui/units.tsx'
import { spreadLetters, withRoom } from './spread-letters.ts'

/** What is drawn of a deed: whose it is, where it is cut, how it lies then. */
export interface DeedMark {
  readonly pieceId: string
  readonly letter: string
  readonly deed: Deed
  readonly cutM: number | null
  readonly aboveBuds: number | null
  readonly path: readonly Point[] | null
}

interface ProposalMarksProps {
  readonly view: View
  readonly plant: PlantView
  readonly deeds: readonly DeedMark[]
  readonly followUps: readonly Pick<DeedMark, 'pieceId' | 'cutM' | 'path'>[]
  readonly bare?: readonly Bare[]
  readonly focused?: string | null
}

const smooth = line<readonly [number, number]>().curve(curveCatmullRom.alpha(0.5))
const LETTER_PX = 10
const APART_PX = 24
const ABOVE_PX = 14
const LABELS = 6
/** Of more shoots than this only those have a letter that have room for it; the others when one zooms in. */
const MOST_LETTERS = 40
const isLabelled = (one: DeedMark): boolean =>
  one.cutM !== null && one.deed !== 'off' && !one.path && one.aboveBuds !== null

/** The proposal on the drawing: how canes will lie, a stroke at each cut, letters at the tips, what stays bare. */
export function ProposalMarks({
  view,
  plant,
  deeds,
  followUps,
  bare = [],
  focused = null,
}: ProposalMarksProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const lettered = deeds.flatMap(({ pieceId, letter, deed }) => {
    const stem = plant.stem(pieceId)
    // What comes off is found before what stays.
    const rank = pieceId === focused ? 0 : deed === 'off' ? 1 : 2
    return stem ? [{ pieceId, letter, rank, x: view.x(stem.tip.xM), y: view.y(stem.tip.yM) }] : []
  })
  const put = spreadLetters(
    lettered.length > MOST_LETTERS ? withRoom(lettered, APART_PX) : lettered,
    ABOVE_PX,
    APART_PX,
  )
  // Of many spurs alike the list says how long they stay; on the drawing the words would lie on each other.
  const hasLabels = deeds.filter(isLabelled).length <= LABELS
  return (
    <g>
      {bare.map(({ stretch, fromM, toM }) => (
        <BareMark
          key={`${stretch.id}-${fromM}`}
          view={view}
          path={stretch.path}
          fromM={fromM}
          toM={toM}
          words={t('choose.bare', { length: units.length(toM - fromM) })}
        />
      ))}
      {deeds.map((one) => {
        const { pieceId } = one
        const stem = plant.stem(pieceId)
        if (!stem) return null
        return (
          <g key={pieceId} pointerEvents="none">
            {one.path && (
              <path
                className={`draw-laid ${pieceId === focused ? 'draw-laid-focused' : ''}`}
                d={smooth(one.path.map((p) => [view.x(p.xM), view.y(p.yM)] as const)) ?? ''}
              />
            )}
            {hasLabels && isLabelled(one) && (
              <BudsLabel
                view={view}
                path={stem.piece.path}
                alongM={one.cutM!}
                words={t('choose.buds', { count: one.aboveBuds! })}
              />
            )}
            {one.cutM !== null && !one.path && (
              <Stroke
                view={view}
                path={stem.piece.path}
                alongM={one.deed === 'off' ? Math.min(0.02, stem.lengthM / 3) : one.cutM}
              />
            )}
          </g>
        )
      })}
      {followUps.map((one) => {
        const stem = plant.stem(one.pieceId)
        if (!stem) return null
        return (
          <g key={one.pieceId} pointerEvents="none">
            {one.path && (
              <path
                className="draw-laid"
                d={smooth(one.path.map((p) => [view.x(p.xM), view.y(p.yM)] as const)) ?? ''}
              />
            )}
            {one.cutM !== null && (
              <Stroke view={view} path={stem.piece.path} alongM={Math.max(0.01, one.cutM)} />
            )}
          </g>
        )
      })}
      {put.map(({ pieceId, letter, x, y, tipX, tipY }) => {
        const isOff = deeds.some((one) => one.pieceId === pieceId && one.deed === 'off')
        return (
          <g key={pieceId} data-wood={pieceId} className="cursor-pointer">
            {Math.hypot(x - tipX, y + ABOVE_PX - tipY) > 6 && (
              <line className="draw-dimension" x1={x} y1={y} x2={tipX} y2={tipY} />
            )}
            <circle cx={x} cy={y} r={18} fill="transparent" stroke="none" />
            <circle
              className={`draw-letter ${isOff ? 'draw-letter-off' : ''} ${pieceId === focused ? 'draw-letter-focused' : ''}`}
              cx={x}
              cy={y}
              r={LETTER_PX}
            />
            <text
              className={`draw-letter-text ${isOff ? 'draw-letter-text-off' : ''}`}
              x={x}
              y={y + 4}
              textAnchor="middle"
            >
              {letter}
            </text>
          </g>
        )
      })}
    </g>
  )
}

/** A cut: a slanted stroke across the wood. */
function Stroke({ view, path, alongM }: { view: View; path: readonly Point[]; alongM: number }) {
  const total = polylineLengthM(path)
  const at = pointAlong(path, Math.min(alongM, total))
  const before = pointAlong(path, Math.max(0, Math.min(alongM, total) - 0.01))
  const angle =
    Math.atan2(view.y(at.yM) - view.y(before.yM), view.x(at.xM) - view.x(before.xM)) + Math.PI / 2 - 0.4
  const [dx, dy] = [Math.cos(angle) * 9, Math.sin(angle) * 9]
  const [x, y] = [view.x(at.xM), view.y(at.yM)]
  return <line className="draw-cut" x1={x - dx} y1={y - dy} x2={x + dx} y2={y + dy} />
}

/** Above how many buds one cuts, beside the stroke and away from the middle of the plant. */
function BudsLabel({
  view,
  path,
  alongM,
  words,
}: {
  view: View
  path: readonly Point[]
  alongM: number
  words: string
}) {
  const at = pointAlong(path, alongM)
  const isLeft = path.at(-1)!.xM < path[0]!.xM
  return (
    <text
      className="draw-label draw-label-limit draw-halo"
      x={view.x(at.xM) + (isLeft ? -13 : 13)}
      y={view.y(at.yM) + 4}
      textAnchor={isLeft ? 'end' : 'start'}
    >
      {words}
    </text>
  )
}

interface BareMarkProps {
  readonly view: View
  readonly path: readonly Point[]
  readonly fromM: number
  readonly toM: number
  readonly words: string
}

/** What of a wire stays bare, as a line below it with its length. */
function BareMark({ view, path, fromM, toM, words }: BareMarkProps) {
  const [a, b] = [pointAlong(path, fromM), pointAlong(path, toM)]
  const [x1, y1, x2, y2] = [view.x(a.xM), view.y(a.yM) + 9, view.x(b.xM), view.y(b.yM) + 9]
  return (
    <g pointerEvents="none">
      <line className="draw-bare" x1={x1} y1={y1} x2={x2} y2={y2} />
      {Math.abs(x2 - x1) > 40 && (
        <text
          className="draw-label draw-label-moved draw-halo"
          x={(x1 + x2) / 2}
          y={(y1 + y2) / 2 + 14}
          textAnchor="middle"
        >
          {words}
        </text>
      )}
    </g>
  )
}
