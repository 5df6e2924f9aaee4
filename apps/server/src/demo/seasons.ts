import { asWritten, contextOf, deedsOf, woodDone } from '@klados/core/choices'
import type { Deeds } from '@klados/core/choices'
import { replayWood } from '@klados/core/journal'
import { groundAt } from '@klados/core/frame'
import type { Frame } from '@klados/core/frame'

import { addDays } from '@klados/core/season'
import type { CalendarDate } from '@klados/core/season'
import { planTies, usualLoopMm } from '@klados/core/ties'
import { findSystem, isRefused, openQuestions, propose, standingStem, viewPlant } from '@klados/core/training'
import type { Overrides, PlantView, Proposal, Question, Stem } from '@klados/core/training'
import { tieSupports } from '@klados/core/wood'
import { v7 as uuidv7 } from 'uuid'
import type { Diary } from './diary.ts'
import type { Stand } from './stand.ts'

/** Jute on wood that stays is renewed with tape, before it rots. */
function renewTies({ diary, plant }: Life, view: PlantView, on: CalendarDate): void {
  const { ties, pieces } = replayWood(
    diary.entries.filter((entry) => entry.plantId === plant.id),
    on,
  )
  for (const tie of ties.values()) {
    const stem = view.stem(tie.pieceId)
    const isOld = tie.madeOn < on && tie.materialId !== 'stretch-tape'
    if (tie.endedOn !== null || !stem || !isOld || pieces.get(tie.pieceId)!.removedOn !== null) continue
    const tieId = uuidv7()
    const stemDiameterMm = Math.round(stem.baseMm * 8) / 10
    diary.write(on, 'tie.removed', { v: 1, tieId: tie.id, reason: 'renewed with tape' })
    diary.write(on, 'tie.made', {
      v: 2,
      tieId,
      pieceId: tie.pieceId,
      alongM: tie.alongM,
      support: tie.support,
      materialId: 'stretch-tape',
      hitch: 'figureEight',
      supportDiameterMm: tie.supportDiameterMm,
      stemDiameterMm,
      loopLengthMm: usualLoopMm('figureEight', stemDiameterMm, tie.supportDiameterMm) + 20,
    })
    diary.write(addDays(on, 4), 'tie.checked', { v: 1, tieId })
    diary.write(`${on.slice(0, 4)}-11-20`, 'tie.checked', { v: 1, tieId })
  }
}

/** Of the ties made in winter so many were looked at again in autumn. */
const LOOKED_AT = 0.93

/** A plant whose years are lived through with the same questions and proposals that a grower has at the bench. */
export interface Life {
  readonly diary: Diary
  readonly plant: {
    readonly id: string
    readonly kindId: string
    readonly system: string
    readonly xM: number
    readonly footYM: number
    readonly footZM?: number
    readonly plantedOn: CalendarDate
  }
  readonly place: { readonly widthM: number; readonly othersXM: readonly number[] }
  readonly frameId: string
  readonly frame: Frame
  readonly latitudeDeg: number
  readonly random: () => number
  readonly wireMm: number
}

export const DEMO_LATITUDE_DEG = 55.6

/** A plant that lives through its years by what its system asks. */
export function lifeOf(
  { place, frame, plants }: Stand,
  plant: Stand['plants'][number],
  {
    system,
    plantedOn,
    frame: laid,
    ...rest
  }: Pick<Life, 'diary' | 'frame' | 'random' | 'wireMm'> & Pick<Life['plant'], 'system' | 'plantedOn'>,
): Life {
  const footYM = groundAt(place.body, plant.body.xM)
  return {
    ...rest,
    plant: { ...plant.body, id: plant.id, system, plantedOn, footYM },
    place: {
      widthM: place.body.widthM,
      othersXM: plants.flatMap((one) => (one.id === plant.id ? [] : [one.body.xM])),
    },
    frameId: frame.id,
    frame: laid,
    latitudeDeg: DEMO_LATITUDE_DEG,
  }
}

/** The plant as it stands at the end of a day, by what has been written so far. */
export function seen(
  { diary, plant, place, frameId, frame, latitudeDeg }: Life,
  on: CalendarDate,
): PlantView {
  const entries = diary.entries.filter((entry) => entry.plantId === plant.id)
  return viewPlant({
    plant: { ...plant, graftHeightM: null },
    pieces: replayWood(entries, on).pieces,
    frames: [{ frameId, frame }],
    othersXM: place.othersXM,
    widthM: place.widthM,
    on,
    hemisphere: 'north',
    latitudeDeg,
    goal: null,
    pruningsKg: null,
  })!
}

/** What the crew did otherwise than proposed in a winter, and why. */
export interface Otherwise {
  readonly wish: (question: Question, view: PlantView, proposal: Proposal) => Overrides
  readonly reason: string
}

interface Decided {
  readonly view: PlantView
  readonly ties: ReturnType<typeof tiesOf>
}

/** The season's question answered, written down and carried out; the ties that it takes are still to be made. */
export function decide(life: Life, on: CalendarDate, otherwise?: Otherwise): Decided | null {
  const { diary, plant } = life
  const view = seen(life, on)
  const system = findSystem(plant.system)
  const question = system && openQuestions(system, view)[0]
  if (!question) return null
  const usual = propose(question)
  if (isRefused(usual)) return null
  const overrides = otherwise?.wish(question, view, usual) ?? new Map<string, string>()
  const wished = overrides.size > 0 ? propose(question, overrides) : usual
  const proposal = isRefused(wished) ? usual : wished
  const choice = deedsOf(view, question, proposal, usual, overrides, () => otherwise?.reason ?? '')
  const ties = tiesOf(life, view, choice)
  diary.write(on, 'choice.made', {
    v: 2,
    choiceId: uuidv7(),
    system: plant.system,
    question: question.code,
    as: 'done',
    ...asWritten(choice),
    buds: proposal.buds,
    budsMin: question.buds.min,
    budsMax: question.buds.max,
    bareM: proposal.bareM,
    isProven: proposal.isProven,
    ties: ties.length,
    minutes: 4 + Math.round(ties.length / 2),
  })
  const deeds = woodDone(
    choice,
    contextOf(view, () => ''),
  )
  for (const { kind, body } of deeds) diary.write(on, kind, body as never)
  return { view, ties }
}

/** A winter's cut: what was decided, and the ties made and looked at. */
export function cutInWinter(life: Life, on: CalendarDate, otherwise?: Otherwise): void {
  const decided = decide(life, on, otherwise)
  if (!decided) return
  const { diary } = life
  renewTies(life, decided.view, on)
  for (const tie of decided.ties) {
    diary.write(on, 'tie.made', tie)
    diary.write(addDays(on, 3), 'tie.checked', { v: 1, tieId: tie.tieId })
    const autumn = `${on.slice(0, 4)}-11-20`
    if (life.random() < LOOKED_AT) diary.write(autumn, 'tie.checked', { v: 1, tieId: tie.tieId })
  }
}

function tiesOf(life: Life, view: PlantView, { decided, followUps }: Deeds) {
  const supports = tieSupports([{ frameId: life.frameId, frame: life.frame }], {
    wireMm: () => life.wireMm,
    stockM: () => 0.03,
  })
  const led = [...decided, ...(followUps ?? [])].flatMap(({ pieceId, path }) =>
    path ? [{ pieceId, path }] : [],
  )
  return led.flatMap(({ pieceId, path }) => {
    const stem = view.stem(pieceId)!
    const { ties, materialId, hitch } = planTies(
      { path, ageSeasons: stem.age, baseMm: stem.baseMm, tipMm: null, isPermanent: stem.role === 'arm' },
      supports,
    )
    return ties.map((tie) => ({
      v: 2 as const,
      tieId: uuidv7(),
      pieceId,
      alongM: tie.alongM,
      support: tie.support,
      materialId,
      hitch,
      supportDiameterMm: tie.supportDiameterMm,
      stemDiameterMm: tie.stemMm,
      loopLengthMm: tie.loopMm,
    }))
  })
}

interface Grown {
  readonly lengthM: number
  readonly baseMm: number
  readonly internodeM: number
  readonly side?: 'left' | 'right' | null
  readonly light?: 'well-lit' | 'shaded' | null
  readonly bends?: 'pliable' | 'stiff' | null
  readonly health?: 'sick' | null
}

/** A shoot of this summer, measured in September. */
export function grow(
  { diary, plant }: Life,
  on: CalendarDate,
  under: Stem | null,
  alongM: number,
  shoot: Grown,
): void {
  const pieceId = uuidv7()
  const fromFoot = () =>
    diary.entries.filter(
      ({ plantId, kind, body }) =>
        plantId === plant.id && kind === 'piece.grew' && body.parent.on === 'crown',
    ).length
  const { lengthM, baseMm, internodeM, side = null, light = null, bends = null, health = null } = shoot
  const { path } = standingStem(
    { lengthM, alongM, side },
    {
      path: under?.piece.path ?? null,
      foot: { xM: plant.xM, yM: plant.footYM },
      nextM: alongM,
      earlier: under ? 0 : fromFoot(),
    },
  )
  diary.write(on, 'piece.grew', {
    v: 1,
    pieceId,
    parent: under ? { on: 'piece', pieceId: under.id, alongM } : { on: 'crown', leadId: null },
    path: path.map(rounded),
    seasonsOld: 0,
    baseMm: Math.round(baseMm * 10) / 10,
    tipMm: null,
    buds: Math.floor(lengthM / internodeM),
    side,
    role: null,
  })
  if (light !== null || bends !== null)
    diary.write(on, 'piece.seen', { v: 1, pieceId, bends, light, fault: null })
  if (health !== null) diary.write(on, 'piece.judged', { v: 1, pieceId, health, reason: 'spotted leaves' })
}

const rounded = ({ xM, yM }: { readonly xM: number; readonly yM: number }) => ({
  xM: Math.round(xM * 1000) / 1000,
  yM: Math.round(yM * 1000) / 1000,
})

/** Places along a piece, so far apart, from near its base on. */
export function placesAlong(stem: Stem, everyM: number, most: number): number[] {
  const count = Math.min(most, Math.floor(stem.lengthM / everyM))
  return Array.from({ length: count }, (_, i) => Math.min(stem.lengthM, 0.03 + i * everyM))
}
