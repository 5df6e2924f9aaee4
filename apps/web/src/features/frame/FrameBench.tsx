import type { FrameBody, FrameDocument, Place } from '@klados/contract'
import { drawFrame, drawWall } from '@klados/core/drawing'
import { makeFrame } from '@klados/core/frame'
import { useTranslation } from 'react-i18next'
import { Link, Navigate, useNavigate, useParams } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { useFramesQuery, usePlacesQuery } from '../../data/api.ts'
import { changed } from '../../data/drafts.ts'
import type { FrameDraft } from '../../data/drafts.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import { useAppDispatch, useAppSelector } from '../../data/store.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import { Loading } from '../../ui/Message.tsx'
import { Bench } from './Bench.tsx'
import { startDesign } from './start-design.ts'

/** One frame of a place on the bench: the one in the address, else the first there is, else a new one. */
export function FrameBench() {
  const { gardenId, placeId, frameId } = useParams() as {
    gardenId: string
    placeId: string
    frameId?: string
  }
  const { t } = useTranslation()
  const { data: places } = usePlacesQuery(gardenId)
  const { data: frames } = useFramesQuery(gardenId)
  const drafts = useAppSelector((state) => state.drafts)
  if (!places || !frames) return <Loading>{t('app.loading')}</Loading>
  const place = places.find((one) => one.id === placeId)
  if (!place) return <Navigate replace to={`/g/${gardenId}/places`} />
  const here = framesHere(placeId, frames, drafts)
  if (frameId === 'new' || here.length === 0)
    return <Beginning gardenId={gardenId} place={place} frameCount={here.length} />
  const current = here.find((frame) => frame.frameId === frameId)
  if (!current) return <Navigate replace to={`/g/${gardenId}/places/${placeId}/frame/${here[0]!.frameId}`} />
  return (
    <Bench
      key={current.frameId}
      gardenId={gardenId}
      place={place}
      frameId={current.frameId}
      stored={current.stored}
      draft={drafts[current.frameId]}
      siblings={here.map((frame) => ({
        id: frame.frameId,
        name: drafts[frame.frameId]?.body.name ?? frame.stored!.body.name,
      }))}
    />
  )
}

/** Frames of a place, stored ones first, then those that exist only as drafts on this device. */
function framesHere(
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

/** How shall the wires run? Both patterns drawn on this very wall. */
function Beginning({ gardenId, place, frameCount }: { gardenId: string; place: Place; frameCount: number }) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const canWrite = useCanWrite(gardenId)
  const begin = (kind: 'tiers' | 'diamonds') => {
    const frameId = uuidv7()
    const body: FrameBody = {
      placeId: place.id,
      name: t(`frame.${kind}`),
      design: startDesign(place.body, kind),
    }
    dispatch(changed({ draft: { frameId, basedOn: 0, body }, body, isContinued: false }))
    void navigate(`/g/${gardenId}/places/${place.id}/frame/${frameId}`)
  }
  return (
    <div className="flex flex-col gap-4">
      <h1>{frameCount === 0 ? t('frame.none', { place: place.body.name }) : t('frame.another')}</h1>
      <p>{t('frame.choosePattern')}</p>
      <div className="grid gap-8 lg:grid-cols-2">
        {(['tiers', 'diamonds'] as const).map((kind) => {
          const design = startDesign(place.body, kind)
          const frame = makeFrame(place.body, design.pattern, design)
          return (
            <section key={kind} className="flex min-w-0 flex-col items-start gap-2">
              <StillElevation
                label={t(`frame.${kind}`)}
                wall={place.body}
                surface={place.body.surface}
                list={[...drawWall(place.body), ...drawFrame(frame)]}
              />
              <h2>{t(`frame.${kind}`)}</h2>
              <p className="text-slate">{t(`frame.${kind}Text`)}</p>
              {canWrite && (
                <button type="button" className="btn btn-main" onClick={() => begin(kind)} aria-label={`${t('frame.start')}: ${t(`frame.${kind}`)}`}>
                  {t('frame.start')}
                </button>
              )}
            </section>
          )
        })}
      </div>
      <Link to={`/g/${gardenId}/places/${place.id}/measures`}>{t('places.measure')}</Link>
    </div>
  ) // prettier-ignore
}
