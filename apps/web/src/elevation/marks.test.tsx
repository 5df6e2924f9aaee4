import type { DisplayList, WoodAge } from '@klados/core/drawing'
import { renderToStaticMarkup } from 'react-dom/server'
import { describe, expect, it } from 'vitest'
import { Marks } from './marks.tsx'
import { FITTED, makeView } from './view.ts'

const view = makeView({ leftM: 0, bottomM: 0, rightM: 4, topM: 2 }, 800, 500, FITTED)
const render = (list: DisplayList, rest: { chosenId?: string; showNumbers?: boolean } = {}) =>
  renderToStaticMarkup(<Marks list={list} view={view} movedText={(m) => `moved ${m * 1000} mm`} {...rest} />)
const wood = (age: WoodAge): DisplayList => [
  {
    kind: 'wood',
    id: 'w',
    age,
    points: [
      { xM: 0, yM: 1 },
      { xM: 2, yM: 1 },
    ],
    diameterMm: 20,
    buds: age === 'one-year' ? [{ at: { xM: 0.5, yM: 1 }, angle: 1 }] : [],
  },
]
const withoutColour = (svg: string) => svg.replace(/stroke="[^"]*"|fill="[^"]*"/g, '')

describe('marks on the screen', () => {
  it('tell the age of wood by shape and texture, not by colour alone', () => {
    const shapes = (['shoot', 'one-year', 'two-year', 'older'] as const).map((age) =>
      withoutColour(render(wood(age))),
    )
    expect(new Set(shapes).size).toBe(4)
    expect(render(wood('older'))).toContain('stroke-dasharray')
    expect(render(wood('shoot'))).toContain('<polygon')
  })

  it('show where a node moved only where numbers are shown, and its ring always', () => {
    const node: DisplayList = [
      {
        kind: 'node',
        id: 'n',
        number: 7,
        at: { xM: 1.01, yM: 1 },
        ideal: { xM: 1, yM: 1 },
        movedM: 0.01,
        state: 'moved',
        isStart: false,
      },
    ]
    expect(render(node)).not.toContain('moved 10 mm')
    expect(render(node)).toContain('draw-node-moved')
    expect(render(node, { showNumbers: true })).toMatch(/moved 10 mm.*>7</)
  })

  it('mark what is chosen, and a tie by its state', () => {
    const tie = (state: 'sound' | 'overdue'): DisplayList => [
      { kind: 'tie', id: 't', at: { xM: 1, yM: 1 }, state },
    ]
    expect(render(tie('sound'))).not.toContain('draw-chosen-halo')
    expect(render(tie('sound'), { chosenId: 't' })).toContain('draw-chosen-halo')
    expect(render(tie('overdue'))).toContain('draw-tie-overdue')
  })

  it('escape what people call their plants', () => {
    expect(render([{ kind: 'foot', id: 'f', at: { xM: 1, yM: 0 }, label: '<b>Pear</b>' }])).toContain(
      '&lt;b&gt;Pear',
    )
  })
})
