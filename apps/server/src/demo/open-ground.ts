import { planFrame } from '@klados/core/plan'
import { tensionToday } from '@klados/core/loads'
import { anchorId, markOut } from '@klados/core/frame'
import type { AnchorId } from '@klados/core/frame'
import type { EntryBodies } from '@klados/core/journal'
import { v7 as uuidv7 } from 'uuid'
import type { Diary } from './diary.ts'
import {
  base,
  fieldWire,
  foliageWire,
  level,
  rowLevels,
  northern,
  rope,
  stand,
  string,
  wallWire,
} from './stand.ts'
import type { Stand } from './stand.ts'

/** Vines of the block's first row that have been planted so far. */
const TRIAL_VINES = 24

/** What stands away from the walls: rows, the pergola, the trial block. */
export function openGround(): {
  readonly stands: readonly Stand[]
  readonly trial: Stand
  readonly tayberries: Stand
  readonly pergola: Stand
} {
  const along = (count: number, widthM: number) =>
    Array.from({ length: count }, (_, i) => Math.round(((i + 0.5) * widthM * 100) / count) / 100)
  const gooseberries = stand(
    {
      name: 'North wall, a bay of three',
      kind: 'wall',
      widthM: 2.2,
      usableHeightM: 1.5,
      firstForkM: 0.35,
      facingDeg: 2,
      surface: 'brick',
    },
    {
      name: 'Fan',
      notes: ['Canes on five wires; two kept the fans too open'],
      design: {
        ...wallWire,
        plantKindId: 'gooseberry',
        repeat: 3,
        pattern: {
          kind: 'fan',
          ribs: 9,
          spreadDeg: 150,
          wireStepM: 0.3,
          maxSupportSpacingM: 1.1,
          ribReachM: null,
          ribStockId: 'cane-18',
        },
      },
    },
    [{ name: 'Gooseberry', kindId: 'gooseberry', xM: 1.1 }],
  )
  const tayberries = stand(
    {
      name: 'Tayberry rows',
      kind: 'row',
      widthM: 18,
      usableHeightM: 2,
      facingDeg: 90,
      conditions: { ...northern, soil: 'clay' },
    },
    {
      name: 'Four wires, two rows',
      notes: ['Three wires', 'A fourth: the canes outgrew them', 'Tied back: the braces sank in the clay'],
      design: {
        ...base,
        ...fieldWire,
        tensionN: 250,
        plantKindId: 'tayberry',
        repeat: 2,
        light: foliageWire,
        pattern: {
          kind: 'row',
          maxPostSpacingM: 3,
          postHeightM: 1.8,
          postBuriedM: 1.1,
          postStockId: 'post-round-100',
          endStockId: 'post-round-140',
          endBuriedM: 1.1,
          endLeanDeg: 0,
          endSlabM: 0.3,
          end: {
            kind: 'tied-back',
            attachHeightM: 1.5,
            angleDeg: 40,
            screwId: 'screw-eye-1200',
            inLine: 1,
            strands: 2,
          },
          armStockId: 'batten-20x30',
          levels: rowLevels(
            level(0.6, 'carrying', 'single'),
            level(0.95, 'carrying', 'single'),
            level(1.3, 'carrying', 'single'),
            level(1.65, 'carrying', 'single'),
          ),
          waterHeightM: 0.3,
          plantSpacingM: 2.4,
          roomBeyondM: null,
        },
      },
    },
    along(7, 18).map((xM, i) => ({ name: `Tayberry ${i + 1}`, kindId: 'tayberry', xM })),
  )
  const pergola = stand(
    {
      name: 'Kiwi pergola',
      kind: 'bed',
      widthM: 7.2,
      usableHeightM: 2.6,
      conditions: { ...northern, snowPa: 600 },
    },
    {
      name: 'Pergola',
      notes: ['Oak was dearer than the path was worth'],
      design: {
        ...base,
        ...rope,
        handlingLengthM: 25,
        endWrapM: 0.2,
        plantKindId: 'hardy-kiwi',
        pattern: {
          kind: 'overhead',
          depthM: 2.4,
          headroomM: 2.2,
          maxBayM: 2.4,
          postStockId: 'post-square-100',
          postBuriedM: 0.7,
          beamStockId: 'beam-75x200',
          overhangM: 0.3,
          maxRafterSpacingM: 0.9,
          wireSpacingM: 0.4,
          backWires: 0,
        },
      },
    },
    [
      { name: 'Kiwi, female', kindId: 'hardy-kiwi', xM: 0.2 },
      { name: 'Kiwi, male', kindId: 'hardy-kiwi', xM: 7 },
    ],
  )
  const trial = stand(
    {
      name: 'Trial block',
      kind: 'row',
      widthM: 42,
      usableHeightM: 2.1,
      facingDeg: 270,
      riseM: 1.8,
      avoid: [{ id: uuidv7(), kind: 'band', axis: 'vertical', fromM: 17.85, toM: 18.1, what: 'land drain' }],
    },
    {
      name: 'Six rows, arms',
      notes: ['Pairs on the posts', 'Arms above: fewer ties wanted'],
      design: {
        ...base,
        ...fieldWire,
        tensionN: 350,
        plantKindId: 'wine-grape',
        repeat: 6,
        light: foliageWire,
        pattern: {
          kind: 'row',
          maxPostSpacingM: 3.6,
          postHeightM: 1.9,
          postBuriedM: 1,
          postStockId: 'post-round-100',
          endStockId: 'post-round-140',
          endBuriedM: 0.9,
          endLeanDeg: 12,
          endSlabM: 0.3,
          end: {
            kind: 'tied-back',
            attachHeightM: 1.75,
            angleDeg: 40,
            screwId: 'screw-eye-1200',
            inLine: 1,
            strands: 2,
          },
          armStockId: 'tube-steel-34',
          levels: rowLevels(
            level(0.8, 'carrying', 'single'),
            level(1.15, 'foliage', 'arms', 0.3),
            level(1.5, 'foliage', 'arms', 0.5),
            level(1.85, 'foliage', 'arms', 0.7),
          ),
          waterHeightM: 0.45,
          plantSpacingM: 1.2,
          roomBeyondM: null,
        },
      },
    },
    Array.from({ length: TRIAL_VINES }, (_, i) => ({
      name: `White vine ${i + 1}`,
      kindId: 'wine-grape',
      xM: Math.round((0.6 + 1.2 * i) * 10) / 10,
    })),
  )
  const peas = stand(
    { name: 'Sweet pea strip', kind: 'bed', widthM: 4.2, usableHeightM: 1.6 },
    {
      name: 'Brush',
      notes: ['Hazel from the hedge'],
      design: {
        ...base,
        ...string,
        pattern: {
          kind: 'brush',
          rows: 2,
          rowSpacingM: 0.3,
          twigStepM: 0.2,
          heightM: 1.2,
          buriedM: 0.2,
          twigStockId: 'twig-hazel-8',
        },
      },
    },
    [{ name: 'Sweet peas', kindId: 'sweet-pea', xM: 2.1 }],
  )
  return { stands: [gooseberries, tayberries, pergola, trial, peas], trial, tayberries, pergola }
}

/** A ground screw turned in to its full depth, but for what `rest` says. */
function drive(
  here: Diary,
  frameId: string,
  on: string,
  anchor: AnchorId,
  rest: Partial<EntryBodies['anchor.driven']>,
): void {
  here.write(on, 'anchor.driven', {
    v: 1,
    frameId,
    anchorId: anchor,
    depthM: 1.15,
    angleDeg: 45,
    torqueNm: null,
    reworks: 0,
    isRefused: false,
    movedM: 0,
    pullTestN: null,
    ...rest,
  })
}

/** The tayberries’ ends were tied back to screws when the braces had sunk. */
export function tieBackTayberries(diary: Diary, { place, frame }: Stand, year: number): void {
  const here = diary.about(place.id, null)
  drive(here, frame.id, `${year}-02-20`, anchorId('anchor-left'), { torqueNm: 310 })
  drive(here, frame.id, `${year}-02-20`, anchorId('anchor-right'), { torqueNm: 290 })
}

/**
 * How the trial block was built: a screw that lifted and was moved, wires strained in April and found looser
 * in autumn.
 */
export function buildTrial(diary: Diary, { place, frame }: Stand, year: number): void {
  const plan = planFrame(place.body, frame.body.design)
  const here = diary.about(place.id, null)
  drive(here, frame.id, `${year - 7}-03-14`, anchorId('anchor-left'), { torqueNm: 420 })
  drive(here, frame.id, `${year - 7}-03-14`, anchorId('anchor-right'), {
    depthM: 0.7,
    isRefused: true,
    reworks: 2,
  })
  for (const row of markOut(plan.frame!, place.body).rows)
    if (row.what === 'post')
      here.write(`${year - 7}-03-20`, 'post.placed', {
        v: 1,
        frameId: frame.id,
        postId: row.partId,
        xM: row.alongM,
      })
  here.note(
    `${year - 1}-01-19`,
    'Gale. The lower end anchor of the block lifted a hand; it had stopped short on a stone.',
  )
  drive(here, frame.id, `${year - 1}-02-27`, anchorId('anchor-right'), {
    depthM: 1.1,
    reworks: 0,
    movedM: 0.7,
    torqueNm: 380,
  })
  for (const line of plan.lines.slice(0, 4)) {
    const log = (
      on: string,
      kind: 'wire.tensioned' | 'wire.measured',
      tensionN: number,
      temperatureC: number,
    ) =>
      here.write(on, kind, {
        v: 1,
        frameId: frame.id,
        line: line.id,
        tensionN: Math.round(tensionN),
        temperatureC,
      })
    log(`${year - 1}-04-02`, 'wire.tensioned', tensionToday(line, 9), 9)
    log(`${year - 1}-06-20`, 'wire.measured', tensionToday(line, 18, 7e-5), 18)
    log(`${year - 1}-10-11`, 'wire.measured', tensionToday(line, 11, 1.3e-4), 11)
  }
}
