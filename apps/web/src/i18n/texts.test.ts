import { standardCatalogue, wireMaterials } from '@klados/core/catalogue'
import { scenarios } from '@klados/core/loads'
import { readFileSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { errorStatus, placeKinds, soilIds } from '@klados/contract'
import { coreErrorCodes } from '@klados/core/errors'
import { plantKinds } from '@klados/core/kinds'
import { patternFields } from '../features/frame/pattern-fields.ts'
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
const code = files(source)
  .map((path) => readFileSync(path, 'utf8'))
  .join('\n')

const core = (file: string) =>
  readFileSync(fileURLToPath(new URL(`../../../../packages/core/src/${file}`, import.meta.url)), 'utf8')

/** The members of a union of strings, read from core's source: there is no list of them at run time. */
function unionOf(file: string, name: string): string[] {
  const text = core(file)
  const body = text.slice(text.indexOf(`export type ${name} =`)).split(/\n(?=export |\/\*\*|\n)/)[0]!
  const members = [...body.matchAll(/'([\w/-]+)'/g)].map((match) => match[1]!)
  expect(members.length).toBeGreaterThan(3)
  return members
}
function figureKeys(): string[] {
  const text = core('frame/layout.ts')
  const body = text.slice(text.indexOf('export interface Figure')).split('readonly unit')[0]!
  return [...body.matchAll(/'([\w-]+)'/g)].map((match) => match[1]!)
}

/** Whether a key, with or without its plural forms, has words. */
function has(key: string): boolean {
  const find = (path: string[]): unknown =>
    path.reduce<unknown>((node, part) => (node as Record<string, unknown> | undefined)?.[part], en)
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
      ...plantKinds.flatMap((kind) => [
        `kind.${kind.id}`,
        `hold.${kind.holds}`,
        `light.${kind.light}`,
        `prunedAt.${kind.prunedAt}`,
        ...kind.hazards.map((hazard) => `hazard.${hazard}`),
      ]),
      ...Object.keys(wireMaterials).map((one) => `wireMaterial.${one}`),
      ...standardCatalogue.stock.flatMap((one) => [`stock.${one.use}`, `stockMaterial.${one.material}`]),
      ...standardCatalogue.goods.flatMap((one) => [`good.${one.id}`, `catalogue.per.${one.unit}`]),
      ...Object.keys(standardCatalogue.rates).map((one) => `rate.${one}`),
      ...Object.entries(patternFields).flatMap(([kind, fields]) => [
        `frame.${kind}`,
        `frame.${kind}Text`,
        ...fields.flatMap((spec) => [
          `field.${spec.key}`,
          ...(spec.ask === 'choice' ? spec.options.map((option) => `option.${spec.key}.${option}`) : []),
        ]),
      ]),
      ...scenarios.map((one) => `wire.scenario.${one}`),
      ...unionOf('plan/check.ts', 'CheckCode').flatMap((one) => [
        `check.code.${one}`,
        `check.needs.${one}`,
        `check.remedy.${one}`,
      ]),
      ...unionOf('plan/check.ts', 'Assumption').map((one) => `assumption.${one}`),
      ...unionOf('plan/check.ts', 'SourceKey').map((one) => `source.${one}`),
      ...unionOf('plan/take-off.ts', 'Caution').map((one) => `caution.${one}`),
      ...unionOf('plan/take-off.ts', 'StepKind').map((one) => `step.${one}`),
      ...unionOf('plan/take-off.ts', 'Tool').map((one) => `tool.${one}`),
      ...unionOf('plan/take-off.ts', 'Gear').map((one) => `gear.${one}`),
      ...figureKeys().map((one) => `figure.${one}`),
      ...placeKinds.map((one) => `place.${one}`),
      ...soilIds.map((one) => `soil.${one}`),
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
    expect(named.length).toBeGreaterThan(300)
    expect(named.filter((key) => !has(key))).toEqual([])
    for (const one of Object.keys(coreErrorCodes)) {
      if (one.startsWith('frame/') || one.startsWith('stringing/') || one.startsWith('materials/'))
        expect(has(`problem.${one}`)).toBe(true)
    }
  })
})
