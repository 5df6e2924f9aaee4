import { findKind } from '@klados/core/kinds'
import { findTieMaterial } from '@klados/core/ties'
import type { TFunction } from '../i18n/texts.ts'

/** Name of a plant's kind; an id that this build does not know stands for itself. */
export function kindWords(t: TFunction, id: string): string {
  const kind = findKind(id)
  return kind ? t(`kind.${kind.id}`) : id
}

/** Name of what ties are made of; an id that this build does not know stands for itself. */
export function tieMaterialWords(t: TFunction, id: string): string {
  const material = findTieMaterial(id)
  return material ? t(`tieMaterial.${material.id}`) : id
}

/** What the form calls a parameter of a frame kind; its record says which there are, a test that each has words. */
export const fieldWords = (t: TFunction, name: string): string => t(`field.${name}`, { defaultValue: name })

export const optionWords = (t: TFunction, name: string, option: string | number): string =>
  t(`option.${name}.${option}`, { defaultValue: String(option) })
