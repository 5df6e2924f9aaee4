import { standardTies, surfaces } from '@klados/core/catalogue'
import type { Catalogue } from '@klados/core/catalogue'
import { z } from 'zod'
import { documentSchema, saveOf } from './document.ts'
import { forceN, lengthM, money, partId, positiveLengthM } from './numbers.ts'

const positive = (most: number) => z.number().finite().gt(0).max(most)
const name = z.string().trim().max(80).nullable()
const share = z.number().finite().min(0).max(1)
const offer = z.strictObject({ lengthM: positiveLengthM.max(5000), price: money })

const wire = z.strictObject({
  id: partId,
  name,
  material: z.enum([
    'high-tensile',
    'soft-galvanised',
    'stainless',
    'stainless-rope',
    'aluminium',
    'coated',
    'polyamide',
    'jute',
    'coir',
  ]),
  diameterMm: positive(50),
  metalAreaMm2: positive(2000),
  massKgPerM: positive(20),
  modulusGPa: positive(1000),
  expansionPerC: z.number().finite().min(0).max(1e-3),
  breakingLoadN: forceN,
  workingShare: share.gt(0),
  firstYearStrain: share.max(0.1),
  lifeYears: positive(200),
  mayTouchBark: z.boolean(),
  usualTensionN: forceN,
  rolls: z.array(offer).min(1).max(6),
})
const fixing = z.strictObject({
  id: partId,
  name,
  threadMm: positive(50),
  lengthMm: positive(1000),
  standOffM: lengthM.max(1),
  woodPilotMm: positive(50),
  plugMm: positive(50),
  plugRatedN: forceN,
  plugFullSpacingM: positiveLengthM.max(5),
  plugFullEdgeM: positiveLengthM.max(5),
  price: money,
  stick: z
    .strictObject({
      surfaces: z.array(z.enum(surfaces)).max(surfaces.length),
      ratedN: forceN,
      outdoorShare: share,
      lifeYears: positive(100),
    })
    .nullable()
    .optional(),
})
const section = z.discriminatedUnion('shape', [
  z.strictObject({ shape: z.literal('round'), diameterMm: positive(1000) }),
  z.strictObject({ shape: z.literal('tube'), diameterMm: positive(1000), wallMm: positive(500) }),
  z.strictObject({ shape: z.literal('rectangle'), widthMm: positive(1000), depthMm: positive(1000) }),
])
const stock = z.strictObject({
  id: partId,
  name,
  use: z.enum(['post', 'beam', 'stake', 'bar', 'core']),
  material: z.enum(['softwood', 'hardwood', 'bamboo', 'steel', 'aluminium', 'glass-fibre', 'plastic']),
  section,
  lifeYears: positive(200),
  lengths: z.array(offer).min(1).max(8),
})
const screw = z.strictObject({
  id: partId,
  name,
  head: z.enum(['eye', 'flange']),
  helixDiameterM: positiveLengthM.max(2),
  lengthM: positiveLengthM.max(20),
  torqueFactorPerM: positive(200),
  price: money,
})
const good = z.strictObject({
  id: z.enum([
    'plug',
    'strainer',
    'staple',
    'lashing',
    'clip',
    'bolt',
    'post-base',
    'net',
    'mesh',
    'padding',
    'fibre-medium',
    'gravel',
    'concrete',
    'soil',
    'pole-module',
    'tub',
    'pot',
    'post-clip',
    'water-pipe',
    'riser',
    'water-filter',
    'pressure-regulator',
    'valve',
    'drive-adapter',
    'charcoal',
    'masonry-bit',
    'wire-clip',
    'sleeve',
  ]),
  unit: z.enum(['piece', 'square-metre', 'litre', 'metre']),
  price: money,
})
const tie = z.strictObject({ id: partId, price: money })
const minutes = z.number().finite().min(0).max(1000)
const rates = z.strictObject({
  markNode: minutes,
  drillMasonry: minutes,
  drillWood: minutes,
  setPost: minutes,
  driveScrew: minutes,
  cutMember: minutes,
  makeJoint: minutes,
  pushStake: minutes,
  stringMetre: minutes,
  endPiece: minutes,
  coverM2: minutes,
  fillTenLitres: minutes,
})

export const catalogueSchema = z.strictObject({
  wires: z.array(wire).min(1).max(100),
  fixings: z.array(fixing).min(1).max(60),
  stock: z.array(stock).min(1).max(150),
  screws: z.array(screw).min(1).max(40),
  goods: z.array(good).max(40),
  // Catalogues from before ties had prices have none.
  ties: z
    .array(tie)
    .max(40)
    .default([...standardTies]),
  rates,
}) satisfies z.ZodType<Catalogue>

/** What lies in the shed: whole rolls, lengths and offcuts by length, everything else by number. */
const onHand = z.strictObject({
  what: z.enum(['roll', 'stock', 'fixing', 'screw', 'good']),
  refId: partId,
  lengthM: positiveLengthM.max(5000).nullable(),
  quantity: z.number().finite().min(0).max(1e6),
})

/** One garden's stores: its own catalogue, where it has changed the one that ships, and what is on hand. */
export const storesBodySchema = z.strictObject({
  catalogue: catalogueSchema.nullable(),
  onHand: z.array(onHand).max(500),
})
export const storesSchema = documentSchema(storesBodySchema)
export const saveStoresSchema = saveOf(storesBodySchema)
export type OnHand = z.infer<typeof onHand>
/** The catalogue as core takes it: lists that nobody changes in place. */
export type StoresBody = Omit<z.infer<typeof storesBodySchema>, 'catalogue'> & {
  readonly catalogue: Catalogue | null
}
export type StoresDocument = Omit<z.infer<typeof storesSchema>, 'body'> & { readonly body: StoresBody }
