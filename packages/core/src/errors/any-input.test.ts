import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { designOf, nearStart, siteOf } from '../../test/frames.ts'
import { cableState, inclinedCable, levelCable, slantState, strainerTravel } from '../cable/index.ts'
import { cutFromRolls } from '../cutting/index.ts'
import { budsAlong } from '../drawing/index.ts'
import { plugHoldingN, withdrawalN } from '../fixings/index.ts'
import {
  frameKinds,
  freeStretches,
  nearestFreePoint,
  placeInOrder,
  stakeSpacingM,
  turnsForLength,
  woundString,
} from '../frame/index.ts'
import type { PatternKind } from '../frame/index.ts'
import {
  cutPolyline,
  nearestOnSegment,
  photoMap,
  pointAlong,
  simplified,
  withLength,
} from '../geometry/index.ts'
import { embedment, findSoil, heldEnd, lateralHoldingN, lineEnd, screwHolding } from '../ground/index.ts'
import { spacedAlong } from '../kinds/index.ts'
import { leafWindNPerM, monthRange, tipping, windForceN } from '../loads/index.ts'
import { planFrame } from '../plan/index.ts'
import { planStringing } from '../stringing/index.ts'
import { requiredLoopMm, tightDiameterMm, usualLoopMm } from '../ties/index.ts'
import { gaugeToDiameterMm, roundWireAreaMm2 } from '../units/index.ts'
import { CoreError } from './index.ts'

const BAD = [Number.NaN, Infinity, -Infinity, -1, 0, 1e300, 1e-300] as const

/** The same input with each of its figures in turn made one that nobody can have measured. */
function* spoiled(value: unknown): Generator<unknown> {
  if (typeof value === 'number') yield* BAD
  else if (Array.isArray(value)) {
    for (const [i, item] of value.entries())
      for (const bad of spoiled(item)) yield value.map((one: unknown, k) => (k === i ? bad : one))
  } else if (typeof value === 'object' && value !== null) {
    for (const [key, item] of Object.entries(value))
      for (const bad of spoiled(item)) yield { ...value, [key]: bad }
  }
}

/** Figures of an answer that are not numbers, by their path. */
function* notNumbers(value: unknown, path = ''): Generator<string> {
  if (typeof value === 'number' && Number.isNaN(value)) yield path
  if (typeof value === 'object' && value !== null && !(value instanceof Error))
    for (const [key, item] of Object.entries(value)) yield* notNumbers(item, `${path}.${key}`)
}

function answer(work: () => unknown): string[] {
  try {
    return [...notNumbers(work())]
  } catch (error) {
    return error instanceof CoreError ? [] : [String(error)]
  }
}

const cable = { weightNPerM: 0.3, axialStiffnessN: 6e5, expansionPerC: 1.2e-5 }
const installed = { spansM: [6, 5], horizontalTensionN: 600, temperatureC: 12 }
const loam = findSoil('loam')
const at = (xM: number, yM: number) => ({ xM, yM })
const mark = (xPx: number, yPx: number, xM: number, yM: number) => ({ pixel: { xPx, yPx }, at: at(xM, yM) })
const wires = [{ heightM: 1.2, tensionN: 800 }]
const winding = {
  stakes: 3,
  circleRadiusM: 0.2,
  stakeDiameterM: 0.02,
  startHeightM: 0.25,
  endHeightM: 1.5,
  wrapsPerContact: 1,
  knotEvery: 3,
  knotAllowanceM: 0.05,
}
const line = [at(0, 0), at(1, 0), at(1, 2)]
const call = <A extends readonly unknown[]>(of: (...args: A) => unknown, ...args: A) => ({ of, args })

const functions: readonly { of: (...args: never[]) => unknown; args: readonly unknown[] }[] = [
  call(levelCable, 6, 600, 0.3, 6e5),
  call(inclinedCable, {
    horizontalDistanceM: 3,
    heightDifferenceM: 2,
    unstretchedLengthM: 3.6,
    weightNPerM: 0.3,
    axialStiffnessN: 6e5,
  }),
  call(cableState, cable, installed, { temperatureC: -10, weightNPerM: 3 } as never),
  call(
    slantState,
    cable,
    { horizontalDistanceM: 3, heightDifferenceM: 1, tensionN: 300, temperatureC: 12 } as never,
    {
      temperatureC: -10,
      weightNPerM: 3,
    } as never,
  ),
  call(strainerTravel, cable, {} as never),
  call(cutFromRolls, [{ lengthM: 4, quantity: 3 }], [{ lengthM: 25, price: 10 }]),
  call(plugHoldingN, { ratedN: 600, fullSpacingM: 0.08, fullEdgeM: 0.08 }, { spacingM: 0.05, edgeM: 0.1 }),
  call(withdrawalN, { threadMm: 6, penetrationMm: 60, specificGravity: 0.4, exposure: 'wet' }),
  call(freeStretches, 0, 5, [[1, 2]]),
  call(placeInOrder, [0, 2, 4], [[[0, 1]], [[1, 3]], [[3, 5]]], { minGapM: 0.3, maxGapM: 3, toleranceM: 1 }),
  call(
    nearestFreePoint,
    at(1, 1),
    [{ kind: 'band', axis: 'vertical', fromM: 0.5, toM: 1.5, what: '' } as never],
    {
      leftM: 0,
      rightM: 4,
      bottomM: 0,
      topM: 2,
    },
    1,
  ),
  call(stakeSpacingM, 3, 0.2),
  call(woundString, winding as never, 4),
  call(turnsForLength, winding as never, 12),
  call(photoMap, [mark(0, 0, 0, 2), mark(400, 0, 4, 2), mark(400, 200, 4, 0), mark(0, 200, 0, 0)]),
  call(simplified, line, 0.1),
  call(withLength, line, 4),
  call(pointAlong, line, 1.5),
  call(cutPolyline, line, 1.5),
  call(nearestOnSegment, at(1, 1), at(0, 0), at(2, 0)),
  call(budsAlong, line, 0.08),
  call(embedment, { lateralLoadN: 300, loadHeightM: 1.2, postWidthM: 0.1, bearing: { paPerM: 15_000 } }),
  call(lateralHoldingN, { depthM: 0.6, loadHeightM: 1.2, postWidthM: 0.1, paPerM: 15_000 }),
  call(lineEnd, wires),
  call(heldEnd, wires, { kind: 'tie-back', attachHeightM: 1.4, angleFromGroundRad: 0.7 }),
  call(
    screwHolding,
    { helixDiameterM: 0.15, lengthM: 1.2, torqueFactorPerM: 33 },
    loam,
    {
      depthAlongM: 1,
      angleFromVerticalRad: 0.6,
      reworks: 0,
      torqueNm: 100,
      pullTestN: 900,
    },
    0.5,
  ),
  call(spacedAlong, 6, 1.2),
  call(leafWindNPerM, 1, 1.5, 22),
  call(monthRange, 3, { coldestC: -10, hottestC: 32 } as never, 'north'),
  call(tipping, {
    leverM: 0.2,
    massKg: 40,
    massCentreHeightM: 0.2,
    screenAreaM2: 0.4,
    screenCentreHeightM: 1,
    dragCoefficient: 1.2,
    windSpeedMPerS: 20,
    safetyFactor: 1.5,
  }),
  call(windForceN, { speedMPerS: 20, areaM2: 1, solidity: 0.5, dragCoefficient: 1.2 }),
  call(
    planStringing,
    {
      nodes: line,
      runs: [
        { from: 0, to: 1, lengthM: 1 },
        { from: 1, to: 2, lengthM: 2 },
      ],
    },
    {
      handlingLengthM: 8,
      endWrapM: 0.15,
      wireEnding: null,
      strainers: 1,
    },
  ),
  call(requiredLoopMm, 'figureEight', 12, 2.5),
  call(usualLoopMm, 'figureEight', 12, 2.5),
  call(tightDiameterMm, {
    hitch: 'figureEight',
    supportDiameterMm: 2.5,
    loopLengthMm: 80,
    gapMm: 0,
  } as never),
  call(gaugeToDiameterMm, 'SWG', 12),
  call(roundWireAreaMm2, 2.5),
]

describe('a figure that nobody can have measured', () => {
  it('of an avoided band from its far end to its near one is the same band', () => {
    const plan = (fromM: number, toM: number) =>
      planFrame(
        siteOf(6, 2, { avoid: [{ id: 'a', kind: 'band', axis: 'vertical', fromM, toM, what: 'pipe' }] }),
        designOf({ kind: 'grid', verticals: 7, horizontals: 3 }),
      ).frame!.nodes.map((node) => node.at)
    expect(plan(2.1, 1.97)).toEqual(plan(1.97, 2.1))
    expect(plan(1.97, 2.1)).not.toEqual(plan(5.4, 5.41))
  })

  it.each(functions.map((one) => [one.of.name, one] as const))(
    '%s answers with numbers or a typed error',
    (_, { of, args }) => {
      const wrong: string[] = []
      for (const bad of spoiled(args)) {
        const said = answer(() => of(...(bad as never[])))
        if (said.length > 0) wrong.push(`${JSON.stringify(bad)}: ${said.join(', ')}`)
      }
      expect(wrong).toEqual([])
    },
  )

  it.each(Object.keys(frameKinds) as PatternKind[])(
    'in %s is a problem of the plan, or gives none that is no number',
    (kind) => {
      fc.assert(
        fc.property(nearStart(kind), ({ place, pattern }) => {
          const site = siteOf(place.widthM, place.usableHeightM, {
            avoid: [{ id: 'a', kind: 'band', axis: 'vertical', fromM: 1, toM: 0.8, what: 'pipe' }],
          })
          const design = designOf(pattern, { plantKindId: 'wine-grape' })
          for (const [badSite, badDesign] of spoiled([site, design]) as Generator<
            [typeof site, typeof design]
          >) {
            const plan = planFrame(badSite, badDesign)
            const { problems, checks, lines, wires, takeOff } = plan
            // A check that cannot be told says so; it has no figures.
            const said = [...notNumbers(problems.length > 0 ? [] : { checks, lines, wires, takeOff })]
            expect(said).toEqual([])
          }
        }),
        { numRuns: 1 },
      )
    },
    60_000,
  )
})
