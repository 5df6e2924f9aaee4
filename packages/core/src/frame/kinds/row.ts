import { CoreError, requireRange } from '../../errors/index.ts'
import { at3 } from '../../geometry/index.ts'
import type { Point3 } from '../../geometry/index.ts'
import { choice, id, length, lengthOrNone, list, number, oneOf, screw, stock, whole } from '../field.ts'
import { freeStretches, placeInOrder } from '../in-order.ts'
import type { Stretch } from '../in-order.ts'
import { LEAST_M, FIELD_WIRE, MAX_SIZE_M, WIRE_CHECKS, centimetres, frameKind, wishesNear } from '../kind.ts'
import type { Laying, PatternOf } from '../kind.ts'
import { LayoutBuilder, MAX_NODES, equalSteps, fewestParts } from '../layout.ts'
import type { Layout } from '../layout.ts'
import { levelId, wireFor } from '../parts.ts'
import type { LevelId, Line, WireName } from '../parts.ts'
import { alongToX, groundAt, measuredAt } from '../site.ts'
import type { Site } from '../site.ts'

/** Posts stand at least so far apart, whatever they have to avoid. */
const LEAST_POST_GAP_M = 0.3
/** A wire at the very top of its posts bears a little leaf all the same. */
const LEAST_BAND_M = 0.05
/** Room that a plant wants from a post. */
const PLANT_FROM_POST_M = 0.1
/** Screws in line stand several helix diameters apart, each in soil that the others leave alone. */
const IN_LINE_M = 0.8
const radians = (degrees: number) => (degrees * Math.PI) / 180
const pull = { attachHeightM: length(LEAST_M, MAX_SIZE_M, 'short'), angleDeg: number(20, 80, 1) }

const fields = {
  maxPostSpacingM: length(LEAST_M, MAX_SIZE_M),
  postHeightM: length(LEAST_M, 20),
  postBuriedM: length(0, 20, 'short'),
  postStockId: stock('post'),
  endStockId: stock('post'),
  endBuriedM: length(0, 20, 'short'),
  endLeanDeg: number(0, 45, 1),
  /** Side of a slab under the foot of each end post; 0 for none. */
  endSlabM: length(0, 1, 'short'),
  end: oneOf('kind', {
    /** So many screws stand one behind the other in the line of the tie and share its pull. */
    'tied-back': {
      ...pull,
      screwId: screw('eye'),
      inLine: whole(1, 4),
      /** Of wire, side by side from the post to the screw, each with its share of the pull. */
      strands: whole(1, 4),
    },
    braced: { ...pull, stockId: stock('post') },
    free: {},
  }),
  armStockId: stock('bar', 'beam'),
  levels: list(1, 30, {
    id: id('level'),
    heightM: length(0, 20, 'short'),
    /** Carries the permanent wood, or holds foliage on the light wire. */
    role: choice('carrying', 'foliage'),
    /** One wire on the posts, one on each side of them, or one on each end of a cross-arm. */
    form: choice('single', 'pair', 'arms'),
    /** Between the two wires of a pair on arms. */
    spreadM: length(0, 10, 'short'),
    /** How far a pair is lifted as shoots grow; 0 for wires that stay. */
    liftM: length(0, 10, 'short'),
  }),
  /** A wire of its own for the water pipe, so that nobody cuts it with the canes. */
  waterHeightM: lengthOrNone(0, 20, 0.4),
  plantSpacingM: length(LEAST_M, MAX_SIZE_M),
  /** Ground beyond each end post, for ties and their screws; none where nobody has said. */
  roomBeyondM: lengthOrNone(0, 100, 1.5),
} as const

export type RowPattern = PatternOf<'row', typeof fields>
export type RowLevel = RowPattern['levels'][number]
export type EndAssembly = RowPattern['end']

/** Posts in a line with level wires, on the flat or following a slope; plants between the posts. */
export const row = frameKind({
  kind: 'row',
  fields,
  traits: {
    stands: 'in-open',
    isOverPeople: 'never',
    fills: 'outline',
    posts: 'tamped',
    followsSlope: true,
    isCover: false,
    touchesFlesh: false,
  },
  places: { row: 1, bed: 4 },
  usualPlant: 'wine-grape',
  startWith: { ...FIELD_WIRE, lightWireId: 'high-tensile-2' },
  start: ({ usableHeightM, firstForkM }) => {
    const postHeightM = centimetres(Math.max(0.3, Math.min(1.9, usableHeightM + firstForkM)))
    const at = (share: number) => centimetres(postHeightM * share)
    const level = (n: number, share: number, role: RowLevel['role'], form: RowLevel['form']): RowLevel => ({
      id: levelId(`w${n}`),
      heightM: at(share),
      role,
      form,
      spreadM: 0.4,
      liftM: 0,
    })
    return {
      kind: 'row',
      maxPostSpacingM: 5,
      postHeightM,
      postBuriedM: 0.8,
      postStockId: 'post-round-100',
      endStockId: 'post-round-140',
      endBuriedM: 0.9,
      endLeanDeg: 10,
      endSlabM: 0.3,
      end: {
        kind: 'tied-back',
        attachHeightM: at(0.8),
        angleDeg: 45,
        screwId: 'screw-eye-1600',
        inLine: 2,
        strands: 3,
      },
      armStockId: 'tube-steel-34',
      levels: [
        level(0, 0.4, 'carrying', 'single'),
        level(1, 0.65, 'foliage', 'pair'),
        level(2, 0.9, 'foliage', 'pair'),
      ],
      waterHeightM: at(0.2),
      plantSpacingM: 1.2,
      roomBeyondM: null,
    }
  },
  wires: ({ levels, waterHeightM }): readonly WireName[] =>
    waterHeightM !== null || levels.some((level) => wireFor(level.role) === 'light')
      ? ['main', 'light']
      : ['main'],
  checks: ({ end, levels }) => [
    ...WIRE_CHECKS,
    ...(levels.some(({ form }) => form === 'arms') ? (['arm-bending'] as const) : []),
    'post-sideways',
    ...(end.kind === 'free'
      ? (['end-sideways', 'end-bending'] as const)
      : end.kind === 'braced'
        ? (['brace-foot', 'brace-notch', 'post-buckling', 'end-bending', 'end-foot', 'end-uplift'] as const)
        : (['tie-pull', 'anchor-pull', 'end-bending', 'end-pressed', 'post-buckling', 'end-foot'] as const)),
  ],
  sheet: ['stringing', 'members', 'anchors'],
  later: ['postBuriedM', 'postStockId', 'endStockId', 'endBuriedM', 'endLeanDeg', 'endSlabM', 'waterHeightM'],
  fit: ({ widthM }, pattern, toleranceShare) =>
    wishesNear(
      widthM,
      widthM / fewestParts(widthM, pattern.maxPostSpacingM),
      toleranceShare,
      0,
      (maxPostSpacingM) => ({ ...pattern, maxPostSpacingM }),
    ),
  hidden: ({ levels }) => (levels.some((level) => level.form === 'arms') ? [] : ['armStockId']),
  lay: layRow,
})

function layRow(laying: Laying, pattern: RowPattern): Layout {
  const { site, options, idsOf } = laying
  requireHeights(pattern)
  const builder = new LayoutBuilder()
  const [ids, posts] = placePosts(laying, pattern, builder)
  const postWidthM = options.stockWidthM(pattern.postStockId)
  const lean = Math.tan(radians(pattern.endLeanDeg))
  const last = posts.length - 1
  /** Where a wire meets post i at a height: end posts lean outward. */
  const onPost = (i: number, heightM: number, zM: number): Point3 => {
    const out = i === 0 ? -lean * heightM : i === last ? lean * heightM : 0
    return at3(posts[i]! + out, groundAt(site, posts[i]!) + heightM, zM)
  }
  const label = (i: number) => postLabel(site, i, last)
  posts.forEach((_, i) => {
    const isEnd = i === 0 || i === last
    const buriedM = isEnd ? pattern.endBuriedM : pattern.postBuriedM
    builder.member({
      id: `p${ids[i]}`,
      role: isEnd ? 'end-post' : 'line-post',
      path: [onPost(i, -buriedM, 0), onPost(i, pattern.postHeightM, 0)],
      stockId: isEnd ? pattern.endStockId : pattern.postStockId,
      buriedM,
      foot: onPost(i, 0, 0),
      label: label(i),
    })
  })
  for (const level of pattern.levels) layLevel(level)
  if (pattern.waterHeightM !== null) strand(pattern.waterHeightM, 0, builder.line('water', 'water'))
  layEnds()
  const plantsM = plantSpots(site, pattern, posts, postWidthM)
  const plants = idsOf(builder, 'plant', plantsM)
  plantsM.forEach((xM, i) => builder.plant(`plant${plants[i]}`, at3(xM, groundAt(site, xM))))
  const bayM = posts.slice(1).reduce((widest, xM, i) => Math.max(widest, xM - posts[i]!), 0)
  const lowest = pattern.levels.find((level) => level.role === 'carrying') ?? pattern.levels[0]!
  const { postHeightM } = pattern
  builder.measure({ bayM, leafBandM: [Math.min(lowest.heightM, postHeightM - LEAST_BAND_M), postHeightM] })
  builder.figure('span', 'm', bayM)
  return builder.build()

  function layLevel({ id: level, form, heightM, role, spreadM }: RowLevel): void {
    if (form === 'single') return strand(heightM, 0, builder.line(level, role, { level }))
    const halfM = form === 'pair' ? postWidthM / 2 : spreadM / 2
    if (form === 'arms') layArms(level, heightM, halfM)
    strand(heightM, -halfM, builder.line(`${level}a`, role, { level, side: 'front' }))
    strand(heightM, halfM, builder.line(`${level}b`, role, { level, side: 'back' }))
  }

  function layArms(level: LevelId, heightM: number, halfM: number): void {
    ids.forEach((post, i) => {
      const path = [onPost(i, heightM, -halfM), onPost(i, heightM, halfM)]
      builder.member({ id: `arm-${level}.${post}`, role: 'cross-arm', path, stockId: pattern.armStockId })
      builder.joint(`bolt-${level}.${post}`, onPost(i, heightM, 0), 'bolt', { label: label(i) })
    })
  }

  function strand(heightM: number, zM: number, line: Line): void {
    let before = -1
    ids.forEach((post, i) => {
      const joint = i === 0 || i === last ? 'end' : 'staple'
      const node = builder.joint(`${line.id}.p${post}`, onPost(i, heightM, zM), joint, { label: label(i) })
      if (before >= 0) builder.run(before, node, line)
      before = node
    })
  }

  function layEnds(): void {
    const { end } = pattern
    if (end.kind === 'free') return
    const outM = end.attachHeightM / Math.tan(radians(end.angleDeg))
    for (const [i, way, name] of [
      [0, -1, 'left'],
      [last, 1, 'right'],
    ] as const) {
      const attach = onPost(i, end.attachHeightM, 0)
      const footM = end.kind === 'tied-back' ? attach.xM + way * outM : attach.xM - way * outM
      const foot = at3(footM, groundAt(site, measuredAt(site, footM)))
      if (end.kind === 'tied-back') tieBack(name, i, foot, attach, end)
      else brace(name, i, foot, attach, end.stockId)
    }
    builder.figure('tie-back-distance', 'm', outM)
  }

  function tieBack(
    name: 'left' | 'right',
    i: number,
    foot: Point3,
    attach: Point3,
    { screwId, inLine, strands }: Extract<EndAssembly, { kind: 'tied-back' }>,
  ): void {
    const anchorLabel = `A${(name === 'left') === (site.viewingEnd === 'left') ? 1 : 2}`
    const way = name === 'left' ? -1 : 1
    let from = builder.joint(`tie-${name}.post`, attach, 'through', { label: label(i) })
    for (let n = 1; n <= inLine; n++) {
      const behind = n === 1 ? '' : `-${n}`
      const outM = way * (n - 1) * IN_LINE_M
      const at = { ...foot, xM: foot.xM + outM }
      const anchor = { id: `anchor-${name}${behind}`, head: 'eye', screwId, at } as const
      const screwLabel = n === 1 ? anchorLabel : `${anchorLabel}.${n}`
      builder.anchor({
        ...anchor,
        towards: { ...attach, xM: attach.xM + outM },
        label: screwLabel,
        isBehind: n > 1,
      })
      const to = builder.joint(`tie-${name}${behind}.anchor`, at, 'through', { label: screwLabel })
      const line = builder.line(`tie-${name}${behind}`, 'tie-back')
      for (let strand = 1; strand <= strands; strand++) builder.run(to, from, line)
      from = to
    }
  }

  function brace(name: 'left' | 'right', i: number, foot: Point3, attach: Point3, stockId: string): void {
    const path = [foot, attach]
    const braceLabel = `B${(name === 'left') === (site.viewingEnd === 'left') ? 1 : 2}`
    builder.member({ id: `brace-${name}`, role: 'brace', path, stockId, foot, label: braceLabel })
    builder.joint(`brace-${name}.post`, attach, 'bolt', { label: label(i) })
  }
}

function requireHeights({ levels, postHeightM, waterHeightM, end }: RowPattern): void {
  let belowM = -1
  levels.forEach(({ heightM, liftM, form }, k) => {
    if (heightM <= belowM) {
      throw new CoreError(
        'frame/wires-out-of-order',
        `Wire ${k + 1} at ${heightM} m is not above ${belowM} m`,
        {
          tier: k + 1,
          heightM,
          belowM,
        },
      )
    }
    // Only pairs are lifted; what a single wire had as one of a pair is not its own any more.
    const highestM = heightM + (form === 'single' ? 0 : liftM)
    if (highestM > postHeightM + 1e-9) {
      throw new CoreError('frame/wire-above-posts', `Wire ${k + 1} at ${highestM} m is above its posts`, {
        tier: k + 1,
        heightM: highestM,
        toM: postHeightM,
      })
    }
    belowM = heightM
  })
  if (waterHeightM !== null) requireRange('waterHeightM', waterHeightM, 0, postHeightM)
  if (end.kind !== 'free') requireRange('attachHeightM', end.attachHeightM, 0, postHeightM)
}

const postLabel = (site: Site, i: number, last: number) =>
  `P${site.viewingEnd === 'left' ? i + 1 : last + 1 - i}`

/** Ids of the posts and where each stands: in equal bays, off avoided bands with the least total movement. */
function placePosts(
  { site, options, idsOf }: Laying,
  pattern: RowPattern,
  builder: LayoutBuilder,
): [readonly string[], readonly number[]] {
  const bays = fewestParts(site.widthM, pattern.maxPostSpacingM)
  if ((bays + 1) * (pattern.levels.length * 2 + 2) > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${bays + 1} posts are too many`, { posts: bays + 1 })
  const ideals = equalSteps(site.widthM, bays)
  const ids = idsOf(builder, 'post', ideals)
  const taken = bandsAlong(site)
  const free = freeStretches(
    0,
    site.widthM,
    taken.map(([from, to]) => [from, to]),
  )
  const wanted = ideals.map((ideal, i) => {
    const dragged = options.dragged[`p${ids[i]}`]
    return dragged && i > 0 && i < bays ? Math.min(site.widthM, Math.max(0, dragged.xM)) : ideal
  })
  const isFixed = (i: number) => i === 0 || i === bays || wanted[i] !== ideals[i]
  const stretches = wanted.map((at, i): readonly Stretch[] => (isFixed(i) ? [[at, at]] : free))
  const placed = placeInOrder(wanted, stretches, {
    minGapM: LEAST_POST_GAP_M,
    maxGapM: Math.max(pattern.maxPostSpacingM, site.widthM / bays) + 2 * options.moveToleranceM,
    toleranceM: options.moveToleranceM,
  })
  const posts = placed ?? wanted
  posts.forEach((at, i) => {
    const spot = taken.find(([from, to]) => at > from + 1e-9 && at < to - 1e-9)
    const movedM = Math.abs(at - ideals[i]!)
    if (spot || movedM > 1e-9)
      builder.shift({
        id: `p${ids[i]}`,
        label: postLabel(site, i, bays),
        movedM,
        spot: spot ? spot[2] : null,
      })
  })
  return [ids, posts]
}

/** Where along the row nothing may stand: upright bands, and round spots at their width. */
function bandsAlong(site: Site): (readonly [number, number, string])[] {
  return site.avoid.flatMap((spot) => {
    if (spot.kind === 'point') return [[spot.xM - spot.radiusM, spot.xM + spot.radiusM, spot.what] as const]
    return spot.axis === 'vertical' ? [[spot.fromM, spot.toM, spot.what] as const] : []
  })
}

/**
 * At equal steps, the first half a step from the viewing end, shifted off posts by as little as keeps them
 * clear.
 */
function plantSpots(site: Site, pattern: RowPattern, posts: readonly number[], postWidthM: number): number[] {
  const count = Math.max(1, Math.round(site.widthM / pattern.plantSpacingM))
  if (count > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${count} plants are too many`, { plants: count })
  const clearM = postWidthM / 2 + PLANT_FROM_POST_M
  return Array.from({ length: count }, (_, i) => {
    const xM = alongToX(site, ((i + 0.5) * site.widthM) / count)
    const post = posts.find((at) => Math.abs(at - xM) < clearM)
    if (post === undefined) return xM
    const side = xM >= post && post + clearM < site.widthM ? 1 : -1
    return Math.min(site.widthM, Math.max(0, post + side * clearM))
  })
}
