import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Splitter } from './splitter.ts'
import { runs } from '../../../../packages/core/test/runs.ts'

const cut = {
  lists: { places: { mostBytes: 400 }, entries: { mostBytes: 400 } },
  wholes: { format: { mostBytes: 50 }, garden: { mostBytes: 200 } },
}
/** Splits a text that comes in chunks of a given size. */
async function split(text: string, chunkBytes = 7): Promise<[string, number | null, unknown][]> {
  const pieces: [string, number | null, unknown][] = []
  const splitter = new Splitter(cut, (name, index, piece) => {
    pieces.push([name, index, JSON.parse(piece)])
  })
  const bytes = Buffer.from(text)
  for (let at = 0; at < bytes.length; at += chunkBytes)
    await splitter.write(bytes.subarray(at, at + chunkBytes))
  splitter.end()
  return pieces
}

const valueArb = fc.jsonValue({ maxDepth: 3 }).filter((value) => JSON.stringify(value).length < 150)
const fileArb = fc.record(
  {
    format: fc.string({ maxLength: 8 }),
    places: fc.array(valueArb, { maxLength: 5 }),
    garden: fc.dictionary(fc.string({ maxLength: 4 }), fc.integer(), { maxKeys: 4 }),
    entries: fc.array(valueArb, { maxLength: 5 }),
  },
  { requiredKeys: [] },
)

describe('cutting a file', () => {
  it('gives what parsing the whole would give, however it is laid out and wherever its chunks end', async () => {
    await fc.assert(
      fc.asyncProperty(
        fileArb,
        fc.integer({ min: 1, max: 40 }),
        fc.constantFrom(0, 1, '\t'),
        async (file, chunkBytes, space) => {
          const expected = Object.entries(file).flatMap(([name, value]) =>
            Array.isArray(value) ? value.map((one, i) => [name, i, one]) : [[name, null, value]],
          )
          const text = JSON.stringify(file, null, space)
          expect(await split(text, chunkBytes)).toEqual(JSON.parse(JSON.stringify(expected)))
        },
      ),
      { numRuns: runs(300) },
    )
  })

  it('either parses or refuses by name whatever is done to its text; nothing falls over', async () => {
    await fc.assert(
      fc.asyncProperty(fileArb, fc.nat(), fc.string({ maxLength: 3 }), async (file, where, put) => {
        const text = JSON.stringify(file)
        const at = where % (text.length + 1)
        await split(text.slice(0, at) + put + text.slice(at + put.length)).catch((error: Error) => {
          if (!(error instanceof SyntaxError))
            expect(error).toMatchObject({ code: expect.stringMatching(/^exchange\//) })
        })
      }),
      { numRuns: runs(500) },
    )
  })

  it.each([
    ['an element larger than one can be', `{"places":["${'x'.repeat(500)}"]}`, /places\.0 is larger/],
    ['a member larger than it can be', `{"format":"${'x'.repeat(60)}"}`, /format is larger/],
    ['nesting beyond all sense', `{"places":[${'['.repeat(100)}`, /places\.0 is nested too deeply/],
    ['a name that is no part of it', '{"other":1}', /"other"/],
    ['a name that every object has', '{"constructor":1}', /"constructor"/],
    ['a member twice', '{"format":"a","format":"b"}', /format twice/],
    ['an endless name', `{"${'n'.repeat(200)}`, /The file is larger/],
    ['a list that is none', '{"places":{}}', /places\.0 should be a list/],
    ['an end in the middle', '{"places":[1,', /ends in the middle/],
    ['more after the end', '{} {}', /goes on after its end/],
    ['no JSON', '{places:[]}', /no JSON/],
  ])('refuses %s', async (_, text, message) => {
    await expect(split(text)).rejects.toThrow(message)
  })

  it('holds no more than one piece, however many there are', async () => {
    let count = 0
    const splitter = new Splitter(cut, () => void count++)
    await splitter.write(Buffer.from('{"places":['))
    const chunk = Buffer.from('[],'.repeat(20_000))
    const before = process.memoryUsage().heapUsed
    for (let i = 0; i < 20; i++) await splitter.write(chunk)
    expect(count).toBeGreaterThan(399_000)
    expect(process.memoryUsage().heapUsed - before).toBeLessThan(60_000_000)
  })
})
