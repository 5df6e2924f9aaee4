import { standardCatalogue, surfaces, wireMaterials } from '@klados/core/catalogue'
import { scenarios } from '@klados/core/loads'
import { readFileSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { cautions, gear, stepKinds, tools } from '@klados/core/bill'
import { checkCodes, figureKeys, frameKinds, lineRoles, placeKinds, settings } from '@klados/core/frame'
import type { Field, Fields } from '@klados/core/frame'
import { assumptions, missingInputs, sources, verdicts } from '@klados/core/strength'
import { errorStatus, soilIds } from '@klados/contract'
import { coreErrorCodes } from '@klados/core/errors'
import { formsPlanted, plantKinds } from '@klados/core/kinds'
import { EDITED_APART } from '../features/frame/edited-apart.ts'
import { tieMaterials } from '@klados/core/ties'
import { healths, pieceRoles, tieEnds } from '@klados/core/wood'
import { readingKinds, stages } from '@klados/core/readings'
import { entryShapes } from '@klados/core/journal'
import { entryGlyphs } from '../ui/entry-glyphs.ts'
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

/** Whether a key, with or without its plural forms, has words. */
function has(key: string): boolean {
  const find = (path: string[]): unknown =>
    path.reduce<unknown>((node, part) => (node as Record<string, unknown> | undefined)?.[part], en)
  const path = key.split('.')
  const last = path.pop()!
  return ['', '_one', '_other'].some((form) => typeof find([...path, last + form]) === 'string')
}

/** What the form needs words for to ask for a parameter. */
function fieldKeys(key: string, field: Field): string[] {
  if (field.ask === 'pot') return []
  return [
    `field.${key}`,
    ...(field.ask === 'choice' ? field.options.map((option) => `option.${key}.${option}`) : []),
  ]
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
      ...formsPlanted.map((one) => `formPlanted.${one}`),
      ...Object.keys(wireMaterials).map((one) => `wireMaterial.${one}`),
      ...standardCatalogue.stock.flatMap((one) => [`stock.${one.use}`, `stockMaterial.${one.material}`]),
      ...standardCatalogue.goods.flatMap((one) => [`good.${one.id}`, `catalogue.per.${one.unit}`]),
      ...Object.keys(standardCatalogue.rates).map((one) => `rate.${one}`),
      ...Object.values(frameKinds).flatMap(({ kind, fields }) => [
        `frame.${kind}`,
        `frame.${kind}Text`,
        ...Object.entries(fields as Fields)
          .filter(
            ([key, { ask }]) => !EDITED_APART[kind]?.includes(key) && ask !== 'list' && ask !== 'one-of',
          )
          .flatMap(([key, field]) => fieldKeys(key, field)),
      ]),
      ...scenarios.map((one) => `wire.scenario.${one}`),
      ...checkCodes.flatMap((one) => [`check.code.${one}`, `check.needs.${one}`, `check.remedy.${one}`]),
      ...verdicts.map((one) => `check.verdict.${one}`),
      ...missingInputs.map((one) => `check.missing.${one}`),
      ...assumptions.map((one) => `assumption.${one}`),
      ...sources.map((one) => `source.${one}`),
      ...cautions.map((one) => `caution.${one}`),
      ...stepKinds.map((one) => `step.${one}`),
      ...tools.map((one) => `tool.${one}`),
      ...gear.map((one) => `gear.${one}`),
      ...figureKeys.map((one) => `figure.${one}`),
      ...lineRoles.map((one) => `line.${one}`),
      ...surfaces.map((one) => `surface.${one}`),
      ...settings.map((one) => `setting.${one}`),
      ...placeKinds.map((one) => `place.${one}`),
      ...soilIds.map((one) => `soil.${one}`),
      ...tieMaterials.map((material) => `tieMaterial.${material.id}`),
      ...pieceRoles.map((part) => `wood.parts.${part}`),
      ...healths.map((one) => `wood.health.${one}`),
      ...tieEnds.map((one) => `wood.tieEnds.${one}`),
      ...readingKinds.map((one) => `reading.of.${one}`),
      ...stages.map((one) => `reading.stage.${one}`),
      ...Object.keys(entryShapes).map((one) => `entry.${one}`),
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

  it('and the glyphs have a sign for every kind of entry, and none for a kind that there is not', () => {
    expect(Object.keys(entryGlyphs).sort()).toEqual(Object.keys(entryShapes).sort())
  })
})
