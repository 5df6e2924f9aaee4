import type { Point } from '@klados/core/geometry'
import { addDays } from '@klados/core/season'
import type { Diary } from './diary.ts'
import { decide } from './seasons.ts'
import type { Life, Otherwise } from './seasons.ts'

export interface PearScene {
  readonly life: Life
  readonly diary: Diary
  readonly random: () => number
  /** Year of the last winter cut. */
  readonly year: number
  readonly tiersM: readonly number[]
  readonly wireMm: number
}

export type PearStory = 'even' | 'bitten' | 'bare'

const ARM_M = [0.62, 1.15, 1.5, 1.62] as const
const SPUR_STEP_M = 0.19
/** Where the tie that nobody let out bit in, and what grew each summer since. */
const BITE_M = 0.52
const AFTER_BITE_M = 0.38
/** The bud that goes on as the leader sits so far above the wire. */
const ABOVE_WIRE_M = 0.03
/** Winters before the last one in which each tier was cut: the maiden was too short in its first, and one summer was dry. */
const TIER_BEFORE = [4, 3, 2, 0] as const
/** Winters in which a tree has stood. */
const WINTERS = 6

/** The day that the pears were planted on, as maidens. */
export const pearsPlantedOn = (year: number) => `${year - WINTERS}-11-18`

/** The crew took the stouter of two leaders, though it leaned: of its buds hardly one broke on the far side. */
const stouterTaken: Otherwise = {
  reason: 'the stouter of the two, it looked the better start',
  wish: (question, view) => {
    const stouter = question.candidates.reduce((best, one) =>
      view.stem(one.pieceId)!.baseMm > view.stem(best.pieceId)!.baseMm ? one : best,
    )
    const cut = stouter.options.find(({ deed }) => deed === 'cut')
    return cut ? new Map([[stouter.pieceId, cut.id]]) : new Map()
  },
}

/**
 * One level pear over six winters: cut at a wire in four of them, two arms and a leader grown from there each
 * summer, arms laid and tied at season's end. `bitten`: a wire tie was left on and the arm beyond it died.
 * `bare`: a leaning leader was kept, and an arm grew weak.
 */
export function growPear(scene: PearScene, x0: number, story: PearStory): void {
  const { diary, year, tiersM } = scene
  let parent: string | null = null
  let foot: Point = { xM: x0, yM: 0 }
  for (const [tier, before] of TIER_BEFORE.entries()) {
    const cutYear = year - before
    const tierM = tiersM[tier]!
    const leader = growLeader(scene, { tier, cutYear, parent, foot, story })
    const riseM = tierM - foot.yM
    const at = { xM: foot.xM + leanOf(tier, story) * riseM, yM: tierM }
    for (const side of [-1, 1] as const) {
      const isBitten = story === 'bitten' && tier === 1 && side === 1
      const isBare = story === 'bare' && tier === 2 && side === 1
      growArm(scene, { season: tier, cutYear, side, parent: leader, from: at, isBitten, isBare })
    }
    foot = { xM: at.xM, yM: tierM + ABOVE_WIRE_M }
    parent = leader
  }
  growCandidates(scene, parent!, foot, story)
  if (story === 'bare') {
    diary.note(
      `${year - 1}-03-02`,
      'Third tier, right: only two weak buds broke. Notched above one more; see if it answers.',
    )
  }
}

const isRivalled = (tier: number, story: PearStory) => story === 'bare' && tier === 2
/** How far a leader leans for each metre that it rises. */
const leanOf = (tier: number, story: PearStory) =>
  isRivalled(tier, story) ? -0.21 : tier % 2 === 0 ? 0.01 : -0.016

interface Leader {
  readonly tier: number
  readonly cutYear: number
  readonly parent: string | null
  readonly foot: Point
  readonly story: PearStory
}

/**
 * Grown the summer before, cut just above the wire in winter. The first is the maiden tree: it was short when it
 * was planted and had a summer to reach the wire, as the last leader had after a dry one.
 */
function growLeader(scene: PearScene, { tier, cutYear, parent, foot, story }: Leader): string {
  const { diary, life, random } = scene
  const isSlow = tier === 0 || tier === TIER_BEFORE.length - 1
  const lengthM = tier === 0 ? 1.25 : 0.95 + random() * 0.35
  const shortM = tier === 0 ? 0.36 : 0.22
  const [tip, early] = [lengthM, shortM].map(
    (m): Point => ({
      xM: foot.xM + leanOf(tier, story) * m,
      yM: foot.yM + m,
    }),
  )
  const stem = diary.draw(tier === 0 ? pearsPlantedOn(scene.year) : `${cutYear - (isSlow ? 2 : 1)}-09-05`, {
    role: 'trunk',
    parent,
    points: [foot, (isSlow ? early : tip)!],
    age: tier === 0 ? 1 : 0,
    mm: tier === 0 ? 11 : (isRivalled(tier, story) ? 11 : 9) + random() * 2,
  })
  if (isSlow) {
    decide(life, `${cutYear - 1}-02-10`)
    diary.grow(`${cutYear - 1}-09-05`, stem, [foot, tip!])
  }
  const hasRival = isRivalled(tier, story)
  if (hasRival) {
    const points = [foot, { xM: foot.xM + 0.03, yM: foot.yM + lengthM * 0.9 }]
    diary.draw(`${cutYear - 1}-09-05`, { role: 'shoot', parent, points, age: 0, mm: 8 })
  }
  decide(life, `${cutYear}-02-10`, hasRival ? stouterTaken : undefined)
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
  const { diary, random, year } = scene
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
    const season = cutYear + grown
    const autumn = `${season}-09-${20 + arm.season}`
    if (arm.isBitten && season === year - 1) {
      diary.cut(`${season}-08-30`, stem, BITE_M, 'wire tie bit in; wood beyond it died')
      diary.note(
        `${season}-08-30`,
        'Second tier, right: the coated-wire tie was never let out. Lost two seasons of arm.',
      )
      lengthM = BITE_M
    }
    const before = lengthM
    const hasLost = arm.isBitten && season >= year - 1
    const wantedM = hasLost ? BITE_M + AFTER_BITE_M * (season - year + 2) : vary(ARM_M[Math.min(grown, 3)]!)
    lengthM = Math.max(lengthM + 0.05, wantedM)
    diary.grow(autumn, stem, reach(lengthM))
    const mm = 8 + 5 * grown + random() * 1.5
    diary.measure(addDays(autumn, 1), stem, Math.round(mm * 10) / 10)
    const lostBeyondM = arm.isBitten && !hasLost ? BITE_M : Infinity
    tieArm(scene, arm, stem, { autumn, fromM: before, toM: lengthM, mm, isOld: season < year, lostBeyondM })
    if (grown > 0) growSpurs(scene, stem, from, side, grown === 1 ? 0.22 : before, before, season)
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
  part: {
    autumn: string
    fromM: number
    toM: number
    mm: number
    isOld: boolean
    /** Ties farther out went with the wood. */
    lostBeyondM: number
  },
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
    if (part.isOld && alongM < part.lostBeyondM && random() < 0.87) {
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
