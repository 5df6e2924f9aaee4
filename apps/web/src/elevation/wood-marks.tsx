import type { Bud, Mark } from '@klados/core/drawing'
import type { Point } from '@klados/core/geometry'
import { curveCatmullRom, line } from 'd3-shape'
import { symbolScale } from './view.ts'
import type { View } from './view.ts'

/**
 * Wood is drawn thicker than it is, or a cane would be a hair: by this factor, and never thinner than the
 * least.
 */
const WOOD_SCALE = 2.1
const MIN_WOOD_PX = 2.2
const MAX_WOOD_PX = 26
type Of<K extends Mark['kind']> = Extract<Mark, { kind: K }>

const smooth = line<readonly [number, number]>().curve(curveCatmullRom.alpha(0.5))

export function WoodShape({ mark, view, isChosen }: { mark: Of<'wood'>; view: View; isChosen: boolean }) {
  const path = smooth(mark.points.map((p) => [view.x(p.xM), view.y(p.yM)] as const)) ?? ''
  const width = Math.min(
    MAX_WOOD_PX,
    Math.max(MIN_WOOD_PX, (mark.diameterMm / 1000) * view.pxPerM * WOOD_SCALE),
  )
  const stroke = { fill: 'none', strokeLinecap: 'round' as const, strokeLinejoin: 'round' as const }
  return (
    <g data-mark={mark.id} data-wood={mark.id} className={mark.isQuiet ? 'draw-quiet' : undefined}>
      <path d={path} {...stroke} stroke="transparent" strokeWidth={Math.max(12, width + 6)} />
      {isChosen && (
        <path d={path} {...stroke} stroke="var(--verdigris)" strokeWidth={width + 6} opacity={0.45} />
      )}
      {mark.age === 'older' && (
        <>
          <path d={path} {...stroke} stroke="var(--ink)" strokeWidth={width + 1.6} />
          <path d={path} {...stroke} stroke="var(--bark)" strokeWidth={Math.max(1.2, width - 1)} />
          <path
            d={path}
            {...stroke}
            strokeLinecap="butt"
            stroke="var(--ink)"
            strokeWidth={Math.max(1, width * 0.4)}
            strokeDasharray="5 6"
            opacity={0.55}
          />{' '}
        </>
      )}
      {mark.age === 'two-year' && (
        <>
          <path d={path} {...stroke} stroke="var(--ink)" strokeWidth={Math.max(3.4, width + 1)} />
          <path d={path} {...stroke} stroke="var(--bark-pale)" strokeWidth={Math.max(1.4, width - 1.2)} />
        </>
      )}
      {mark.age === 'one-year' && (
        <>
          <path d={path} {...stroke} stroke="var(--ink)" strokeWidth={Math.max(2, width * 0.8)} />
          {haveRoom(mark.buds, view) &&
            mark.buds.map((bud, i) => {
              const x = view.x(bud.at.xM)
              const y = view.y(bud.at.yM)
              const reach = width / 2 + 3.2
              return (
                <line
                  key={i}
                  x1={x}
                  y1={y}
                  x2={x + Math.cos(bud.angle) * reach}
                  y2={y - Math.sin(bud.angle) * reach}
                  stroke="var(--ink)"
                  strokeWidth={1.5}
                />
              )
            })}
        </>
      )}
      {mark.age === 'shoot' && <ShootShape path={path} width={width} points={mark.points} view={view} />}
    </g>
  )
}

/** Buds nearer together than this would run into a smear. */
const BUD_ROOM_PX = 4

function haveRoom(buds: readonly Bud[], view: View): boolean {
  const [a, b] = buds
  return !a || !b || Math.hypot(b.at.xM - a.at.xM, b.at.yM - a.at.yM) * view.pxPerM >= BUD_ROOM_PX
}

/** This season's shoot: hollow, and pointed at its tip. */
function ShootShape({
  path,
  width,
  points,
  view,
}: {
  path: string
  width: number
  points: readonly Point[]
  view: View
}) {
  const stroke = { fill: 'none', strokeLinecap: 'round' as const, strokeLinejoin: 'round' as const }
  const tip = points.at(-1)!
  const before = points.at(-2)!
  const angle = Math.atan2(view.y(tip.yM) - view.y(before.yM), view.x(tip.xM) - view.x(before.xM))
  const outer = Math.max(4, width + 1.4)
  return (
    <>
      <path d={path} {...stroke} stroke="var(--verdigris)" strokeWidth={outer} />
      <path d={path} {...stroke} stroke="var(--paper)" strokeWidth={outer - 2.4} />
      <polygon
        transform={`translate(${view.x(tip.xM)} ${view.y(tip.yM)}) rotate(${(angle * 180) / Math.PI})`}
        points={`-1,${-outer / 2 - 0.6} ${outer + 4},0 -1,${outer / 2 + 0.6}`}
        fill="var(--verdigris)"
      />
    </>
  )
}

export function TieShape({ mark, view, isChosen }: { mark: Of<'tie'>; view: View; isChosen: boolean }) {
  const x = view.x(mark.at.xM)
  const y = view.y(mark.at.yM)
  const scale = symbolScale(view)
  return (
    <g className={`draw-tie draw-tie-${mark.state}`} data-mark={mark.id} data-tie={mark.id}>
      <circle cx={x} cy={y} r={11} fill="transparent" stroke="none" />
      {isChosen && <circle className="draw-chosen-halo" cx={x} cy={y} r={11} />}
      <ellipse cx={x} cy={y - 3.4 * scale} rx={3.3 * scale} ry={3.7 * scale} />
      <ellipse cx={x} cy={y + 3.4 * scale} rx={3.3 * scale} ry={3.7 * scale} />
    </g>
  )
}
