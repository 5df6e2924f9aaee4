import { CoreError, requirePositive, requireRange } from '../errors/index.ts'
import { at3 } from '../geometry/index.ts'
import type { Point3 } from '../geometry/index.ts'
import { freeStretches, placeInOrder } from './in-order.ts'
import type { Stretch } from './in-order.ts'
import { LayoutBuilder, MAX_NODES, fewestParts } from './layout.ts'
import type { Layout } from './layout.ts'
import type { RowPattern } from './pattern.ts'
import type { FrameOptions } from './frame-options.ts'
import { alongToX, groundAt } from './site.ts'
import type { Site } from './site.ts'

/** Posts stand at least so far apart, whatever they have to avoid. */
const LEAST_POST_GAP_M = 0.3
/** Room that a plant wants from a post. */
const PLANT_FROM_POST_M = 0.1
const radians = (degrees: number) => (degrees * Math.PI) / 180

/**
 * A row from end to end: posts in the fewest equal bays that are none wider than the greatest spacing, off
 * avoided bands with the least total movement; wires at their heights above the ground, which may rise along
 * the row; end assemblies outside the row. Plants stand between the posts.
 */
export function layRow(site: Site, pattern: RowPattern, options: FrameOptions): Layout {
  checkRow(pattern)
  const builder = new LayoutBuilder()
  const posts = placePosts(site, pattern, options, builder)
  const postWidthM = options.stockWidthM(pattern.postStockId)
  const lean = Math.tan(radians(pattern.endLeanDeg))
  const last = posts.length - 1
  /** Where a wire meets post i at a height: end posts lean outward. */
  const onPost = (i: number, heightM: number, zM: number): Point3 => {
    const out = i === 0 ? -lean * heightM : i === last ? lean * heightM : 0
    return at3(posts[i]! + out, groundAt(site, posts[i]!) + heightM, zM)
  }
  const label = (i: number) => `P${site.viewingEnd === 'left' ? i + 1 : last + 1 - i}`
  posts.forEach((_, i) => {
    const isEnd = i === 0 || i === last
    const [buriedM, stockId] = isEnd
      ? [pattern.endBuriedM, pattern.endStockId]
      : [pattern.postBuriedM, pattern.postStockId]
    const path = [onPost(i, -buriedM, 0), onPost(i, pattern.postHeightM, 0)]
    builder.member({
      id: `p${i}`,
      part: isEnd ? 'end-post' : 'line-post',
      path,
      stockId,
      buriedM,
      foot: onPost(i, 0, 0),
      label: label(i),
    })
  })
  pattern.levels.forEach((level, k) => {
    const halfM = level.form === 'single' ? 0 : level.form === 'pair' ? postWidthM / 2 : level.spreadM / 2
    if (level.form === 'arms') {
      posts.forEach((_, i) => {
        const path = [onPost(i, level.heightM, -halfM), onPost(i, level.heightM, halfM)]
        builder.member({ id: `a${k}.${i}`, part: 'cross-arm', path, stockId: pattern.armStockId })
        builder.joint(`b${k}.${i}`, onPost(i, level.heightM, 0), 'bolt', { label: label(i) })
      })
    }
    const sides = halfM === 0 ? [0] : [-halfM, halfM]
    sides.forEach((zM, side) => {
      const line = `w${k}${sides.length > 1 ? 'ab'[side]! : ''}`
      strand(level.heightM, zM, line, level.slot)
    })
  })
  if (pattern.waterHeightM !== null) strand(pattern.waterHeightM, 0, 'water', 'light')
  layEnds()
  plantSpots(site, pattern, posts, postWidthM).forEach((xM, i) =>
    builder.plant(`plant${i}`, at3(xM, groundAt(site, xM))),
  )
  builder.figure(
    'span',
    'm',
    posts.slice(1).reduce((widest, xM, i) => Math.max(widest, xM - posts[i]!), 0),
  )
  return builder.build()

  function strand(heightM: number, zM: number, line: string, slot: 'main' | 'light'): void {
    let before = -1
    posts.forEach((_, i) => {
      const joint = i === 0 || i === last ? 'end' : 'staple'
      const node = builder.joint(`${line}.p${i}`, onPost(i, heightM, zM), joint, { label: label(i) })
      if (before >= 0) builder.run(before, node, { line, slot })
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
      const foot = at3(footM, groundAt(site, Math.min(site.widthM, Math.max(0, footM))))
      if (end.kind === 'tied-back') {
        const anchorLabel = `A${(name === 'left') === (site.viewingEnd === 'left') ? 1 : 2}`
        builder.anchor({
          id: `anchor-${name}`,
          head: 'eye',
          screwId: end.screwId,
          at: foot,
          towards: attach,
          label: anchorLabel,
        })
        const from = builder.joint(`tie-${name}.anchor`, foot, 'through', { label: anchorLabel })
        const to = builder.joint(`tie-${name}.post`, attach, 'through', { label: label(i) })
        builder.run(from, to, { line: `tie-${name}` })
      } else {
        builder.member({
          id: `brace-${name}`,
          part: 'brace',
          path: [foot, attach],
          stockId: end.stockId,
          foot,
          label: label(i),
        })
        builder.joint(`brace-${name}.post`, attach, 'bolt', { label: label(i) })
      }
    }
    builder.figure('tie-back-distance', 'm', outM)
  }
}

function checkRow(pattern: RowPattern): void {
  requirePositive('maxPostSpacingM', pattern.maxPostSpacingM)
  requirePositive('postHeightM', pattern.postHeightM, 20)
  requireRange('postBuriedM', pattern.postBuriedM, 0, 5)
  requireRange('endBuriedM', pattern.endBuriedM, 0, 5)
  requireRange('endLeanDeg', pattern.endLeanDeg, 0, 45)
  requirePositive('plantSpacingM', pattern.plantSpacingM)
  requireRange('levels', pattern.levels.length, 1, 30)
  let belowM = -1
  pattern.levels.forEach((level, k) => {
    requireRange('heightM', level.heightM, 0, 20)
    requireRange('spreadM', level.spreadM, 0, 10)
    requireRange('liftM', level.liftM, 0, 10)
    if (level.heightM <= belowM)
      throw new CoreError(
        'frame/heights-out-of-order',
        `Wire ${k + 1} at ${level.heightM} m is not above ${belowM} m`,
        { tier: k + 1, heightM: level.heightM, belowM },
      )
    if (level.heightM + level.liftM > pattern.postHeightM + 1e-9)
      throw new CoreError(
        'frame/height-outside-wall',
        `Wire ${k + 1} at ${level.heightM + level.liftM} m is above its posts`,
        { tier: k + 1, heightM: level.heightM + level.liftM, fromM: 0, toM: pattern.postHeightM },
      )
    belowM = level.heightM
  })
  if (pattern.waterHeightM !== null)
    requireRange('waterHeightM', pattern.waterHeightM, 0, pattern.postHeightM)
  if (pattern.end.kind !== 'free') {
    requirePositive('attachHeightM', pattern.end.attachHeightM, pattern.postHeightM)
    requireRange('angleDeg', pattern.end.angleDeg, 20, 80)
  }
}

function placePosts(
  site: Site,
  pattern: RowPattern,
  options: FrameOptions,
  builder: LayoutBuilder,
): number[] {
  const bays = fewestParts(site.widthM, pattern.maxPostSpacingM)
  if ((bays + 1) * (pattern.levels.length * 2 + 2) > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${bays + 1} posts are too many`, { posts: bays + 1 })
  const ideals = Array.from({ length: bays + 1 }, (_, i) => (i * site.widthM) / bays)
  const taken = bandsAlong(site)
  const free = freeStretches(
    0,
    site.widthM,
    taken.map(([from, to]) => [from, to]),
  )
  const wanted = ideals.map((ideal, i) => {
    const dragged = options.dragged[`p${i}`]
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
    const label = `P${site.viewingEnd === 'left' ? i + 1 : bays + 1 - i}`
    if (spot || movedM > 1e-9) builder.shift({ id: `p${i}`, label, movedM, spot: spot ? spot[2] : null })
  })
  return posts
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
