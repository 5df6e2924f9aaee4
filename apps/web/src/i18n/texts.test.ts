import { readFileSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { errorStatus } from '@klados/contract'
import { coreErrorCodes } from '@klados/core/errors'
import { plantKinds } from '@klados/core/kinds'
import { fixings, wires } from '@klados/core/materials'
import { tieMaterials } from '@klados/core/ties'
import { stemParts } from '@klados/core/wood'
import { describe, expect, it } from 'vitest'
import en from './en.json'

const source = fileURLToPath(new URL('..', import.meta.url))
const files = (folder: string): string[] =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name)
    if (statSync(path).isDirectory()) return files(path)
    return /\.tsx?$/.test(name) && !/\.test\./.test(name) ? [path] : []
  })
const code = files(source).map((path) => readFileSync(path, 'utf8')).join('\n') // prettier-ignore

/** Whether a key, with or without its plural forms, has words. */
function has(key: string): boolean {
  const find = (path: string[]): unknown => path.reduce<unknown>((node, part) => (node as Record<string, unknown> | undefined)?.[part], en) // prettier-ignore
  const path = key.split('.')
  const last = path.pop()!
  return ['', '_one', '_other'].some((form) => typeof find([...path, last + form]) === 'string')
}

describe('the translation file', () => {
  it('has words for every key that the screens name outright', () => {
    const keys = [...code.matchAll(/\bt\(\s*'([a-z][\w./-]*)'/gi)].map((match) => match[1]!)
    expect(keys.length).toBeGreaterThan(150)
    expect([...new Set(keys)].filter((key) => !has(key))).toEqual([])
  })

  it('has words for everything that core and the contract can name', () => {
    const named = [
      ...plantKinds.flatMap((kind) => [`kind.${kind.id}`, `hold.${kind.holds}`, `light.${kind.light}`, `prunedAt.${kind.prunedAt}`, ...kind.hazards.map((hazard) => `hazard.${hazard}`)]), // prettier-ignore
      ...wires.map((wire) => `frame.wireName.${wire.id.replace('.', '\u0000')}`),
      ...fixings.map((fixing) => `frame.fixingName.${fixing.id}`),
      ...tieMaterials.map((material) => `tieMaterial.${material.id}`),
      ...stemParts.map((part) => `wood.parts.${part}`),
      ...Object.keys(errorStatus)
        .filter(
          (one) =>
            one !== 'route/not-found' &&
            one !== 'request/unsupported-type' &&
            one !== 'document/version-conflict',
        )
        .map((one) => `refusal.${one}`),
    ]
    const missing = named.filter((key) => !has(key) && !wireKeyHas(key))
    expect(missing).toEqual([])
    for (const one of Object.keys(coreErrorCodes)) {
      if (one.startsWith('frame/') || one.startsWith('stringing/') || one.startsWith('materials/')) expect(has(`problem.${one}`)).toBe(true) // prettier-ignore
    }
  })

  /** Ids of wires hold a dot (2.5 mm), which is no step into the file. */
  function wireKeyHas(key: string): boolean {
    const id = key.replace('frame.wireName.', '').replace('\u0000', '.')
    return id in en.frame.wireName
  }
})
