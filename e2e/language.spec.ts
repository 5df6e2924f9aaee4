import { plantKinds } from '@klados/core/kinds'
import type { Page } from '@playwright/test'
import { expect, test } from './fixtures.ts'
import { apiOf, enterDemo, signUp } from './people.ts'
import { isTaken } from './third.ts'

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
        .join('') + ' óúóú'.repeat(Math.ceil(text.length / 15))
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
  Chrome Linux Jan Feb Mar Apr May Jun Jul Aug Sep Sept Oct Nov Dec January February March April June July August September October
  November December EUR`
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

/** What runs off the page to the right, the innermost of it. */
const runningOff = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const { documentElement: root } = document
    if (root.scrollWidth <= window.innerWidth) return []
    const isOff = (one: Element) => one.getBoundingClientRect().right > window.innerWidth + 0.5
    return [...document.body.querySelectorAll('*')]
      .filter((one) => isOff(one) && ![...one.children].some(isOff))
      .map((one) => one.outerHTML.slice(0, 160))
  })

test.describe('in a language that nobody speaks nothing is English, and nothing runs off the page', () => {
  test.setTimeout(180_000)

  test('on any screen', async ({ page }) => {
    await speakMadeUp(page)
    const look = async (path: string, known: ReadonlySet<string>) => {
      await page.goto(path)
      await page.getByRole('heading').first().waitFor()
      // A stream of news stays open; what a screen asks for first is there by then.
      await page.waitForLoadState('networkidle', { timeout: 1500 }).catch(() => undefined)
      expect.soft([path, await english(page, known)]).toEqual([path, []])
      for (const width of [390, 1280]) {
        await page.setViewportSize({ width, height: 844 })
        await page.evaluate(
          () => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn))),
        )
        expect.soft([path, width, await runningOff(page)]).toEqual([path, width, []])
      }
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
    // A third of the places, another with each run; the long check goes to all of them.
    for (const [n, { id }] of [...places.entries()].filter(([at]) => isTaken(at))) {
      await look(`${garden}/places/${id}/frame`, known)
      if (n % 2 === 0) await look(`${garden}/places/${id}/measures`, known)
      else await look(`${garden}/places/${id}/wood?on=${winter}`, known)
    }
    const frames = (await (await page.request.get(`${apiOf(garden)}/frames`)).json()) as {
      id: string
      body: { placeId: string }
    }[]
    for (const { id, body } of frames.filter((_, at) => isTaken(at)).slice(0, 2))
      for (const part of ['sheet', 'build'])
        await look(`${garden}/places/${body.placeId}/frame/${id}/${part}`, known)
    for (const path of ['round', 'people', 'stores', `places/${places[0]!.id}/variants`])
      await look(`${garden}/${path}`, known)
  })
})
