import { currentLanguage } from '../../i18n/language.ts'
import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import type { Place } from '@klados/contract'
import { drawSite } from '@klados/core/drawing'
import type { AvoidSpot } from '@klados/core/frame'
import { useEffect, useMemo, useState } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { forgetBeginning } from '../../data/beginning.ts'
import { usePlaces } from '../../data/documents.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import { useDraft } from '../../data/use-draft.ts'
import { Elevation } from '../../elevation/Elevation.tsx'
import { PhotoUnderlay } from '../../elevation/PhotoUnderlay.tsx'
import { NotHere } from '../../ui/NotHere.tsx'
import { useLasting } from '../../ui/use-lasting.ts'
import { Loading, Message } from '../../ui/Message.tsx'
import { MeasureFields } from './MeasureFields.tsx'
import { freshPlaceOf, hasFace, readMeasured, spotAt } from './measures.ts'
import type { Measured } from './measures.ts'
import { MineDashed, PlaceClashMessage, usePlaceClash } from './PlaceClash.tsx'
import { PlacePhotoPanel } from './PlacePhotoPanel.tsx'
import { RemovePlace } from './RemovePlace.tsx'
import { Spots } from './Spots.tsx'
import type { Placing } from './Spots.tsx'
import { usePlaceSave } from './use-place-save.ts'

export function PlaceBench() {
  const { gardenId, placeId } = useParams() as { gardenId: string; placeId: string }
  const { t } = useTranslation()
  const places = usePlaces(gardenId)
  // A new place gets its id here and keeps its bench when it is saved and the address becomes its own.
  const [freshId] = useState(() => uuidv7())
  if (!places) return <Loading>{t('app.loading')}</Loading>
  const id = placeId === 'new' ? freshId : placeId
  const stored = places.find((place) => place.id === id)
  const taken = new Set(places.map(({ body }) => body.name))
  if (placeId !== 'new' && !stored && id !== freshId) return <NotHere gardenId={gardenId} />
  return (
    <Measures key={id} gardenId={gardenId} id={id} stored={stored} isNew={placeId === 'new'} taken={taken} />
  )
}

/** What it is, as a name to begin with: the first of these that no place has. */
function freeName(what: string, taken: ReadonlySet<string>): string {
  const first = what.slice(0, 1).toLocaleUpperCase(currentLanguage()) + what.slice(1)
  let name = first
  for (let n = 2; taken.has(name); n++) name = `${first} ${n}`
  return name
}

interface MeasuresProps {
  readonly gardenId: string
  readonly id: string
  readonly stored: Place | undefined
  readonly isNew: boolean
  /** Names that other places have. */
  readonly taken: ReadonlySet<string>
}

/**
 * The five figures that one measures first, and the spots where nothing may be drilled; the wall grows as
 * they are typed.
 */
function Measures({ gardenId, id, stored, isNew, taken }: MeasuresProps) {
  const { t } = useTranslation()
  const canWrite = useCanWrite(gardenId)
  const asked = useSearchParams()[0].get('kind')
  const [named] = useState(() => {
    const fresh = freshPlaceOf(asked)
    return { ...fresh, name: freeName(t(`place.${fresh.kind}`), taken) }
  })
  const start = useMemo<Measured>(
    () => ({ basedOn: stored?.version ?? 0, body: stored?.body ?? named }),
    [stored, named],
  )
  // Of a new place the draft lies under one address, whatever id it is given: a reload finds it again.
  useEffect(forgetBeginning, [])
  const draft = useDraft('place', isNew ? `new-in-${gardenId}` : id, start, readMeasured)
  const { body } = draft.value
  const onTaken = () => draft.done(draft.value)
  const saving = usePlaceSave({ gardenId, id, stored, isNew, measured: draft.value, onTaken })
  const [placing, setPlacing] = useState<Placing>(null)
  const [chosenSpot, setChosenSpot] = useState<string | null>(null)
  const change = (part: Partial<Measured['body']>) => {
    saving.touched()
    draft.change((old) => ({ ...old, body: { ...old.body, ...part } }))
  }
  const list = useMemo(() => drawSite(body, body.surface), [body])
  const clash = usePlaceClash(id, useLasting(saving.touched))
  const addSpot = (spot: AvoidSpot) => {
    change({ avoid: [...body.avoid, spot] })
    setChosenSpot(spot.id)
    setPlacing(null)
  }
  const title = stored ? t('place.edit', { name: stored.body.name }) : t('place.new')
  return (
    <div className="grid min-h-0 flex-1 gap-6 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_330px]">
      <section className="flex min-w-0 flex-col gap-2">
        <ScreenTitle>{title}</ScreenTitle>
        <Elevation
          label={t('place.drawing', { name: body.name || title })}
          wall={body}
          surface={body.surface}
          list={list}
          chosenId={chosenSpot}
          isDrawing={placing !== null}
          onPress={(at) => placing && addSpot(spotAt(placing, at, body))}
          onKey={(event) => {
            if (event.key !== 'Escape' || !placing) return false
            setPlacing(null)
            return true
          }}
          tapeAlong
          underlay={(view) =>
            body.photo && <PhotoUnderlay gardenId={gardenId} photo={body.photo} view={view} />
          }
          overlay={(view) => clash && <MineDashed mine={clash.mine} view={view} />}
        />
        <fieldset disabled={!canWrite} className="min-w-0">
          {hasFace(body.kind) && (
            <PlacePhotoPanel gardenId={gardenId} body={body} onChange={(photo) => change({ photo })} />
          )}
          <Spots
            wall={body}
            chosen={chosenSpot}
            onChoose={setChosenSpot}
            placing={placing}
            onPlace={setPlacing}
            onAdd={addSpot}
            onChange={(avoid) => change({ avoid })}
          />
        </fieldset>
      </section>
      <form
        className="slip flex flex-col gap-3 self-start"
        onSubmit={(event) => {
          event.preventDefault()
          void saving.save('stay')
        }}
      >
        {clash && canWrite && <PlaceClashMessage clash={clash} />}
        <fieldset disabled={!canWrite} className="flex flex-col gap-3">
          <MeasureFields body={body} nameError={saving.nameError} onChange={change} />
          {canWrite && (
            <Saves gardenId={gardenId} stored={stored} onSave={(...what) => void saving.save(...what)} />
          )}
        </fieldset>
        {draft.isDirty && stored && canWrite && !saving.status && (
          <p role="status" className="text-ochre">
            {t('place.unsaved')}
          </p>
        )}
        {saving.gonePhoto && (
          <Message tone="plain">
            {t('photo.off')}
            <button
              type="button"
              className="btn mt-2 block text-iron"
              onClick={() => void saving.deleteGone(saving.gonePhoto!)}
            >
              {t('photo.delete')}
            </button>
          </Message>
        )}
        {!clash && saving.status && <Message tone={saving.status.tone}>{saving.status.text}</Message>}
      </form>
    </div>
  )
}

interface SavesProps {
  readonly gardenId: string
  readonly stored: Place | undefined
  readonly onSave: (then: 'stay' | 'frame', isRemoved?: boolean) => void
}

function Saves({ gardenId, stored, onSave }: SavesProps) {
  const { t } = useTranslation()
  return (
    <div className="flex flex-wrap gap-2 pt-1">
      <button type="submit" className="btn">
        {t('place.save')}
      </button>
      <button type="button" className="btn btn-main" onClick={() => onSave('frame')}>
        {t('place.toFrame')}
      </button>
      {stored && (
        <RemovePlace
          gardenId={gardenId}
          stored={stored}
          onRemove={(isRemoved) => onSave('stay', isRemoved)}
        />
      )}
    </div>
  )
}
