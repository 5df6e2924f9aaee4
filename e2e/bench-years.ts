import { chromium } from '@playwright/test'
import type { BrowserContext, CDPSession, Page } from '@playwright/test'
import config from './playwright.config.ts'
import { fixedWorkIn } from './fixed-work.ts'
import { dayOf, haveLargeGarden } from './large-garden.ts'
import { apiOf, signUp } from './people.ts'

/**
 * What a garden's age costs: the round and one place's wood, cold (nothing on the device) and warm (after a visit), a tap
 * on the round, one that is taken back, what came over the line to the page, what the page holds, and what the server
 * takes for a page of the journal and for all that was written at one place. KLADOS_BENCH_ENTRIES names other sizes; a million takes ten minutes to make.
 */
const SIZES = (process.env.KLADOS_BENCH_ENTRIES ?? '10000 100000').split(' ').map(Number)
/**
 * From the smallest garden to the largest nothing may grow by more, but what the device keeps; times as so many times the
 * fixed work of their own minutes, since a shared machine is not the same a quarter of an hour later.
 */
const GROWTH = 1.5
/** The goals in milliseconds are for a machine whose browser takes so long for the fixed work; a slower minute is allowed more. */
const FIXED_MS = 8
/** So many ties are pressed and taken back, and that so often: a few milliseconds are told by the middle of many. */
const TAPS = 9
const TURNS = 5
const READS = 40
/** Visits of each kind, of which the middle one counts. */
const VISITS = 3

const browser = await chromium.launch({
  ...config.use!.launchOptions,
  args: [
    ...(config.use!.launchOptions?.args ?? []),
    '--enable-precise-memory-info',
    '--js-flags=--expose-gc',
  ],
})

const middleOf = (times: readonly number[]) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!

/** How long some visits take, the middle one, each after what makes it possible. */
async function visited(visit: () => Promise<number>): Promise<number> {
  const times: number[] = []
  for (let i = 0; i < VISITS; i++) times.push(await visit())
  return middleOf(times)
}

async function timed(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now()
  await work()
  return performance.now() - start
}
const round = (page: Page, garden: string) => async () => {
  await page.goto(`${garden}/round`)
  await page.getByRole('button', { name: 'Sound' }).first().waitFor({ timeout: 600_000 })
}

interface Pressed {
  /** Till what was pressed is folded and drawn, milliseconds: so long the thumb waits. */
  readonly answered: number
  /** Till nothing of what follows at once is left either: what is on its way to the disk and the server, and is drawn later. */
  readonly busy: number
}

/** How long each of some presses takes. */
async function pressed(page: Page, name: string): Promise<readonly Pressed[]> {
  const times: Pressed[] = []
  for (let i = 0; i < TAPS; i++) {
    const button = page.getByRole('button', { name, exact: true }).first()
    times.push(
      await button.evaluate(
        (element) =>
          new Promise<{ answered: number; busy: number }>((resolve) => {
            const start = performance.now()
            ;(element as HTMLElement).click()
            let answered = 0
            // After what the press has put in the queue: React draws it there.
            queueMicrotask(() => queueMicrotask(() => (answered = performance.now() - start)))
            setTimeout(() => resolve({ answered, busy: performance.now() - start }))
          }),
      ),
    )
    await page.waitForTimeout(400)
  }
  return times
}
const middlePress = (times: readonly Pressed[]): Pressed => ({
  answered: middleOf(times.map(({ answered }) => answered)),
  busy: middleOf(times.map(({ busy }) => busy)),
})

async function heldBy(page: Page, cdp: CDPSession): Promise<number> {
  await cdp.send('HeapProfiler.collectGarbage')
  return page.evaluate(
    () => (performance as unknown as { memory: { usedJSHeapSize: number } }).memory.usedJSHeapSize,
  )
}

/** Waits until all that was ever written lies on the device. */
async function historyHere(page: Page): Promise<void> {
  const isHere = () =>
    page.evaluate(
      () =>
        new Promise<boolean>((resolve, reject) => {
          const opening = indexedDB.open('klados-copy')
          opening.onerror = () => reject(opening.error as Error)
          opening.onsuccess = () => {
            const asked = opening.result.transaction('reach').objectStore('reach').getAll()
            asked.onsuccess = () => {
              opening.result.close()
              const all = asked.result as { base: number; last: number }[]
              resolve(all.length > 0 && all.every(({ base }) => base === 0))
            }
          }
        }),
    )
  while (!(await isHere())) await page.waitForTimeout(500)
}

/** What the server takes for a page of the journal, as of `query`, 95 of 100 of them. */
async function readOfJournal(page: Page, garden: string, query: (i: number) => string): Promise<number> {
  const times: number[] = []
  for (let i = 0; i < READS; i++) {
    const url = `${apiOf(garden)}/journal?${query(i)}`
    times.push(await timed(() => page.request.get(url)))
  }
  return times.sort((a, b) => a - b)[Math.floor(READS * 0.95)]!
}

interface Figure {
  readonly value: number
  readonly unit: 'ms' | 'kB' | 'MB'
  /** What it may be at the most; `null` where it is only told. */
  readonly goal: number | null
  /** Whether it may not grow with the garden. */
  readonly isLevel: boolean
}
type Measured = Readonly<Record<string, Figure>>

async function measure(entries: number): Promise<Measured> {
  const options = { baseURL: process.env.BASE_URL!, viewport: { width: 1280, height: 800 }, locale: 'en-GB' }
  const maker: BrowserContext = await browser.newContext(options)
  const page = await maker.newPage()
  const { garden } = await signUp(page)
  await page.goto('about:blank')
  const places = await haveLargeGarden(page, garden, entries)
  const state = await maker.storageState()
  await maker.close()

  /** A device that has nothing of the garden yet. */
  const fresh = () => browser.newContext({ ...options, storageState: { ...state, origins: [] } })
  const wood = `${garden}/places/${places[Math.floor(places.length / 2)]!}/wood`
  const drawn = (page: Page) => async () => {
    await page.goto(wood)
    await page.locator('[data-wood]').first().waitFor({ state: 'attached', timeout: 600_000 })
  }
  const onFresh = (opened: (page: Page) => () => Promise<void>) =>
    visited(async () => {
      const device = await fresh()
      const took = await timed(opened(await device.newPage()))
      await device.close()
      return took
    })
  const cold = await onFresh((page) => round(page, garden))
  const coldWood = await onFresh(drawn)

  const context = await fresh()
  const here = await context.newPage()
  let bytes = 0
  const cdp = await context.newCDPSession(here)
  await cdp.send('Network.enable')
  cdp.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength))
  await round(here, garden)()
  const coldBytes = bytes
  await drawn(here)()
  const fixed = [await fixedWorkIn(here)]
  const history = await timed(() => historyHere(here))
  let warmBytes = 0
  const warm = await visited(async () => {
    bytes = 0
    const took = await timed(round(here, garden))
    await here.waitForTimeout(1500)
    warmBytes = bytes
    return took
  })
  const warmWood = await visited(async () => {
    const took = await timed(drawn(here))
    await here.waitForTimeout(1500)
    return took
  })
  await round(here, garden)()
  await here.waitForTimeout(1500)
  fixed.push(await fixedWorkIn(here))
  const [taps, undos]: [Pressed[], Pressed[]] = [[], []]
  for (let turn = 0; turn < TURNS; turn++) {
    taps.push(...(await pressed(here, 'Sound')))
    undos.push(...(await pressed(here, 'Undo')))
  }
  const [tap, undo] = [middlePress(taps), middlePress(undos)]
  // Days back, on a plant of thirty years: folded anew from its first day.
  const tie = await here.locator('a[href*="wood?tie="]').first().getAttribute('href')
  const heap = await heldBy(here, cdp)
  await here.goto(`${tie}&on=${dayOf(5 * 86_400_000)}`)
  await here.getByRole('button', { name: 'Sound', exact: true }).first().waitFor()
  await here.waitForTimeout(1500)
  const late = middlePress(await pressed(here, 'Sound'))
  const middle = Math.round(entries / 2)
  const reading = await readOfJournal(here, garden, () => `after=${middle}&limit=100`)
  const placeReading = await readOfJournal(here, garden, (i) => `place=${places[i % places.length]!}`)
  fixed.push(await fixedWorkIn(here))
  fixedMs = middleOf(fixed)
  await context.close()
  const level = (value: number, goal: number | null = null): Figure => ({
    value,
    unit: 'ms',
    goal,
    isLevel: true,
  })
  // Whether the disk's answer to one entry falls into it is chance, whatever the garden's age.
  const following = ({ busy }: Pressed, goal: number | null = null): Figure => ({
    ...level(busy, goal),
    isLevel: false,
  })
  return {
    'round, first visit': level(cold, 3000),
    'wood of one place, first visit': level(coldWood, 3000),
    'its history, quietly after that': { ...level(history), isLevel: false },
    'round, after a visit': level(warm, 1000),
    'wood of one place, after a visit': level(warmWood, 1000),
    'a tap on the round, till it is answered': level(tap.answered, 10),
    'a tap on the round, with what follows at once': following(tap, 10),
    'a tap taken back, till it is answered': level(undo.answered),
    'a tap taken back, with what follows at once': following(undo),
    'a tap that is dated back, till it is answered': level(late.answered),
    'a tap that is dated back, with what follows': following(late),
    'a page of the journal, server, p95': level(reading),
    'all of one place, server, p95': level(placeReading),
    'page over the line, first visit': { value: coldBytes / 1000, unit: 'kB', goal: null, isLevel: false },
    'page over the line, after a visit': { value: warmBytes / 1000, unit: 'kB', goal: null, isLevel: false },
    'what the page holds': { value: heap / 1e6, unit: 'MB', goal: null, isLevel: false },
  }
}

let fixedMs = 0
let first: { readonly measured: Measured; readonly fixedMs: number } | null = null
for (const entries of SIZES) {
  const measured = await measure(entries)
  first ??= { measured, fixedMs }
  for (const [what, { value, unit, goal, isLevel }] of Object.entries(measured)) {
    const grown = (value / first.measured[what]!.value) * (unit === 'ms' ? first.fixedMs / fixedMs : 1)
    // As it would be where the fixed work takes what the goals are for.
    const there = unit === 'ms' ? value / Math.max(1, fixedMs / FIXED_MS) : value
    const isMet = (goal === null || there < goal) && (!isLevel || grown <= GROWTH)
    const goals = [
      goal === null ? '' : `${there.toPrecision(3)} where fixed is ${FIXED_MS}, under ${goal}`,
      isLevel && measured !== first.measured
        ? `${grown.toFixed(2)} of ${SIZES[0]} entries, at most ${GROWTH}`
        : '',
    ]
    const ratio = unit === 'ms' ? `${(value / fixedMs).toPrecision(3)} × fixed` : ''
    process.stdout.write(
      `${isMet ? 'met ' : 'MISS'}  ${`${entries} entries: ${what}`.padEnd(58)} ${`${value.toPrecision(3)} ${unit}`.padStart(14)} ${ratio.padStart(14)}   ${goals.filter(Boolean).join('; ')}\n`,
    )
  }
}
await browser.close()
