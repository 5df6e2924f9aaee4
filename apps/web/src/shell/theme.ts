export const themes = ['system', 'light', 'dark'] as const
export type Theme = (typeof themes)[number]
const KEY = 'klados.theme'

export function chosenTheme(): Theme {
  const stored = localStorage.getItem(KEY)
  return themes.find((theme) => theme === stored) ?? 'system'
}

export function chooseTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme)
  applyTheme()
}

/**
 * Light or dark on the page itself, so that one set of tokens serves the choice and the device's wish alike.
 */
export function applyTheme(): void {
  const wish = window.matchMedia('(prefers-color-scheme: dark)')
  const show = () => {
    const theme = chosenTheme()
    document.documentElement.dataset.theme = theme === 'system' ? (wish.matches ? 'dark' : 'light') : theme
  }
  wish.onchange = show
  show()
}
