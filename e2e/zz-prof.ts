import { chromium } from '@playwright/test'
import config from './playwright.config.ts'
import { haveWall, signUp } from './people.ts'
const browser = await chromium.launch(config.use!.launchOptions)
const page = await browser.newPage({
  baseURL: process.env.BASE_URL!,
  viewport: { width: 1280, height: 800 },
  locale: 'en-GB',
})
const { garden } = await signUp(page)
const id = await haveWall(page, garden, {
  name: 'Forty rows',
  kind: 'row',
  surface: 'open',
  widthM: 120,
  firstForkM: 0,
  usableHeightM: 2,
})
await page.goto(`${garden}/places/${id}/frame`)
await page.getByRole('button', { name: `Begin: Row` }).first().click()
await page.getByLabel('How many alike').fill('40')
await page.waitForTimeout(4000)
const posts = page.getByLabel('Posts at most every')
await page.evaluate(() => {
  const seen = ((window as any).tasks = [] as number[])
  new PerformanceObserver((l) => {
    for (const e of l.getEntries()) seen.push(e.duration)
  }).observe({ entryTypes: ['longtask'] })
})
for (let i = 0; i < 5; i++) {
  await posts.fill(`${(5 + i / 20).toFixed(2)} m`)
  await page.waitForTimeout(160)
}
const cdp = await page.context().newCDPSession(page)
await cdp.send('Profiler.enable')
await cdp.send('Profiler.setSamplingInterval', { interval: 200 })
await cdp.send('Profiler.start')
const N = 30
for (let i = 0; i < N; i++) {
  await posts.fill(`${(4 + i / 20).toFixed(2)} m`)
  await page.waitForTimeout(160)
}
const { profile } = await cdp.send('Profiler.stop')
const byId = new Map(profile.nodes.map((n) => [n.id, n]))
const self = new Map<number, number>()
profile.samples!.forEach((s, i) => self.set(s, (self.get(s) ?? 0) + profile.timeDeltas![i]!))
const parent = new Map<number, number>()
for (const n of profile.nodes) for (const c of n.children ?? []) parent.set(c, n.id)
const total = new Map<string, number>(),
  selfBy = new Map<string, number>()
for (const [nid, t] of self) {
  const seen = new Set<string>()
  const nm = (n: any) =>
    `${n.callFrame.functionName || '(anon)'} ${n.callFrame.url.split('/').pop()}:${n.callFrame.lineNumber}`
  selfBy.set(nm(byId.get(nid)), (selfBy.get(nm(byId.get(nid))) ?? 0) + t)
  for (let at: number | undefined = nid; at !== undefined; at = parent.get(at)) {
    const k = nm(byId.get(at))
    if (!seen.has(k)) {
      seen.add(k)
      total.set(k, (total.get(k) ?? 0) + t)
    }
  }
}
const top = (m: Map<string, number>, n: number) =>
  [...m]
    .sort((a, b) => b[1] - a[1])
    .slice(0, n)
    .map(([k, v]) => `${(v / 1000 / N).toFixed(2)} ms  ${k}`)
    .join('\n')
console.log('SELF per key\n' + top(selfBy, 25))
console.log('TOTAL per key\n' + top(total, 60))
console.log(await page.evaluate(() => (window as any).tasks))
await browser.close()
