export {
  MOST_STRAINERS,
  STRAINER_TRAVEL_M,
  findFixing,
  findScrew,
  findStock,
  findWire,
  holdsBy,
  isMasonry,
  priceOf,
  goodOf,
  sharedTools,
  standardCatalogue,
  standardTies,
  surfaces,
} from './catalogue.ts'
export type { Catalogue, Fixing, GoodId, ScrewOnOffer, Surface } from './catalogue.ts'
export {
  bendingMomentNm,
  secondMomentM4,
  sectionModulusM3,
  standardStock,
  stockMassKgPerM,
  stockMaterials,
  stockWidthM,
  weakAxis,
} from './stock.ts'
export type { Section, Stock, StockMaterial } from './stock.ts'
export {
  axialStiffnessN,
  isString,
  roundWire,
  standardWires,
  wireMaterials,
  wireWeightNPerM,
} from './wire.ts'
export type { RollOnOffer, Wire, WireMaterial } from './wire.ts'
export { ENDING_SHARE, endingOf, safeLoads, wireEndings } from './wire-ends.ts'
export type { SafeLoads, WireEnding } from './wire-ends.ts'
