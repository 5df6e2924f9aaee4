import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import type { TFunction } from '../../i18n/texts.ts'
import { memo, useDeferredValue, useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import { daysBetween } from '@klados/core/season'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useAgenda, useHemisphere } from '../../data/agenda.ts'
import type { AgendaItem } from '../../data/agenda.ts'
import { listPlain } from '../../i18n/language.ts'
import { formatDate, todayHere } from '../../data/dates.ts'
import { usePlaces, usePlants } from '../../data/documents.ts'
import { standingAt } from '../../data/standing.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import type { NewEntry } from '../../data/record.ts'
import { useAppSelector } from '../../data/store.ts'
import { useRecorder } from '../../data/use-recorder.ts'
import { useUnsettled } from '../../data/unsettled.ts'
import { TieActions } from '../../ties/TieActions.tsx'
import { UnsettledTies } from '../../ties/UnsettledTies.tsx'
import { Loading } from '../../ui/Message.tsx'
import { pieceWords } from '../../ui/piece-words.ts'
import { useUnits } from '../../ui/units.tsx'
import { useWireAgenda } from '../../data/wire-agenda.ts'
import { PlaceSketch } from './PlaceSketch.tsx'
import { WiresDue } from './WiresDue.tsx'
import { kindWords, tieMaterialWords } from '../../ui/id-words.ts'
import { useKeptFocus } from '../../ui/use-kept-focus.ts'
import { useLasting } from '../../ui/use-lasting.ts'
import { useUndoKeys } from '../../ui/use-undo-keys.ts'

const SECTIONS = ['overdue', 'due', 'soon'] as const
const MINUTES_PER_TIE = 2

/** What is missing where there is nothing to do yet, and where it is put right. */
function useBeginning(gardenId: string): { readonly with: 'place' | 'plant' | 'tie'; readonly to: string } {
  const places = usePlaces(gardenId)?.filter((place) => !place.isRemoved) ?? []
  const plants = usePlants(gardenId)
  const planted = places.find((place) => standingAt(plants, place.id).length > 0)
  const base = `/g/${gardenId}/places`
  if (planted) return { with: 'tie', to: `${base}/${planted.id}/wood` }
  const [first] = places
  if (!first) return { with: 'place', to: base }
  return { with: 'plant', to: places.length === 1 ? `${base}/${first.id}/wood` : `${base}?for=wood` }
}

/** The walk through the places where a tie wants looking at: where, why, and one tap for what was done. */
export function Round() {
  const { gardenId } = useParams() as { gardenId: string }
  const { t } = useTranslation()
  const { items: agenda, count, nextOn } = useAgenda(gardenId)
  const status = useAppSelector((state) => state.journal.status)
  const recorder = useRecorder()
  useUndoKeys(recorder.last ? recorder.undo : null)
  const write = useLasting(recorder.write)
  const canWrite = useCanWrite(gardenId)
  const unsettled = useUnsettled(gardenId)
  const wires = useWireAgenda(gardenId)
  const begin = useBeginning(gardenId)
  const walk = useKeptFocus<HTMLDivElement>()
  if (status === 'empty' || status === 'reading') return <Loading>{t('app.loading')}</Loading>
  const wiresDue = wires.filter(({ urgency }) => urgency !== 'later')
  const now = agenda.filter((item) => item.urgency === 'overdue' || item.urgency === 'due')
  const later = count - agenda.filter((item) => item.urgency !== 'later').length
  const places = new Set(now.map((item) => item.place.id)).size
  return (
    <div ref={walk} className="mx-auto flex w-full max-w-4xl flex-col gap-5">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <ScreenTitle>{t('round.title')}</ScreenTitle>
        <p className="flex-1">
          {nextOn === null && wiresDue.length > 0
            ? t('round.wiresOnly')
            : nextOn === null
              ? t(`round.begin.${begin.with}`)
              : now.length === 0
                ? t('round.calm', { date: formatDate(nextOn) })
                : t('round.intro', { count: now.length, places: t('round.places', { count: places }) })}
        </p>
        {nextOn === null && wiresDue.length === 0 && canWrite && (
          <Link to={begin.to} className="btn btn-main no-underline">
            {t(`round.beginDo.${begin.with}`)}
          </Link>
        )}
        {recorder.count > 0 && (
          <p role="status" className="flex items-center gap-2 text-verdigris">
            {t('round.recorded', { count: recorder.count })}
            <button type="button" className="btn" onClick={recorder.undo}>
              {t('round.undo')}
            </button>
          </p>
        )}
      </div>
      {now.length > 0 && (
        <p className="border-l-4 border-verdigris bg-paper px-3 py-2">
          <strong>{t('round.bring')}</strong>: {t('round.kit', { ties: now.length })};{' '}
          {t('round.minutes', { minutes: now.length * MINUTES_PER_TIE })}. <Hazards items={now} />
        </p>
      )}
      <UnsettledTies gardenId={gardenId} items={unsettled} canWrite={canWrite} onWrite={recorder.write} />
      <WiresDue gardenId={gardenId} items={wires} />
      {SECTIONS.map((urgency) => (
        <Section
          key={urgency}
          gardenId={gardenId}
          urgency={urgency}
          items={agenda.filter((item) => item.urgency === urgency)}
          onWrite={write}
        />
      ))}
      <OnRemovedPlaces gardenId={gardenId} />
      {later > 0 && <p className="text-slate">{t('round.later', { count: later })}</p>}
    </div>
  )
}

/** Plants whose place was taken out of the garden are on no round until it comes back. */
function OnRemovedPlaces({ gardenId }: { gardenId: string }) {
  const { t } = useTranslation()
  const places = usePlaces(gardenId)
  const plants = usePlants(gardenId)
  const left = (places ?? [])
    .filter(({ isRemoved }) => isRemoved)
    .map((place) => ({ name: place.body.name, count: standingAt(plants, place.id).length }))
    .filter(({ count }) => count > 0)
  if (left.length === 0) return null
  const each = left.map(({ name, count }) => t('round.removedPlace', { name, count }))
  return (
    <p className="border-l-4 border-ochre bg-paper px-3 py-2">
      {t('round.onRemoved', { places: listPlain(each) })}{' '}
      <Link to={`/g/${gardenId}/places`}>{t('round.toPlaces')}</Link>
    </p>
  )
}

function Hazards({ items }: { items: readonly AgendaItem[] }) {
  const { t } = useTranslation()
  const hazards = new Set(items.flatMap((item) => item.kind.hazards))
  return (
    <>
      {hazards.has('thorns') && `${t('round.thorns')} `}
      {hazards.has('irritant-sap') && `${t('round.sap')} `}
      {hazards.has('toxic-parts') && t('round.toxic')}
    </>
  )
}

interface SectionProps {
  readonly gardenId: string
  readonly urgency: (typeof SECTIONS)[number]
  readonly items: readonly AgendaItem[]
  readonly onWrite: (what: string, entries: readonly NewEntry[]) => void
}

const TONE = { overdue: 'text-iron', due: 'text-ochre', soon: 'text-slate' } as const

/** So many places are shown at once: a walk is taken one after the other, and more of them are a press away. */
const PLACES_AT_ONCE = 12
/** These are there first, to begin with; on a phone the rest take their time. */
const PLACES_FIRST = 2

function Section({ gardenId, urgency, items, onWrite }: SectionProps) {
  const { t } = useTranslation()
  const [shown, setShown] = useState(PLACES_AT_ONCE)
  const drawn = useDeferredValue(shown, PLACES_FIRST)
  const [group] = useState(grouper)
  const byPlace = useMemo(() => group(items), [group, items])
  if (items.length === 0) return null
  const left = byPlace.length - shown
  return (
    <section>
      <h2 className={`text-[1.0625rem] ${TONE[urgency]}`}>{t(`round.${urgency}`)}</h2>
      {byPlace.slice(0, drawn).map((items) => (
        <AtPlace key={items[0]!.place.id} {...{ gardenId, urgency, items, onWrite }} />
      ))}
      {left > 0 && (
        <button type="button" className="btn" onClick={() => setShown(shown + PLACES_AT_ONCE)}>
          {t('round.morePlaces', { count: left })}
        </button>
      )}
    </section>
  )
}

/** Items by place, in their order; a place where nothing changed keeps its list, the same object. */
function grouper(): (items: readonly AgendaItem[]) => readonly (readonly AgendaItem[])[] {
  let known = new Map<string, readonly AgendaItem[]>()
  return (items) => {
    const groups = new Map<string, AgendaItem[]>()
    for (const item of items) {
      const group = groups.get(item.place.id)
      if (group) group.push(item)
      else groups.set(item.place.id, [item])
    }
    known = new Map(
      [...groups].map(([id, group]) => {
        const before = known.get(id)
        const isSame = before?.length === group.length && before.every((item, i) => item === group[i])
        return [id, isSame ? before : group]
      }),
    )
    return [...known.values()]
  }
}

const AtPlace = memo(function AtPlace({ gardenId, urgency, items, onWrite }: SectionProps) {
  const { place } = items[0]!
  return (
    <div className="mb-4">
      <h3 className="mt-1 font-semibold">
        <Link to={`/g/${gardenId}/places/${place.id}/wood`}>{place.body.name}</Link>
      </h3>
      {urgency !== 'soon' && <PlaceSketch gardenId={gardenId} items={items} />}
      <ul>
        {items.map((item) => (
          <Row
            key={item.tie.id}
            gardenId={gardenId}
            item={item}
            onWrite={onWrite}
            isCompact={urgency === 'soon'}
          />
        ))}
      </ul>
    </div>
  )
})

interface RowProps {
  readonly gardenId: string
  readonly item: AgendaItem
  readonly onWrite: SectionProps['onWrite']
  readonly isCompact: boolean
}

/** Of a long round only the tie that was pressed is drawn again. */
const Row = memo(function Row({ gardenId, item, onWrite, isCompact }: RowProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const canWrite = useCanWrite(gardenId)
  const hemisphere = useHemisphere(gardenId)
  const { tie, piece, plant, place, kind, look, urgency, wood } = item
  const alongM = place.body.viewingEnd === 'left' ? tie.at.xM : place.body.widthM - tie.at.xM
  const where = t('round.where', {
    part: pieceWords(t, piece, { state: wood, hemisphere }, todayHere(), kind?.habit),
    plant: plant.body.name,
    height: units.length(tie.at.yM),
    along: units.length(alongM),
    end: t(`place.${place.body.viewingEnd}`),
  })
  return (
    <li className="flex break-inside-avoid flex-col gap-2 border-b border-dotted border-faint py-3">
      <div>
        <p className="flex flex-wrap gap-x-3">
          <span aria-hidden="true" className="hidden print:inline">
            ☐
          </span>
          <Link className="font-semibold" to={`/g/${gardenId}/places/${place.id}/wood?tie=${tie.id}`}>
            {where}
          </Link>
          <span className={TONE[urgency === 'later' ? 'soon' : urgency]}>
            {t(urgency === 'soon' ? 'round.soonOn' : 'round.dueOn', { date: formatDate(look.dueOn) })}
          </span>
        </p>
        <p>{whyWords(t, item)}</p>
      </div>
      {canWrite && !isCompact && (
        <div className="no-print">
          <TieActions
            gardenId={gardenId}
            tie={tie}
            piece={piece}
            kind={kind}
            place={place}
            hemisphere={hemisphere}
            on={todayHere()}
            onWrite={onWrite}
            isLarge
          />
        </div>
      )}
    </li>
  )
})

/** Why this tie, in one sentence. */
function whyWords(t: TFunction, { tie, kind, look }: AgendaItem): string {
  return t(`round.why.${look.reason}`, {
    days: daysBetween(tie.madeOn, todayHere()),
    hitch: t(`wood.hitches.${tie.hitch}`),
    from: look.tight ? formatDate(look.tight.earliestOn) : '',
    kind: kindWords(t, kind.id).toLowerCase(),
    material: tieMaterialWords(t, tie.materialId),
    made: formatDate(tie.madeOn),
    date: tie.postponedUntil ? formatDate(tie.postponedUntil) : '',
  })
}
