import type { Surface } from '../catalogue/index.ts'
import type { DisplayList, Mark, TieMark, WoodAge } from './display-list.ts'
import { budsAlong } from './buds.ts'
import { groundAt } from '../frame/index.ts'
import type { AvoidSpot, Site } from '../frame/index.ts'
import { FRONT, polylineLengthM, seenLines, seenPoint } from '../geometry/index.ts'
import type { Look, Point } from '../geometry/index.ts'
import { findKind } from '../kinds/index.ts'
import type { CalendarDate, Hemisphere } from '../season/index.ts'
import { baseDiameterMm, pieceAge } from '../wood/index.ts'
import type { Piece, Tie } from '../wood/index.ts'

/** Depth of ground shown below the soil line, metres. */
export const GROUND_M = 0.12

/**
 * The place itself: face, first fork, ground and spots to avoid. In the open there is no face, and the ground
 * may rise.
 */
export function drawSite(site: Site, surface: Surface): DisplayList {
  const topM = site.firstForkM + site.usableHeightM
  const box = (leftM: number, bottomM: number, rightM: number, upM: number): Point[] => [
    { xM: leftM, yM: bottomM },
    { xM: rightM, yM: bottomM },
    { xM: rightM, yM: upM },
    { xM: leftM, yM: upM },
  ]
  const soil = [
    { xM: 0, yM: -GROUND_M },
    { xM: site.widthM, yM: groundAt(site, site.widthM) - GROUND_M },
    { xM: site.widthM, yM: groundAt(site, site.widthM) },
    { xM: 0, yM: 0 },
  ]
  const marks: Mark[] = [{ kind: 'area', role: 'ground', points: soil }]
  if (surface !== 'open') marks.unshift({ kind: 'area', role: 'wall', points: box(0, 0, site.widthM, topM) })
  if (site.firstForkM > 0 && surface !== 'open') {
    marks.push({
      kind: 'line',
      role: 'first-fork',
      points: [
        { xM: 0, yM: site.firstForkM },
        { xM: site.widthM, yM: site.firstForkM },
      ],
    })
  }
  for (const spot of site.avoid) marks.push(drawSpot(spot, site.widthM, topM, box))
  return marks
}

function drawSpot(
  spot: AvoidSpot,
  widthM: number,
  topM: number,
  box: (l: number, b: number, r: number, t: number) => Point[],
): Mark {
  if (spot.kind === 'point')
    return { kind: 'disc', role: 'spot', id: spot.id, at: spot, radiusM: spot.radiusM }
  const points =
    spot.axis === 'vertical' ? box(spot.fromM, 0, spot.toM, topM) : box(0, spot.fromM, widthM, spot.toM)
  return { kind: 'area', role: 'spot', id: spot.id, points }
}

export interface WoodView {
  readonly on: CalendarDate
  readonly hemisphere: Hemisphere
  readonly kindOf: (plantId: string) => string
  readonly tieState: (tie: Tie) => TieMark
  /** What is not in question now. */
  readonly isQuiet?: (pieceId: string) => boolean
  /** From the front unless said. */
  readonly look?: Look
}

/** Wood, oldest first so that young wood lies on top, then ties. Removed wood and ended ties are left out. */
export function drawWood(pieces: Iterable<Piece>, ties: Iterable<Tie>, view: WoodView): DisplayList {
  const look = view.look ?? FRONT
  const seen = look.from === 'unrolled' ? JSON.stringify(look.round) : look.from
  const wood = [...pieces]
    .filter((piece) => piece.removedOn === null)
    .map((piece) => ({ piece, age: pieceAge(piece, view.on, view.hemisphere) }))
    .sort((a, b) => b.age - a.age)
    .flatMap(({ piece, age }) => {
      const kindId = view.kindOf(piece.plantId)
      const isQuiet = view.isQuiet?.(piece.id) ?? false
      const ground = `${view.on} ${view.hemisphere} ${kindId} ${isQuiet} ${seen}`
      return drawnOnce(piece, ground, () => drawPiece(piece, age, { ...view, kindId, isQuiet, look }))
    })
  const marks = [...ties]
    .filter((tie) => tie.endedOn === null)
    .flatMap((tie) => {
      const state = view.tieState(tie)
      return drawnOnce(tie, `${state} ${seen}`, () => [
        { kind: 'tie', id: tie.id, at: seenPoint(tie.at, look), state },
      ])
    })
  return [...wood, ...marks]
}

interface PieceView extends Pick<WoodView, 'on' | 'hemisphere'> {
  readonly kindId: string
  readonly isQuiet: boolean
  readonly look: Look
}

/** One mark; of what runs over the slit of what is unrolled, one for each side of it. */
function drawPiece(piece: Piece, age: number, { on, hemisphere, kindId, isQuiet, look }: PieceView): Mark[] {
  const kind = findKind(kindId)
  return seenLines(piece.path, look).map(({ points, alongM }): Mark => {
    const ownM = alongM.at(-1)! - alongM[0]!
    const seenM = polylineLengthM(points)
    return {
      kind: 'wood',
      id: piece.id,
      age: woodAge(age),
      points,
      diameterMm: kind ? baseDiameterMm(piece, kind, on, hemisphere) : piece.baseMm,
      isQuiet,
      // Wood that runs away from one shows its buds nearer together.
      buds:
        age === 1 && kind && seenM > kind.internodeM * LEAST_SEEN
          ? budsAlong(points, kind.internodeM * (seenM / ownM))
          : [],
    }
  })
}
/** Of wood that one looks at along its own length there are no buds to be seen, in joints. */
const LEAST_SEEN = 0.2

interface Drawn {
  /** All that the mark depends on beside what it is of. */
  readonly ground: string
  readonly marks: readonly Mark[]
}
const drawn = new WeakMap<Piece | Tie, Drawn>()

/**
 * What is drawn again as it was is the very mark that it was: whoever shows it sees at a glance that it need not be shown
 * anew, and a place of hundreds of canes costs a tap on one of them no more than a bed of three.
 */
function drawnOnce(of: Piece | Tie, ground: string, draw: () => readonly Mark[]): readonly Mark[] {
  const before = drawn.get(of)
  if (before?.ground === ground) return before.marks
  const marks = draw()
  drawn.set(of, { ground, marks })
  return marks
}

function woodAge(seasons: number): WoodAge {
  if (seasons === 0) return 'shoot'
  if (seasons === 1) return 'one-year'
  return seasons === 2 ? 'two-year' : 'older'
}
