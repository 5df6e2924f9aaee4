import { API_HEADER, API_VERSION } from '@klados/contract/limits'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { COPIED_ACCOUNT_KEY } from './copy/account-key.ts'
import { askEarly, forgetEarly, standingPath, takeEarly } from './early.ts'
import { request } from './request.ts'

const GARDEN = '00000000-0000-7000-8000-000000000001'
let asked: string[]
let kept: string | null
let status: number
beforeEach(() => {
  asked = []
  kept = null
  status = 200
  vi.stubGlobal('localStorage', { getItem: (key: string) => (key === COPIED_ACCOUNT_KEY ? kept : null) })
  vi.stubGlobal('fetch', (url: string) => {
    asked.push(url)
    const body = JSON.stringify({ of: url, n: asked.length })
    return Promise.resolve(new Response(body, { status, headers: { [API_HEADER]: API_VERSION } }))
  })
})
afterEach(() => {
  forgetEarly()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const get = (path: string) => request<{ of: string; n: number }>('GET', path)

describe('what is asked before the program is there', () => {
  it('is who is here, and of a garden that is not on this device all that its first screen wants', () => {
    askEarly(`/g/${GARDEN}/round`)
    expect(asked).toEqual([
      '/api/session',
      `/api${standingPath(GARDEN)}`,
      ...['', '/places', '/frames', '/plants', '/stores'].map((area) => `/api/gardens/${GARDEN}${area}`),
    ])
    asked = []
    kept = 'anna'
    askEarly(`/g/${GARDEN}/round`)
    askEarly('/sign-in')
    expect(asked).toEqual(['/api/session', '/api/session'])
  })

  it('answers the first question and no other', async () => {
    askEarly('/')
    expect((await get('/session')).n).toBe(1)
    expect((await get('/session')).n).toBe(2)
  })

  it('is asked again where it was refused, is long ago, or something was written since', async () => {
    status = 401
    askEarly('/')
    status = 200
    expect((await get('/session')).n).toBe(2)
    askEarly('/')
    await request('PUT', '/x', {})
    expect((await get('/session')).n).toBe(asked.length)
    vi.useFakeTimers()
    askEarly('/')
    vi.advanceTimersByTime(60_000)
    expect(await takeEarly('/session')).toBeNull()
  })
})
