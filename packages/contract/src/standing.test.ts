import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { endLine, foldLines, headLine, readStanding } from './standing.ts'

const json = fc.json()
const standing = fc.record({
  head: fc.nat(),
  upTo: fc.nat(),
  rules: fc.string(),
  greatestId: fc.option(fc.uuid({ version: 7 })),
  folds: fc.array(
    fc.record({
      part: fc.oneof(
        fc.uuid(),
        fc.uuid().map((id) => `place ${id}`),
      ),
      brief: json,
      text: json,
    }),
    { maxLength: 6 },
  ),
})

describe('what stands, as lines', () => {
  it('is read as it was written, in however many pieces, and never where its end is missing', () => {
    fc.assert(
      fc.property(standing, fc.nat(6), fc.nat(), ({ folds, ...head }, cut, length) => {
        const written =
          headLine(head) + foldLines(folds.slice(0, cut)) + foldLines(folds.slice(cut)) + endLine
        expect(readStanding(written)).toEqual({ ...head, folds })
        expect(() => readStanding(written.slice(0, length % written.length))).toThrow()
      }),
    )
  })
})
