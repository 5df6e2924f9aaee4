import type { Catalogue } from '@klados/core/catalogue'
import { findFixing, findScrew, findStock, findWire } from '@klados/core/catalogue'
import type { LeverStep, LeverValue, Remedy } from '@klados/core/remedies'
import type { TFunction } from '../i18n/texts.ts'
import { listPlain } from '../i18n/language.ts'
import { formatMoney } from '../ui/money.ts'
import type { Units } from '../ui/units.tsx'
import type { Names } from './names.ts'

interface Wording {
  readonly t: TFunction
  readonly units: Units
  readonly names: Names
  readonly catalogue: Catalogue
}

/** One change in words: what it becomes, and what it was. */
export function stepWords(of: Wording, { lever, from, to }: LeverStep): string {
  return of.t(`lever.${lever}`, { from: valueWords(of, from), to: valueWords(of, to) })
}

function valueWords({ t, units, names, catalogue }: Wording, value: LeverValue | null): string {
  if (!value) return ''
  switch (value.is) {
    case 'length':
      return units.length(value.m, value.m < 1 ? 'short' : 'long')
    case 'force':
      return units.force(value.N)
    case 'mass':
      return units.mass(value.kg)
    case 'count':
      return String(value.n)
    case 'screws':
      return `${value.n} × ${valueWords({ t, units, names, catalogue }, { is: 'screw', id: value.id })}`
    case 'angle':
      return `${Math.round(value.deg)}°`
    case 'ending':
      return t(`wireEnding.${value.id}`)
    case 'wire': {
      const wire = findWire(catalogue, value.id)
      return wire ? names.wire(wire) : value.id
    }
    case 'fixing': {
      const fixing = findFixing(catalogue, value.id)
      return fixing ? names.fixing(fixing) : value.id
    }
    case 'stock': {
      const stock = findStock(catalogue, value.id)
      return stock ? names.stock(stock) : value.id
    }
    case 'screw': {
      const screw = findScrew(catalogue, value.id)
      return screw ? names.screw(screw) : value.id
    }
  }
}

/** A sum below this is no difference worth a word. */
const SAME_COST = 0.005
const SAME_MINUTES = 5

/** What a remedy costs and takes, and what it leaves open. */
export function remedyPriceWords(t: TFunction, remedy: Remedy, currency: string): string {
  const { moreCost, moreMinutes, open } = remedy
  const cost =
    Math.abs(moreCost) < SAME_COST
      ? t('remedies.sameCost')
      : t(moreCost > 0 ? 'remedies.more' : 'remedies.less', {
          amount: formatMoney(Math.abs(moreCost), currency),
        })
  const minutes = Math.round(Math.abs(moreMinutes))
  return listPlain([
    cost,
    ...(minutes < SAME_MINUTES
      ? []
      : [t(moreMinutes > 0 ? 'remedies.longer' : 'remedies.shorter', { minutes })]),
    ...(open > 0 ? [t('remedies.leavesOpen', { count: open })] : []),
  ])
}
