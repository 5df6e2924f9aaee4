import i18next from 'i18next'
import { bySystem } from './craft-words.ts'
import en from './en.json'

type Words = Parameters<typeof bySystem>[0][number]

/** The words of every craft as they stand in its folder. */
export const crafts: readonly Words[] = Object.values(
  import.meta.glob<Words>('../../../../packages/core/src/training/systems/*/words.en.json', {
    eager: true,
    import: 'default',
  }),
)

/** All texts at once, for tests that read what is said. */
export const startTestTexts = () =>
  i18next.init({
    lng: 'en',
    resources: { en: { translation: { ...en, crafts: bySystem(crafts) } } },
    interpolation: { escapeValue: false },
  })
