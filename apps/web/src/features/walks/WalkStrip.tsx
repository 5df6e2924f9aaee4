import { useEffect, useState, useSyncExternalStore } from 'react'
import { Link, useLocation } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { formatDate } from '../../data/dates.ts'
import { useFrames, usePlaces } from '../../data/documents.ts'
import { useAgenda } from '../../data/agenda.ts'
import { WALKS, endWalk, onWalking, setWalking, stepOf, walkingNow } from './walks.ts'
import type { Walking } from './walks.ts'
import { useExample } from './use-example.ts'

/** How often one looks whether a step was done. */
const LOOK_MS = 300

/** The walk that somebody is on: its step at the foot of the screen, which goes on by itself when it is done. */
export function WalkStrip({ gardenId }: { gardenId: string }) {
  const walking = useSyncExternalStore(onWalking, walkingNow)
  return walking && <Strip key={walking.id} gardenId={gardenId} walking={walking} />
}

function Strip({ gardenId, walking }: { gardenId: string; walking: Walking }) {
  const { t } = useTranslation()
  const { id, step } = walking
  const of = WALKS[id].length
  const isOver = step >= of
  const { pathname } = useLocation()
  useEffect(() => {
    const { mark, isDone } = stepOf(id, step) ?? {}
    if (mark) document.documentElement.dataset.walkAt = mark
    let isShown = mark === undefined
    const look = setInterval(() => {
      const there = isShown ? null : document.querySelector(`[data-walk~="${mark}"]`)
      if (there) {
        there.scrollIntoView({ block: 'nearest' })
        isShown = true
      }
      if (isDone?.(window.location)) setWalking({ id, step: step + 1 })
    }, LOOK_MS)
    return () => {
      clearInterval(look)
      delete document.documentElement.dataset.walkAt
    }
  }, [id, step])
  // Seen to its end: it is over when one goes on to another screen.
  const [endedAt] = useState<{ path: string | null }>({ path: null })
  useEffect(() => {
    if (!isOver) return
    // The address is there before the screen is.
    const here = window.location.pathname
    endedAt.path ??= here
    if (endedAt.path !== here) endWalk(id)
  }, [isOver, pathname, endedAt, id])
  return (
    <div className="no-print sticky bottom-0 z-10 flex flex-wrap items-center gap-x-4 gap-y-2 border-t-2 border-verdigris bg-paper px-6 py-3 max-sm:px-3">
      <p role="status" className="min-w-[min(18rem,100%)] flex-1">
        <span className="text-slate">
          {isOver ? t(`walk.${id}.title`) : t('walk.step', { title: t(`walk.${id}.title`), n: step + 1, of })}
        </span>{' '}
        {isOver ? t('walk.end') : <StepWords walking={walking} />}
      </p>
      {!isOver && <Onward gardenId={gardenId} walking={walking} />}
      <button type="button" className="btn btn-plain" onClick={() => endWalk(id)}>
        {t(isOver ? 'walk.close' : 'walk.leave')}
      </button>
    </div>
  )
}

function StepWords({ walking: { id, step } }: { walking: Walking }) {
  const { t } = useTranslation()
  if (id === 'row') return t(`walk.row.${WALKS.row[step]!}`)
  if (id === 'cut') return t(`walk.cut.${WALKS.cut[step]!}`)
  return t(`walk.tie.${WALKS.tie[step]!}`)
}

/** To where the step is done; or on, where there is nothing to be done but to look. */
function Onward({ gardenId, walking }: { gardenId: string; walking: Walking }) {
  const { t } = useTranslation()
  const { id, step } = walking
  const goal = useGoal(gardenId, walking)
  const next = () => setWalking({ id, step: step + 1 })
  if (goal)
    return (
      <Link className="btn btn-main no-underline" to={goal.to}>
        {goal.words}
      </Link>
    )
  if (stepOf(id, step)?.isDone)
    return (
      <button type="button" className="btn" onClick={next}>
        {t('walk.skip')}
      </button>
    )
  return (
    <button type="button" className="btn btn-main" onClick={next}>
      {t('walk.next')}
    </button>
  )
}

/** The screen that a step begins at, where one press leads there. */
function useGoal(gardenId: string, { id, step }: Walking) {
  const { t } = useTranslation()
  const places = usePlaces(gardenId) ?? []
  const frames = useFrames(gardenId) ?? []
  const { items } = useAgenda(gardenId)
  const example = useExample(gardenId, id === 'cut' && step === 0)
  const base = `/g/${gardenId}/places`
  const row = frames.find(({ isRemoved, body }) => !isRemoved && body.design.pattern.kind === 'row')
  const place = places.find((one) => one.id === row?.body.placeId)
  if (id === 'row' && row && place) {
    if (step === 0)
      return { to: `${base}/${place.id}/frame`, words: t('walk.openFrame', { name: place.body.name }) }
    if (step === 3) return { to: `${base}/${place.id}/frame/${row.id}/sheet`, words: t('walk.openSheet') }
  }
  if (id === 'cut' && step === 0 && example)
    return {
      to: example.to,
      words: t('walk.openPlant', { name: example.name, date: formatDate(example.on) }),
    }
  if (id === 'tie' && step === 0) return { to: `/g/${gardenId}/round`, words: t('walk.openList') }
  const [first] = items
  if (id === 'tie' && step === 1 && first)
    return { to: `${base}/${first.place.id}/wood?tie=${first.tie.id}`, words: t('walk.openTie') }
  return null
}
