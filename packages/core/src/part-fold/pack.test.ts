import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { packed, unpacked } from './pack.ts'

/** Words that a text of its own could take for something else, and words that come again and again. */
const word = fc.oneof(
  fc.string(),
  fc.constantFrom('$', '$0', '$$', '$1x', 'wine-grape', 'a line\nand one more', '__proto__ of all'),
)
const { value: anything } = fc.letrec<{ value: unknown }>((tie) => ({
  value: fc.oneof(
    { maxDepth: 4, withCrossShrink: true },
    fc.oneof(word, fc.double({ noNaN: true, noDefaultInfinity: true }), fc.boolean(), fc.constant(null)),
    fc.array(tie('value'), { maxLength: 4 }),
    fc.array(fc.tuple(word, tie('value')), { maxLength: 4 }).map((pairs) => new Map(pairs)),
    fc.array(word, { maxLength: 4 }).map((words) => new Set(words)),
    fc.dictionary(
      fc.constantFrom('id', 'path', 'xM', '-1', 'told by'),
      fc.oneof(tie('value'), fc.constant(null)),
      {
        noNullPrototype: true,
      },
    ),
  ),
}))
/** JSON knows one nought. */
const hasMinusNought = (value: unknown): boolean => {
  if (value instanceof Map) return [...value.values()].some(hasMinusNought)
  if (typeof value === 'object' && value !== null) return Object.values(value).some(hasMinusNought)
  return Object.is(value, -0)
}

describe('packing', () => {
  it('gives back whatever was packed, maps and sets in their order, in a text of one line', () => {
    fc.assert(
      fc.property(anything, (value) => {
        fc.pre(!hasMinusNought(value))
        const text = packed(value)
        expect(unpacked(text)).toEqual(value)
        expect(packed(unpacked(text))).toBe(text)
        expect(text).not.toContain('\n')
      }),
    )
  })

  it('says an id and the names of fields once, however many things have them', () => {
    const id = '80bb3ae9-ceca-4a4f-bbb8-3ca78dae1c14'
    const many = Array.from({ length: 20 }, (_, alongM) => ({ pieceId: id, alongM, endedOn: null }))
    expect(packed(many).split(id)).toHaveLength(2)
    expect(packed(many).split('endedOn')).toHaveLength(2)
  })
})
