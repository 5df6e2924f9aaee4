import i18next from 'i18next'
import enUrl from './en.json?url'

/**
 * Every word on the screen comes from these files; a language is one more of them. They are data and are
 * fetched as such.
 */
export async function startTexts(): Promise<void> {
  const en = (await (await fetch(enUrl)).json()) as object
  await i18next.init({
    lng: 'en',
    fallbackLng: 'en',
    resources: { en: { translation: en } },
    interpolation: { escapeValue: false },
  })
}
