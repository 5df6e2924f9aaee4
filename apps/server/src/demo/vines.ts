import { addDays } from '@klados/core/season'
import type { Stem } from '@klados/core/training'
import { cutInWinter, grow, placesAlong, seen } from './seasons.ts'
import type { Life, Otherwise } from './seasons.ts'

export type VineStory = 'even' | 'thick-kept' | 'no-renewal' | 'late' | 'strong'

const JOINT_M = 0.08

/** The crew took the strongest cane, as strong looks good in winter; it fruited at its end only. */
const thickKept: Otherwise = {
  reason: 'the strongest, it looked best',
  wish: (question, view) => {
    const thick = question.candidates
      .filter(({ options }) => options.some(({ deed }) => deed === 'lay'))
      .sort((a, b) => view.stem(b.pieceId)!.baseMm - view.stem(a.pieceId)!.baseMm)[0]
    const lay = thick?.options.find(({ deed }) => deed === 'lay')
    return lay ? new Map([[thick!.pieceId, lay.id]]) : new Map()
  },
}

/** In a hurry all spurs were cut off: next winter there was nothing near the head. */
const noRenewal: Otherwise = {
  reason: 'cut in a hurry before rain',
  wish: (question, _view, proposal) =>
    new Map(
      question.candidates
        .filter(({ pieceId }) => proposal.chosen.get(pieceId)?.deed === 'spur')
        .map(({ pieceId }) => [pieceId, 'off']),
    ),
}

/** One vine of the trial block from planting to this autumn. */
export function growVine(life: Life, year: number, story: VineStory): void {
  const { diary, random, plant } = life
  const planted = Number(plant.plantedOn.slice(0, 4))
  for (let summer = planted; summer <= year; summer++) {
    const age = summer - planted
    if (summer > planted) {
      const isThen = summer === year - 2
      const otherwise =
        isThen && story === 'thick-kept'
          ? thickKept
          : isThen && story === 'no-renewal'
            ? noRenewal
            : undefined
      const on = `${summer}-02-${10 + Math.floor(random() * 12)}`
      cutInWinter(life, on, otherwise)
      if (age > 2) reading(life, on, 'prunings', 0.25 + 0.12 * age + random() * 0.3)
    }
    growShoots(life, `${summer}-09-12`, age, story)
    if (age > 2) reading(life, `${summer}-09-28`, 'crop', cropOf(life, story, summer === year - 2, age))
  }
  if (story === 'thick-kept')
    diary.note(`${year - 2}-10-02`, 'The thick cane broke well at its end and hardly at all near the head.')
  if (story === 'no-renewal')
    diary.note(`${year - 1}-02-20`, 'No spurs were left last winter: the canes had to come from far out.')
}

function cropOf({ random }: Life, story: VineStory, isThen: boolean, age: number): number {
  const full = 1.1 + 0.35 * Math.min(4, age)
  const share = isThen && story === 'thick-kept' ? 0.55 : story === 'late' ? 0.7 : 1
  return full * share * (0.85 + random() * 0.3)
}

function reading({ diary }: Life, on: string, what: 'crop' | 'prunings', kg: number): void {
  diary.write(on, 'reading.taken', {
    v: 1,
    what,
    value: Math.round(kg * 100) / 100,
    pieceId: null,
    alongM: null,
  })
}

/** What breaks in a summer: from the foot at first, later on spurs, along laid canes and at the head. */
function growShoots(life: Life, on: string, age: number, story: VineStory): void {
  const { random } = life
  const view = seen(life, addDays(on, -1))
  const vigour = story === 'late' ? 0.75 : story === 'strong' ? 1.25 : 1
  const shoot = (under: Stem | null, alongM: number, near: number, side: 'left' | 'right' | null = null) =>
    grow(life, on, under, alongM, {
      lengthM: Math.round((0.75 + random() * 0.7) * vigour * near * 100) / 100,
      baseMm: (6.5 + random() * 4.5) * Math.sqrt(vigour) * (near < 1 ? 0.9 : 1),
      internodeM: JOINT_M * (0.85 + random() * 0.45),
      side,
      light: random() < 0.35 ? 'well-lit' : random() < 0.2 ? 'shaded' : null,
    })
  if (age === 0) {
    grow(life, on, null, 0, { lengthM: 1.15 * vigour, baseMm: 12 * vigour, internodeM: 0.07 })
    return
  }
  const young = view.stems.filter((stem) => stem.age === 1)
  const trunk = view.stems.find((stem) => stem.parent === null)
  if (age === 1 && trunk) {
    // The two buds below the node that was cut through.
    shoot(trunk, Math.max(0, trunk.lengthM - 0.07), 1.3, 'left')
    shoot(trunk, Math.max(0, trunk.lengthM - 0.1), 1.3, 'right')
    return
  }
  for (const stem of young) growOn(stem, shoot)
}

function growOn(stem: Stem, shoot: (under: Stem, alongM: number, near: number) => void): void {
  const isSpur = stem.lengthM < 0.4
  if (isSpur) {
    shoot(stem, Math.min(stem.lengthM, 0.05), 1)
    shoot(stem, Math.min(stem.lengthM, 0.13), 1.1)
    return
  }
  placesAlong(stem, 0.16, 7).forEach((alongM, i) => shoot(stem, alongM, i < 2 ? 1 : 0.8))
}
