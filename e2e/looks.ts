import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'
import { expect } from '@playwright/test'
import type { Page } from '@playwright/test'
import { isLong } from './third.ts'

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

interface Look {
  readonly size: { readonly width: number; readonly height: number }
  readonly theme: 'light' | 'dark'
  readonly rules: object
}
const WIDE = { width: 1280, height: 800 }
const NARROW = { width: 390, height: 844 }
const RULES = { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }
/** All that axe looks at that a theme's colours or a page's width have a part in. */
const RULES_OF_LOOKS = {
  type: 'rule',
  values: ['color-contrast', 'link-in-text-block', 'target-size', 'scrollable-region-focusable'],
}
/** Every rule once, what changes with the looks once more in the others; the long check goes through all looks. */
const LOOKS: readonly Look[] = [
  { size: WIDE, theme: 'light', rules: RULES },
  { size: NARROW, theme: 'dark', rules: RULES_OF_LOOKS },
]
const OTHER_LOOKS: readonly Look[] = [
  { size: NARROW, theme: 'light', rules: RULES },
  { size: WIDE, theme: 'dark', rules: RULES },
]
const looks = isLong ? [...LOOKS, ...OTHER_LOOKS] : LOOKS

/** What axe finds, and words whose gaps nobody filled. */
const violations = (page: Page, runOnly: object): Promise<string[]> =>
  page.evaluate(
    async (options) => {
      const gaps = document.body.innerText.match(/.*\{\{.*/g) ?? []
      const axe = (
        window as unknown as {
          axe: {
            run: (
              options: object,
            ) => Promise<{ violations: { id: string; nodes: { target: unknown; html: string }[] }[] }>
          }
        }
      ).axe
      const { violations } = await axe.run(options)
      const found = violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`)
      return [...found, ...gaps]
    },
    // Of what passes nothing is asked, nor where in the page it is; the style sheets are read anew only for a rule that
    // is not among these, and films there are none.
    { runOnly, resultTypes: ['violations'], selectors: false, preload: false },
  )

const drawn = (page: Page) =>
  page.evaluate(() => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn))))

/** What runs off the page to the right, the innermost of it. */
const runningOff = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const { documentElement: root } = document
    if (root.scrollWidth <= window.innerWidth) return []
    const isOff = (one: Element) => one.getBoundingClientRect().right > window.innerWidth + 0.5
    return [...document.body.querySelectorAll(':not(.overflow-x-auto *)')]
      .filter((one) => isOff(one) && ![...one.children].some(isOff))
      .map((one) => one.outerHTML.slice(0, 160))
  })

/** What runs off the smallest phone when the browser's letters are twice as large. */
export async function runningOffEnlarged(page: Page): Promise<string[]> {
  await page.setViewportSize({ width: 320, height: 700 })
  const enlarge = (size: string) =>
    page.evaluate((size) => void (document.documentElement.style.fontSize = size), size)
  await enlarge('200%')
  await drawn(page)
  const off = await runningOff(page)
  await enlarge('')
  await page.setViewportSize(WIDE)
  return off
}

/** Holds what a page shows to the rules, in each of its looks; `where` names it. */
export async function expectNothing(page: Page, where: string, isWhole = false): Promise<void> {
  await page.evaluate(axeSource)
  for (const { size, theme, rules } of looks) {
    await page.setViewportSize(size)
    await page.emulateMedia({ colorScheme: theme })
    await drawn(page)
    const look = [where, theme, size.width]
    expect([look, await violations(page, rules)]).toEqual([look, []])
    if (!isWhole) continue
    expect([look, await runningOff(page)]).toEqual([look, []])
  }
  await page.setViewportSize(WIDE)
  await page.emulateMedia({ colorScheme: 'light' })
}
