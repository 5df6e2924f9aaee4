import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import type { Place } from '@klados/contract'
import { Link, useNavigate } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { redone, undone } from '../../data/drafts.ts'
import type { FrameDraft } from '../../data/drafts.ts'
import { useAppDispatch } from '../../data/store.ts'
import { Pick } from '../../ui/Choice.tsx'
import { useUnits } from '../../ui/units.tsx'
import { useUndoKeys } from '../../ui/use-undo-keys.ts'

interface BenchHeadProps {
  readonly base: string
  readonly place: Place
  readonly frameId: string
  readonly kindName: string
  readonly draft: FrameDraft | undefined
  readonly siblings: readonly { readonly id: string; readonly name: string }[]
  readonly canWrite: boolean
  readonly onCopy: () => string
}

/** Where one is: the place, its frames, and the way back and forth in what was changed. */
export function BenchHead({
  base,
  place,
  frameId,
  kindName,
  draft,
  siblings,
  canWrite,
  onCopy,
}: BenchHeadProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const undo = canWrite && draft?.past.length ? () => dispatch(undone(frameId)) : null
  const redo = canWrite && draft?.future.length ? () => dispatch(redone(frameId)) : null
  useUndoKeys(undo, redo)
  const open = (id: string) => void navigate(`${base}/frame/${id}`)
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <ScreenTitle tab={t('app.tabOf', { screen: t('stage.frame'), of: place.body.name })}>
        {place.body.name}
      </ScreenTitle>
      {siblings.length > 1 && (
        <div className="w-48">
          <Pick
            label={t('frame.which')}
            value={frameId}
            options={siblings.map((s) => ({ value: s.id, label: s.name }))}
            onChange={open}
          />
        </div>
      )}
      <p className="min-w-[min(13rem,100%)] flex-1 text-slate">
        {kindName}, {units.length(place.body.widthM)} × {units.length(place.body.usableHeightM)}.{' '}
        <Link to={`${base}/measures`}>{t('places.measure')}</Link>
        {siblings.length > 1 && (
          <>
            {' '}
            <Link to={`${base}/variants`}>{t('frame.compare')}</Link>
          </>
        )}
      </p>
      {canWrite && (
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className="btn"
            aria-keyshortcuts="Control+Z"
            disabled={!undo}
            onClick={undo ?? undefined}
          >
            {t('frame.undo')}
          </button>
          <button
            type="button"
            className="btn"
            aria-keyshortcuts="Control+Shift+Z"
            disabled={!redo}
            onClick={redo ?? undefined}
          >
            {t('frame.redo')}
          </button>
          <button type="button" className="btn btn-plain px-1" onClick={() => open(onCopy())}>
            {t('frame.variant')}
          </button>
          <Link className="btn btn-plain px-1" to={`${base}/frame/new`}>
            {t('frame.another')}
          </Link>
        </div>
      )}
    </div>
  )
}
