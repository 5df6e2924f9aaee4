import { standardCatalogue } from '@klados/core/catalogue'
import { catalogueCsv } from '@klados/core/formats'
import { describe, expect, it } from 'vitest'
import { readPrices } from './prices-csv.ts'

const names = {
  wire: () => 'w',
  stock: () => 's',
  fixing: () => 'f',
  screw: () => 'g',
  good: () => 'x',
  tie: () => 'tie',
}
const csv = catalogueCsv(standardCatalogue, 'EUR', names)

describe('prices in a file', () => {
  it('come back as they went out, changing nothing', () => {
    expect(readPrices(csv, standardCatalogue)).toEqual({
      catalogue: standardCatalogue,
      changed: 0,
      unknown: 0,
    })
  })

  it('are set where the file says, by id and length; unknown rows are counted', () => {
    const edited =
      'id,length_m,price\nstainless-2,50,"31,5"\neye-100,,2\nstainless-2,7,1\nnothing,,1\nplug,,-3\n'
    const { catalogue, changed, unknown } = readPrices(edited, standardCatalogue)
    expect([changed, unknown]).toEqual([2, 3])
    expect(catalogue.wires[0]!.rolls[1]).toEqual({ lengthM: 50, price: 31.5 })
    expect(catalogue.fixings.find((f) => f.id === 'eye-100')!.price).toBe(2)
    expect(catalogue.wires[1]).toEqual(standardCatalogue.wires[1])
  })
})
