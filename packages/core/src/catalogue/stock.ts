/**
 * Cross-section of a post, pole, cane or bar, millimetres; a rectangle stands with its depth in the plane of
 * bending.
 */
export type Section =
  | { readonly shape: 'round'; readonly diameterMm: number }
  | { readonly shape: 'tube'; readonly diameterMm: number; readonly wallMm: number }
  | { readonly shape: 'rectangle'; readonly widthMm: number; readonly depthMm: number }

export type StockMaterial =
  | 'softwood'
  | 'hardwood'
  | 'bamboo'
  | 'steel'
  | 'aluminium'
  | 'glass-fibre'
  | 'plastic'

/** Anything long that a frame is built of and that is sold in lengths. */
export interface Stock {
  readonly id: string
  readonly name: string | null
  readonly use: 'post' | 'beam' | 'stake' | 'bar' | 'core'
  readonly material: StockMaterial
  readonly section: Section
  readonly lifeYears: number
  readonly lengths: readonly { readonly lengthM: number; readonly price: number }[]
}

/**
 * Allowable bending stress (safety taken off), modulus and density. Softwood and hardwood: common structural
 * grades, wet (EN 338 C16/D30 over 2.4), and across their grain where something presses on them; steel and aluminium: mild grades over 1.5; bamboo: ISO 22156 range,
 * low end; the rest: data of ordinary goods.
 */
export const stockMaterials: Readonly<
  Record<StockMaterial, { bendingPa: number; crushingPa: number; modulusPa: number; densityKgPerM3: number }>
> = {
  softwood: { bendingPa: 6.5e6, crushingPa: 0.9e6, modulusPa: 6.5e9, densityKgPerM3: 480 },
  hardwood: { bendingPa: 11e6, crushingPa: 2.2e6, modulusPa: 9e9, densityKgPerM3: 700 },
  bamboo: { bendingPa: 14e6, crushingPa: 1e6, modulusPa: 12e9, densityKgPerM3: 600 },
  steel: { bendingPa: 150e6, crushingPa: 150e6, modulusPa: 200e9, densityKgPerM3: 7850 },
  aluminium: { bendingPa: 80e6, crushingPa: 80e6, modulusPa: 69e9, densityKgPerM3: 2700 },
  'glass-fibre': { bendingPa: 120e6, crushingPa: 20e6, modulusPa: 25e9, densityKgPerM3: 1900 },
  plastic: { bendingPa: 12e6, crushingPa: 5e6, modulusPa: 2.5e9, densityKgPerM3: 1400 },
}

const perMetre = (price: number, ...lengths: number[]) =>
  lengths.map((lengthM) => ({ lengthM, price: Math.round(price * lengthM * 100) / 100 }))
const round = (diameterMm: number): Section => ({ shape: 'round', diameterMm })
const tube = (diameterMm: number, wallMm: number): Section => ({ shape: 'tube', diameterMm, wallMm })
const stock = (
  id: string,
  use: Stock['use'],
  material: StockMaterial,
  section: Section,
  lifeYears: number,
  lengths: Stock['lengths'],
): Stock => ({ id, name: null, use, material, section, lifeYears, lengths })

export const standardStock: readonly Stock[] = [
  stock('post-round-80', 'post', 'softwood', round(80), 15, perMetre(3.2, 1.8, 2.1, 2.4, 2.7)),
  stock('post-round-100', 'post', 'softwood', round(100), 15, perMetre(4.6, 1.8, 2.1, 2.4, 2.7, 3)),
  stock('post-round-140', 'post', 'softwood', round(140), 15, perMetre(8.5, 2.4, 2.7, 3, 3.6)),
  stock(
    'post-square-100',
    'post',
    'softwood',
    { shape: 'rectangle', widthMm: 100, depthMm: 100 },
    15,
    perMetre(6.8, 2.4, 3, 3.6),
  ),
  stock(
    'post-oak-100',
    'post',
    'hardwood',
    { shape: 'rectangle', widthMm: 100, depthMm: 100 },
    30,
    perMetre(16, 2.4, 3),
  ),
  stock('post-steel-48', 'post', 'steel', tube(48.3, 3.2), 30, perMetre(9, 2, 2.5, 3, 6)),
  stock(
    'beam-50x150',
    'beam',
    'softwood',
    { shape: 'rectangle', widthMm: 50, depthMm: 150 },
    15,
    perMetre(6.2, 3, 3.6, 4.2, 4.8),
  ),
  stock(
    'beam-75x200',
    'beam',
    'softwood',
    { shape: 'rectangle', widthMm: 75, depthMm: 200 },
    15,
    perMetre(13.5, 3, 3.6, 4.2, 4.8, 6),
  ),
  stock('cane-12', 'stake', 'bamboo', round(12), 3, perMetre(0.35, 1.2, 1.8)),
  stock('cane-18', 'stake', 'bamboo', round(18), 4, perMetre(0.6, 1.8, 2.4)),
  stock('cane-24', 'stake', 'bamboo', round(24), 5, perMetre(0.9, 2.4, 3)),
  stock(
    'stake-hardwood-25',
    'stake',
    'hardwood',
    { shape: 'rectangle', widthMm: 25, depthMm: 25 },
    8,
    perMetre(1.4, 1.2, 1.5, 1.8, 2.4),
  ),
  stock('stake-fibre-10', 'stake', 'glass-fibre', round(10), 25, perMetre(1.9, 1.2, 1.5, 1.8)),
  stock('pole-hazel-25', 'stake', 'hardwood', round(25), 3, perMetre(0.7, 1.8, 2.4)),
  stock('twig-hazel-8', 'stake', 'hardwood', round(8), 1, perMetre(0.2, 0.6, 0.9, 1.2, 1.5)),
  stock('rod-steel-6', 'bar', 'steel', round(6), 20, perMetre(1.1, 2, 3, 6)),
  stock('rod-steel-8', 'bar', 'steel', round(8), 20, perMetre(1.7, 2, 3, 6)),
  stock('rod-steel-12', 'bar', 'steel', round(12), 25, perMetre(3.4, 2, 3, 6)),
  stock('tube-steel-21', 'bar', 'steel', tube(21.3, 2.6), 25, perMetre(4.6, 3, 6)),
  stock('tube-steel-34', 'bar', 'steel', tube(33.7, 2.6), 25, perMetre(6.4, 3, 6)),
  stock(
    'batten-20x30',
    'bar',
    'softwood',
    { shape: 'rectangle', widthMm: 20, depthMm: 30 },
    6,
    perMetre(0.8, 1.8, 2.4, 3),
  ),
  stock('pipe-plastic-50', 'core', 'plastic', tube(50, 1.8), 20, perMetre(2.6, 1, 2, 3)),
  stock('pipe-plastic-32', 'core', 'plastic', tube(32, 1.8), 20, perMetre(1.8, 1, 2, 3)),
]

/** Width of the section as it is seen from the front, metres. */
export function stockWidthM(of: Stock): number {
  return (of.section.shape === 'rectangle' ? of.section.widthMm : of.section.diameterMm) / 1000
}

/** Elastic section modulus, m³, about the weaker axis that bending can take. */
export function sectionModulusM3(section: Section): number {
  switch (section.shape) {
    case 'round':
      return (Math.PI * (section.diameterMm / 1000) ** 3) / 32
    case 'tube': {
      const D = section.diameterMm / 1000
      const d = D - (2 * section.wallMm) / 1000
      return (Math.PI * (D ** 4 - d ** 4)) / (32 * D)
    }
    case 'rectangle':
      return ((section.widthMm / 1000) * (section.depthMm / 1000) ** 2) / 6
  }
}

/** Second moment of area, m⁴: the section modulus times half the depth it is bent over. */
export function secondMomentM4(section: Section): number {
  const depthMm = section.shape === 'rectangle' ? section.depthMm : section.diameterMm
  return (sectionModulusM3(section) * depthMm) / 2000
}

/** The same section bent over its narrower side: a beam that is pulled sideways, a post that buckles. */
export function weakAxis(section: Section): Section {
  if (section.shape !== 'rectangle') return section
  const { widthMm, depthMm } = section
  return { ...section, widthMm: Math.max(widthMm, depthMm), depthMm: Math.min(widthMm, depthMm) }
}

/**
 * Bending moment that the section may carry for years, newton metres: its modulus times the allowable stress.
 */
export function bendingMomentNm(of: Stock): number {
  return sectionModulusM3(of.section) * stockMaterials[of.material].bendingPa
}

export function stockMassKgPerM(of: Stock): number {
  const { section } = of
  const areaMm2 =
    section.shape === 'rectangle'
      ? section.widthMm * section.depthMm
      : (Math.PI / 4) *
        (section.diameterMm ** 2 -
          (section.shape === 'tube' ? (section.diameterMm - 2 * section.wallMm) ** 2 : 0))
  return areaMm2 * 1e-6 * stockMaterials[of.material].densityKgPerM3
}
