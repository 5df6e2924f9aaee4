import { plantKinds } from '@klados/core/kinds'
import type { Page } from '@playwright/test'
import { expect, test } from './fixtures.ts'
import { apiOf, enterDemo, signUp } from './people.ts'

const ACCENTED: Readonly<Record<string, string>> = {
  ...{ a: 'á', e: 'é', i: 'í', o: 'ó', u: 'ú', y: 'ý' },
  ...{ A: 'Á', E: 'É', I: 'Í', O: 'Ó', U: 'Ú', Y: 'Ý' },
}

/** A text in a language that nobody speaks: each vowel accented, and a third longer. Its gaps stay as they are. */
const madeUp = (text: string): string =>
  text === ''
    ? ''
    : text
        .split(/(\{\{\w+\}\})/)
        .map((part, n) => (n % 2 === 1 ? part : part.replace(/[aeiouy]/gi, (one) => ACCENTED[one]!)))
        .join('') + ` ${'óú'.repeat(Math.ceil(text.length / 6))}`
const allMadeUp = (texts: object): object =>
  Object.fromEntries(
    Object.entries(texts).map(([key, text]: [string, string | object]) => [
      key,
      typeof text === 'string' ? madeUp(text) : allMadeUp(text),
    ]),
  )

/** From now on this page gets the texts of the language that nobody speaks. */
const speakMadeUp = (page: Page) =>
  page.route(/\/assets\/en-[^/]*\.json$/, async (route) => {
    const reply = await route.fetch()
    await route.fulfill({ response: reply, json: allMadeUp((await reply.json()) as object) })
  })

/** Words that no language changes: names, what people wrote, units, months of the language that dates are written in. */
const NO_TEXTS = `Klados English British American AWG SWG kPa psf mph CSV PDF DXF SVG JPEG PNG WebP lbf kgf
  Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec January February March April June July August September October
  November December EUR Klados`
const wordsIn = (text: string): string[] => text.match(/\p{L}+/gu) ?? []

/** Every word of what people wrote in a garden. */
async function written(page: Page, garden: string): Promise<ReadonlySet<string>> {
  const all = await Promise.all(
    ['', '/places', '/frames', '/plants', '/stores', '/journal?limit=5000'].map(async (part) =>
      (await page.request.get(`${apiOf(garden)}${part}`)).text(),
    ),
  )
  const session = await (await page.request.get('/api/session')).text()
  const botanical = plantKinds.map((kind) => kind.botanical).join(' ')
  return new Set(wordsIn([...all, session, botanical, NO_TEXTS].join(' ')))
}

/** What a page says to eye and ear, piece by piece. */
const said = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const pieces: string[] = []
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
    for (let node = walker.nextNode(); node; node = walker.nextNode())
      if (!node.parentElement!.closest('script, style, noscript')) pieces.push(node.textContent!)
    for (const element of document.body.querySelectorAll('*'))
      for (const name of ['aria-label', 'aria-valuetext', 'placeholder', 'title', 'alt'])
        if (element.hasAttribute(name)) pieces.push(element.getAttribute(name)!)
    return pieces
  })

/** Pieces in which a word stands that nobody wrote and that is not of the made-up language. */
async function english(page: Page, known: ReadonlySet<string>): Promise<string[]> {
  const isEnglish = (word: string) =>
    /^[a-z]*[aeiou][a-z]*$/i.test(word) && word.length > 2 && !known.has(word)
  const pieces = await said(page)
  return [...new Set(pieces.filter((piece) => wordsIn(piece).some(isEnglish)))]
}

test.describe('in a language that nobody speaks nothing is English, and nothing runs off the page', () => {
  test.setTimeout(180_000)

  for (const width of [1280, 390])
    test(`${width} px wide`, async ({ page }) => {
      await page.setViewportSize({ width, height: 844 })
      await speakMadeUp(page)
      const look = async (path: string, known: ReadonlySet<string>) => {
        await page.goto(path)
        await page.getByRole('heading').first().waitFor()
        await page.waitForLoadState('networkidle')
        expect([path, await english(page, known)]).toEqual([path, []])
        const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
        expect([path, over <= 0]).toEqual([path, true])
      }
      for (const path of ['/sign-in', '/recover', '/new-password#x'])
        await look(path, new Set(wordsIn(NO_TEXTS)))
      const { garden: empty } = await signUp(page)
      const own = await written(page, empty)
      for (const path of ['places', 'round', 'people', 'stores', 'places/new/measures'])
        await look(`${empty}/${path}`, own)

      const garden = await enterDemo(page)
      const known = await written(page, garden)
      const places = (await (await page.request.get(`${apiOf(garden)}/places`)).json()) as { id: string }[]
      const winter = `${new Date().getUTCFullYear() - 1}-02-05`
      await look(`${garden}/places`, known)
      for (const { id } of places) await look(`${garden}/places/${id}/frame`, known)
      for (const { id } of places.slice(0, 4)) {
        await look(`${garden}/places/${id}/measures`, known)
        await look(`${garden}/places/${id}/wood?on=${winter}`, known)
      }
      for (const path of ['round', 'people', 'stores', `places/${places[0]!.id}/variants`])
        await look(`${garden}/${path}`, known)
    })
})
