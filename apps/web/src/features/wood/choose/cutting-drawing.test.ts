import type { ChoiceRecord } from '@klados/core/choices'
import { deedsOf } from '@klados/core/choices'
import { isRefused, propose } from '@klados/core/training'
import { describe, expect, it } from 'vitest'
import { options, siteOf } from '../../../../../../packages/core/test/frames.ts'
import { Life } from '../../../../../../packages/core/test/life.ts'
import { frameKinds, makeFrame } from '@klados/core/frame'
import { cuttingDrawing } from './cutting-drawing.ts'

const frame = makeFrame(
  siteOf(6, 2.4, { surface: 'open' }),
  {
    ...frameKinds.overhead.start({ kind: 'row', widthM: 6, usableHeightM: 2.4, firstForkM: 0 } as never),
    depthM: 3,
    wireSpacingM: 0.5,
  } as never,
  options,
)
const ON = '2027-01-20'
const fit = { widthMm: 180, heightMm: 120 }

function planOf(life: Life, code: string, system: string) {
  const view = life.viewOn(ON)
  const question = life.ask(ON, code)
  const proposal = propose(question)
  if (isRefused(proposal)) throw new Error('refused')
  const deeds = deedsOf(view, question, proposal, proposal, new Map(), () => '')
  const choice = { system, question: code, ...deeds } as unknown as ChoiceRecord
  return { choice, svg: cuttingDrawing(view, choice, fit) }
}

describe('the drawing on a cutting list', () => {
  it('shows what lies overhead from above: each wire at its own depth, every letter once, on the paper', () => {
    const life = new Life(
      'overhead-arms',
      { id: 'p', kindId: 'hardy-kiwi', xM: 3, footYM: 0, plantedOn: '2020-03-01', graftHeightM: null },
      [{ frameId: 'f', frame }],
      6,
    )
    life.plantAs('2025-12-01', 4)
    const { choice, svg } = planOf(life, 'laterals', 'overhead-arms')
    const wires = [...svg.matchAll(/stroke="#888" stroke-width="0.25" points="([^"]*)"/g)]
    const heights = wires.map((one) => one[1]!.split(' ')[0]!.split(',')[1])
    expect(new Set(heights).size).toBe(7)
    const letters = [...svg.matchAll(/<text [^>]*>([^<]+)<\/text>/g)].map((one) => one[1]!)
    expect(letters.sort()).toEqual(choice.decided.map(({ letter }) => letter).sort())
    const [width, height] = /viewBox="0 0 (\S+) (\S+)"/.exec(svg)!.slice(1).map(Number) as [number, number]
    expect(width).toBeLessThanOrEqual(fit.widthMm)
    expect(height).toBeLessThanOrEqual(fit.heightMm)
    for (const [, points] of svg.matchAll(/points="([^"]*)"/g))
      for (const pair of points!.split(' ')) {
        const [x, y] = pair.split(',').map(Number) as [number, number]
        expect(x).toBeGreaterThanOrEqual(0)
        expect(x).toBeLessThanOrEqual(width)
        expect(y).toBeLessThanOrEqual(height)
      }
    // Seen from above there is no ground line.
    expect(svg).not.toContain('stroke="#23262a" stroke-width="0.5"')
  })
})
