import { rmSync } from 'node:fs'
import { setTimeout as pause } from 'node:timers/promises'
import { requireChromium } from '../lib/debian.mjs'
import { inWork } from '../lib/paths.mjs'
import { killAll, percentile, readJournal, seeded, signUp, startKlados } from './klados.mjs'

const ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]
const BROWSER_KILLS = 12
const SERVER_KILLS = 6

/**
 * Writes through the real page in a real browser: a note typed and handed in, again and again, while browser
 * and server are killed under it. What the outbox had confirmed, by the end of the transaction that kept it,
 * must be on the server in the end, once.
 */
export async function soakClient({ writes, seed, report }) {
  const klados = await startKlados('client')
  const { chromium } = await import('@playwright/test')
  const executablePath = await requireChromium()
  const profile = inWork(`soak-profile-${process.pid}`)
  const chance = seeded(seed)
  const confirmed = new Set()
  const confirmMs = []
  let next = 0
  const url = (person) => `${klados.base}/g/${person.gardenId}/places/${person.placeId}/wood`
  try {
    const person = await signUp(klados.base)
    const [name, value] = person.cookie.split('=')
    const openBrowser = async () => {
      const context = await chromium.launchPersistentContext(profile, {
        executablePath,
        args: ARGS,
        locale: 'en-GB',
      })
      await context.addCookies([{ name, value, url: klados.base }])
      await context.exposeFunction('soakConfirmed', (texts, ms) => {
        for (const text of texts) confirmed.add(text)
        confirmMs.push(ms)
      })
      await context.addInitScript(watchOutbox)
      const page = context.pages()[0] ?? (await context.newPage())
      // The server may be on its way back itself.
      for (let tries = 0; ; tries++) {
        const isThere = await page
          .goto(url(person))
          .then(() => true)
          .catch(() => false)
        if (isThere) break
        if (tries > 100) throw new Error('the page did not come up again')
        await pause(200)
      }
      await page.getByLabel('A note').waitFor({ timeout: 60_000 })
      return { context, page }
    }
    let browser = await openBrowser()
    const killBrowserAt = spread(writes, Math.min(BROWSER_KILLS, Math.ceil(writes / 60)), chance)
    const killServerAt = spread(writes, Math.min(SERVER_KILLS, Math.ceil(writes / 60)), chance)
    let browserKills = 0
    while (next < writes) {
      const upTo = Math.min(writes, next + 10)
      const isKilled = killBrowserAt.some((at) => at >= next && at < upTo)
      if (killServerAt.some((at) => at >= next && at < upTo)) process.kill(klados.serverPid(), 'SIGKILL')
      const writing = browser.page.evaluate(writeNotes, { from: next, to: upTo }).catch(() => null)
      if (isKilled) {
        await pause(chance() * 300)
        // The browser's own process and all of its children, at once.
        killAll(profile)
        browserKills++
        await writing
        await browser.context.close().catch(() => undefined)
        browser = await openBrowser()
      } else await writing
      next = upTo
    }
    for (let waited = 0; waited < 120_000; waited += 200) {
      const left = await browser.page.evaluate(outboxSize).catch(() => 1)
      if (left === 0) break
      await pause(200)
    }
    const left = await browser.page.evaluate(outboxSize)
    await browser.context.close()
    const stored = (await readJournal(klados.base, person)).map((entry) => entry.body.text)
    const counts = new Map()
    for (const text of stored) counts.set(text, (counts.get(text) ?? 0) + 1)
    const lost = [...confirmed].filter((text) => !counts.has(text)).length
    const doubled = [...counts.values()].filter((count) => count > 1).length
    report.say(
      `${writes} notes through the page, ${browserKills} kills of the browser, ${killServerAt.length} of the server`,
      `${confirmed.size} confirmed by the outbox, median ${percentile(confirmMs, 0.5).toFixed(0)} ms`,
      // How many depends on how fast machine and disk are; that there were some to lose does not.
      confirmed.size > writes / 4,
    )
    report.say('  confirmed and not on the server', String(lost), lost === 0)
    report.say('  on the server more than once', String(doubled), doubled === 0)
    report.say('  left in the outbox', String(left), left === 0)
  } finally {
    killAll(profile)
    await klados.stop()
    rmSync(profile, { recursive: true, force: true })
  }
}

const spread = (total, count, chance) =>
  Array.from({ length: count }, (_, i) => Math.floor(((i + chance()) / count) * total))

/** In the page: tells of every entry once the transaction that put it into the outbox is over. */
function watchOutbox() {
  const put = IDBObjectStore.prototype.put
  IDBObjectStore.prototype.put = function (value, ...rest) {
    const text = value?.kind === 'entry' ? value.entry?.body?.text : undefined
    if (text !== undefined) {
      const transaction = this.transaction
      if (!transaction.soak) {
        transaction.soak = { texts: [], since: performance.now() }
        transaction.addEventListener('complete', () =>
          window.soakConfirmed(transaction.soak.texts, performance.now() - transaction.soak.since),
        )
      }
      transaction.soak.texts.push(text)
    }
    return put.call(this, value, ...rest)
  }
}

/** In the page: types notes and hands them in, as fast as it follows. */
async function writeNotes({ from, to }) {
  const setValue = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set
  const label = [...document.querySelectorAll('label')].find((one) => one.textContent === 'A note')
  const input = document.getElementById(label.htmlFor)
  for (let n = from; n < to; n++) {
    setValue.call(input, `note ${n}`)
    input.dispatchEvent(new Event('input', { bubbles: true }))
    await new Promise((resolve) => setTimeout(resolve, 0))
    input.form.requestSubmit()
    await new Promise((resolve) => setTimeout(resolve, 0))
  }
  await new Promise((resolve) => setTimeout(resolve, 20))
}

function outboxSize() {
  return new Promise((resolve, reject) => {
    const open = indexedDB.open('klados-sync')
    open.onerror = () => reject(open.error)
    open.onsuccess = () => {
      const count = open.result.transaction('items').objectStore('items').count()
      count.onsuccess = () => {
        open.result.close()
        resolve(count.result)
      }
    }
  })
}
