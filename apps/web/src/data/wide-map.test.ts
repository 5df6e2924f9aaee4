import fc from 'fast-check'
import { expect, it } from 'vitest'
import { WideMap } from './wide-map.ts'

it('holds after any changes what a map holds, and before them what it held', () => {
  const key = fc.oneof(fc.uuid(), fc.constantFrom('', 'a', 'place b'))
  const changes = fc.array(fc.tuple(key, fc.option(fc.nat(), { nil: undefined })), { maxLength: 20 })
  fc.assert(
    fc.property(fc.array(changes, { maxLength: 6 }), key, (steps, asked) => {
      const plain = new Map<string, number>()
      let wide = WideMap.of<number>()
      for (const step of steps) {
        const [before, was] = [new Map(plain), wide]
        for (const [name, value] of step)
          if (value === undefined) plain.delete(name)
          else plain.set(name, value)
        wide = wide.with(step)
        expect(new Map(wide)).toEqual(plain)
        expect([wide.size, wide.has(asked), wide.get(asked)]).toEqual([
          plain.size,
          plain.has(asked),
          plain.get(asked),
        ])
        expect([new Set(wide.keys()), [...wide.values()].sort()]).toEqual([
          new Set(plain.keys()),
          [...plain.values()].sort(),
        ])
        expect(new Map(was)).toEqual(before)
        const visited = new Map<string, number>()
        wide.forEach((value, name) => visited.set(name, value))
        expect(visited).toEqual(plain)
      }
      expect(new Map(WideMap.of(plain))).toEqual(plain)
      expect(wide.with([])).toBe(wide)
    }),
  )
})
