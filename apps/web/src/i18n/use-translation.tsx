import i18next from 'i18next'
import type { TFunction } from 'i18next'
import { createContext, useContext, useMemo, useSyncExternalStore } from 'react'
import type { ReactNode } from 'react'

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

/** A label without figures in it is looked up once: that was a quarter of what a key waited for. */
function remembering(t: TFunction): TFunction {
  const said = new Map<unknown, unknown>()
  return new Proxy(t, {
    apply(asked, self, args: unknown[]) {
      if (args.length !== 1) return Reflect.apply(asked, self, args) as unknown
      const [key] = args
      if (!said.has(key)) said.set(key, Reflect.apply(asked, self, args))
      return said.get(key)
    },
  })
}
