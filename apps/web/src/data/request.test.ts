import { API_HEADER, API_VERSION } from '@klados/contract/limits'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { Refusal, ServerAway, ask, onMet, onSignedOut, onSkew, request } from './request.ts'

const answer = (
  status: number,
  body: string | null,
  headers: Record<string, string> = { [API_HEADER]: API_VERSION },
) => vi.stubGlobal('fetch', () => Promise.resolve(new Response(body, { status, headers })))
afterEach(() => vi.unstubAllGlobals())

describe('an answer', () => {
  it('that does not carry our mark is none, whatever its status', async () => {
    const heard: string[] = []
    const stop = onMet((met) => heard.push(met))
    for (const [status, body] of [
      [200, '<html>Welcome, guest</html>'],
      [200, '{"answers":[]}'],
      [204, null],
      [403, 'no'],
      [404, '<html>'],
    ] as const) {
      answer(status, body, { 'content-type': 'text/html' })
      expect(await ask('POST', '/x', {})).toEqual({ kind: 'none' })
      await expect(request('GET', '/x')).rejects.toBeInstanceOf(ServerAway)
    }
    expect(new Set(heard)).toEqual(new Set(['away']))
    stop()
  })

  it('of ours comes with its status, its body and how long to wait', async () => {
    answer(429, '{"error":{"code":"request/too-many","message":"wait"}}', {
      [API_HEADER]: API_VERSION,
      'retry-after': '7',
    })
    expect(await ask('POST', '/x')).toMatchObject({
      kind: 'ours',
      status: 429,
      retryAfterS: 7,
      body: { error: { code: 'request/too-many' } },
    })
    await expect(request('POST', '/x')).rejects.toBeInstanceOf(Refusal)
    answer(204, null)
    expect(await request('DELETE', '/x')).toBeNull()
  })

  it('cut off in the middle is none', async () => {
    answer(200, '{"answers":[')
    expect(await ask('POST', '/x')).toEqual({ kind: 'none' })
  })

  it('that the session is over is told', async () => {
    const told = vi.fn()
    onSignedOut(told)
    answer(401, '{"error":{"code":"session/required","message":"sign in"}}')
    await ask('GET', '/x')
    expect(told).toHaveBeenCalledTimes(1)
  })

  it('tells how far this clock is from the server’s', async () => {
    const skews: number[] = []
    onSkew((skewMs) => skews.push(skewMs))
    for (const ms of [0, 10 * 60_000, -10 * 60_000]) {
      answer(200, '{}', { [API_HEADER]: API_VERSION, date: new Date(Date.now() + ms).toUTCString() })
      await ask('GET', '/x')
    }
    const minutes = skews.map((ms) => Math.round(ms / 60_000))
    expect(minutes.map((m) => m + 0)).toEqual([0, -10, 10])
  })
})
