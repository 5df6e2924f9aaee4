import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { NotHere } from '../../ui/NotHere.tsx'
import { useUnits } from '../../ui/units.tsx'
import { frameFileSchema } from '@klados/contract'
import { upcastFrameFile } from '@klados/contract/upcasts'
import type { FrameBody, FrameDocument, Place } from '@klados/contract'
import { drawSite } from '@klados/core/drawing'
import type { PatternKind } from '@klados/core/frame'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { usePlaces, useFrames } from '../../data/documents.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { changed } from '../../data/drafts.ts'
import type { FrameDraft } from '../../data/drafts.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import { useAppDispatch, useAppSelector } from '../../data/store.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import { drawLaid, layOut } from '../../plan/lay-out.ts'
import { readSmall } from '../../ui/read-small.ts'
import { Loading, Message } from '../../ui/Message.tsx'
import { Bench } from './Bench.tsx'
import { kindsFor, startDesign } from '@klados/core/design'

/** One frame of a place on the bench: the one in the address, else the first there is, else a new one. */
export function FrameBench() {
  const { gardenId, placeId, frameId } = useParams() as {
    gardenId: string
    placeId: string
    frameId?: string
  }
  const { t } = useTranslation()
  const places = usePlaces(gardenId)
  const frames = useFrames(gardenId)
  const drafts = useAppSelector((state) => state.drafts)
  if (!places || !frames) return <Loading>{t('app.loading')}</Loading>
  const place = places.find((one) => one.id === placeId)
  if (!place) return <NotHere gardenId={gardenId} />
  const here = framesHere(placeId, frames, drafts)
  if (frameId === 'new' || here.length === 0)
    return <Beginning gardenId={gardenId} place={place} frameCount={here.length} />
  const current = here.find((frame) => frame.frameId === frameId)
  if (!current)
    return <NotHere gardenId={gardenId} to={`/g/${gardenId}/places/${placeId}/frame/${here[0]!.frameId}`} />
  return (
    <Bench
      key={current.frameId}
      gardenId={gardenId}
      place={place}
      frameId={current.frameId}
      stored={current.stored}
      draft={drafts[current.frameId]}
      siblings={here.map((frame) => {
        const body = drafts[frame.frameId]?.body ?? frame.stored!.body
        return { id: frame.frameId, name: body.name, body }
      })}
    />
  )
}

/** Frames of a place, stored ones first, then those that exist only as drafts on this device. */
export function framesHere(
  placeId: string,
  frames: readonly FrameDocument[],
  drafts: Readonly<Record<string, FrameDraft>>,
) {
  const stored = frames
    .filter((frame) => !frame.isRemoved && frame.body.placeId === placeId)
    .map((frame) => ({ frameId: frame.id, stored: frame as FrameDocument | undefined }))
  const known = new Set(stored.map((frame) => frame.frameId))
  const fresh = Object.values(drafts)
    .filter((draft) => draft.body.placeId === placeId && draft.basedOn === 0 && !known.has(draft.frameId))
    .map((draft) => ({ frameId: draft.frameId, stored: undefined }))
  return [...stored, ...fresh]
}

/** What shall stand here? Every kind of frame that suits the place, drawn on this very place. */
function Beginning({ gardenId, place, frameCount }: { gardenId: string; place: Place; frameCount: number }) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const canWrite = useCanWrite(gardenId)
  const catalogue = useCatalogue(gardenId)
  const units = useUnits()
  const [problem, setProblem] = useState<string | null>(null)
  const open = (body: FrameBody) => {
    const frameId = uuidv7()
    dispatch(changed({ draft: { frameId, basedOn: 0, body }, body, isContinued: false }))
    void navigate(`/g/${gardenId}/places/${place.id}/frame/${frameId}`)
  }
  const begin = (kind: PatternKind) =>
    open({
      placeId: place.id,
      name: t(`frame.${kind}`),
      stage: 'idea',
      design: startDesign(place.body, kind, catalogue, units.system),
    })
  const bringIn = async (file: File | undefined) => {
    if (!file) return
    const read = await readFrameFile(file)
    if (read.kind === 'frame') open({ placeId: place.id, stage: 'idea', ...read.frame })
    else setProblem(t(`frame.fileProblem.${read.kind}`, { where: 'where' in read ? read.where : '' }))
  }
  return (
    <div className="flex flex-col gap-4">
      <ScreenTitle tab={t('app.tabOf', { screen: t('app.newFrame'), of: place.body.name })}>
        {frameCount === 0 ? t('frame.none', { place: place.body.name }) : t('frame.another')}
      </ScreenTitle>
      <p>
        {t('frame.choosePattern')}{' '}
        <Link to={`/g/${gardenId}/places/${place.id}/measures`}>{t('places.measure')}</Link>
      </p>
      <ul className="grid gap-x-8 gap-y-6 sm:grid-cols-2 xl:grid-cols-3">
        {kindsFor(place.body).map((kind) => {
          const frame = layOut(place.body, startDesign(place.body, kind, catalogue, units.system), catalogue)
          return (
            <li key={kind} className="flex min-w-0 flex-col items-start justify-end gap-1">
              <StillElevation
                label={t(`frame.${kind}`)}
                wall={place.body}
                surface={place.body.surface}
                list={[
                  ...drawSite(place.body, place.body.surface),
                  ...(frame ? drawLaid(frame, catalogue) : []),
                ]}
                maxHeight="220px"
              />
              <h2>{t(`frame.${kind}`)}</h2>
              <p className="text-slate">{t(`frame.${kind}Text`)}</p>
              {canWrite && (
                <button
                  type="button"
                  className="btn btn-main"
                  onClick={() => begin(kind)}
                  aria-label={`${t('frame.start')}: ${t(`frame.${kind}`)}`}
                >
                  {t('frame.start')}
                </button>
              )}
            </li>
          )
        })}
      </ul>
      {canWrite && (
        <label className="btn cursor-pointer self-start">
          {t('frame.bringIn')}
          <input
            type="file"
            className="sr-only"
            accept="application/json,.json"
            onChange={(event) => void bringIn(event.target.files?.[0])}
          />
        </label>
      )}
      {problem && <Message tone="limit">{problem}</Message>}
    </div>
  )
}

type ReadFrame =
  | { readonly kind: 'frame'; readonly frame: Omit<FrameBody, 'placeId' | 'stage'> }
  | { readonly kind: 'not-a-frame' | 'other-version' }
  | { readonly kind: 'damaged'; readonly where: string }

/**
 * A frame out of a file that somebody handed on; its place's measures are left, since it comes to stand here.
 */
async function readFrameFile(file: File): Promise<ReadFrame> {
  let json: unknown
  try {
    json = JSON.parse((await readSmall(file)) ?? '')
  } catch {
    return { kind: 'not-a-frame' }
  }
  const header = json as { format?: unknown; version?: unknown } | null
  if (header?.format !== 'klados-frame') return { kind: 'not-a-frame' }
  const parsed = frameFileSchema.safeParse(upcastFrameFile(json))
  if (parsed.success) return { kind: 'frame', frame: parsed.data.frame }
  const path = parsed.error.issues[0]!.path.join('.')
  return path === 'version' ? { kind: 'other-version' } : { kind: 'damaged', where: path }
}
