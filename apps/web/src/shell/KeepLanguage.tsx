import { useEffect } from 'react'
import { useSessionQuery } from '../data/api.ts'
import { changeLanguage } from '../i18n/index.ts'
import { nearestLanguage } from '../i18n/language.ts'

/** The language of the person signed in; where they have chosen none, or nobody is, the browser's. */
export function KeepLanguage() {
  const { data } = useSessionQuery(undefined)
  const language = data?.account?.language ?? nearestLanguage(navigator.languages)
  useEffect(() => changeLanguage(language), [language])
  return null
}
