import { plantKinds } from '@klados/core/kinds'
import type { Page } from '@playwright/test'
import { apiOf } from './people.ts'

/**
 * From now on this page gets the texts of a language that nobody speaks: each vowel accented, and a third longer. Their
 * gaps stay as they are. What is longer comes first, so that a button's text stays a part of what it is called. The page
 * itself changes them as they come: with requests held up, nothing would be taken from the browser's cache.
 */
export const speakMadeUp = (page: Page) =>
  page.addInitScript(() => {
    const [plain, accented] = ['aeiouyAEIOUY', 'áéíóúýÁÉÍÓÚÝ']
    const madeUp = (text: string): string =>
      text === ''
        ? ''
        : 'óúóú '.repeat(Math.ceil(text.length / 15)) +
          text
            .split(/(\{\{\w+\}\})/)
            .map((part, n) =>
              n % 2 === 1 ? part : part.replace(/[aeiouy]/gi, (one) => accented[plain.indexOf(one)]!),
            )
            .join('')
    const allMadeUp = (texts: object): object =>
      Object.fromEntries(
        Object.entries(texts).map(([key, text]: [string, string | object]) => [
          key,
          typeof text === 'string' ? madeUp(text) : allMadeUp(text),
        ]),
      )
    const { fetch } = window
    window.fetch = async (...asked) => {
      const reply = await fetch(...asked)
      if (!/\/assets\/(words\.)?en-[^/]*\.json$/.test(String(asked[0]))) return reply
      return Response.json(allMadeUp((await reply.json()) as object))
    }
  })

/** Words that no language changes: names, what people wrote, units, months of the language that dates are written in. */
export const NO_TEXTS = `Klados English British American AWG SWG kPa psf mph CSV PDF DXF SVG JPEG PNG WebP lbf kgf
  Chrome Linux Jan Feb Mar Apr May Jun Jul Aug Sep Sept Oct Nov Dec January February March April June July August September October
  November December EUR`
export const wordsIn = (text: string): string[] => text.match(/\p{L}+/gu) ?? []

/** Every word of what people wrote in a garden. */
export async function written(page: Page, garden: string): Promise<ReadonlySet<string>> {
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
      if (!node.parentElement!.closest('script, style, noscript, [translate="no"]'))
        pieces.push(node.textContent!)
    for (const element of document.body.querySelectorAll('*'))
      for (const name of ['aria-label', 'aria-valuetext', 'placeholder', 'title', 'alt'])
        if (element.hasAttribute(name)) pieces.push(element.getAttribute(name)!)
    return pieces
  })

/** Pieces in which a word stands that nobody wrote and that is not of the made-up language. */
export async function english(page: Page, known: ReadonlySet<string>): Promise<string[]> {
  const isEnglish = (word: string) =>
    /^[a-z]*[aeiou][a-z]*$/i.test(word) && word.length > 2 && !known.has(word)
  const pieces = await said(page)
  return [...new Set(pieces.filter((piece) => wordsIn(piece).some(isEnglish)))]
}
