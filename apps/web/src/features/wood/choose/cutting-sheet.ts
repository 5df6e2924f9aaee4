import { clauses } from '../../../i18n/clauses.ts'
import type { ChoiceRecord } from '@klados/core/choices'
import type { FollowUp, PlantView, Stem } from '@klados/core/training'
import type { TFunction } from '../../../i18n/texts.ts'
import type { SheetContent, SheetSection } from '../../../documents/sheet-content.ts'
import { formatDate } from '../../../data/dates.ts'
import { listPlain } from '../../../i18n/language.ts'
import type { Units } from '../../../ui/units.tsx'
import { cuttingDrawing } from './cutting-drawing.ts'
import { countAlike, deedWords, followWords, speech, whereWords, writtenWhy } from './words.ts'
import { questionWords } from '../../../i18n/craft-words.ts'

export interface PlannedPlant {
  readonly name: string
  readonly choice: ChoiceRecord
  /** The plant as it stands; `null` where nothing is known of its kind. */
  readonly view: PlantView | null
  readonly stemName: (stem: Stem) => string
}

/** What is planned at a place as a sheet for the crew, plant by plant in the order in which one walks. */
export function cuttingSheet(
  t: TFunction,
  units: Units,
  placeName: string,
  on: string,
  plants: readonly PlannedPlant[],
  cautions: readonly string[],
): SheetContent {
  const sum = (of: (choice: ChoiceRecord) => number) =>
    plants.reduce((total, { choice }) => total + of(choice), 0)
  const totals: SheetSection = {
    kind: 'table',
    title: t('choose.sheet.totals'),
    header: [t('choose.sheet.plant'), t('choose.ties'), t('choose.minutes')],
    rows: [
      ...plants.map(({ name, choice }) => [name, String(choice.ties), String(Math.round(choice.minutes))]),
      [
        t('choose.sheet.all'),
        String(sum(({ ties }) => ties)),
        String(Math.round(sum(({ minutes }) => minutes))),
      ],
    ],
    isTotal: true,
  }
  return {
    title: t('choose.sheet.title', { place: placeName }),
    subtitle: formatDate(on, 'long'),
    paper: units.system === 'metric' ? 'A4' : 'LETTER',
    first:
      cautions.length === 0
        ? []
        : [
            {
              kind: 'list',
              title: t('choose.sheet.care'),
              isBoxed: true,
              groups: [
                { title: null, items: cautions.map((text) => ({ lead: t('choose.sheet.mind'), text })) },
              ],
            },
          ],
    drawings: [],
    sections: [
      ...alike(
        t,
        plants.map((plant) => plantSection(t, units, plant)),
      ),
      totals,
    ],
    pageText: (page, of) => t('sheet.page', { page, of }),
  }
}

type ListSection = Extract<SheetSection, { kind: 'list' }>

/** Plants at which the same is done share a block, with the picture of the first of them. */
function alike(t: TFunction, sections: readonly ListSection[]): ListSection[] {
  const blocks = new Map<string, ListSection[]>()
  for (const section of sections) {
    const key = JSON.stringify([section.intro, section.groups])
    blocks.set(key, [...(blocks.get(key) ?? []), section])
  }
  return [...blocks.values()].map(([first, ...rest]) => {
    if (rest.length === 0) return first!
    const names = listPlain([first!, ...rest].map(({ title }) => title))
    return {
      ...first!,
      title: names,
      intro: t('choose.sheet.alike', { question: first!.intro ?? '', name: first!.title }),
      groups: [
        ...first!.groups.map((group) => ({ ...group, isRead: true })),
        {
          title: t('choose.sheet.doneAt'),
          items: [first!, ...rest].map(({ title }, i) => ({ lead: String(i + 1), text: title })),
        },
      ],
    }
  })
}

function plantSection(
  t: TFunction,
  units: Units,
  { name, choice, view, stemName }: PlannedPlant,
): ListSection {
  const say = speech(t, units, choice.system, view)
  const typical = choice.decided.filter(({ pieceId }) => say.isTypical(pieceId)).length
  const many = new Set(choice.decided.map(({ wire }) => wire).filter((wire) => wire !== null)).size > 1
  return {
    kind: 'list',
    isTicked: true,
    title: name,
    intro:
      typical > 0
        ? `${questionWords(t, choice.system, choice.question)} ${t('choose.typical', { count: typical })}`
        : questionWords(t, choice.system, choice.question),
    ...(view && { drawing: (fit) => cuttingDrawing(view, choice, fit) }),
    groups: [
      {
        title: null,
        items: choice.decided.map((one) => {
          const stem = view?.stem(one.pieceId)
          const parts = [
            deedWords(say, choice.question, one, many),
            ...(stem ? [whereWords(t, units, stem, stemName)] : []),
          ]
          return { lead: one.letter, text: `${clauses(t, parts)} (${writtenWhy(say, one)})` }
        }),
      },
      ...(choice.followUps
        ? [
            {
              title: t('choose.followUps'),
              items: countAlike(choice.followUps.map((one) => followWords(say, one as FollowUp))).map(
                ({ words, count }, i) => ({
                  lead: String(i + 1),
                  text: count > 1 ? `${words} × ${count}` : words,
                }),
              ),
            },
          ]
        : []),
    ],
  }
}
