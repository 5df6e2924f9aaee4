import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { FITTED, MARGIN_PX, makeView } from './view.ts'

const bounds = { leftM: 0, bottomM: 0, rightM: 9.2, topM: 2 }

describe('the view', () => {
  it('comes back from pixels to the same metres, however moved and zoomed', () => {
    const px = fc.double({ min: -2000, max: 4000, noNaN: true })
    const camera = fc.record({ k: fc.double({ min: 0.5, max: 24, noNaN: true }), x: px, y: px })
    const metres = fc.double({ min: -5, max: 50, noNaN: true })
    fc.assert(
      fc.property(camera, metres, metres, (moved, xM, yM) => {
        const view = makeView(bounds, 900, 400, moved)
        const back = view.toPoint(view.x(xM), view.y(yM))
        expect(back.xM).toBeCloseTo(xM, 6)
        expect(back.yM).toBeCloseTo(yM, 6)
      }),
    )
  })

  it('shows the whole wall inside its margins when fitted, standing on the lower one', () => {
    const view = makeView(bounds, 900, 400, FITTED)
    expect(view.x(0)).toBeGreaterThanOrEqual(MARGIN_PX.left)
    expect(view.x(9.2)).toBeLessThanOrEqual(900 - MARGIN_PX.right + 1e-9)
    expect(view.y(2)).toBeGreaterThanOrEqual(MARGIN_PX.top)
    expect(view.y(0)).toBe(400 - MARGIN_PX.bottom)
  })

  it('is one scale both ways, so that what is measured across holds upward', () => {
    const view = makeView(bounds, 640, 480, FITTED)
    expect(view.x(1) - view.x(0)).toBeCloseTo(view.y(0) - view.y(1), 9)
  })
})
