import { nodeId } from '@klados/core/frame'
import { standardCatalogue } from '@klados/core/catalogue'
import { tryFrame } from '@klados/core/design'
import { planFrame } from '@klados/core/plan'
import type { FrameBody, OnHand, PlaceBody } from '@klados/contract'
import { flat } from '@klados/core/geometry'
import type { Point } from '@klados/core/geometry'
import { yearOf } from '@klados/core/season'
import { v7 as uuidv7 } from 'uuid'
import type { DemoGarden } from './demo-garden.ts'
import { Diary, newBook, seededRandom } from './diary.ts'
import { bothyGable, growRose } from './bothy-rose.ts'
import { glasshouse, growHoya, growRod } from './glasshouse.ts'
import { growOnPole, growPergola } from './overhead.ts'
import { buildTrial, openGround, tieBackTayberries } from './open-ground.ts'
import { growPear, pearsPlantedOn } from './pears.ts'
import type { PearStory } from './pears.ts'
import { lifeOf } from './seasons.ts'
import { plantedSimply, northern as climate, tierLevels, wallWire } from './stand.ts'
import type { Stand } from './stand.ts'
import { growVine } from './vines.ts'
import type { VineStory } from './vines.ts'
import { growWisteria } from './wisteria.ts'

/** What the places of an open, northern garden have in common. */
const northern = { riseM: 0, uprights: null, levels: null, fence: null, photo: null, conditions: climate }

/** Tarn Close, an invented walled garden, with six seasons of journal that end today. */
export function makeTarnClose(today: string): DemoGarden {
  // The last winter cut: before March, this winter's is still to come.
  const year = today.slice(5) >= '03-05' ? yearOf(today) : yearOf(today) - 1
  const pears = southWall()
  const front = gatehouse()
  const lane = laneFence()
  const diary = new Diary(newBook(today), pears.place.id, null)
  for (const { place, frame } of [pears, front, lane]) {
    const laid = tryFrame(place.body, frame.body.design, standardCatalogue)
    if (laid) diary.stands(place.id, frame.id, laid)
  }
  const random = seededRandom(55)
  const tiersM = [0.45, 0.85, 1.25, 1.65, 2.05]
  const stories: readonly PearStory[] = ['bitten', 'bare', 'even']
  const pearFrame = tryFrame(pears.place.body, pears.frame.body.design, standardCatalogue)!
  pears.plants.forEach((plant, i) => {
    const about = diary.about(pears.place.id, plant.id)
    const life = lifeOf({ place: pears.place, frame: pears.frame, plants: pears.plants }, plant, {
      diary: about,
      frame: pearFrame,
      system: 'level-tiers',
      plantedOn: pearsPlantedOn(year),
      random,
      wireMm: 2,
    })
    growPear({ life, diary: about, random, year, tiersM, wireMm: 2 }, plant.body.xM, stories[i]!)
  })
  const ways = wisteriaWays(front.place.body, front.frame.body.design)
  front.plants.forEach((plant, i) => {
    growWisteria(
      diary.about(front.place.id, plant.id),
      { xM: plant.body.xM, ways: ways[i]! },
      { year, today, wireMm: 2 },
    )
  })
  diary
    .about(front.place.id, null)
    .note(
      `${year - 1}-01-19`,
      'Gale. The eye low down on the right lifted out of a soft joint; set again with resin, a hand higher.',
    )
  const { stands: outside, trial, tayberries, pergola } = openGround()
  buildTrial(diary, trial, year)
  const vines = growTrial(diary, trial, year, random)
  const gable = growGable(diary, year, random)
  tieBackTayberries(diary, tayberries, year)
  const glass = glasshouse()
  for (const { place, frame } of glass.stands) {
    const laid = tryFrame(place.body, frame.body.design, standardCatalogue)
    if (laid) diary.stands(place.id, frame.id, laid)
  }
  growRod(diary.about(glass.rod.place.id, glass.rod.plants[0]!.id), year)
  growHoya(diary.about(glass.hoop.place.id, glass.hoop.plants[0]!.id), glass.hoop, { year, today })
  const kiwis = growPergola(diary, pergola, today, random)
  const onPole = growOnPole(diary, glass.pothos, today, random)
  const grown = new Map([
    [trial, vines],
    [pergola, kiwis],
    [glass.pothos, onPole],
  ])
  const stands = [...outside, gable, ...glass.stands].map((one) => grown.get(one) ?? one)
  const pearPlants = pears.plants.map((p) => ({ ...p, body: { ...p.body, plantedOn: pearsPlantedOn(year) } }))
  return {
    places: [pears.place, front.place, lane.place, ...stands.map((stand) => stand.place)],
    frames: [pears.frame, front.frame, lane.frame, ...stands.map((stand) => stand.frame)],
    plants: [...pearPlants, ...front.plants, ...stands.flatMap((stand) => stand.plants)].map((p) => ({
      ...p,
      body: { ...p.body, plantedOn: p.body.plantedOn === UNSAID ? `${year - 4}-11-18` : p.body.plantedOn },
    })),
    entries: diary.entries,
    onHand: inTheShed,
  }
}

/** The day of what has no day of its own in the demo. */
const UNSAID = '2000-01-01'
const VINE_STORIES: readonly VineStory[] = ['even', 'thick-kept', 'no-renewal', 'strong', 'late', 'even']

/** The vines of the trial block: the first of the row drawn piece by piece, the others counted. */
function growTrial(diary: Diary, { place, frame, plants }: Stand, year: number, random: () => number): Stand {
  const laid = tryFrame(place.body, frame.body.design, standardCatalogue)!
  diary.stands(place.id, frame.id, laid)
  const grown = plants.map((plant, i) => {
    const system = i % 6 === 3 ? 'cordon-canes' : i % 6 === 5 ? 'spur-cordon' : 'cane-two'
    const plantedOn = `${year - 6}-04-${10 + (i % 6)}`
    const here = diary.about(place.id, plant.id)
    const story = VINE_STORIES[i]
    if (story) {
      const rest = { diary: here, frame: laid, system, plantedOn, random, wireMm: 2.5 }
      const life = lifeOf({ place, frame, plants }, plant, rest)
      growVine(life, year, story)
    } else countVine(here, year, random)
    const budGoal = { by: 'plain' as const, aim: 20, min: 18, max: 22 }
    return { ...plant, body: { ...plant.body, system, plantedOn, budGoal } }
  })
  return { place, frame, plants: grown }
}

/** A vine that is counted each winter instead of drawn. */
function countVine(diary: Diary, year: number, random: () => number): void {
  for (let winter = year - 2; winter <= year; winter++) {
    const canes = random() < 0.8 ? 2 : 1
    diary.write(`${winter}-02-20`, 'plant.tallied', {
      v: 1,
      canes,
      spurs: 2,
      buds: canes * (8 + Math.floor(random() * 5)) + 4,
      ties: canes * 3,
      minutes: 4 + Math.floor(random() * 4),
      pruningsKg: Math.round((0.4 + random() * 0.5) * 100) / 100,
      cropKg: null,
    })
  }
}

function growGable(diary: Diary, year: number, random: () => number): Stand {
  const gable = bothyGable()
  const { place, frame, plants } = gable
  const laid = tryFrame(place.body, frame.body.design, standardCatalogue)!
  diary.stands(place.id, frame.id, laid)
  const plant = plants[0]!
  const [system, plantedOn] = ['rose-level', `${year - 6}-11-20`]
  const about = diary.about(place.id, plant.id)
  growRose(lifeOf(gable, plant, { diary: about, frame: laid, system, plantedOn, random, wireMm: 2 }), year)
  return {
    place,
    frame: { ...frame, body: { ...frame.body, stage: 'stands' } },
    plants: [{ ...plant, body: { ...plant.body, system, plantedOn } }],
  }
}

/** What was left over from the winter's work. */
const inTheShed: readonly OnHand[] = [
  { what: 'roll', refId: 'stainless-2', lengthM: 50, quantity: 1 },
  { what: 'roll', refId: 'stainless-2', lengthM: 13.4, quantity: 2 },
  { what: 'stock', refId: 'cane-18', lengthM: 1.8, quantity: 12 },
  { what: 'fixing', refId: 'eye-100', lengthM: null, quantity: 40 },
  { what: 'good', refId: 'strainer', lengthM: null, quantity: 6 },
]

function southWall() {
  const id = uuidv7()
  const body: PlaceBody = {
    ...northern,
    name: 'South wall, east bay',
    kind: 'wall',
    widthM: 10.8,
    usableHeightM: 1.7,
    firstForkM: 0.45,
    facingDeg: 178,
    surface: 'brick',
    setting: 'open',
    viewingEnd: 'left',
    avoid: [
      { id: uuidv7(), kind: 'point', xM: 4.33, yM: 1.256, radiusM: 0.025, what: 'soft joint' },
      { id: uuidv7(), kind: 'point', xM: 8.63, yM: 0.845, radiusM: 0.03, what: 'cracked brick' },
      { id: uuidv7(), kind: 'band', axis: 'vertical', fromM: 7.12, toM: 7.22, what: 'downpipe' },
    ],
  }
  return {
    place: { id, body },
    frame: {
      id: uuidv7(),
      notes: ['Four tiers to begin with', 'A fifth tier: the trees will reach it next summer'],
      body: {
        placeId: id,
        name: 'Level tiers',
        stage: 'stands' as const,
        design: {
          ...wallWire,
          plantKindId: 'pear',
          pattern: {
            kind: 'tiers' as const,
            levels: tierLevels(0.45, 0.85, 1.25, 1.65, 2.05),
            maxSupportSpacingM: 2.4,
          },
        },
      },
    },
    plants: [1.8, 5.4, 9].map((xM, i) => ({
      id: uuidv7(),
      body: {
        ...plantedSimply,
        placeId: id,
        name: ['West pear', 'Middle pear', 'East pear'][i]!,
        kindId: 'pear',
        system: 'level-tiers',
        xM,
        startNodeId: null,
        plantedOn: '2000-01-01',
      },
    })),
  }
}

function gatehouse() {
  const id = uuidv7()
  const body: PlaceBody = {
    ...northern,
    name: 'Gatehouse front',
    kind: 'wall',
    widthM: 4.8,
    usableHeightM: 2.4,
    firstForkM: 0.6,
    facingDeg: 96,
    surface: 'brick',
    setting: 'open',
    viewingEnd: 'right',
    avoid: [
      { id: uuidv7(), kind: 'band', axis: 'vertical', fromM: 2.6, toM: 2.64, what: 'lamp cable' },
      { id: uuidv7(), kind: 'point', xM: 1.77, yM: 1.79, radiusM: 0.035, what: 'soft joint' },
    ],
  }
  return {
    place: { id, body },
    frame: {
      id: uuidv7(),
      notes: ['Two rows, whole cells at the gate'],
      body: {
        placeId: id,
        name: 'Diamonds',
        stage: 'stands' as const,
        design: {
          ...wallWire,
          fixingId: 'eye-130',
          plantKindId: 'wisteria',
          pattern: {
            kind: 'diamonds' as const,
            cell: { by: 'width' as const, widthM: 0.87 },
            cellHeightM: null,
            rows: 2,
            closeCutEnd: false,
          },
        },
      },
    },
    plants: [nodeId('c0.0'), nodeId('c0.3')].map((startNodeId, i) => ({
      id: uuidv7(),
      body: {
        ...plantedSimply,
        placeId: id,
        name: i === 0 ? 'Gate wisteria' : 'Far wisteria',
        kindId: 'wisteria',
        xM: i === 0 ? 4.365 : 1.755,
        startNodeId,
        plantedOn: '2000-01-01',
      },
    })),
  }
}

function laneFence() {
  const id = uuidv7()
  const body: PlaceBody = {
    ...northern,
    name: 'Lane fence',
    kind: 'fence',
    widthM: 9.2,
    usableHeightM: 1.65,
    firstForkM: 0.25,
    facingDeg: 352,
    surface: 'boards',
    setting: 'open',
    viewingEnd: 'left',
    avoid: [],
    // Three rails, the lattice's rows on them: boards alone would not bear it.
    levels: { firstM: 0.25, stepM: 0.825 },
    fence: {
      boardMm: 22,
      boardWidthMm: 120,
      rails: 3,
      railHeightMm: 80,
      railDepthMm: 50,
      nailsPerCrossing: 2,
      nailLengthMm: 60,
      postSpacingM: 1.8,
      postFootM: 0.3,
      postBuriedM: 0.75,
    },
  }
  return {
    place: { id, body },
    frame: {
      id: uuidv7(),
      notes: ['Planned for akebia; nothing drilled yet'],
      body: {
        placeId: id,
        name: 'Akebia diamonds',
        stage: 'chosen' as const,
        design: {
          ...wallWire,
          plantKindId: 'akebia',
          snap: 'levels' as const,
          fixingId: 'eye-130',
          handlingLengthM: 10,
          pattern: {
            kind: 'diamonds' as const,
            cell: { by: 'width' as const, widthM: 0.8 },
            cellHeightM: null,
            rows: 1,
            closeCutEnd: false,
          },
        },
      },
    },
  }
}

/** Node by node along the wires: two ways for each wisteria, from the start node up and outward. */
function wisteriaWays(place: PlaceBody, design: FrameBody['design']): Point[][][] {
  const { frame } = planFrame(place, design)
  const at = (id: string) => flat(frame!.nodes.find((node) => node.id === id)!.at)
  const line = (...ids: string[]) => ids.map(at)
  return [
    [line('c0.0', 's0.0', 'c1.0', 's1.0', 'c2.0'), line('c0.0', 's0.1', 'c1.1', 's1.2', 'c2.2')],
    [line('c0.3', 's0.3', 'c1.2', 's1.3', 'c2.3'), line('c0.3', 's0.4', 'c1.4', 's1.5', 'c2.4')],
  ]
}
