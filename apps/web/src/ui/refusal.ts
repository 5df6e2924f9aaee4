import type { TFunction } from 'i18next'

/**
 * A refusal in the reader's language by its code; the server's own words where the code is new to this page.
 */
export function refusalWords(
  t: TFunction,
  error: { readonly code: string; readonly message: string },
): string {
  return t(`refusal.${error.code}`, { defaultValue: error.message })
}
