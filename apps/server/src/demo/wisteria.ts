import type { Point } from '@klados/core/geometry'
import { polylineLengthM } from '@klados/core/geometry'
import { addDays } from '@klados/core/season'
import type { Diary } from './diary.ts'

/** A wisteria led up to its start node and along two ways of the diamonds, a few nodes further each year. */
export function growWisteria(
  diary: Diary,
  plant: { xM: number; ways: readonly (readonly Point[])[] },
  scene: { year: number; today: string; wireMm: number },
): void {
  const { year, today, wireMm } = scene
  const start = plant.ways[0]![0]!
  const trunk = diary.draw(`${year - 4}-11-20`, {
    role: 'trunk',
    parent: null,
    points: [{ xM: plant.xM, yM: 0 }, { xM: plant.xM - 0.03, yM: start.yM * 0.5 }, start],
    age: 2,
    mm: 16,
  })
  diary.measure(`${year - 2}-10-10`, trunk, 34)
  diary.measure(`${year}-03-04`, trunk, 47)
  for (const way of plant.ways) {
    const arm = diary.draw(`${year - 3}-07-15`, {
      role: 'arm',
      parent: trunk,
      points: way.slice(0, 3),
      age: 0,
      mm: 6,
    })
    let done = 1
    for (let season = 0; season < 4; season++) {
      const upTo = Math.min(way.length, 3 + season * 2)
      const on = `${year - 3 + season}-08-${10 + season}`
      const points = way.slice(0, upTo)
      if (season > 0) diary.grow(on, arm, points)
      const mm = 7 + season * 8
      diary.measure(on, arm, mm)
      for (; done < upTo; done++) {
        const isLast = season === 3
        const tie = diary.tie(isLast ? recent(today, done) : on, {
          stem: arm,
          at: way[done]!,
          material: season < 2 ? 'padded-hose' : 'soft-jute',
          hitch: 'belt',
          stemMm: mm,
          supportMm: wireMm,
          slackMm: season < 2 ? 70 : 20,
        })
        if (isLast) continue
        diary.write(addDays(on, 2), 'tie.checked', { v: 1, tieId: tie })
        letOut(diary, tie, way[done]!, { from: year - 2 + season, year, mm })
      }
    }
    growLaterals(diary, arm, way, year)
  }
}

/**
 * Each July the crew lets every loop out to what the wood has become; the last two high ones they could not
 * reach.
 */
function letOut(
  diary: Diary,
  tieId: string,
  at: Point,
  was: { from: number; year: number; mm: number },
): void {
  for (let summer = was.from; summer <= was.year; summer++) {
    if (summer === was.year && at.yM > 2.7) continue
    const stemMm = was.mm + (summer - was.from + 1) * 9
    const loopLengthMm = Math.round(stemMm * 3.3 + 70)
    diary.write(`${summer}-07-20`, 'tie.loosened', { v: 1, tieId, loopLengthMm, stemDiameterMm: stemMm })
  }
}

/** The newest growth was tied in this week, so that its first look is due now. */
const recent = (today: string, n: number) => addDays(today, -1 - (n % 5))

function growLaterals(diary: Diary, arm: string, way: readonly Point[], year: number): void {
  if (polylineLengthM(way) < 1) return
  way.slice(1, 6).forEach((node, i) => {
    const side = i % 2 === 0 ? 1 : -1
    const tip = { xM: node.xM + side * 0.16, yM: node.yM + 0.12 }
    const lateral = diary.draw(`${year}-07-25`, {
      role: 'lateral',
      parent: arm,
      points: [node, tip],
      age: 0,
      mm: 4,
    })
    diary.cut(`${year}-08-20`, lateral, 0.14, 'summer cut to five leaves')
  })
}
