import type { CutMaterial, ShoppingList } from '@klados/core/shopping'
import type { FrameDocument, Garden, OnHand, Place, StoresBody } from '@klados/contract'
import { shoppingCsv } from '@klados/core/formats'
import { useMemo, useState } from 'react'
import { listPlain } from '../../i18n/language.ts'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useBackground } from '../../compute/use-background.ts'
import { Working } from '../../compute/Working.tsx'
import { usePlaces, useFrames } from '../../data/documents.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { selectFramesNow } from '../../data/readings.ts'
import { useAppSelector } from '../../data/store.ts'
import { quantityText, useNames } from '../../plan/names.ts'
import { Check } from '../../ui/Choice.tsx'
import { download } from '../../ui/download.ts'
import { Loading } from '../../ui/Message.tsx'
import { formatMoney } from '../../ui/money.ts'
import { useUnits } from '../../ui/units.tsx'

interface ShoppingProps {
  readonly gardenId: string
  readonly garden: Garden
  readonly stores: StoresBody
  readonly canWrite: boolean
  readonly onChange: (stores: StoresBody) => void
}

/** Offcuts shorter than this are not worth keeping. */
const USEFUL_M = 1

/** Frames of the garden, which of them are chosen to be bought for, and the list for those. */
function useShopping(gardenId: string, stores: StoresBody) {
  const catalogue = useCatalogue(gardenId)
  const places = usePlaces(gardenId)
  const frames = useFrames(gardenId)
  const built = useAppSelector(selectFramesNow)
  const [chosen, setChosen] = useState<Readonly<Record<string, boolean>>>({})
  const all = useMemo(() => {
    const placeById = new Map(places?.filter((place) => !place.isRemoved).map((place) => [place.id, place]))
    return (frames ?? []).flatMap((frame) => {
      const place = placeById.get(frame.body.placeId)
      if (!place || frame.isRemoved) return []
      return [{ frame, place, name: `${place.body.name}: ${frame.body.name}` }]
    })
  }, [places, frames])
  const toBuy = useMemo(() => boughtFor(all, built), [all, built])
  const isChosen = (id: string) => chosen[id] ?? toBuy.has(id)
  const work = useMemo(() => {
    const picked = all.filter(({ frame }) => chosen[frame.id] ?? toBuy.has(frame.id))
    return (
      places &&
      frames && {
        frames: picked.map(({ frame, place, name }) => ({
          name,
          site: place.body,
          design: frame.body.design,
        })),
        onHand: stores.onHand,
        catalogue,
      }
    )
  }, [places, frames, all, chosen, toBuy, catalogue, stores.onHand])
  const { value: list, isCurrent, ...how } = useBackground('shopping', work ?? null)
  const choose = (frameId: string, isOn: boolean) => setChosen({ ...chosen, [frameId]: isOn })
  const undecided = undecidedAt(all, built)
  return { isLoaded: work !== undefined, all, undecided, isChosen, choose, list, isCurrent, how }
}

interface Listed {
  readonly frame: FrameDocument
  readonly place: Place
  readonly name: string
}

type Built = ReturnType<typeof selectFramesNow>

/** What stands already, or was begun, is bought already. */
const isStanding = ({ frame }: Listed, built: Built) =>
  frame.body.stage === 'stands' ||
  Boolean(built.get(frame.id)?.fixings.size || built.get(frame.id)?.posts.size)

const byPlace = (all: readonly Listed[]): Listed[][] => {
  const places = new Map<string, Listed[]>()
  for (const one of all) places.set(one.place.id, [...(places.get(one.place.id) ?? []), one])
  return [...places.values()]
}

/**
 * Frames that the list counts by itself: those to be built, and of places that have a single idea that one. Several
 * ideas of one place are alternatives: nobody buys for all of them.
 */
function boughtFor(all: readonly Listed[], built: Built): ReadonlySet<string> {
  return new Set(
    byPlace(all).flatMap((here) => {
      const open = here.filter((one) => !isStanding(one, built))
      const chosen = open.filter(({ frame }) => frame.body.stage === 'chosen')
      const counted = chosen.length > 0 ? chosen : open.length === 1 && here.length === 1 ? open : []
      return counted.map(({ frame }) => frame.id)
    }),
  )
}

/** Places with several ideas of which none has been chosen. */
function undecidedAt(all: readonly Listed[], built: Built): readonly string[] {
  return byPlace(all).flatMap((here) => {
    const open = here.filter((one) => !isStanding(one, built))
    const isOpen = open.length > 1 && !open.some(({ frame }) => frame.body.stage === 'chosen')
    return isOpen ? [here[0]!.place.body.name] : []
  })
}

/** Everything that the chosen plans need, less what is on hand, and how to cut it. */
export function Shopping({ gardenId, garden, stores, canWrite, onChange }: ShoppingProps) {
  const { t } = useTranslation()
  const { isLoaded, all, undecided, isChosen, choose, list, isCurrent, how } = useShopping(gardenId, stores)
  if (!isLoaded) return <Loading>{t('app.loading')}</Loading>
  return (
    <div className="grid gap-8 grid-cols-1 lg:grid-cols-[260px_minmax(0,1fr)]">
      <fieldset className="no-print flex flex-col gap-1 self-start">
        <legend className="text-[0.8125rem] text-slate">{t('shopping.frames')}</legend>
        {all.map(({ frame, name }) => (
          <Check
            key={frame.id}
            label={name}
            isOn={isChosen(frame.id)}
            onChange={(isOn) => choose(frame.id, isOn)}
          />
        ))}
        {undecided.length > 0 && (
          <p className="text-[0.8125rem] text-ochre">
            {t('shopping.undecided', { places: listPlain(undecided) })}
          </p>
        )}
      </fieldset>
      <div className="flex min-w-0 flex-col gap-4">
        <div className="slip">
          <h2>{t('shopping.title')}</h2>
          <Working {...how} />
          {list && <ToBuy gardenId={gardenId} list={list} currency={garden.currency} />}
        </div>
        {list && list.cut.length > 0 && (
          <section>
            <h2>{t('sheet.cutList')}</h2>
            {list.cut.map((material) => (
              <CutOf key={`${material.what} ${material.refId}`} gardenId={gardenId} material={material} />
            ))}
            {canWrite && (
              <button
                type="button"
                className="btn no-print mt-2"
                disabled={!isCurrent}
                onClick={() => onChange({ ...stores, onHand: afterCutting(stores.onHand, list.cut) })}
              >
                {t('shopping.keepOffcuts')}
              </button>
            )}
            <p className="no-print text-slate">{t('shopping.keepHint')}</p>
          </section>
        )}
      </div>
    </div>
  )
}

interface ToBuyProps {
  readonly gardenId: string
  readonly list: ShoppingList
  readonly currency: string
}

/** Line by line what is on hand and what is to be bought; to print or to take along as a table. */
function ToBuy({ gardenId, list, currency }: ToBuyProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const catalogue = useCatalogue(gardenId)
  const lines = list.lines.filter((line) => line.item.quantity > 0 || line.onHand > 0)
  return (
    <>
      {lines.length === 0 ? (
        <p className="text-slate">{t('shopping.nothing')}</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full">
            <thead className="text-left text-[0.8125rem] text-slate">
              <tr>
                <th scope="col" className="font-normal">
                  {t('sheet.item')}
                </th>
                <th scope="col" className="text-right font-normal">
                  {t('shopping.onHand')}
                </th>
                <th scope="col" className="text-right font-normal">
                  {t('shopping.buy')}
                </th>
                <th scope="col" className="text-right font-normal">
                  {t('sheet.price')}
                </th>
              </tr>
            </thead>
            <tbody>
              {lines.map((line, i) => (
                <tr key={i} className="border-b border-dotted border-faint align-baseline">
                  <td className="py-[3px]">{names.item(line.item, catalogue)}</td>
                  <td className="text-right text-slate">{line.onHand || ''}</td>
                  <td className="text-right font-semibold">
                    {line.item.quantity > 0 ? quantityText(units, line.item, catalogue) : t('shopping.none')}
                  </td>
                  <td className="text-right">
                    {line.item.quantity > 0 ? formatMoney(line.item.price, currency) : ''}
                  </td>
                </tr>
              ))}
              <tr className="font-bold">
                <td colSpan={3}>{t('sheet.total')}</td>
                <td className="text-right">{formatMoney(list.cost, currency)}</td>
              </tr>
            </tbody>
          </table>
        </div>
      )}
      <p className="no-print mt-3 flex flex-wrap gap-4">
        <button type="button" className="underline underline-offset-[3px]" onClick={() => window.print()}>
          {t('sheet.print')}
        </button>
        <button
          type="button"
          className="underline underline-offset-[3px]"
          onClick={() =>
            download(
              'shopping.csv',
              'text/csv',
              shoppingCsv(list, currency, (item) => names.item(item, catalogue)),
            )
          }
        >
          {t('shopping.csv')}
        </button>
      </p>
    </>
  )
}

function CutOf({ gardenId, material }: { gardenId: string; material: CutMaterial }) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const catalogue = useCatalogue(gardenId)
  const wire = catalogue.wires.find((one) => one.id === material.refId)
  const stock = catalogue.stock.find((one) => one.id === material.refId)
  const name = wire ? names.wire(wire) : stock ? names.stock(stock) : material.refId
  const lengths = (cuts: readonly number[]) =>
    counted(cuts.map((cut) => units.length(material.pieces[cut]!.lengthM)))
  const rolls = material.cutting?.rolls ?? []
  return (
    <div className="mb-3">
      <h3 className="font-semibold">{name}</h3>
      {alike(
        material.fromStores.map((cut) =>
          t('shopping.cutFrom', {
            length: units.length(material.onHand[cut.length]!.lengthM),
            cuts: lengths(cut.cuts),
            offcut: units.length(cut.offcutM),
          }),
        ),
      ).map(([words, count]) => (
        <p key={words}>
          {t('shopping.fromStores')}: {count > 1 && `${count} × `}
          {words}
        </p>
      ))}
      {alike(
        rolls.map((roll) =>
          t('shopping.cutFrom', {
            length: units.length(roll.lengthM),
            cuts: lengths(roll.cuts),
            offcut: units.length(roll.offcutM),
          }),
        ),
      ).map(([words, count]) => (
        <p key={words}>
          {count > 1 && `${count} × `}
          {words}
        </p>
      ))}
      {material.cutting === null && <p className="text-iron">{t('shopping.tooLong')}</p>}
      {material.cutting && !material.cutting.isProvenLeast && (
        <p className="text-slate">{t('slip.notProven')}</p>
      )}
    </div>
  )
}

/** Equal words together with how many of them there are, in the order of their first. */
function alike(words: readonly string[]): [string, number][] {
  const counts = new Map<string, number>()
  for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1)
  return [...counts]
}

/** "3 × 1.2 m, 0.8 m" for a row of lengths. */
function counted(words: readonly string[]): string {
  return listPlain(alike(words).map(([word, count]) => (count > 1 ? `${count} × ${word}` : word)))
}

/** The shed after cutting: what was cut from is gone, offcuts worth keeping are in. */
function afterCutting(onHand: readonly OnHand[], cut: readonly CutMaterial[]): OnHand[] {
  let left: OnHand[] = onHand.map((one) => ({ ...one }))
  const add = (what: 'roll' | 'stock', refId: string, lengthM: number) => {
    if (lengthM < USEFUL_M) return
    const rounded = Math.floor(lengthM * 100) / 100
    const same = left.find((one) => one.what === what && one.refId === refId && one.lengthM === rounded)
    if (same) left = left.map((one) => (one === same ? { ...one, quantity: one.quantity + 1 } : one))
    else left.push({ what, refId, lengthM: rounded, quantity: 1 })
  }
  for (const { what, refId, onHand: lengths, fromStores, cutting } of cut) {
    for (const one of fromStores) {
      const { lengthM } = lengths[one.length]!
      left = left.map((own) =>
        own.what === what && own.refId === refId && own.lengthM === lengthM
          ? { ...own, quantity: own.quantity - 1 }
          : own,
      )
      add(what, refId, one.offcutM)
    }
    for (const roll of cutting?.rolls ?? []) add(what, refId, roll.offcutM)
  }
  return left.filter((one) => one.quantity > 0)
}
