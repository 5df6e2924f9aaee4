import { standardCatalogue } from '@klados/core/catalogue'
import { tryFrame } from '@klados/core/design'
import { inSpace } from '@klados/core/geometry'
import { addDays, yearOf } from '@klados/core/season'
import type { CalendarDate } from '@klados/core/season'
import { findSystem } from '@klados/core/training'
import { freeWay, grownTo, trackFinder } from '@klados/core/wood'
import type { Stretch } from '@klados/core/wood'
import { v7 as uuidv7 } from 'uuid'
import type { Diary } from './diary.ts'
import { decide, lifeOf, seen } from './seasons.ts'
import type { Life } from './seasons.ts'
import type { Stand } from './stand.ts'

interface Grown {
  readonly on: { readonly pieceId: string; readonly alongM: number } | null
  readonly way: readonly Stretch[]
  readonly seasonsOld: number
  readonly baseMm: number
}

function grew({ diary }: Life, at: CalendarDate, { on, way, seasonsOld, baseMm }: Grown): string {
  const pieceId = uuidv7()
  diary.write(at, 'piece.grew', {
    v: 3,
    pieceId,
    parent: on ? { on: 'piece', ...on } : { on: 'crown', leadId: null },
    way: [...way],
    seasonsOld,
    baseMm: Math.round(baseMm * 10) / 10,
    tipMm: null,
    buds: null,
    side: null,
    role: null,
    isTypical: false,
  })
  return pieceId
}

/** The wood of a plant as its system expects it after so many years, entered on a day. */
function standing(life: Life, at: CalendarDate, years: number): void {
  const ids = new Map<string, string>()
  for (const one of findSystem(life.plant.system)!.skeleton(seen(life, at), years)) {
    const under = one.on === null ? null : { pieceId: ids.get(one.on)!, alongM: one.alongM }
    const { way = freeWay(one.path), seasonsOld, baseMm } = one
    ids.set(one.name, grew(life, at, { on: under, way, seasonsOld, baseMm }))
  }
}

/** A kiwi under its wires: entered and cut in its fifth winter, and the canes of the summer after. */
function growKiwi(life: Life, today: CalendarDate): void {
  const year = yearOf(today)
  // The last summer whose canes had ripened by today.
  const summer = today > `${year}-09-05` ? year : year - 1
  standing(life, `${summer}-01-12`, 4)
  const cut = decide(life, `${summer}-01-20`)
  for (const tie of cut?.ties ?? []) {
    // Room for what a quick season puts on.
    const loopLengthMm = tie.loopLengthMm + 45
    life.diary.write(`${summer}-01-20`, 'tie.made', { ...tie, materialId: 'stretch-tape', loopLengthMm })
    life.diary.write(`${summer}-08-20`, 'tie.checked', { v: 1, tieId: tie.tieId })
  }
  for (const stem of seen(life, `${summer}-07-01`).stems) {
    const [base, tip] = [inSpace(stem.base), inSpace(stem.tip)]
    const back = Math.sign(tip.zM - base.zM)
    if (!stem.parent || stem.parent.age < 2 || stem.lengthM < 0.5 || back === 0) continue
    const end = {
      xM: base.xM + 0.2 * (life.random() - 0.5),
      yM: base.yM + 0.7,
      zM: base.zM + back * (1 + 0.6 * life.random()),
    }
    grew(life, `${summer}-09-05`, {
      on: { pieceId: stem.parent.id, alongM: Math.max(0, stem.alongM - 0.03) },
      way: [{ on: 'free', points: [base, end] }],
      seasonsOld: 0,
      baseMm: 6 + 6 * life.random(),
    })
  }
}

/** A pothos on its pole: measured when it was potted up, its nodes counted three times since. */
function growPothos(life: Life, today: CalendarDate): void {
  const { diary, plant } = life
  const view = seen(life, plant.plantedOn)
  const lead = (lengthM: number) =>
    findSystem(plant.system)!.leads!(view, { lengthM, side: null, under: null, alongM: 0 })!
  const stem = grew(life, plant.plantedOn, { on: null, way: lead(0.24), seasonsOld: 1, baseMm: 5 })
  const counts = [
    [addDays(today, -150), 0.42, 7, 4],
    [addDays(today, -80), 0.58, 10, 6],
    [addDays(today, -6), 0.73, 13, 8],
  ] as const
  for (const [at, lengthM, nodes, rooted] of counts) {
    const piece = seen(life, at).stem(stem)!.piece
    const find = trackFinder(new Map([[life.frameId, life.frame]]))
    diary.write(at, 'piece.extended', { v: 2, pieceId: stem, way: grownTo(piece, lengthM, find) })
    diary.write(at, 'piece.nodes', { v: 1, pieceId: stem, nodes, rooted })
  }
}

/** The female kiwi overhead, with what was chosen in three winters; the male beside it is cut by eye. */
export function growPergola(diary: Diary, pergola: Stand, today: string, random: () => number): Stand {
  const { place, frame, plants } = pergola
  const laid = tryFrame(place.body, frame.body.design, standardCatalogue)!
  diary.stands(place.id, frame.id, laid)
  const [female, ...others] = plants
  const [system, plantedOn] = ['overhead-arms', `${yearOf(today) - 7}-03-20`]
  const about = diary.about(place.id, female!.id)
  growKiwi(
    lifeOf(pergola, female!, { diary: about, frame: laid, system, plantedOn, random, wireMm: 3 }),
    today,
  )
  return {
    place,
    frame: { ...frame, body: { ...frame.body, stage: 'stands' } },
    plants: [{ ...female!, body: { ...female!.body, system, plantedOn } }, ...others],
  }
}

export function growOnPole(diary: Diary, pot: Stand, today: string, random: () => number): Stand {
  const { place, frame, plants } = pot
  const laid = tryFrame(place.body, frame.body.design, standardCatalogue)!
  const plant = plants[0]!
  const [system, plantedOn] = ['growing-pole', addDays(today, -400)]
  const about = diary.about(place.id, plant.id)
  const life = lifeOf(pot, plant, { diary: about, frame: laid, system, plantedOn, random, wireMm: 2 })
  const spot = laid.plants[0]!.at
  growPothos({ ...life, plant: { ...life.plant, xM: spot.xM, footYM: spot.yM } }, today)
  return {
    place,
    frame,
    plants: [{ ...plant, body: { ...plant.body, xM: spot.xM, system, plantedOn } }],
  }
}
