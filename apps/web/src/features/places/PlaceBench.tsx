import { usualConditions } from '@klados/core/design'
import type { Place, PlaceBody } from '@klados/contract'
import { upcastBody } from '@klados/contract/upcasts'
import { drawSite } from '@klados/core/drawing'
import type { AvoidSpot } from '@klados/core/frame'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Navigate, useNavigate, useParams } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { surfaces } from '@klados/core/catalogue'
import { placeKinds, settings } from '@klados/core/frame'
import { useDeletePhotoMutation } from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { usePlaces } from '../../data/documents.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import { saveDocument } from '../../data/saves.ts'
import { useAppDispatch, useAppSelector } from '../../data/store.ts'
import { useDraft } from '../../data/use-draft.ts'
import { Elevation } from '../../elevation/Elevation.tsx'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { Field } from '../../ui/Field.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { Loading, Message } from '../../ui/Message.tsx'
import { Rise, SiteConditions } from './SiteConditions.tsx'
import { PlacePhotoPanel } from './PlacePhotoPanel.tsx'
import { PhotoUnderlay } from '../../elevation/PhotoUnderlay.tsx'
import { Spots } from './Spots.tsx'
import type { Placing } from './Spots.tsx'

const FACINGS = [0, 45, 90, 135, 180, 225, 270, 315]
const FACES = surfaces.filter((one) => one !== 'open')
/** Places whose frames are fixed to a face; all others stand on ground of their own. */
const hasFace = (kind: PlaceBody['kind']) => kind === 'wall' || kind === 'fence'
const fresh: PlaceBody = {
  name: '',
  kind: 'wall',
  widthM: 4,
  usableHeightM: 1.8,
  firstForkM: 0.3,
  facingDeg: 180,
  surface: 'brick',
  setting: 'open',
  viewingEnd: 'left',
  avoid: [],
  riseM: 0,
  uprights: null,
  levels: null,
  conditions: usualConditions,
  photo: null,
}

export function PlaceBench() {
  const { gardenId, placeId } = useParams() as { gardenId: string; placeId: string }
  const { t } = useTranslation()
  const places = usePlaces(gardenId)
  // A new place gets its id here and keeps its bench when it is saved and the address becomes its own.
  const [freshId] = useState(() => uuidv7())
  if (!places) return <Loading>{t('app.loading')}</Loading>
  const id = placeId === 'new' ? freshId : placeId
  const stored = places.find((place) => place.id === id)
  if (placeId !== 'new' && !stored && id !== freshId) return <Navigate replace to={`/g/${gardenId}/places`} />
  return <Measures key={id} gardenId={gardenId} id={id} stored={stored} isNew={placeId === 'new'} />
}

interface Measured {
  /** The version that one began to change: a save on top of somebody else's is told as that. */
  readonly basedOn: number
  readonly body: PlaceBody
}

/** A draft of these or earlier measures; null for what is none. */
function readMeasured(value: unknown): Measured | null {
  const { basedOn, body } = value as { basedOn?: unknown; body?: unknown }
  const up = upcastBody('places', body) as Partial<PlaceBody> | undefined
  return typeof basedOn === 'number' && typeof up?.widthM === 'number' && Array.isArray(up.avoid)
    ? { basedOn, body: up as PlaceBody }
    : null
}

interface MeasuresProps {
  readonly gardenId: string
  readonly id: string
  readonly stored: Place | undefined
  readonly isNew: boolean
}

/**
 * The five figures that one measures first, and the spots where nothing may be drilled; the wall grows as
 * they are typed.
 */
function Measures({ gardenId, id, stored, isNew }: MeasuresProps) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const canWrite = useCanWrite(gardenId)
  const start = useMemo<Measured>(
    () => ({ basedOn: stored?.version ?? 0, body: stored?.body ?? fresh }),
    [stored],
  )
  const isRemoved = stored?.isRemoved ?? false
  // Of a new place the draft lies under one address, whatever id it is given: a reload finds it again.
  const draft = useDraft('place', isNew ? `new-in-${gardenId}` : id, start, readMeasured)
  const { body } = draft.value
  // A save of one's own that came through while one typed on is no reason to ask: it is what one types on top
  // of.
  const ownVersion = useAppSelector((state) => state.sync.ownVersions[id] ?? 0)
  const [placing, setPlacing] = useState<Placing>(null)
  const [chosenSpot, setChosenSpot] = useState<string | null>(null)
  const [status, setStatus] = useState<{ tone: 'plain' | 'limit' | 'due'; text: string } | null>(null)
  const [nameError, setNameError] = useState<string>()
  /**
   * A photo that the saved place does not show any more; it stays on the server until it is deleted there.
   */
  const [gonePhoto, setGonePhoto] = useState<string | null>(null)
  const [deletePhoto] = useDeletePhotoMutation()
  const change = (part: Partial<PlaceBody>) => {
    setStatus(null)
    draft.change((old) => ({ ...old, body: { ...old.body, ...part } }))
  }
  /** A place without a face has no first fork on it and nothing to drill. */
  const changeKind = (kind: PlaceBody['kind']) => {
    if (hasFace(kind) === hasFace(body.kind)) change({ kind })
    else if (hasFace(kind)) change({ kind, surface: 'brick', firstForkM: 0.3, riseM: 0 })
    else change({ kind, surface: 'open', firstForkM: 0, uprights: null, levels: null })
  }
  const list = useMemo(() => drawSite(body, body.surface), [body])

  const save = async (then: 'stay' | 'frame', removed = false) => {
    if (body.name.trim() === '') {
      setNameError(t('account.required'))
      return
    }
    const outcome = await dispatch(
      saveDocument('places', gardenId, {
        id,
        basedOn: Math.max(draft.value.basedOn, ownVersion),
        body: { ...body, name: body.name.trim() },
        isRemoved: removed,
      }),
    )
    if (outcome.kind !== 'refused') draft.done(draft.value)
    const before = stored?.body.photo?.fileId
    setGonePhoto(outcome.kind === 'saved' && before && before !== body.photo?.fileId ? before : null)
    if (outcome.kind === 'refused') setStatus({ tone: 'limit', text: refusalWords(t, outcome) })
    else if (outcome.kind === 'conflict')
      setStatus({
        tone: 'limit',
        text: t('place.conflict', { by: outcome.current.savedBy, version: outcome.current.version }),
      })
    else if (outcome.kind === 'waiting') setStatus({ tone: 'due', text: t('frame.waiting') })
    else if (then === 'frame' && outcome.kind === 'saved') void navigate(`/g/${gardenId}/places/${id}/frame`)
    else {
      setStatus({ tone: 'plain', text: t(removed ? 'place.removed' : 'place.saved') })
      if (isNew) void navigate(`/g/${gardenId}/places/${id}/measures`, { replace: true })
    }
  }

  const addSpot = (spot: AvoidSpot) => {
    change({ avoid: [...body.avoid, spot] })
    setChosenSpot(spot.id)
    setPlacing(null)
  }
  const press = ({ xM, yM }: { xM: number; yM: number }) => {
    const inside = (value: number, most: number) =>
      Math.min(most, Math.max(0, Math.round(value * 1000) / 1000))
    const x = inside(xM, body.widthM)
    const y = inside(yM, body.firstForkM + body.usableHeightM)
    const band = (axis: 'vertical' | 'horizontal', at: number): AvoidSpot => ({
      id: uuidv7(),
      kind: 'band',
      axis,
      fromM: Math.max(0, at - 0.04),
      toM: at + 0.04,
      what: '',
    })
    if (placing === 'point') addSpot({ id: uuidv7(), kind: 'point', xM: x, yM: y, radiusM: 0.03, what: '' })
    else if (placing) addSpot(band(placing, placing === 'vertical' ? x : y))
  }
  const title = stored ? t('place.edit', { name: stored.body.name }) : t('place.new')
  return (
    <div className="grid min-h-0 flex-1 gap-6 lg:grid-cols-[minmax(0,1fr)_330px]">
      <section className="flex min-w-0 flex-col gap-2">
        <h1>{title}</h1>
        <Elevation
          label={t('place.drawing', { name: body.name || title })}
          wall={body}
          surface={body.surface}
          list={list}
          chosenId={chosenSpot}
          isDrawing={placing !== null}
          onPress={press}
          onKey={(event) => {
            if (event.key !== 'Escape' || !placing) return false
            setPlacing(null)
            return true
          }}
          tapeAlong
          underlay={(view) =>
            body.photo && <PhotoUnderlay gardenId={gardenId} photo={body.photo} view={view} />
          }
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
          void save('stay')
        }}
      >
        <fieldset disabled={!canWrite} className="flex flex-col gap-3">
          <Field label={t('place.name')} error={nameError}>
            {(ids) => (
              <input
                {...ids}
                className="input"
                value={body.name}
                maxLength={80}
                placeholder={t('place.namePlaceholder')}
                onChange={(event) => {
                  setNameError(undefined)
                  change({ name: event.target.value })
                }}
              />
            )}
          </Field>
          <Pick
            label={t('place.kind')}
            value={body.kind}
            options={placeKinds.map((value) => ({ value, label: t(`place.${value}`) }))}
            onChange={(value) => changeKind(value as PlaceBody['kind'])}
          />
          <LengthField
            label={t(hasFace(body.kind) ? 'place.width' : 'place.length')}
            hint={t('place.widthHint')}
            valueM={body.widthM}
            minM={0.2}
            maxM={500}
            onChange={(widthM) => change({ widthM })}
          />
          <LengthField
            label={t(hasFace(body.kind) ? 'place.usableHeight' : 'place.height')}
            hint={t(hasFace(body.kind) ? 'place.usableHeightHint' : 'place.heightHint')}
            valueM={body.usableHeightM}
            minM={0.1}
            maxM={30}
            onChange={(usableHeightM) => change({ usableHeightM })}
          />
          {hasFace(body.kind) && (
            <LengthField
              label={t('place.firstFork')}
              hint={t('place.firstForkHint')}
              valueM={body.firstForkM}
              minM={0}
              maxM={10}
              onChange={(firstForkM) => change({ firstForkM })}
            />
          )}
          {body.kind === 'row' && <Rise riseM={body.riseM} onChange={(riseM) => change({ riseM })} />}
          <div className="grid grid-cols-2 gap-3">
            <Pick
              label={t('place.facing')}
              value={String(body.facingDeg)}
              options={[...new Set([...FACINGS, body.facingDeg])].map((value) => ({
                value: String(value),
                label: FACINGS.includes(value)
                  ? t(`facing.${value as 0}`)
                  : t('facing.exact', { degrees: value }),
              }))}
              onChange={(value) => change({ facingDeg: Number(value) })}
            />
            {hasFace(body.kind) && (
              <Pick
                label={t('place.surface')}
                value={body.surface}
                options={FACES.map((value) => ({ value, label: t(`surface.${value}`) }))}
                onChange={(value) => change({ surface: value as PlaceBody['surface'] })}
              />
            )}
          </div>
          <Pick
            label={t('place.setting')}
            value={body.setting}
            options={settings.map((value) => ({ value, label: t(`setting.${value}`) }))}
            onChange={(value) => change({ setting: value as PlaceBody['setting'] })}
          />
          <Choice
            label={t('place.viewingEnd')}
            value={body.viewingEnd}
            options={(['left', 'right'] as const).map((value) => ({ value, label: t(`place.${value}`) }))}
            onChange={(viewingEnd) => change({ viewingEnd })}
          />
          <SiteConditions body={body} hasFace={hasFace(body.kind)} onChange={change} />
          {canWrite && (
            <div className="flex flex-wrap gap-2 pt-1">
              <button type="submit" className="btn">
                {t('place.save')}
              </button>
              <button type="button" className="btn btn-main" onClick={() => void save('frame')}>
                {t('place.toFrame')}
              </button>
              {stored && (
                <button
                  type="button"
                  className="btn btn-plain px-0 text-iron"
                  onClick={() => void save('stay', !isRemoved)}
                >
                  {t(isRemoved ? 'place.restore' : 'place.remove')}
                </button>
              )}
            </div>
          )}
        </fieldset>
        {draft.isDirty && stored && canWrite && !status && (
          <p role="status" className="text-ochre">
            {t('place.unsaved')}
          </p>
        )}
        {gonePhoto && (
          <Message tone="plain">
            {t('photo.off')}
            <button
              type="button"
              className="btn mt-2 block text-iron"
              onClick={() =>
                void deletePhoto({ gardenId, fileId: gonePhoto }).then(({ error }) => {
                  setGonePhoto(null)
                  setStatus(
                    error
                      ? { tone: 'limit', text: refusalWords(t, error as ApiError) }
                      : { tone: 'plain', text: t('photo.deleted') },
                  )
                })
              }
            >
              {t('photo.delete')}
            </button>
          </Message>
        )}
        {status && <Message tone={status.tone}>{status.text}</Message>}
      </form>
    </div>
  )
}
