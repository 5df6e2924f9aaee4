import type { Pattern } from '@klados/core/frame'
import { z } from 'zod'
import { MAX_FREE_NODES, MAX_TIERS } from './limits.ts'
import { count, lengthM, partId, positiveLengthM } from './numbers.ts'

const degrees = (from: number, to: number) => z.number().finite().min(from).max(to)
const short = lengthM.max(20)
const potSchema = z.strictObject({ shape: z.enum(['round', 'square']), widthM: positiveLengthM.max(5), heightM: positiveLengthM.max(5) }) // prettier-ignore
const slot = z.enum(['main', 'light'])

/** A schema for every pattern; the compiler holds them to the shapes that core lays out. */
const patterns = {
  tiers: z.strictObject({ kind: z.literal('tiers'), heightsM: z.array(lengthM).min(1).max(MAX_TIERS), maxSupportSpacingM: positiveLengthM }),
  diamonds: z.strictObject({
    kind: z.literal('diamonds'),
    cell: z.discriminatedUnion('by', [
      z.strictObject({ by: z.literal('width'), widthM: positiveLengthM }),
      z.strictObject({ by: z.literal('count'), count: count(2000), halfAtEnd: z.boolean() }),
    ]),
    cellHeightM: positiveLengthM.nullable(),
    rows: count(3),
    closeCutEnd: z.boolean(),
  }),
  zigzag: z.strictObject({ kind: z.literal('zigzag'), strokeWidthM: positiveLengthM }),
  triangles: z.strictObject({ kind: z.literal('triangles'), baseM: positiveLengthM, rows: count(50) }),
  grid: z.strictObject({ kind: z.literal('grid'), verticals: count(500), horizontals: count(100) }),
  free: z.strictObject({
    kind: z.literal('free'),
    nodes: z.array(z.strictObject({ id: partId, xM: lengthM, yM: lengthM, isStart: z.boolean() })).min(1).max(MAX_FREE_NODES),
    runs: z.array(z.tuple([partId, partId])).max(3 * MAX_FREE_NODES),
  }),
  fan: z.strictObject({ kind: z.literal('fan'), ribs: count(99), spreadDeg: degrees(0, 180), wireStepM: positiveLengthM.nullable(), maxSupportSpacingM: positiveLengthM, ribReachM: positiveLengthM.nullable().default(null), ribStockId: partId }),
  row: z.strictObject({
    kind: z.literal('row'),
    maxPostSpacingM: positiveLengthM,
    postHeightM: positiveLengthM.max(20),
    postBuriedM: short,
    postStockId: partId,
    endStockId: partId,
    endBuriedM: short,
    endLeanDeg: degrees(0, 45),
    end: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('tied-back'), attachHeightM: positiveLengthM, angleDeg: degrees(20, 80), screwId: partId }),
      z.strictObject({ kind: z.literal('braced'), attachHeightM: positiveLengthM, angleDeg: degrees(20, 80), stockId: partId }),
      z.strictObject({ kind: z.literal('free') }),
    ]),
    armStockId: partId,
    levels: z.array(z.strictObject({ heightM: short, slot, form: z.enum(['single', 'pair', 'arms']), spreadM: lengthM.max(10), liftM: lengthM.max(10) })).min(1).max(30),
    waterHeightM: short.nullable(),
    plantSpacingM: positiveLengthM,
  }),
  overhead: z.strictObject({ kind: z.literal('overhead'), depthM: positiveLengthM.max(100), headroomM: positiveLengthM.max(20), maxBayM: positiveLengthM, postStockId: partId, postBuriedM: short, beamStockId: partId, overhangM: lengthM.max(3), maxRafterSpacingM: positiveLengthM, wireSpacingM: positiveLengthM, backWires: z.number().int().min(0).max(40) }),
  arch: z.strictObject({ kind: z.literal('arch'), spanM: positiveLengthM.max(30), heightM: positiveLengthM.max(20), depthM: positiveLengthM.max(100), hoops: z.number().int().min(1).max(200), rungStepM: positiveLengthM, buriedM: lengthM.max(3), hoopStockId: partId, rungStockId: partId, pot: potSchema.nullable().default(null) }),
  net: z.strictObject({ kind: z.literal('net'), depthM: positiveLengthM.max(500), heightM: positiveLengthM.max(20), maxSpacingAlongM: positiveLengthM, maxSpacingAcrossM: positiveLengthM, postStockId: partId, interior: z.enum(['screw', 'hole']), postBuriedM: short, flangeScrewId: partId, anchorScrewId: partId, anchorOutM: positiveLengthM.max(20), panelWidthM: positiveLengthM, dropM: short }),
  spiral: z.strictObject({ kind: z.literal('spiral'), stakes: z.number().int().min(2).max(24), circleRadiusM: positiveLengthM.max(5), heightM: positiveLengthM.max(10), buriedM: lengthM.max(3), startHeightM: lengthM.max(10), turns: z.number().finite().gt(0).max(500), wrapsPerContact: z.union([z.literal(0), z.literal(1)]), knotEvery: z.number().int().min(0).max(1000), knotAllowanceM: lengthM.max(2), winding: z.enum(['clockwise', 'anticlockwise']), top: z.enum(['ring', 'polygon']), stakeStockId: partId, topStockId: partId, pot: potSchema.nullable() }),
  obelisk: z.strictObject({ kind: z.literal('obelisk'), form: z.enum(['obelisk', 'cone', 'ladder']), legs: z.number().int().min(2).max(24), baseM: positiveLengthM.max(10), topM: lengthM.max(10), heightM: positiveLengthM.max(10), buriedM: lengthM.max(3), rungs: z.number().int().min(0).max(100), legStockId: partId, rungStockId: partId, pot: potSchema.nullable() }),
  pole: z.strictObject({ kind: z.literal('pole'), form: z.enum(['mesh', 'wrapped', 'modules']), heightM: positiveLengthM.max(10), buriedM: lengthM.max(2), diameterM: positiveLengthM.max(1), lapM: lengthM.max(1), moduleM: positiveLengthM.max(5), coreStockId: partId, pot: potSchema.nullable() }),
  stakes: z.strictObject({ kind: z.literal('stakes'), count: count(2000), spacingM: positiveLengthM.max(100), heightM: positiveLengthM.max(10), buriedM: lengthM.max(3), stakeStockId: partId, pot: potSchema.nullable() }),
  column: z.strictObject({ kind: z.literal('column'), tub: potSchema, columnStockId: partId, barStockId: partId, lowerM: positiveLengthM.max(10), upperM: positiveLengthM.max(10), reachM: positiveLengthM.max(5), gravelM: lengthM.max(5), plants: count(12) }),
  brush: z.strictObject({ kind: z.literal('brush'), rows: count(50), rowSpacingM: lengthM.max(10), twigStepM: positiveLengthM, heightM: positiveLengthM.max(5), buriedM: lengthM.max(2), twigStockId: partId }),
} satisfies { [K in Pattern['kind']]: z.ZodType<Extract<Pattern, { kind: K }>> } // prettier-ignore

export const patternSchema = z.discriminatedUnion('kind', [
  patterns.tiers,
  patterns.diamonds,
  patterns.zigzag,
  patterns.triangles,
  patterns.grid,
  patterns.free,
  patterns.fan,
  patterns.row,
  patterns.overhead,
  patterns.arch,
  patterns.net,
  patterns.spiral,
  patterns.obelisk,
  patterns.pole,
  patterns.stakes,
  patterns.column,
  patterns.brush,
])
