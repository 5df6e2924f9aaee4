import { findWire, standardCatalogue } from '@klados/core/catalogue'
import type { Catalogue } from '@klados/core/catalogue'
import type { FrameBody, PlaceBody } from '@klados/contract'
import type { PatternKind } from '@klados/core/frame'

type Design = FrameBody['design']
type Pattern = Design['pattern']

const TIER_STEP_M = 0.4
const CELL_M = 0.8
const centimetres = (m: number) => Math.round(m * 100) / 100

/** Which frames suit a place: those fixed to a face, those that stand on ground, those in pots. */
export function kindsFor(place: Pick<PlaceBody, 'kind'>): readonly PatternKind[] {
  switch (place.kind) {
    case 'wall':
    case 'fence':
      return ['tiers', 'diamonds', 'fan', 'zigzag', 'triangles', 'grid', 'free']
    case 'row':
      return ['row', 'net', 'brush', 'stakes']
    case 'bed':
      return ['overhead', 'arch', 'net', 'row', 'obelisk', 'brush', 'stakes']
    case 'terrace':
      return ['overhead', 'arch', 'obelisk', 'spiral', 'stakes']
    case 'bench':
    case 'tub':
      return ['spiral', 'obelisk', 'arch', 'pole', 'stakes', 'column']
  }
}

/** What each kind is strung with to begin with; string for the spiral, field wire for rows and covers. */
const WIRE_OF: Partial<Record<PatternKind, string>> = {
  row: 'high-tensile-2.5',
  net: 'high-tensile-2.5',
  overhead: 'stainless-rope-3',
  spiral: 'coir-6',
}

/** Where a new frame begins: ordinary practice at this place, to be changed from there. */
export function startDesign(
  place: PlaceBody,
  kind: PatternKind,
  catalogue: Catalogue = standardCatalogue,
): Design {
  const choice = (id: string) => {
    const wire = findWire(catalogue, id) ?? catalogue.wires[0]!
    return { wireId: wire.id, tensionN: wire.usualTensionN, rolls: wire.rolls.map((roll) => ({ ...roll })) }
  }
  const isField = kind === 'row' || kind === 'net'
  return {
    pattern: startPattern(place, kind),
    moveToleranceM: isField ? 0.3 : 0.04,
    dragged: {},
    snap: 'none',
    ...choice(WIRE_OF[kind] ?? 'stainless-2'),
    light: kind === 'row' ? choice('high-tensile-2') : null,
    endWrapM: isField ? 0.4 : 0.15,
    handlingLengthM: isField ? 250 : 12,
    endsAt: 'any',
    fixingId: 'eye-100',
    setC: 12,
    plantKindId: null,
    repeat: 1,
  }
}

export function startPattern(place: PlaceBody, kind: PatternKind): Pattern {
  const potHeightM = 0.4
  const pot =
    place.kind === 'bench' || place.kind === 'tub' || place.kind === 'terrace'
      ? { shape: 'round' as const, widthM: Math.min(0.45, Math.max(0.2, place.widthM)), heightM: potHeightM }
      : null
  const roomM = place.usableHeightM + place.firstForkM
  const tall = (wantedM: number) =>
    centimetres(Math.max(0.3, Math.min(wantedM, roomM - (pot ? potHeightM : 0))))
  switch (kind) {
    case 'tiers': {
      const tiers = Math.max(1, Math.min(12, Math.floor(place.usableHeightM / TIER_STEP_M + 1e-6) + 1))
      const heightsM = Array.from(
        { length: tiers },
        (_, i) => Math.round((place.firstForkM + i * TIER_STEP_M) * 1000) / 1000,
      )
      return { kind, heightsM, maxSupportSpacingM: 2.4 }
    }
    case 'diamonds':
      return {
        kind,
        cell: { by: 'width', widthM: Math.min(CELL_M, place.widthM) },
        cellHeightM: null,
        rows: 1,
        closeCutEnd: false,
      }
    case 'zigzag':
      return { kind, strokeWidthM: Math.min(CELL_M, place.widthM) }
    case 'triangles':
      return { kind, baseM: Math.min(1, place.widthM), rows: 2 }
    case 'grid':
      return {
        kind,
        verticals: Math.max(2, Math.min(60, Math.round(place.widthM / 0.5) + 1)),
        horizontals: Math.max(2, Math.min(12, Math.round(place.usableHeightM / 0.5) + 1)),
      }
    case 'free': {
      const [left, right] = [centimetres(place.widthM * 0.25), centimetres(place.widthM * 0.75)]
      const [low, high] = [place.firstForkM, centimetres(place.firstForkM + place.usableHeightM * 0.8)]
      return {
        kind,
        nodes: [
          { id: 'n1', xM: left, yM: low, isStart: true },
          { id: 'n2', xM: centimetres(place.widthM / 2), yM: high, isStart: false },
          { id: 'n3', xM: right, yM: low, isStart: true },
        ],
        runs: [
          ['n1', 'n2'],
          ['n2', 'n3'],
        ],
      }
    }
    case 'fan':
      return {
        kind,
        ribs: 9,
        spreadDeg: 150,
        wireStepM: Math.min(0.3, place.usableHeightM / 2),
        maxSupportSpacingM: 1.8,
        ribReachM: 2.4,
        ribStockId: 'cane-24',
      }
    case 'row': {
      const postHeightM = tall(1.9)
      const at = (share: number) => centimetres(postHeightM * share)
      return {
        kind,
        maxPostSpacingM: 6,
        postHeightM,
        postBuriedM: 0.6,
        postStockId: 'post-round-100',
        endStockId: 'post-round-140',
        endBuriedM: 0.9,
        endLeanDeg: 10,
        end: { kind: 'tied-back', attachHeightM: at(0.8), angleDeg: 45, screwId: 'screw-eye-1200' },
        armStockId: 'batten-20x30',
        levels: [
          { heightM: at(0.4), slot: 'main', form: 'single', spreadM: 0.4, liftM: 0 },
          { heightM: at(0.65), slot: 'light', form: 'pair', spreadM: 0.4, liftM: 0 },
          { heightM: at(0.9), slot: 'light', form: 'pair', spreadM: 0.4, liftM: 0 },
        ],
        waterHeightM: at(0.2),
        plantSpacingM: 1.2,
      }
    }
    case 'overhead':
      return {
        kind,
        depthM: 2.4,
        headroomM: centimetres(Math.max(2.1, Math.min(2.3, roomM))),
        maxBayM: 2.4,
        postStockId: 'post-square-100',
        postBuriedM: 0.7,
        beamStockId: 'beam-50x150',
        overhangM: 0.3,
        maxRafterSpacingM: 0.8,
        wireSpacingM: 0.4,
        backWires: 0,
      }
    case 'arch':
      return pot && place.kind !== 'terrace'
        ? {
            kind,
            spanM: centimetres(pot.widthM * 0.8),
            heightM: tall(0.7),
            depthM: 0.2,
            hoops: 1,
            rungStepM: 0.3,
            buriedM: 0.2,
            hoopStockId: 'rod-steel-6',
            rungStockId: 'rod-steel-6',
            pot,
          }
        : {
            kind,
            spanM: Math.min(1.6, place.widthM),
            heightM: 2.2,
            depthM: 1.2,
            hoops: 3,
            rungStepM: 0.3,
            buriedM: 0.3,
            hoopStockId: 'tube-steel-21',
            rungStockId: 'rod-steel-8',
            pot: null,
          }
    case 'net':
      return {
        kind,
        depthM: 12,
        heightM: 2.2,
        maxSpacingAlongM: 6,
        maxSpacingAcrossM: 6,
        postStockId: 'post-steel-48',
        interior: 'screw',
        postBuriedM: 0.6,
        flangeScrewId: 'screw-flange-900',
        anchorScrewId: 'screw-eye-1200',
        anchorOutM: 1.2,
        panelWidthM: 6,
        dropM: 2.2,
      }
    case 'spiral':
      return {
        kind,
        stakes: 4,
        circleRadiusM: pot ? centimetres(pot.widthM * 0.38) : 0.2,
        heightM: tall(1.5),
        buriedM: 0.25,
        startHeightM: 0.25,
        turns: 6,
        wrapsPerContact: 1,
        knotEvery: 4,
        knotAllowanceM: 0.05,
        winding: 'clockwise',
        top: 'polygon',
        stakeStockId: 'cane-24',
        topStockId: 'rod-steel-6',
        pot,
      }
    case 'obelisk':
      return {
        kind,
        form: 'obelisk',
        legs: 4,
        baseM: pot ? centimetres(pot.widthM * 0.75) : 0.5,
        topM: 0.12,
        heightM: tall(1.7),
        buriedM: 0.25,
        rungs: 4,
        legStockId: 'cane-24',
        rungStockId: 'cane-12',
        pot,
      }
    case 'pole':
      return {
        kind,
        form: 'mesh',
        heightM: tall(0.9),
        buriedM: 0.2,
        diameterM: 0.08,
        lapM: 0.02,
        moduleM: 0.3,
        coreStockId: 'pipe-plastic-32',
        pot: pot ?? { shape: 'round', widthM: 0.25, heightM: 0.25 },
      }
    case 'stakes':
      return {
        kind,
        count: pot ? 1 : 5,
        spacingM: Math.min(0.5, place.widthM / 5),
        heightM: tall(1.2),
        buriedM: 0.3,
        stakeStockId: 'stake-hardwood-25',
        pot,
      }
    case 'column':
      return {
        kind,
        tub: { shape: 'square', widthM: Math.min(0.6, Math.max(0.4, place.widthM)), heightM: 0.5 },
        columnStockId: 'post-steel-48',
        barStockId: 'rod-steel-12',
        lowerM: 1.4,
        upperM: 1.44,
        reachM: 0.7,
        gravelM: 0.08,
        plants: 4,
      }
    case 'brush':
      return {
        kind,
        rows: 2,
        rowSpacingM: 0.3,
        twigStepM: 0.2,
        heightM: tall(1.2),
        buriedM: 0.2,
        twigStockId: 'twig-hazel-8',
      }
  }
}
