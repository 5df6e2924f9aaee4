import i18next from 'i18next'
import { currentLanguage, setLanguage } from './language.ts'
import enUrl from './en.json?url'
import { fetchCrafts } from './craft-words.ts'

/**
 * Every word on the screen comes from these files; a language is one more of them. They are data and are
 * fetched as such.
 */
export async function startTexts(): Promise<void> {
  const fetched = await Promise.all([
    fetch(enUrl).then(async (file) => (await file.json()) as object),
    fetchCrafts(),
  ])
  const [en, crafts] = fetched
  document.documentElement.lang = currentLanguage()
  await i18next.init({
    lng: currentLanguage(),
    fallbackLng: 'en',
    resources: { en: { translation: { ...en, crafts } } },
    interpolation: { escapeValue: false },
  })
}

/** Texts, dates and numbers in this language from now on; what is on the screen is said anew. */
export function changeLanguage(language: string): void {
  if (language === currentLanguage()) return
  setLanguage(language)
  document.documentElement.lang = language
  void i18next.changeLanguage(language)
}
