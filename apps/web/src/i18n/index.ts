import i18next from 'i18next'
import { initReactI18next } from 'react-i18next'
import en from './en.json'

/** Every word on the screen comes from these files; a language is one more of them. */
export async function startTexts(): Promise<void> {
  await i18next.use(initReactI18next).init({
    lng: 'en',
    fallbackLng: 'en',
    resources: { en: { translation: en } },
    interpolation: { escapeValue: false },
  })
}
