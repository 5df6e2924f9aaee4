import { describe, expect, it } from 'vitest'
import { designOf, siteOf } from '../../test/frames.ts'
import { frameKinds } from '../frame/index.ts'
import type { PatternOfKind } from '../frame/index.ts'
import { planFrame } from '../plan/index.ts'
import { adviseAll } from '../remedies/index.ts'

const begun = frameKinds.net.start({ kind: 'row', widthM: 30, usableHeightM: 2.4, firstForkM: 0 })
const open = siteOf(30, 2.4, { surface: 'open' })
const inWeather = (more: Partial<typeof open.conditions>) => ({
  ...open,
  conditions: { ...open.conditions, ...more },
})
const net = (rest: Partial<PatternOfKind<'net'>> = {}) =>
  designOf(
    { ...begun, ...rest },
    { wireId: 'stainless-rope-6', tensionN: 500, wireEnding: 'clip', plantKindId: 'sweet-pea' },
  )
const need = (site: typeof open, design: ReturnType<typeof net>, code: string) =>
  planFrame(site, design).checks.find((one) => one.code === code)!.need!

describe('a cover', () => {
  it('hands wind and snow on to cables, guys, anchors and posts, more of them for more', () => {
    for (const code of ['wire-pull', 'guy-pull', 'anchor-pull', 'post-bearing', 'post-buckling']) {
      const [calm, gale] = [22, 35].map((windMPerS) => need(inWeather({ windMPerS }), net(), code))
      expect(gale, code).toBeGreaterThan(calm!)
      const snow = (snowPa: number) => need(inWeather({ snowPa }), net({ offInWinter: false }), code)
      expect(snow(600), code).toBeGreaterThan(snow(0))
    }
  })

  it('that is off in winter bears no snow, and says that this is counted on', () => {
    const site = inWeather({ snowPa: 600 })
    expect(need(site, net({ offInWinter: true }), 'guy-pull')).toBeCloseTo(need(open, net(), 'guy-pull'), 6)
    const guy = planFrame(site, net({ offInWinter: true })).checks.find(({ code }) => code === 'guy-pull')!
    expect(guy.assumptions).toContain('cover-off-in-winter')
    const left = planFrame(site, net({ offInWinter: false })).checks.find(({ code }) => code === 'guy-pull')!
    expect(left.assumptions).toContain('net-holds-snow')
  })

  it('of closed sheet takes the whole wind, and rain that stands in it', () => {
    const film = net({ cover: 'film' })
    expect(need(open, film, 'cover-uplift')).toBeCloseTo(4 * need(open, net(), 'cover-uplift'), 6)
    const calm = inWeather({ windMPerS: 0 })
    expect(need(calm, film, 'wire-pull')).toBeGreaterThan(need(calm, net(), 'wire-pull'))
  })

  it('has guys that pull less the flatter they run', () => {
    expect(need(open, net({ anchorOutM: 5 }), 'guy-pull')).toBeLessThan(
      need(open, net({ anchorOutM: 2 }), 'guy-pull'),
    )
  })

  it('under snow and a gale is answered with changes after which all of it holds', () => {
    const site = inWeather({ windMPerS: 31, snowPa: 500 })
    const { advice, together } = adviseAll(site, net({ offInWinter: false }))
    const all = [...(together ? [together] : []), ...advice.flatMap(({ remedies }) => remedies)]
    const whole = all.find(({ open: left }) => left === 0)!
    expect(planFrame(site, whole.design).outcome.verdict).toBe('holds')
  })
})
