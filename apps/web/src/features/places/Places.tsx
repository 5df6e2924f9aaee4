import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import { standardCatalogue } from '@klados/core/catalogue'
import type { FrameDocument, Place, Plant } from '@klados/contract'
import { drawWood } from '@klados/core/drawing'
import type { DisplayList } from '@klados/core/drawing'
import { useDeferredValue, useMemo } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import { listPlain } from '../../i18n/language.ts'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { FIRST_PLACES } from '../../data/beginning.ts'
import { useAgenda, useHemisphere, tieStates } from '../../data/agenda.ts'
import type { AgendaItem } from '../../data/agenda.ts'
import { usePlaces, useFrames, usePlants } from '../../data/documents.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { todayHere } from '../../data/dates.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import { standingAt } from '../../data/standing.ts'
import { useWoodOf } from '../../data/use-wood-of.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import { MARGIN_PX } from '../../elevation/view.ts'
import { drawPlace, layOut } from '../../plan/lay-out.ts'
import { Loading } from '../../ui/Message.tsx'
import { useUnits } from '../../ui/units.tsx'
import { sampleDesign, sampleWall } from '../../sample/sample-wall.ts'
import { facingWord } from './facing.ts'
import { RemovedPlaces } from './RemovedPlaces.tsx'

/** So many places are there first; on a phone the drawings of a long list take their time. */
const STRIPS_FIRST = 3

/** Every wall and fence of the garden as a strip of drawings to one scale, with what each needs now. */
export function Places() {
  const { gardenId } = useParams() as { gardenId: string }
  const { t } = useTranslation()
  const places = usePlaces(gardenId)
  const frames = useFrames(gardenId)
  const plants = usePlants(gardenId)
  const { items: agenda } = useAgenda(gardenId)
  const canWrite = useCanWrite(gardenId)
  const wanted = useSearchParams()[0].get('for')
  const drawn = useDeferredValue(Infinity, STRIPS_FIRST)
  if (!places) return <Loading>{t('app.loading')}</Loading>
  const standing = places.filter((place) => !place.isRemoved)
  const add = canWrite && (
    <Link to={`/g/${gardenId}/places/new/measures`} className="btn btn-main no-underline">
      {t('places.add')}
    </Link>
  )
  const removed = places.filter((place) => place.isRemoved)
  if (standing.length === 0)
    return (
      <>
        <NoPlace gardenId={gardenId} canWrite={canWrite} />
        <RemovedPlaces gardenId={gardenId} removed={removed} plants={plants ?? []} canWrite={canWrite} />
      </>
    )
  const widestM = Math.min(
    FULL_WIDTH_M,
    standing.reduce((widest, place) => Math.max(widest, place.body.widthM), 0),
  )
  return (
    <>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <ScreenTitle>{t('places.title')}</ScreenTitle>
        <p className="min-w-[min(16rem,100%)] flex-1 text-slate">{t('places.intro')}</p>
        {add}
      </div>
      {(wanted === 'frame' || wanted === 'wood') && (
        <p role="status" className="mb-2 border-l-4 border-ochre bg-paper px-3 py-2">
          {t(`places.chooseFor.${wanted}`)}
        </p>
      )}
      <ul className="flex flex-col">
        {standing.slice(0, drawn).map((place) => (
          <PlaceStrip
            key={place.id}
            gardenId={gardenId}
            place={place}
            share={place.body.widthM < POT_M ? null : Math.min(1, place.body.widthM / widestM)}
            frames={frames?.filter((f) => !f.isRemoved && f.body.placeId === place.id) ?? []}
            plants={standingAt(plants, place.id)}
            agenda={agenda.filter((item) => item.place.id === place.id)}
          />
        ))}
      </ul>
      <RemovedPlaces gardenId={gardenId} removed={removed} plants={plants ?? []} canWrite={canWrite} />
    </>
  )
}

/**
 * Walls up to this width are drawn to one scale; a longer row takes the whole strip, and pots have a scale of
 * their own.
 */
const FULL_WIDTH_M = 12
const POT_M = 1.5
const POT_PX = 200

/**
 * The margins of a drawing are the same whatever its wall: without them in the sum the scales would differ.
 */
const MARGIN_X_PX = MARGIN_PX.left + MARGIN_PX.right

interface PlaceStripProps {
  readonly gardenId: string
  readonly place: Place
  /** Width against the widest place: the drawings are to one scale. */
  readonly share: number | null
  readonly frames: readonly FrameDocument[]
  readonly plants: readonly Plant[]
  readonly agenda: readonly AgendaItem[]
}

function PlaceStrip({ gardenId, place, share, frames, plants, agenda }: PlaceStripProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const list = usePlaceDrawing(gardenId, place, frames, plants, agenda)
  const due = agenda.filter((item) => item.urgency === 'overdue' || item.urgency === 'due').length
  const base = `/g/${gardenId}/places/${place.id}`
  const { body } = place
  return (
    <li className="grid items-end gap-x-6 border-b border-faint py-3 grid-cols-1 md:grid-cols-[minmax(0,1fr)_280px]">
      <Link to={`${base}/${frames.length > 0 ? 'wood' : 'frame'}`} className="block min-w-0">
        <div
          style={{
            width:
              share === null
                ? POT_PX
                : `calc((100% - ${MARGIN_X_PX}px) * ${share.toFixed(4)} + ${MARGIN_X_PX}px)`,
          }}
        >
          <StillElevation
            label={t('place.drawing', { name: body.name })}
            wall={body}
            surface={body.surface}
            list={list}
            {...(share === null ? { maxHeight: '170px' } : {})}
          />
        </div>
      </Link>
      <div className="flex min-w-0 flex-col gap-0.5 pb-2">
        <h2 className="text-[1.0625rem]">{body.name}</h2>
        <p className="text-slate">
          {t('places.size', { width: units.length(body.widthM), height: units.length(body.usableHeightM) })},{' '}
          {t(`surface.${body.surface}`)}, {facingWord(t, body.facingDeg)}
        </p>
        <p>
          {frames.length > 0 ? listPlain(frames.map((frame) => frame.body.name)) : t('places.noFrame')},{' '}
          {plants.length > 0 ? t('places.plants', { count: plants.length }) : t('places.noPlants')}
        </p>
        <p className={due > 0 ? 'font-semibold text-ochre' : 'text-slate'}>
          {due > 0 ? t('places.due', { count: due }) : t('places.calm')}
        </p>
        <p className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
          <Link to={`${base}/measures`}>{t('places.measure')}</Link>
          <Link to={`${base}/frame`}>{t('places.frame')}</Link>
          <Link to={`${base}/wood`}>{t('places.wood')}</Link>
        </p>
      </div>
    </li>
  )
}

function usePlaceDrawing(
  gardenId: string,
  place: Place,
  frames: readonly FrameDocument[],
  plants: readonly Plant[],
  agenda: readonly AgendaItem[],
): DisplayList {
  const wood = useWoodOf(plants.map(({ id }) => id))
  const hemisphere = useHemisphere(gardenId)
  const catalogue = useCatalogue(gardenId)
  return useMemo(() => {
    const laid = frames.map((frame) => layOut(place.body, frame.body.design, catalogue))
    const kinds = new Map(plants.map((plant) => [plant.id, plant.body.kindId]))
    const states = tieStates(agenda)
    const pieces = [...wood.pieces.values()].filter((piece) => kinds.has(piece.plantId))
    const ties = [...wood.ties.values()].filter((tie) => kinds.has(tie.plantId))
    return [
      ...drawPlace(place.body, laid, catalogue),
      ...drawWood(pieces, ties, {
        on: todayHere(),
        hemisphere,
        kindOf: (id) => kinds.get(id) ?? '',
        tieState: (tie) => {
          const urgency = states.get(tie.id)
          return urgency === 'overdue' || urgency === 'due' ? urgency : 'sound'
        },
      }),
    ]
  }, [place, frames, plants, agenda, wood, hemisphere, catalogue])
}

/** Nothing here yet: it is begun with what one has, and a frame shows what comes of it. */
function NoPlace({ gardenId, canWrite }: { gardenId: string; canWrite: boolean }) {
  const { t } = useTranslation()
  const units = useUnits()
  const example = t('places.example', {
    width: units.length(sampleWall.widthM),
    height: units.length(sampleWall.usableHeightM),
  })
  const frame = layOut(sampleWall, sampleDesign, standardCatalogue)
  return (
    <div className="flex max-w-4xl flex-col items-start gap-4">
      <ScreenTitle tab={t('places.title')}>{t(canWrite ? 'places.whatHave' : 'places.empty')}</ScreenTitle>
      {canWrite && (
        <nav aria-label={t('places.whatHave')} className="flex flex-col gap-2">
          <p className="max-w-prose">{t('places.emptyText')}</p>
          <ul className="flex flex-wrap gap-2">
            {FIRST_PLACES.map((kind) => (
              <li key={kind}>
                <Link
                  className="btn min-h-11 no-underline"
                  to={`/g/${gardenId}/places/new/measures?kind=${kind}`}
                >
                  {t(`places.have.${kind}`)}
                </Link>
              </li>
            ))}
          </ul>
        </nav>
      )}
      <p className="text-slate">{example}</p>
      <StillElevation
        label={example}
        wall={sampleWall}
        surface="brick"
        list={drawPlace(sampleWall, [frame], standardCatalogue)}
        tapeAlong
      />
    </div>
  )
}
