import { listPlain } from '../i18n/language.ts'
import { useTranslation } from '../i18n/use-translation.tsx'
import { useFrames, usePlaces, usePlants } from '../data/documents.ts'
import { formatDate } from '../data/dates.ts'
import { lastSave } from '../data/sync/items.ts'
import type { Item } from '../data/sync/items.ts'
import { entryWords } from '../ui/entry-words.ts'
import { useUnits } from '../ui/units.tsx'

/** What an item is, in words: what was done, where and when, or which document was saved. */
export function useWhat(gardenId: string): (item: Item) => string {
  const { t } = useTranslation()
  const units = useUnits()
  const places = usePlaces(gardenId)
  const plants = usePlants(gardenId)
  const frames = useFrames(gardenId)
  return (item) => {
    if (item.kind === 'photo') return t('tray.photo')
    if (item.kind === 'document') {
      const { name } = lastSave(item).body as { name?: string }
      return t(`tray.${item.area}`, { name: name ?? '' })
    }
    const { entry } = item
    const place = places?.find((one) => one.id === entry.placeId)?.body.name
    const plant = plants?.find((one) => one.id === entry.plantId)?.body.name
    const frameId = 'frameId' in entry.body ? entry.body.frameId : null
    const frame = frames?.find((one) => one.id === frameId)?.body.name
    const where = listPlain([frame, plant, place].filter((one) => one !== undefined)) || t('tray.nowhere')
    return `${entryWords(t, units, entry)} (${where}, ${formatDate(entry.at)})`
  }
}
