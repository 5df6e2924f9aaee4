import type { Fixing, GoodId, ScrewOnOffer, Stock, Wire, Catalogue } from '@klados/core/catalogue'
import type { MaterialItem } from '@klados/core/bill'
import type { TFunction } from '../i18n/texts.ts'
import { useMemo } from 'react'
import { useTranslation } from '../i18n/use-translation.tsx'
import { useUnits } from '../ui/units.tsx'
import type { Units } from '../ui/units.tsx'
import { tieMaterialWords } from '../ui/id-words.ts'

/**
 * What things of the catalogue are called: by the grower's own name, or by what they are, in the reader's
 * words and units.
 */
export interface Names {
  readonly wire: (wire: Wire) => string
  readonly fixing: (fixing: Fixing) => string
  readonly stock: (stock: Stock) => string
  readonly screw: (screw: ScrewOnOffer) => string
  readonly good: (id: GoodId) => string
  readonly tie: (id: string) => string
  readonly item: (item: MaterialItem, catalogue: Catalogue) => string
}

export function useNames(): Names {
  const { t } = useTranslation()
  const units = useUnits()
  return useMemo(() => namesIn(t, units), [t, units])
}

export function namesIn(t: TFunction, units: Units): Names {
  const mm = (value: number) => `${value} mm`
  const names: Names = {
    wire: (wire) =>
      wire.name ??
      t('catalogue.wire', { material: t(`wireMaterial.${wire.material}`), size: mm(wire.diameterMm) }),
    fixing: (fixing) =>
      fixing.name ??
      (fixing.stick ? t('catalogue.hook', { pull: units.force(fixing.stick.ratedN) }) : null) ??
      t('catalogue.eye', { thread: fixing.threadMm, length: mm(fixing.lengthMm) }),
    stock: (stock) =>
      stock.name ??
      t(`stock.${stock.use}`, { material: t(`stockMaterial.${stock.material}`), size: sectionText(stock) }),
    screw: (screw) =>
      screw.name ?? t(`screw.${screw.head}`, { length: units.length(screw.lengthM, 'short') }),
    good: (id) => t(`good.${id}`),
    tie: (id) => tieMaterialWords(t, id),
    item: (item, catalogue) => itemName(item, catalogue),
  }
  return names

  function itemName(item: MaterialItem, catalogue: Catalogue): string {
    switch (item.what) {
      case 'roll': {
        const wire = catalogue.wires.find((one) => one.id === item.wireId)
        return t('catalogue.roll', {
          wire: wire ? names.wire(wire) : item.wireId,
          length: units.length(item.lengthM),
        })
      }
      case 'stock': {
        const stock = catalogue.stock.find((one) => one.id === item.stockId)
        return t('catalogue.length', {
          stock: stock ? names.stock(stock) : item.stockId,
          length: units.length(item.lengthM),
        })
      }
      case 'fixing': {
        const fixing = catalogue.fixings.find((one) => one.id === item.fixingId)
        return fixing ? names.fixing(fixing) : item.fixingId
      }
      case 'screw': {
        const screw = catalogue.screws.find((one) => one.id === item.screwId)
        return screw ? names.screw(screw) : item.screwId
      }
      case 'good':
        return names.good(item.goodId)
    }
  }
}

function sectionText({ section }: Stock): string {
  return section.shape === 'rectangle'
    ? `${section.widthMm} × ${section.depthMm} mm`
    : `${section.diameterMm} mm`
}

/** How many of it, with its unit where it is not counted; never less than is needed. */
export function quantityText(units: Units, item: MaterialItem, catalogue: Catalogue): string {
  const unit = item.what === 'good' ? catalogue.goods.find((good) => good.id === item.goodId)?.unit : 'piece'
  switch (unit) {
    case 'square-metre':
      return units.area(item.quantity, 'up')
    case 'litre':
      return units.volume(item.quantity, 'up')
    case 'metre':
      return units.length(item.quantity)
    default:
      return String(item.quantity)
  }
}
