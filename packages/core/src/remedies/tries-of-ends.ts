import { findScrew, findStock, stockWidthM } from '../catalogue/index.ts'
import type { Catalogue, ScrewOnOffer } from '../catalogue/index.ts'
import type { FrameDesign } from '../design/index.ts'
import type { RowPattern } from '../frame/index.ts'
import type { LeverStep, Tries } from './levers.ts'
import { marksAbove, stepsUp, withField } from './tries-by-field.ts'

const MOST_IN_LINE = 4
const MOST_STRANDS = 4

/** Screws of the same head that go deeper or are wider, the least dear first. */
function strongerScrews(catalogue: Catalogue, nowId: string): readonly ScrewOnOffer[] {
  const now = findScrew(catalogue, nowId)
  const reach = (of: typeof now) => (of ? of.lengthM * of.helixDiameterM : 0)
  return catalogue.screws
    .filter((one) => one.head === (now?.head ?? 'eye') && reach(one) > reach(now))
    .sort((a, b) => a.price - b.price)
}

/** Deeper or wider screws for those that a pattern names by `key`, and for the ties of a row. */
export function screwTries(lever: 'screw' | 'flange-screw', key: 'anchorScrewId' | 'flangeScrewId'): Tries {
  return ({ design, catalogue }) => {
    const { pattern } = design
    const tiedBack = pattern.kind === 'row' && pattern.end.kind === 'tied-back' ? pattern.end : null
    const step = (from: string, to: string, next: FrameDesign): LeverStep => ({
      lever,
      from: { is: 'screw', id: from },
      to: { is: 'screw', id: to },
      design: next,
    })
    if (pattern.kind === 'net') {
      const now = pattern[key]
      return strongerScrews(catalogue, now).map(({ id }) => step(now, id, withField(design, key, id)))
    }
    if (!tiedBack || lever !== 'screw') return []
    return strongerScrews(catalogue, tiedBack.screwId).map(({ id }) =>
      step(tiedBack.screwId, id, withField(design, 'end', { ...tiedBack, screwId: id })),
    )
  }
}

/** More screws one behind the other, of the same kind or of a stronger one: the least dear first. */
export const inLineTries: Tries = ({ design, catalogue }) => {
  const { pattern } = design
  if (pattern.kind !== 'row' || pattern.end.kind !== 'tied-back') return []
  const { end } = pattern
  return [
    ...catalogue.screws.filter(({ id }) => id === end.screwId),
    ...strongerScrews(catalogue, end.screwId),
  ]
    .flatMap((screw) => stepsUp(end.inLine + 1, MOST_IN_LINE).map((n) => ({ screw, n })))
    .sort((a, b) => a.n * a.screw.price - b.n * b.screw.price)
    .map(({ screw, n }) => ({
      lever: 'screws-in-line',
      from: { is: 'screws', id: end.screwId, n: end.inLine },
      to: { is: 'screws', id: screw.id, n },
      design: withField(design, 'end', { ...end, screwId: screw.id, inLine: n }),
    }))
}

/** More strands of the same wire from each post to its screw. */
export const strandTries: Tries = ({ design }) => {
  const { pattern } = design
  if (pattern.kind !== 'row' || pattern.end.kind !== 'tied-back') return []
  const { end } = pattern
  return stepsUp(end.strands + 1, MOST_STRANDS).map((n) => ({
    lever: 'tie-strands',
    from: { is: 'count', n: end.strands },
    to: { is: 'count', n },
    design: withField(design, 'end', { ...end, strands: n }),
  }))
}

/** What a row's tie or brace can do: be made off higher, run flatter. */
export const tieHigherTries: Tries = ({ design, grain }) => {
  const { pattern } = design
  if (pattern.kind !== 'row' || pattern.end.kind === 'free') return []
  const { end } = pattern
  return marksAbove(end.attachHeightM, pattern.postHeightM, grain.depthM).map((m) => ({
    lever: 'tie-higher',
    from: { is: 'length', m: end.attachHeightM },
    to: { is: 'length', m },
    design: withField(design, 'end', { ...end, attachHeightM: m }),
  }))
}

const FLATTEST_DEG = 30
const DEGREES_A_STEP = 5
export const tieFlatterTries: Tries = ({ design }) => {
  const { pattern } = design
  if (pattern.kind !== 'row' || pattern.end.kind === 'free') return []
  const { end } = pattern
  const count = Math.max(0, Math.ceil((end.angleDeg - FLATTEST_DEG) / DEGREES_A_STEP))
  return Array.from({ length: count }, (_, i) => {
    const deg = Math.max(FLATTEST_DEG, end.angleDeg - (i + 1) * DEGREES_A_STEP)
    return {
      lever: 'tie-flatter',
      from: { is: 'angle', deg: end.angleDeg },
      to: { is: 'angle', deg },
      design: withField(design, 'end', { ...end, angleDeg: deg }),
    }
  })
}

/** Share of the post's height at which an end is tied back or braced to begin with. */
const ATTACH_SHARE = 0.8
const ATTACH_DEG = 45

export function otherEndTries(lever: 'tie-back' | 'brace'): Tries {
  return ({ design, catalogue }) => {
    const { pattern } = design
    const kind = lever === 'tie-back' ? 'tied-back' : 'braced'
    if (pattern.kind !== 'row' || pattern.end.kind === kind) return []
    const attachHeightM = Math.round(pattern.postHeightM * ATTACH_SHARE * 100) / 100
    const base = { attachHeightM, angleDeg: ATTACH_DEG }
    const ends: RowPattern['end'][] =
      kind === 'tied-back'
        ? catalogue.screws
            .filter(({ head }) => head === 'eye')
            .sort((a, b) => a.price - b.price)
            .flatMap(({ id }) =>
              [2, MOST_STRANDS].map((strands) => ({ kind, ...base, screwId: id, inLine: 1, strands })),
            )
        : [{ kind, ...base, stockId: pattern.postStockId }]
    return ends.map((end) => ({ lever, from: null, to: null, design: withField(design, 'end', end) }))
  }
}

export const braceStockTries: Tries = ({ design, catalogue }) => {
  const { pattern } = design
  const now = pattern.kind === 'row' && pattern.end.kind === 'braced' ? pattern.end : null
  const stock = now && findStock(catalogue, now.stockId)
  if (!now || !stock) return []
  return catalogue.stock
    .filter((one) => one.use === 'post' && stockWidthM(one) > stockWidthM(stock))
    .sort((a, b) => stockWidthM(a) - stockWidthM(b))
    .map(({ id }) => ({
      lever: 'brace-stock',
      from: { is: 'stock', id: now.stockId },
      to: { is: 'stock', id },
      design: withField(design, 'end', { ...now, stockId: id }),
    }))
}
