import { cutFromRolls } from '@klados/core/cutting'
import { planFrame } from '@klados/core/plan'
import { usualConditions } from '@klados/core/design'
import type { FrameDesign, PlannedSite } from '@klados/core/design'
import { replayWood } from '@klados/core/journal'
import type { JournalEntry } from '@klados/core/journal'
import { seededRandom } from '../src/demo/diary.ts'
import { measure, ms, report } from './measure.ts'

const RUNS = 40

/** 500 cells: three rows of 166 and a few over, with spots to avoid, strung, cut, marked out and billed. */
export async function benchFrame(): Promise<void> {
  const random = seededRandom(1)
  const avoid = Array.from({ length: 30 }, (_, i) => ({
    id: String(i),
    kind: 'point' as const,
    xM: random() * 134,
    yM: random() * 2.4,
    radiusM: 0.03,
    what: 'knot',
  }))
  const wall: PlannedSite = {
    widthM: 133.6,
    usableHeightM: 2.4,
    firstForkM: 0.3,
    viewingEnd: 'left',
    avoid,
    surface: 'brick',
    setting: 'open',
    conditions: usualConditions,
  }
  const design: FrameDesign = {
    pattern: {
      kind: 'diamonds',
      cell: { by: 'width', widthM: 0.8 },
      cellHeightM: null,
      rows: 3,
      closeCutEnd: false,
    },
    moveToleranceM: 0.04,
    dragged: {},
    wireId: 'stainless-2',
    tensionN: 150,
    endWrapM: 0.15,
    wireEnding: null,
    strainers: 1,
    handlingLengthM: 25,
    endsAt: 'any',
    rolls: [{ lengthM: 100, price: 48 }],
    fixingId: 'eye-100',
    snap: 'none',
    ids: {},
    light: null,
    setC: 12,
    plantKindId: null,
    repeat: 1,
    standOffM: null,
    plantOffM: null,
    feetBallastKg: 0,
    unknown: [],
    boughtPrice: null,
  }
  const plan = planFrame(wall, design)
  const { median, p95 } = await measure(RUNS, () => planFrame(wall, design))
  const size = `${plan.frame!.cells!.whole} cells, ${plan.frame!.nodes.length} nodes, ${plan.wires[0]!.stringing!.pieces.length} pieces`
  report(
    `frame recomputed whole (${size})`,
    `${ms(median)}, p95 ${ms(p95)}`,
    'under 16 ms',
    median < 16,
    median,
  )
}

export async function benchCutting(): Promise<void> {
  const kinds = [
    ['0.5 to 12 m from 50 m', 0.5, 12, 50],
    ['2 to 9 m from 25 m', 2, 9, 25],
    ['5 to 24 m from 50 m', 5, 24, 50],
  ] as const
  for (const [name, low, high, roll] of kinds) {
    const random = seededRandom(7)
    const cases = Array.from({ length: 20 }, () =>
      Array.from({ length: 200 }, () => ({
        lengthM: Math.round((low + random() * (high - low)) * 1000) / 1000,
        quantity: 1,
      })),
    )
    let proven = 0
    for (const pieces of cases) if (cutFromRolls(pieces, [{ lengthM: roll }]).isProvenLeast) proven++
    let next = 0
    const { median, p95 } = await measure(cases.length, () =>
      cutFromRolls(cases[next++ % cases.length]!, [{ lengthM: roll }]),
    )
    const value = `${ms(median)}, p95 ${ms(p95)}`
    report(
      `200 different pieces, ${name}, ${proven} of ${cases.length} proven`,
      value,
      'under 100 ms',
      median < 100,
      median,
    )
  }
}

export async function benchReplay(): Promise<void> {
  // Through JSON, as entries come over the wire: strings built here would still be ropes.
  const entries = JSON.parse(JSON.stringify(manyEntries(20_000))) as JournalEntry[]
  const { median, p95 } = await measure(RUNS, () => replayWood(entries))
  report('replay of 20,000 entries', `${ms(median)}, p95 ${ms(p95)}`, 'under 100 ms', median < 100, median)
}

/** Stems, ties, checks and cuts of many plants, in the mix of a real journal. */
function manyEntries(count: number): JournalEntry[] {
  const random = seededRandom(3)
  const pad = (n: number) => String(n).padStart(12, '0')
  const entries: JournalEntry[] = []
  const head = (n: number) => ({
    id: `00000000-0000-7000-8000-${pad(n)}`,
    placeId: 'place',
    plantId: `plant-${n % 50}`,
    at: `20${20 + Math.floor((n / count) * 6)}-0${1 + (n % 9)}-1${n % 10}`,
    recordedAt: '2026-01-01T00:00:00.000Z',
    supersedes: null,
  })
  for (let n = 0; entries.length < count; n++) {
    const stemId = `stem-${n}`
    const x = random() * 50
    const points = [0, 0.5, 1, 1.5].map((d) => ({ xM: x + d, yM: 0.5 + random() }))
    const push = (kind: string, body: object) =>
      entries.push({ ...head(entries.length), kind, body } as JournalEntry)
    push('stem.drawn', {
      v: 1,
      stemId,
      part: 'arm',
      parentStemId: null,
      points,
      ageSeasons: 1,
      diameterMm: 9,
    })
    for (let i = 0; i < 3; i++) {
      const tieId = `tie-${n}-${i}`
      push('tie.made', {
        v: 1,
        tieId,
        stemId,
        at: points[i]!,
        materialId: 'soft-jute',
        hitch: 'belt',
        supportDiameterMm: 2,
        stemDiameterMm: 9,
        loopLengthMm: 60,
      })
      push('tie.checked', { v: 1, tieId })
    }
    push('stem.measured', { v: 1, stemId, diameterMm: 12 })
    push('stem.shortened', { v: 1, stemId, toLengthM: 1.2, reason: 'too long' })
  }
  return entries
}
