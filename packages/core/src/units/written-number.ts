import type { ParseFailure } from './parsed.ts'

/**
 * Numbers as people write them: `1650`, `1,650.5`, `1.650,5`, `1 650`, `1'650`, `1,65`, `.5`. One reader for every
 * quantity, so that none reads another number than the next. Where three digits after one mark may be thousands or
 * decimals, both are answered and whoever asks has to ask back: a wall ten times too long costs more than a question.
 */
export interface Readings {
  /** The text with points for decimals and nothing between thousands, in each way that it can be read. */
  readonly texts: readonly string[]
  /** The mark that leaves two ways, first that of decimals; `null` where there is one way or none. */
  readonly mark: string | null
}

const VULGAR: Readonly<Record<string, string>> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅓': '1/3',
  '⅔': '2/3',
}

/** Small letters, one kind of quote, blank, minus and fraction. */
function folded(text: string): string {
  // What a form has marked as about so much is read as that.
  let s = text.trim().replace(/^≈\s*/, '').toLowerCase()
  for (const [glyph, fraction] of Object.entries(VULGAR)) s = s.replaceAll(glyph, ` ${fraction}`)
  return s
    .replace(/[’‘′`´]/g, "'")
    .replace(/[”“″]/g, '"')
    .replace(/''/g, '"')
    .replace(/[−–]/g, '-')
    .replace(/[\u00a0\u202f\u2009]/g, ' ')
    .trim()
}

/** Thousands in threes with one mark between them, then perhaps decimals with another; any other number. */
const NUMBER = /\d{1,3}([ .,'])\d{3}(?:\1\d{3})*(?!\d|\s*\/)(?:[.,]\d+)?|\d+(?:[.,]\d+)?|[.,]\d+/g

export function readingsOf(text: string): Readings {
  const s = folded(text)
  const none: Readings = { texts: [], mark: null }
  let [first, second] = ['', '']
  let mark: string | null = null
  let at = 0
  for (const match of s.matchAll(NUMBER)) {
    const [token, between] = match
    const before = s.slice(at, match.index)
    at = match.index + token.length
    // Digits that go on behind another mark are in no order that anybody writes.
    if (/^[.,]\d/.test(s.slice(at))) return none
    const [decimal, grouped] = waysOf(token, between)
    if (decimal === null && grouped === null) return none
    if (decimal !== null && grouped !== null) mark ??= between!
    first += before + (decimal ?? grouped)!
    second += before + (grouped ?? decimal)!
  }
  first += s.slice(at)
  second += s.slice(at)
  return { texts: first === second ? [first] : [first, second], mark: first === second ? null : mark }
}

/** A number as one with decimals and as one with marks between thousands, where it can be that. */
function waysOf(token: string, between: string | undefined): readonly [string | null, string | null] {
  const asDecimal = token.replace(',', '.').replace(/^\./, '0.')
  if (between === undefined) return [asDecimal, null]
  const tail = /([.,])(\d+)$/.exec(token)
  const decimals = tail && tail[1] !== between ? tail : null
  const groups = (decimals ? token.slice(0, decimals.index) : token).split(between)
  // "1.650.5": a mark between thousands is none of decimals behind them.
  if (groups.slice(1).some(({ length }) => length !== 3)) return [null, null]
  const grouped = groups.join('') + (decimals ? `.${decimals[2]!}` : '')
  if (decimals || groups.length > 2 || between === ' ') return [null, grouped]
  const other = between === "'" ? token : asDecimal
  // Nobody writes thousands with a nought before them.
  return [other, token.startsWith('0') ? null : grouped]
}

/** Reads a text in each way that it can be read: one value, or a question where two ways give two. */
export function readEither<T extends { readonly ok: true; readonly value: number }>(
  text: string,
  read: (normal: string) => T | { readonly ok: false; readonly reason: ParseFailure },
  failure: ParseFailure,
  /** Whether the one with decimals is meant, as its unit or the size of the other tells. */
  isDecimal: (decimal: T, other: T, mark: string) => boolean,
):
  | { readonly ok: true; readonly value: number }
  | { readonly ok: false; readonly reason: ParseFailure; readonly either?: readonly [string, string] } {
  const { texts, mark } = readingsOf(text)
  if (texts.length === 0) return { ok: false, reason: failure }
  const answers = texts.map(read)
  const good = answers.flatMap((answer, i) => (answer.ok ? [{ answer, text: texts[i]! }] : []))
  const [one, other] = good
  if (!one) return answers[0] as { readonly ok: false; readonly reason: ParseFailure }
  if (!other || one.answer.value === other.answer.value || isDecimal(one.answer, other.answer, mark!))
    return { ok: true, value: one.answer.value }
  return { ok: false, reason: 'ambiguous', either: [unmistakable(one.text), other.text] }
}

/** With fewer or more than three decimals and room behind feet, so that it is taken for what it is when it is typed. */
const unmistakable = (text: string): string =>
  text.replace(/'(?=\d)/g, "' ").replace(/\.(\d{3})(?!\d)/g, (_, decimals: string) => {
    const short = decimals.replace(/0+$/, '')
    return short.length === 3 ? `.${decimals}0` : short === '' ? '' : `.${short}`
  })
