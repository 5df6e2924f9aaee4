import type { FrameBody } from '@klados/contract'
import { configureStore } from '@reduxjs/toolkit'
import { describe, expect, it } from 'vitest'
import { sampleDesign } from '../sample/sample-wall.ts'
import { changed, draftsReducer, heard, undone } from './drafts.ts'
import type { FrameDraft } from './drafts.ts'
import { SAME_STEP_MS, isSameStep } from './one-step.ts'
import type { LastChange } from './one-step.ts'

const named = (name: string): FrameBody => ({ placeId: 'wall', name, stage: 'idea', design: sampleDesign })

/** A window in which names are typed, one after the other. */
function openWindow() {
  const store = configureStore({ reducer: { drafts: draftsReducer } })
  const first = named('as saved')
  let last: LastChange | null = null
  const draft = (): FrameDraft | undefined => store.getState().drafts.frame
  return {
    draft,
    dispatch: store.dispatch,
    type: (name: string, time: number, what = 'name') => {
      const from = draft()?.body ?? first
      const body = named(name)
      const isContinued = isSameStep(last, { what, time, from })
      last = { what, time, body }
      store.dispatch(
        changed({ draft: draft() ?? { frameId: 'frame', basedOn: 1, body: first }, body, isContinued }),
      )
    },
    steps: () => [...(draft()?.past ?? []), draft()!.body].map(({ name }) => name),
  }
}

describe('a run of keystrokes', () => {
  it('is one step of undo, as long as it is in one field and without a pause', () => {
    const window = openWindow()
    window.type('T', 0)
    window.type('Ti', 200)
    window.type('Tiers', 400)
    window.type('Tiers', 500, 'wire')
    window.type('Tiers by the shed', 500 + SAME_STEP_MS)
    expect(window.steps()).toEqual(['as saved', 'Tiers', 'Tiers', 'Tiers by the shed'])
  })

  it('does not swallow what another window wrote in between', () => {
    const window = openWindow()
    window.type('O', 0)
    window.dispatch(
      heard({
        frameId: 'frame',
        draft: { ...window.draft()!, body: named('Two'), past: window.draft()!.past },
      }),
    )
    window.type('One', 300)
    expect(window.steps()).toEqual(['as saved', 'Two', 'One'])
  })

  it('begins anew after something was taken back', () => {
    const window = openWindow()
    window.type('One', 0)
    window.type('Other', 100, 'wire')
    window.dispatch(undone('frame'))
    window.type('One of four', 200, 'wire')
    expect(window.steps()).toEqual(['as saved', 'One', 'One of four'])
  })
})
