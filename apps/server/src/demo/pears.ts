import type { Point } from '@klados/core/geometry'
import { addDays } from '@klados/core/season'
import type { Diary } from './diary.ts'

export interface PearScene {
  readonly diary: Diary
  readonly random: () => number
  /** Year of the last winter cut. */
  readonly year: number
  readonly today: string
  readonly tiersM: readonly number[]
  readonly wireMm: number
}

export type PearStory = 'even' | 'bitten' | 'bare'

const ARM_M = [0.62, 1.15, 1.5, 1.62] as const
const SPUR_STEP_M = 0.19

/**
 * One level pear over four seasons: cut at a wire each winter, two arms and a leader grown from there each
 * summer, arms laid and tied at season's end. `bitten`: a wire tie was left on and the arm beyond it died.
 * `bare`: an arm grew weak.
 */
export function growPear(scene: PearScene, x0: number, story: PearStory): void {
  const { diary, year, tiersM } = scene
  let parent: string | null = null
  let foot: Point = { xM: x0, yM: 0 }
  for (let season = 0; season < 4; season++) {
    const cutYear = year - 3 + season
    const tierM = tiersM[season]!
    const leader = growLeader(scene, season, cutYear, parent, foot, tierM)
    foot = { xM: x0 + lean(season), yM: tierM }
    for (const side of [-1, 1] as const) {
      const isBitten = story === 'bitten' && season === 1 && side === 1
      const isBare = story === 'bare' && season === 2 && side === 1
      growArm(scene, { season, cutYear, side, parent: leader, from: foot, isBitten, isBare })
    }
    parent = leader
  }
  growCandidates(scene, parent!, foot, story)
  if (story === 'bare') {
    diary.note(
      `${year}-03-02`,
      'Third tier, right: only two weak buds broke. Notched above one more; see if it answers.',
    )
  }
}

const lean = (season: number) => (season % 2 === 0 ? 0.008 : -0.006)

/**
 * Grown the summer before, cut just above the wire in winter. The first is the maiden tree, cut at planting.
 */
function growLeader(
  scene: PearScene,
  season: number,
  cutYear: number,
  parent: string | null,
  foot: Point,
  tierM: number,
): string {
  const { diary, random } = scene
  const lengthM = season === 0 ? 1.25 : 0.95 + random() * 0.35
  const stem = diary.draw(season === 0 ? `${cutYear - 1}-11-18` : `${cutYear - 1}-09-05`, {
    role: 'trunk',
    parent,
    points: [foot, { xM: foot.xM + lean(season) / 2, yM: foot.yM + lengthM }],
    age: season === 0 ? 1 : 0,
    mm: season === 0 ? 13 : 9 + random() * 2,
  })
  diary.cut(
    `${cutYear}-02-10`,
    stem,
    Math.round((tierM - foot.yM + 0.015) * 1000) / 1000,
    season === 0 ? 'planted; three buds at the first wire' : 'three buds at the next wire',
  )
  return stem
}

interface Arm {
  readonly season: number
  readonly cutYear: number
  readonly side: -1 | 1
  readonly parent: string
  readonly from: Point
  readonly isBitten: boolean
  readonly isBare: boolean
}

function growArm(scene: PearScene, arm: Arm): void {
  const { diary, random, today, year } = scene
  const { from, side, cutYear } = arm
  const reach = (armLengthM: number): Point[] => [
    from,
    { xM: from.xM + side * 0.08, yM: from.yM + 0.004 },
    { xM: from.xM + side * armLengthM, yM: from.yM },
  ]
  const vary = (lengthM: number) =>
    Math.round(lengthM * (arm.isBare ? 0.42 : 0.94 + random() * 0.12) * 100) / 100
  const rising = vary(ARM_M[0]) * 0.72
  const stem = diary.draw(`${cutYear}-07-08`, {
    role: 'arm',
    parent: arm.parent,
    points: [from, { xM: from.xM + side * rising, yM: from.yM + rising }],
    age: 0,
    mm: 6.5 + random() * 1.5,
  })
  let lengthM = 0
  for (let grown = 0; cutYear + grown <= year; grown++) {
    const autumn = `${cutYear + grown}-09-${20 + arm.season}`
    const before = lengthM
    lengthM = Math.max(lengthM + 0.05, vary(ARM_M[Math.min(grown, 3)]!))
    diary.grow(autumn, stem, reach(lengthM))
    const mm = 8 + 5 * grown + random() * 1.5
    diary.measure(addDays(autumn, 1), stem, Math.round(mm * 10) / 10)
    tieArm(scene, arm, stem, { autumn, fromM: before, toM: lengthM, mm, isOld: cutYear + grown < year })
    if (grown > 0)
      growSpurs(scene, stem, from, side, before - (grown === 1 ? before - 0.22 : 0), before, cutYear + grown)
  }
  if (arm.isBitten) {
    const biteM = 0.52
    diary.cut(`${year - 1}-08-30`, stem, biteM, 'wire tie bit in; wood beyond it died')
    diary.note(
      `${year - 1}-08-30`,
      'Second tier, right: the coated-wire tie was never let out. Lost two seasons of arm.',
    )
    if (today >= `${year}-09-20`) {
      diary.grow(`${year}-09-20`, stem, reach(biteM + 0.38))
    }
  }
}

/**
 * Ties in the length that is new this year; those of earlier years were looked at or renewed since, but for a
 * few.
 */
function tieArm(
  scene: PearScene,
  arm: Arm,
  stem: string,
  part: { autumn: string; fromM: number; toM: number; mm: number; isOld: boolean },
): void {
  const { diary, random, wireMm, year } = scene
  const stepM = 0.42
  for (let alongM = part.fromM === 0 ? 0.3 : part.fromM + 0.12; alongM < part.toM - 0.05; alongM += stepM) {
    const at = { xM: arm.from.xM + arm.side * alongM, yM: arm.from.yM }
    const isWire = arm.isBitten && part.fromM === 0
    const tie = diary.tie(part.autumn, {
      stem,
      at,
      material: isWire ? 'rubber-coated-wire' : random() < 0.3 ? 'stretch-tape' : 'soft-jute',
      hitch: 'figureEight',
      stemMm: Math.round(part.mm * 10) / 10,
      supportMm: wireMm,
    })
    if (isWire) continue
    diary.write(addDays(part.autumn, 3), 'tie.checked', { v: 1, tieId: tie })
    // Renewed the next spring and autumn, as a careful crew does; about one in eight was passed over.
    if (part.isOld && random() < 0.87) {
      const renewedOn = `${year}-${part.autumn.slice(5, 7) === '09' ? '09-12' : '10-02'}`
      const stemMm = Math.round((part.mm + 5) * 10) / 10
      const loose = diary.tie(renewedOn, {
        stem,
        at,
        material: 'stretch-tape',
        hitch: 'figureEight',
        stemMm,
        supportMm: wireMm,
      })
      diary.write(renewedOn, 'tie.removed', { v: 1, tieId: tie, reason: 'renewed with tape' })
      diary.write(addDays(renewedOn, 4), 'tie.checked', { v: 1, tieId: loose })
    }
  }
}

function growSpurs(
  scene: PearScene,
  arm: string,
  from: Point,
  side: -1 | 1,
  fromM: number,
  toM: number,
  year: number,
): void {
  const { diary, random } = scene
  for (
    let alongM = Math.max(0.2, fromM);
    alongM < toM - 0.06;
    alongM += SPUR_STEP_M * (0.85 + random() * 0.3)
  ) {
    const base = { xM: from.xM + side * alongM, yM: from.yM }
    const tip = { xM: base.xM + (random() - 0.5) * 0.05, yM: base.yM + 0.09 + random() * 0.08 }
    diary.draw(`${year}-08-12`, {
      role: 'spur',
      parent: arm,
      points: [base, tip],
      age: 1,
      mm: 6 + random() * 2,
    })
  }
}

/** This summer's shoots above the top arms: the winter's question is which of them to keep. */
function growCandidates(scene: PearScene, parent: string, from: Point, story: PearStory): void {
  const { diary, random, year } = scene
  const shoots = story === 'bare' ? [-17, 2, 20] : [1 + random() * 3]
  for (const degrees of shoots) {
    const lengthM = 0.75 + random() * 0.25
    const angle = (degrees * Math.PI) / 180
    const mid = { xM: from.xM + Math.sin(angle) * lengthM * 0.55, yM: from.yM + lengthM * 0.5 }
    const tip = { xM: from.xM + Math.sin(angle) * lengthM, yM: from.yM + Math.cos(angle) * lengthM }
    diary.draw(`${year}-09-05`, {
      role: 'shoot',
      parent,
      points: [from, mid, tip],
      age: 0,
      mm: 6 + random() * 3,
    })
  }
}
