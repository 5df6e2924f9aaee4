import i18next from 'i18next'
import { createContext, useContext, useMemo, useSyncExternalStore } from 'react'
import type { ReactNode } from 'react'
import type { TFunction } from './texts.ts'

interface Texts {
  readonly t: TFunction
}

const Context = createContext<Texts | null>(null)

/** The texts, asked for once for the whole interface; a screen of hundreds of labels is drawn again with every key. */
export function TextsProvider({ children }: { children: ReactNode }) {
  const language = useSyncExternalStore(onLanguage, () => i18next.language)
  const texts = useMemo(() => ({ t: remembering(i18next.getFixedT(language)) }), [language])
  return <Context value={texts}>{children}</Context>
}

function onLanguage(told: () => void): () => void {
  i18next.on('languageChanged', told)
  return () => i18next.off('languageChanged', told)
}

export function useTranslation(): Texts {
  return useContext(Context)!
}

/** So many texts are kept at the most; then they are looked up anew. */
const REMEMBERED = 4000

/**
 * A text is put together once for the same figures in it: of a hundred lines on a screen a tap changes two, and all of
 * them are said again.
 */
function remembering(t: TFunction): TFunction {
  const said = new Map<string, unknown>()
  return new Proxy(t, {
    apply(asked, self, args: unknown[]) {
      const key = keyOf(args)
      if (key === null) return Reflect.apply(asked, self, args) as unknown
      if (!said.has(key)) {
        if (said.size >= REMEMBERED) said.clear()
        said.set(key, Reflect.apply(asked, self, args))
      }
      return said.get(key)
    },
  })
}

/** What a text is asked for with; `null` where that is more than its name and plain figures and words. */
function keyOf([name, figures, ...more]: readonly unknown[]): string | null {
  const asked = Array.isArray(name) ? name.join('\n') : name
  if (typeof asked !== 'string' || more.length > 0) return null
  if (figures === undefined) return asked
  if (typeof figures !== 'object' || figures === null) return null
  let key = asked
  for (const [of, value] of Object.entries(figures)) {
    if (typeof value === 'object' || typeof value === 'function') return null
    key += `\0${of}\0${typeof value}\0${String(value)}`
  }
  return key
}
