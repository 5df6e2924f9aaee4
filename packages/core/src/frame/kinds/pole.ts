import { CoreError } from '../../errors/index.ts'
import { at3 } from '../../geometry/index.ts'
import { choice, length, lengthOrNone, potOrNone, stock } from '../field.ts'
import { LEAST_M, NO_WIRES, WALL_WIRE, frameKind } from '../kind.ts'
import type { Laying, PatternOf } from '../kind.ts'
import { LENGTH_TOLERANCE_M, LayoutBuilder, fewestParts } from '../layout.ts'
import type { Layout } from '../layout.ts'
import { HEAD_SPACE_M, potSoilLitres, standIn } from '../pot.ts'
import { potAt, tallAt } from '../start.ts'

const MOST_MODULES = 200
/** String that holds a wrapping on goes round once every so far up, and is knotted at both ends. */
const WRAP_PITCH_M = 0.04
const WRAP_END_M = 0.2
/** Where mesh laps it is fastened a hand apart, at both ends too. */
const SEAM_STEP_M = 0.1
/** Canes and pipes joined end on: they lie side by side so far, tied near both ends of it. */
const JOIN_LAP_M = 0.2
const TIES_PER_JOIN = 2
/** Stem of an aroid in its years on a pole, and what a knot takes. */
const STEM_M = 0.015
const TIE_KNOT_M = 0.2

const fields = {
  form: choice('mesh', 'wrapped', 'modules'),
  heightM: length(LEAST_M, 10),
  buriedM: length(0, 2, 'short'),
  diameterM: length(LEAST_M, 1, 'fine'),
  lapM: length(0, 1, 'fine'),
  moduleM: length(LEAST_M, 5, 'short'),
  coreStockId: stock('core', 'stake'),
  /** Width of the plant's roots as they come out of their pot. */
  rootsM: lengthOrNone(0.02, 2, 0.12, 'short'),
  pot: potOrNone,
} as const
export type PolePattern = PatternOf<'pole', typeof fields>

/**
 * A pole that aerial roots grow into, in the middle of its pot: a cylinder of mesh, a wrapped core, or open
 * modules one on another; what to cut for it, what fills it, what it leaves of the soil.
 */
export const pole = frameKind({
  kind: 'pole',
  fields,
  traits: {
    stands: 'on-legs',
    isOverPeople: 'never',
    fills: 'one-upright',
    posts: 'tamped',
    followsSlope: false,
    isCover: false,
    touchesFlesh: false,
  },
  places: { bench: 4, tub: 4 },
  usualPlant: 'satin-pothos',
  startWith: WALL_WIRE,
  start: (place) => ({
    kind: 'pole',
    form: 'mesh',
    heightM: tallAt(place, 0.9),
    buriedM: 0.2,
    diameterM: 0.08,
    lapM: 0.02,
    moduleM: 0.3,
    coreStockId: 'pipe-plastic-32',
    rootsM: null,
    pot: potAt(place) ?? {
      shape: 'round',
      widthM: 0.25,
      heightM: 0.25,
      ballastKg: 0,
      drainageM: 0,
      hasCharcoal: false,
      isThere: false,
    },
  }),
  wires: NO_WIRES,
  checks: ({ pot }) => (pot ? ['leg-bending', 'tub-tips'] : ['leg-bending']),
  sheet: ['members'],
  later: ['buriedM', 'lapM', 'coreStockId', 'rootsM'],
  hidden: ({ form }) => (form === 'modules' ? ['lapM'] : ['moduleM']),
  lay: layPole,
})

function layPole({ site, options }: Laying, pattern: PolePattern): Layout {
  const { form, heightM, buriedM, diameterM, moduleM, pot } = pattern
  const midM = site.widthM / 2
  const builder = new LayoutBuilder()
  const coreM = options.stockWidthM(pattern.coreStockId)
  const wholeM2 = (Math.PI / 4) * diameterM ** 2
  const coreM2 = (Math.PI / 4) * coreM ** 2
  const takesLitres = (form === 'mesh' ? wholeM2 : coreM2) * buriedM * 1000
  const soilM = standIn(builder, pot, midM, { buriedM, acrossM: diameterM, takesLitres })
  if (form === 'wrapped' && coreM >= diameterM) {
    throw new CoreError('core/out-of-range', `The pole must be thicker than its core of ${coreM} m`, {
      field: 'diameterM',
      value: diameterM,
      min: coreM,
      max: 1,
    })
  }
  const [left, right] = [midM - diameterM / 2, midM + diameterM / 2]
  const box = (fromM: number, toM: number) => [
    at3(left, soilM + fromM),
    at3(right, soilM + fromM),
    at3(right, soilM + toM),
    at3(left, soilM + toM),
  ]
  const coreLengthM = heightM + buriedM
  const pieces = coresJoined(coreLengthM, options.stockLongestM(pattern.coreStockId))
  builder.member({
    id: 'core',
    role: 'core',
    path: [at3(midM, soilM - buriedM), at3(midM, soilM + heightM)],
    stockId: pattern.coreStockId,
    buriedM,
    foot: at3(midM, soilM),
    label: 'pole',
    cutLengthM: coreLengthM / pieces + ((pieces - 1) / pieces) * JOIN_LAP_M,
    pieces,
  })
  builder.figure('core-length', 'm', coreLengthM)
  if (pieces > 1) {
    builder.figure('core-pieces', 'count', pieces)
    builder.figure('core-lap', 'm', JOIN_LAP_M)
    builder.figure('joint-ties', 'count', (pieces - 1) * TIES_PER_JOIN)
  }
  if (form === 'modules') layModules()
  else laySleeve()
  if (pot) {
    builder.figure('soil-left', 'litres', Math.max(0, potSoilLitres(pot) - takesLitres))
    builder.figure('head-space', 'm', HEAD_SPACE_M)
  }
  if (form === 'wrapped') {
    const aroundM = Math.hypot(Math.PI * diameterM, WRAP_PITCH_M)
    builder.figure('wrap-string', 'm', (heightM / WRAP_PITCH_M) * aroundM + 2 * WRAP_END_M)
    builder.figure('wrap-turns', 'count', Math.ceil(heightM / WRAP_PITCH_M))
  }
  builder.figure('tie-length', 'm', Math.PI * (diameterM + STEM_M) + TIE_KNOT_M)
  builder.plant('plant', at3(right, soilM))
  return builder.build()

  function layModules(): void {
    const count = fewestParts(heightM, moduleM)
    if (count > MOST_MODULES)
      throw new CoreError('frame/too-many-nodes', `${count} modules are too many`, { modules: count })
    for (let i = 0; i < count; i++)
      builder.unit({ id: `m${i}`, good: 'pole-module', outline: box(i * moduleM, (i + 1) * moduleM) })
    builder.figure('modules', 'count', count)
    fill(wholeM2 * count * moduleM * 1000)
  }

  function laySleeve(): void {
    const widthM = Math.PI * diameterM + pattern.lapM
    const fromM = form === 'mesh' ? -buriedM : 0
    const lengthM = heightM - fromM
    builder.sheet({
      id: 'sleeve',
      good: 'mesh',
      outline: box(fromM, heightM),
      areaM2: widthM * lengthM,
      cut: { widthM, lengthM },
    })
    builder.figure('mesh-width', 'm', widthM)
    builder.figure('mesh-height', 'm', lengthM)
    builder.figure('seam-ties', 'count', fewestParts(lengthM, SEAM_STEP_M) + 1)
    fill((form === 'mesh' ? wholeM2 : wholeM2 - coreM2) * lengthM * 1000)
  }

  function fill(litres: number): void {
    builder.fill({ id: 'medium', good: 'fibre-medium', litres })
    builder.figure('medium', 'litres', litres)
  }
}

/** The fewest alike, each lapping the next, that are none longer than `longestM`; one where even many would not do. */
function coresJoined(lengthM: number, longestM: number): number {
  if (longestM <= JOIN_LAP_M || lengthM <= longestM + LENGTH_TOLERANCE_M) return 1
  return fewestParts(lengthM - JOIN_LAP_M, longestM - JOIN_LAP_M)
}
