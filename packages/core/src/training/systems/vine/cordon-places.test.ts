import { describe, expect, it } from 'vitest'
import { Wood, viewOf, wiresAt } from '../../../../test/training.ts'
import { headOf } from './head.ts'
import { cordonArms, placeOf, placeOn } from './cordon-places.ts'

/** A cordon with one arm of 1.8 m to the right, and spurs so far along it. */
function cordonWith(alongM: readonly number[]) {
  const wood = new Wood(1, '2026-01-10')
  wood.stem('trunk', null, 0, [1, 0], 0.9, 0, { seasonsThen: 8, baseMm: 40, calledRole: 'trunk' })
  wood.stem('arm', 'trunk', 0.9, [1, 0.9], 1.8, 90, { seasonsThen: 6, baseMm: 22, calledRole: 'arm' })
  alongM.forEach((at, i) =>
    wood.stem(`spur${i}`, 'arm', at, [1 + at, 0.9], 0.08, 0, {
      seasonsThen: 2,
      baseMm: 10,
      calledRole: 'spur',
    }),
  )
  wood.stem('shoot', 'spur0', 0.05, [1 + (alongM[0] ?? 0), 0.95], 0.6, 0, { baseMm: 7 })
  return viewOf(wood, 'wine-grape', wiresAt(2.2, 0.9))
}
const armOf = (alongM: readonly number[]) => {
  const view = cordonWith(alongM)
  return { view, arm: cordonArms(view, headOf(view)!)[0]! }
}

describe('the places of a cordon', () => {
  it('stand as most of its spurs do, whatever order they were written in and with one missing', () => {
    // Twenty centimetres apart, one gap of forty: nine places, not the eleven of sixteen centimetres.
    const { arm } = armOf([1.1, 0.1, 0.5, 0.3, 0.9, 1.3])
    expect(arm.placesM).toHaveLength(9)
    expect(arm.placesM[0]).toBeCloseTo(0.1, 9)
    expect(arm.placesM.at(-1)).toBeCloseTo(1.7, 9)
  })

  it('stand as the garden has it where too few tell, and two at one spot are no gap', () => {
    const usual = Math.round(1.8 / 0.16)
    expect(armOf([0.1, 0.4, 0.7]).arm.placesM).toHaveLength(usual)
    expect(armOf([0.1, 0.13, 0.16, 0.2, 0.4, 0.7]).arm.placesM).toHaveLength(usual)
    expect(armOf([0.1, 0.4, 0.7, 1]).arm.placesM).toHaveLength(6)
  })

  it('are told of what stands on them, however far out, and of nothing else', () => {
    const { view, arm } = armOf([0.1, 0.3, 0.5, 0.7])
    expect(placeOn(view.stem('spur2')!, arm.stem)).toEqual({ alongM: 0.5, outM: 0 })
    expect(placeOn(view.stem('shoot')!, arm.stem)).toEqual({ alongM: 0.1, outM: 0.05 })
    expect(placeOn(view.stem('trunk')!, arm.stem)).toBeNull()
    expect([-0.2, 0, 0.3, 1.8, 5].map((alongM) => placeOf(arm, alongM))).toEqual([0, 0, 1, 8, 8])
  })
})
