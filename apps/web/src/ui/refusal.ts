import type { TFunction } from '../i18n/texts.ts'

/** A refusal in the reader's language, by its code; a code that is new to this page is told as it is. */
export function refusalWords(t: TFunction, { code }: { readonly code: string }): string {
  return t(`refusal.${code}`, { defaultValue: t('refusal.unknown', { code }) })
}
