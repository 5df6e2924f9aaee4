import type { TFunction } from './texts.ts'

/** Short statements one after the other, set apart as the language sets them apart. */
export const clauses = (t: TFunction, parts: readonly string[]): string =>
  parts.join(t('punctuation.clauses'))
