import { currentLanguage } from '../i18n/language.ts'

const writers = new Map<string, Intl.NumberFormat>()

/** A sum in the garden's currency, as the reader's language writes it. */
export function formatMoney(amount: number, currency: string): string {
  // To make a writer takes as long as to write a hundred sums.
  const language = currentLanguage()
  const key = `${language} ${currency}`
  let writer = writers.get(key)
  if (!writer) {
    writer = new Intl.NumberFormat(language, { style: 'currency', currency })
    writers.set(key, writer)
  }
  return writer.format(amount)
}
