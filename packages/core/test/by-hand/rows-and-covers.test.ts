import { describe, expect, it } from 'vitest'
import { levelId } from '../../src/frame/index.ts'
import { usualConditions } from '../../src/design/index.ts'
import { FT, IN, PSF, checkOf, figure, membersOf, near, planned, quantity } from './figures.ts'

describe('a row of 160 ft on sand, ends leaning 10° and tied back at 45°', () => {
  const levels = [
    { id: levelId('a'), heightM: 36 * IN, role: 'carrying', form: 'single', spreadM: 0, liftM: 0 },
    { id: levelId('b'), heightM: 52 * IN, role: 'foliage', form: 'pair', spreadM: 0, liftM: 0 },
  ] as const
  const { plan, design } = planned(
    'row',
    'row',
    { widthM: 160 * FT, usableHeightM: 6 * FT, conditions: { ...usualConditions, soil: 'sand' } },
    {
      maxPostSpacingM: 20 * FT,
      postHeightM: 6 * FT,
      postBuriedM: 30 * IN,
      endBuriedM: 3 * FT,
      endLeanDeg: 10,
      endSlabM: 12 * IN,
      levels,
      waterHeightM: 18 * IN,
      end: {
        kind: 'tied-back',
        attachHeightM: 5 * FT,
        angleDeg: 45,
        screwId: 'screw-eye-1600',
        inLine: 1,
        strands: 2,
      },
    },
  )

  it('stands on nine posts 20 ft apart', () => {
    // 160 / 20 = 8 bays, 9 posts of which 2 are ends.
    expect(membersOf(plan, 'line-post')).toHaveLength(7)
    expect(membersOf(plan, 'end-post')).toHaveLength(2)
    near(figure(plan, 'span'), 20 * FT)
  })

  it('has its posts cut to what stands and what is buried', () => {
    // Line posts 6' + 2' 6" = 8' 6"; end posts the same along their lean: 9' / cos 10°.
    near(membersOf(plan, 'line-post')[0]!.cutLengthM, 8.5 * FT)
    near(membersOf(plan, 'end-post')[0]!.cutLengthM, (9 * FT) / Math.cos((10 * Math.PI) / 180))
  })

  it('has its screw where a tie at 45° meets the ground', () => {
    // At 5 ft up the post has leaned out by 5 ft · tan 10°; the tie goes another 5 ft out.
    near(figure(plan, 'tie-back-distance'), 5 * FT)
    const screw = plan.frame!.anchors[0]!
    near(-screw.at.xM, 5 * FT * (1 + Math.tan((10 * Math.PI) / 180)))
    // Each strand is 5 ft · √2 long, two at each end.
    const tieM = plan.frame!.runs.filter(({ line }) => line.role === 'tie-back')
    expect(tieM).toHaveLength(4)
    near(tieM[0]!.lengthM, 5 * FT * Math.SQRT2)
  })

  it('puts into each strand what its wires pull about the foot, over the lever of the tie', () => {
    // Moments of the wires as set, about the foot: T·3' + 2·t·4' 4" + t·1' 6"; the tie's lever is 5' · cos 45°.
    const [T, t] = [design.tensionN, design.light!.tensionN]
    const momentNm = T * 3 * FT + 2 * t * (52 / 12) * FT + t * 1.5 * FT
    near(plan.end!.ties!.setN, momentNm / (5 * FT * Math.SQRT1_2) / 2)
  })

  it('rests its end posts on slabs of a square foot and on the friction of three feet of sand', () => {
    // 1500 to 2000 psf on 1 ft²; K0 γ d² / 2 · tan(2φ/3) · π w / 2, φ from 28° to 34°.
    const rubs = (deg: number) =>
      (((0.5 * 17_500 * (3 * FT) ** 2 * Math.tan(((2 / 3) * deg * Math.PI) / 180)) / 2) * Math.PI * 0.14) / 2
    const { holding } = checkOf(plan, 'end-pressed')
    near(holding![0], 1500 * PSF * FT ** 2 + rubs(28))
    near(holding![1], 2000 * PSF * FT ** 2 + rubs(34))
  })

  it('is bought with a staple for each wire at each line post, and pipe for its length', () => {
    // 1 + 2 + 1 wires over 7 posts; pipe 3 % longer than the row.
    expect(quantity(plan, 'staple')).toBe(4 * 7)
    near(quantity(plan, 'water-pipe'), Math.ceil(160 * FT * 1.03))
    expect(quantity(plan, 'screw-eye-1600')).toBe(2)
  })
})

describe('a net over 60 by 90 ft, posts every 15 ft, anchors 10 ft out, in a gust of 70 mph', () => {
  const gust = 70 * 0.44704
  const { plan } = planned(
    'row',
    'net',
    { widthM: 90 * FT, usableHeightM: 8 * FT, conditions: { ...usualConditions, windMPerS: gust } },
    {
      depthM: 60 * FT,
      heightM: 7 * FT,
      maxSpacingAlongM: 15 * FT,
      maxSpacingAcrossM: 15 * FT,
      anchorOutM: 10 * FT,
      postBuriedM: 3 * FT,
      panelWidthM: 15 * FT,
      dropM: 7 * FT,
      interior: 'screw',
      cover: 'net',
    },
  )

  it('stands on 35 posts, 15 of them on screws, tied down at 24 anchors', () => {
    // 90/15 + 1 = 7 by 60/15 + 1 = 5; inside 5 × 3; 5 cables along and 7 across, an anchor at each end.
    expect(membersOf(plan, 'post')).toHaveLength(35)
    expect(plan.frame!.anchors.filter(({ head }) => head === 'flange')).toHaveLength(15)
    expect(plan.frame!.anchors.filter(({ head }) => head === 'eye')).toHaveLength(24)
  })

  it('covers 5400 square feet, in six panels with their seams', () => {
    near(figure(plan, 'cover-area'), 5400 * FT ** 2)
    // Five seams of 60 + 2 · 7 ft, two edges of 60 ft, four corners of 7 ft.
    near(figure(plan, 'seams'), (5 * 74 + 2 * 60 + 4 * 7) * FT)
  })

  it('lifts at each inner post with the wind under its bay', () => {
    // ½ · 1.225 · v², v the gust at 7 ft by the logarithm of height over 3 cm; a quarter of the net is solid.
    const v = (gust * Math.log((7 * FT) / 0.03)) / Math.log(10 / 0.03)
    const liftN = 0.5 * 1.225 * v ** 2 * 0.25 * (15 * FT) ** 2
    const flange = plan.frame!.anchors.find(({ head }) => head === 'flange')!
    near(checkOf(plan, 'cover-uplift', flange.label).need!, liftN)
    // A post of the edge carries half of it on its concrete.
    near(checkOf(plan, 'cover-uplift', 'P1').need!, liftN / 2)
  })

  it('puts into its guys what its cables pull, over the cosine of their slope', () => {
    const cableN = Math.max(...plan.lines.map(({ worst }) => worst.tensionN))
    near(checkOf(plan, 'guy-pull').need!, cableN * (Math.hypot(7, 10) / 10))
    // A cable of 15 ft spans, stretched by w a metre from slack: T³ ≈ EA w² L² / 24, a little more as it was set taut.
    const v = (gust * Math.log((7 * FT) / 0.03)) / Math.log(10 / 0.03)
    const w = 0.5 * 1.225 * v ** 2 * 0.25 * ((15 * FT) / 2)
    const slackN = Math.cbrt((100e9 * 15.6e-6 * w ** 2 * (15 * FT) ** 2) / 24)
    expect(cableN).toBeGreaterThan(slackN)
    expect(cableN).toBeLessThan(slackN + 700)
  })

  it('presses its corners with two guys, and its posts are far from buckling', () => {
    const cableN = Math.max(...plan.lines.map(({ worst }) => worst.tensionN))
    near(checkOf(plan, 'post-bearing').need!, 2 * cableN * 0.7)
    // Steel tube 48.3 × 3.2 mm: I = π (D⁴ − d⁴) / 64; π² E I / L² over 3.
    const I = (Math.PI * (0.0483 ** 4 - 0.0419 ** 4)) / 64
    near(checkOf(plan, 'post-buckling').holding![0], (Math.PI ** 2 * 200e9 * I) / (7 * FT) ** 2 / 3)
  })
})

describe('a pergola of 20 by 8 ft under hardy kiwi', () => {
  const { plan, design } = planned(
    'bed',
    'overhead',
    { widthM: 20 * FT, usableHeightM: 8 * FT },
    {
      depthM: 8 * FT,
      headroomM: 7.5 * FT,
      maxBayM: 7 * FT,
      postBuriedM: 30 * IN,
      overhangM: 12 * IN,
      maxRafterSpacingM: 30 * IN,
      wireSpacingM: 20 * IN,
      backWires: 0,
      beamStockId: 'beam-75x200',
    },
    { plantKindId: 'hardy-kiwi' },
  )

  it('stands on two lines of four posts, 6 ft 8 apart', () => {
    expect(membersOf(plan, 'post')).toHaveLength(8)
    near(figure(plan, 'span'), (20 / 3) * FT)
    // 7' 6" of headroom and 2' 6" in the ground.
    near(membersOf(plan, 'post')[0]!.cutLengthM, 10 * FT)
  })

  it('bears nine rafters of 10 ft, bolted at 18 crossings, and five wires', () => {
    // 240 / 30 = 8 spaces; 8 ft and a foot over each beam. 96 / 20 = 4.8, so 5 spaces and 6 wires.
    expect(membersOf(plan, 'rafter')).toHaveLength(9)
    near(membersOf(plan, 'rafter')[0]!.cutLengthM, 10 * FT)
    expect(new Set(plan.frame!.runs.map(({ line }) => line.id)).size).toBe(6)
    // And one bolt at the head of each post.
    expect(quantity(plan, 'bolt')).toBe(18 + 8)
  })

  it('bends its end rafters by five pulls between the beams', () => {
    // Six wires, two of them over the beams; four pulls T at fifths of 8 ft: T·L·(1/5 + 2/5) in the middle.
    const T = Math.max(...plan.lines.map(({ worst }) => worst.tensionN))
    near(checkOf(plan, 'rafter-sideways').need!, T * 8 * FT * 0.6)
    // 75 × 200 mm lying on its side: 200 · 75² / 6 at 6.5 MPa.
    near(checkOf(plan, 'rafter-sideways').holding![0], ((0.2 * 0.075 ** 2) / 6) * 6.5e6)
  })

  it('is set in eight holes, each of a foot’s width of concrete less the post', () => {
    // π/4 (0.30² − 0.10²) · 0.762 m each.
    near(quantity(plan, 'concrete'), Math.ceil(8 * (Math.PI / 4) * (0.09 - 0.01) * 0.762 * 1000))
    expect(design.repeat).toBe(1)
  })
})
