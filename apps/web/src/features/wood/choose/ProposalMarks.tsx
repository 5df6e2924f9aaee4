import { alongPath, pathLengthM, seenLines } from '@klados/core/geometry'
import type { DeepPoint, Look } from '@klados/core/geometry'
import type { Bare, Deed, PlantView } from '@klados/core/training'
import { curveCatmullRom, line } from 'd3-shape'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import type { View } from '../../../elevation/view.ts'
import { useUnits } from '../../../ui/units.tsx'
import { onSheet } from '../looks.ts'
import { spreadLetters, withRoom } from './spread-letters.ts'

/** What is drawn of a deed: whose it is, where it is cut, how it lies then. */
export interface DeedMark {
  readonly pieceId: string
  readonly letter: string
  readonly deed: Deed
  readonly cutM: number | null
  readonly aboveBuds: number | null
  readonly path: readonly DeepPoint[] | null
}

interface ProposalMarksProps {
  readonly view: View
  readonly look: Look
  readonly plant: PlantView
  readonly deeds: readonly DeedMark[]
  readonly followUps: readonly Pick<DeedMark, 'pieceId' | 'cutM' | 'path'>[]
  readonly bare?: readonly Bare[]
  readonly focused?: string | null
}

const curve = line<readonly [number, number]>().curve(curveCatmullRom.alpha(0.5))
const smooth = (path: readonly DeepPoint[], view: View, look: Look): string =>
  seenLines(path, look)
    .map(({ points }) => curve(points.map((p) => [view.x(p.xM), view.y(p.yM)] as const)) ?? '')
    .join('')
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
  look,
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
    if (!stem) return []
    const [x, y] = onSheet(stem.tip, view, look)
    return [{ pieceId, letter, rank, x, y }]
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
          {...{ view, look }}
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
                d={smooth(one.path, view, look)}
              />
            )}
            {hasLabels && isLabelled(one) && (
              <BudsLabel
                {...{ view, look }}
                path={stem.piece.path}
                alongM={one.cutM!}
                words={t('choose.buds', { count: one.aboveBuds! })}
              />
            )}
            {one.cutM !== null && !one.path && (
              <Stroke
                {...{ view, look }}
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
            {one.path && <path className="draw-laid" d={smooth(one.path, view, look)} />}
            {one.cutM !== null && (
              <Stroke {...{ view, look }} path={stem.piece.path} alongM={Math.max(0.01, one.cutM)} />
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

interface AlongProps {
  readonly view: View
  readonly look: Look
  readonly path: readonly DeepPoint[]
}

/** A cut: a slanted stroke across the wood. */
function Stroke({ view, look, path, alongM }: AlongProps & { readonly alongM: number }) {
  const cutM = Math.min(alongM, pathLengthM(path))
  const [x, y] = onSheet(alongPath(path, cutM), view, look)
  const [fromX, fromY] = onSheet(alongPath(path, Math.max(0, cutM - 0.01)), view, look)
  const angle = Math.atan2(y - fromY, x - fromX) + Math.PI / 2 - 0.4
  const [dx, dy] = [Math.cos(angle) * 9, Math.sin(angle) * 9]
  return <line className="draw-cut" x1={x - dx} y1={y - dy} x2={x + dx} y2={y + dy} />
}

interface BudsLabelProps extends AlongProps {
  readonly alongM: number
  readonly words: string
}

/** Above how many buds one cuts, beside the stroke and away from the middle of the plant. */
function BudsLabel({ view, look, path, alongM, words }: BudsLabelProps) {
  const [x, y] = onSheet(alongPath(path, alongM), view, look)
  const isLeft = onSheet(path.at(-1)!, view, look)[0] < onSheet(path[0]!, view, look)[0]
  return (
    <text
      className="draw-label draw-label-limit draw-halo"
      x={x + (isLeft ? -13 : 13)}
      y={y + 4}
      textAnchor={isLeft ? 'end' : 'start'}
    >
      {words}
    </text>
  )
}

interface BareMarkProps extends AlongProps {
  readonly fromM: number
  readonly toM: number
  readonly words: string
}

/** What of a wire stays bare, as a line below it with its length. */
function BareMark({ view, look, path, fromM, toM, words }: BareMarkProps) {
  const [x1, y1] = onSheet(alongPath(path, fromM), view, look)
  const [x2, y2] = onSheet(alongPath(path, toM), view, look)
  return (
    <g pointerEvents="none">
      <line className="draw-bare" x1={x1} y1={y1 + 9} x2={x2} y2={y2 + 9} />
      {Math.abs(x2 - x1) > 40 && (
        <text
          className="draw-label draw-label-moved draw-halo"
          x={(x1 + x2) / 2}
          y={(y1 + y2) / 2 + 23}
          textAnchor="middle"
        >
          {words}
        </text>
      )}
    </g>
  )
}
