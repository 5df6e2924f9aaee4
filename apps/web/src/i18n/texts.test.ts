import { errorStatus } from '@klados/contract'
import { coreErrorCodes } from '@klados/core/errors'
import { frameKinds, isField } from '@klados/core/frame'
import type { Field, Fields } from '@klados/core/frame'
import { trainingSystems } from '@klados/core/training'
import i18next from 'i18next'
import { beforeAll, describe, expect, it } from 'vitest'
import { EDITED_APART } from '../features/frame/edited-apart.ts'
import { startTestTexts } from './test-texts.ts'

beforeAll(startTestTexts)

const unworded = (keys: readonly string[]) => keys.filter((key) => !i18next.exists(key))

/** What the form needs words for to ask for a parameter. */
function fieldKeys(key: string, field: Field): string[] {
  if (field.ask === 'pot') return []
  return [
    `field.${key}`,
    ...(field.ask === 'choice' ? field.options.map((option) => `option.${key}.${option}`) : []),
  ]
}

// Every other key is held to the file by the compiler (i18next.d.ts); these are known only when they come.
describe('there are words for', () => {
  it.each(Object.values(frameKinds))(
    'every parameter that the form of $kind asks for',
    ({ kind, fields }) => {
      const asked = Object.entries(fields as Fields).filter(
        ([key, { ask }]) => !EDITED_APART[kind]?.includes(key) && ask !== 'list' && ask !== 'one-of',
      )
      expect(unworded(asked.flatMap(([key, field]) => fieldKeys(key, field)))).toEqual([])
    },
  )

  it.each(Object.values(frameKinds))('every figure of $kind that core may refuse', ({ fields }) => {
    const named = (of: Fields): string[] =>
      Object.entries(of).flatMap(([key, field]) => {
        if (field.ask === 'one-of') return Object.values(field.of).flatMap(named)
        if (field.ask === 'list') return named(isField(field.of) ? { [key]: field.of } : field.of)
        if (field.ask === 'pot') return ['potWidthM', 'potHeightM', 'ballastKg', 'drainageM']
        return ['length', 'length-or-none', 'number', 'whole'].includes(field.ask) ? [key] : []
      })
    expect(unworded(named(fields as Fields).map((key) => `field.${key}`))).toEqual([])
  })

  it('everything that core refuses of a frame, a wire or an order', () => {
    const shown = Object.keys(coreErrorCodes).filter((code) => /^(frame|stringing|materials)\//.test(code))
    expect(unworded(shown.map((code) => `problem.${code}`))).toEqual([])
  })

  it.each(trainingSystems)('the system $id', ({ id }) => {
    expect(unworded([`crafts.${id}.system.${id}.name`, `crafts.${id}.system.${id}.about`])).toEqual([])
  })

  it('everything that the server refuses of a person; the rest only a program can meet', () => {
    const met = new Set([
      'route/not-found',
      'request/not-acceptable',
      'request/unsupported-type',
      'document/version-conflict',
    ])
    const shown = Object.keys(errorStatus).filter((code) => !met.has(code))
    expect(unworded(shown.map((code) => `refusal.${code}`))).toEqual([])
  })
})
