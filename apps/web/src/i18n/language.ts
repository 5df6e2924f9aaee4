import { languages } from '@klados/contract/languages'
import type { Language } from '@klados/contract/languages'

const baseOf = (language: string): string => language.split('-')[0]!

/** The language that is nearest to what a browser asks for, by the first of its wishes that one is of; else the first. */
export function nearestLanguage(wished: readonly string[]): Language {
  for (const wish of wished) {
    const near =
      languages.find((one) => one === wish) ?? languages.find((one) => baseOf(one) === baseOf(wish))
    if (near) return near
  }
  return languages[0]
}

/** How a language writes what is no text. */
interface Writers {
  readonly dates: Readonly<Record<'short' | 'long', Intl.DateTimeFormat>>
  readonly months: Intl.DateTimeFormat
  readonly times: Intl.DateTimeFormat
  readonly moments: Intl.DateTimeFormat
  readonly lists: Readonly<Record<'all' | 'plain', Intl.ListFormat>>
  /** Between whole and part of a number. */
  readonly mark: string
}

function writersOf(language: string): Writers {
  const date = (month: 'short' | 'long') =>
    new Intl.DateTimeFormat(language, { day: 'numeric', month, year: 'numeric', timeZone: 'UTC' })
  const parts = new Intl.NumberFormat(language).formatToParts(1.5)
  return {
    dates: { short: date('short'), long: date('long') },
    months: new Intl.DateTimeFormat(language, { month: 'short', timeZone: 'UTC' }),
    times: new Intl.DateTimeFormat(language, { hour: '2-digit', minute: '2-digit' }),
    moments: new Intl.DateTimeFormat(language, { dateStyle: 'medium', timeStyle: 'short' }),
    lists: {
      all: new Intl.ListFormat(language, { style: 'long', type: 'conjunction' }),
      plain: new Intl.ListFormat(language, { style: 'short', type: 'unit' }),
    },
    mark: parts.find(({ type }) => type === 'decimal')?.value ?? '.',
  }
}

let chosen: string = typeof navigator === 'undefined' ? languages[0] : nearestLanguage(navigator.languages)
// To make a writer takes as long as a hundred dates in its words.
let made: Writers | null = null

export const currentLanguage = (): string => chosen
/** From now on everything is written as this language does; what is on the screen is drawn again by whoever calls. */
export function setLanguage(language: string): void {
  if (language === chosen) return
  chosen = language
  made = null
}
export const writers = (): Writers => (made ??= writersOf(chosen))

/** A number with so many digits after its mark. */
export const formatNumber = (value: number, digits: number): string => withMark(value.toFixed(digits))

/** A text of figures with a point in them, with the language's own mark. */
export function withMark(text: string): string {
  const { mark } = writers()
  return mark === '.' ? text : text.replace(/(\d)\.(?=\d)/g, `$1${mark}`)
}

/** Several as one says them: "one, two and three". */
export const listWords = (words: readonly string[]): string => writers().lists.all.format(words)
/** Several that only stand beside each other: "one, two, three". */
export const listPlain = (words: readonly string[]): string => writers().lists.plain.format(words)
