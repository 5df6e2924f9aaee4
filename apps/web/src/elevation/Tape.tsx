import { METRES_PER } from '@klados/core/units'
import type { UnitSystem } from '@klados/core/units'
import type { View } from './view.ts'

/**
 * Steps between figures and between ticks, in the unit that the tape counts: cm, or inches with figures in
 * feet.
 */
const STEPS: Readonly<Record<UnitSystem, readonly (readonly [figure: number, tick: number])[]>> = {
  metric: [
    [10, 2],
    [20, 5],
    [50, 10],
    [100, 20],
    [200, 50],
    [500, 100],
    [1000, 200],
  ],
  imperial: [
    [6, 1],
    [12, 3],
    [24, 6],
    [60, 12],
    [120, 24],
    [240, 60],
  ],
}
/** Room that a figure wants: less up a standing tape, where it is turned. */
const STANDING_FIGURE_PX = 27
const LYING_FIGURE_PX = 38
const TAPE_PX = 20
/** A tape shorter than this has no room for a figure. */
const MIN_TAPE_PX = 40

function stepsFor(system: UnitSystem, pxPerM: number, roomPx: number): readonly [number, number] {
  const unitM = system === 'metric' ? METRES_PER.cm : METRES_PER.in
  return STEPS[system].find(([figure]) => figure * unitM * pxPerM >= roomPx) ?? STEPS[system].at(-1)!
}

/** Centimetres up to a few metres, as a tape of that length has them; whole metres on a long one. */
function figure(units: number, system: UnitSystem, step: number): string {
  if (system === 'metric') return step < 100 ? String(units) : `${units / 100} m`
  const feet = Math.floor(units / 12)
  const inches = units - feet * 12
  return inches === 0 ? `${feet}'` : feet === 0 ? `${inches}"` : `${feet}'${inches}`
}

interface TapeProps {
  readonly view: View
  readonly system: UnitSystem
  readonly lengthM: number
}

/** The measuring tape that stands at the edge of every elevation, from the soil up. */
export function StandingTape({ view, system, lengthM, leftM }: TapeProps & { readonly leftM: number }) {
  const left = Math.max(6, Math.min(view.x(leftM) - 44, view.widthPx - 60))
  const unitM = system === 'metric' ? METRES_PER.cm : METRES_PER.in
  const [figureStep, tickStep] = stepsFor(system, view.pxPerM, STANDING_FIGURE_PX)
  const count = Math.floor(lengthM / unitM / tickStep + 1e-9)
  const top = view.y(lengthM)
  if (view.y(0) - top < MIN_TAPE_PX) return null
  return (
    <g aria-hidden="true">
      <rect className="draw-tape" x={left} y={top} width={TAPE_PX} height={view.y(0) - top} />
      {Array.from({ length: count }, (_, i) => (i + 1) * tickStep).map((units) => {
        const y = view.y(units * unitM)
        const isFigure = units % figureStep === 0
        return (
          <g key={units}>
            <line
              className="draw-tape-tick"
              x1={left + TAPE_PX}
              x2={left + TAPE_PX - (isFigure ? 9 : 5)}
              y1={y}
              y2={y}
            />
            {isFigure && y - 12 > top && (
              <text
                className="draw-tape-figure"
                textAnchor="middle"
                transform={`translate(${left + 9} ${y}) rotate(-90)`}
              >
                {figure(units, system, figureStep)}
              </text>
            )}
          </g>
        )
      })}
    </g>
  )
}

/** The tape laid along the foot, counting from the viewing end: what mark-out distances are read on. */
export function LyingTape({
  view,
  system,
  lengthM,
  footM,
  fromRight,
}: TapeProps & { readonly footM: number; readonly fromRight: boolean }) {
  const unitM = system === 'metric' ? METRES_PER.cm : METRES_PER.in
  const [figureStep, tickStep] = stepsFor(system, view.pxPerM, LYING_FIGURE_PX)
  const count = Math.floor(lengthM / unitM / tickStep + 1e-9)
  const y = Math.min(view.y(footM) + 9, view.heightPx - TAPE_PX - 4)
  if (lengthM * view.pxPerM < MIN_TAPE_PX) return null
  const at = (units: number) => view.x(fromRight ? lengthM - units * unitM : units * unitM)
  return (
    <g aria-hidden="true">
      <rect className="draw-tape" x={view.x(0)} y={y} width={lengthM * view.pxPerM} height={TAPE_PX} />
      {Array.from({ length: count }, (_, i) => (i + 1) * tickStep).map((units) => {
        const x = at(units)
        const isFigure = units % figureStep === 0
        return (
          <g key={units}>
            <line className="draw-tape-tick" x1={x} x2={x} y1={y} y2={y + (isFigure ? 8 : 4)} />
            {isFigure && Math.abs(x - at(lengthM / unitM)) > 14 && (
              <text className="draw-tape-figure" x={x} y={y + 17} textAnchor="middle">
                {figure(units, system, figureStep)}
              </text>
            )}
          </g>
        )
      })}
    </g>
  )
}
