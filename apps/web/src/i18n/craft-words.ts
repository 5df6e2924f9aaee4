import type { TFunction } from './texts.ts'

/** The words that stand in the folder of each craft of training, one file a language. */
const files: Readonly<Record<string, string>> = import.meta.glob(
  '../../../../packages/core/src/training/systems/*/words.en.json',
  { eager: true, query: '?url', import: 'default' },
)

interface Words {
  readonly system: Readonly<Record<string, object>>
}

/** Every system's name with the words of its craft: a stored choice knows its system, and nobody knows the crafts. */
export const bySystem = (crafts: readonly Words[]): object =>
  Object.fromEntries(crafts.flatMap((words) => Object.keys(words.system).map((id) => [id, words])))

export async function fetchCrafts(): Promise<object> {
  const crafts = Object.values(files).map(async (url) => (await (await fetch(url)).json()) as Words)
  return bySystem(await Promise.all(crafts))
}

type Part = 'question' | 'deed' | 'role' | 'position' | 'task' | 'judgement' | 'rule' | 'follow' | 'remark'

/** What a system says of something, in its craft's words. */
export type Craft = (part: Part, code: string, gaps?: Gaps) => string

interface Gaps extends Readonly<Record<string, unknown>> {
  /** Of a text that has several forms, which to say: the first that there is. */
  readonly forms?: readonly string[]
}

/** How a system speaks; one of a later release, whose words are not here, by its codes. */
export const craftOf =
  (t: TFunction, systemId: string | null): Craft =>
  (part, code, { forms = [''], ...gaps } = {}) => {
    const names = forms.map((form) => (form === '' ? code : `${code}_${form}`))
    const own = names.map((name) => `crafts.${systemId}.${part}.${name}`)
    return t([...own, `choose.${part}.${code}`], { ...gaps, defaultValue: code })
  }

export const systemWords = (t: TFunction, id: string): string =>
  t(`crafts.${id}.system.${id}.name`, { defaultValue: id })

export const systemAbout = (t: TFunction, id: string): string =>
  t(`crafts.${id}.system.${id}.about`, { defaultValue: '' })

export const questionWords = (t: TFunction, systemId: string, code: string): string =>
  t(`crafts.${systemId}.question.${code}.name`, { defaultValue: code })

export const questionHint = (t: TFunction, systemId: string, code: string): string =>
  t(`crafts.${systemId}.question.${code}.hint`, { defaultValue: '' })

/** Why so many are kept, where the number is the craft's and not the grower's. */
export const questionWhy = (t: TFunction, systemId: string, code: string): string | null =>
  t(`crafts.${systemId}.question.${code}.why`, { defaultValue: '' }) || null
