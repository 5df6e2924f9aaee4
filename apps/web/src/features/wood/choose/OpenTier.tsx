import { levelId } from '@klados/core/frame'
import { Link, useNavigate } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import { changed } from '../../../data/drafts.ts'
import { useFrames } from '../../../data/documents.ts'
import { useAppDispatch } from '../../../data/store.ts'

interface OpenTierProps {
  readonly gardenId: string
  readonly placeId: string
  readonly heightM: number
}

/** Opens the frame bench with a variant of the frame that has the tier which the plant is ready for. */
export function OpenTier({ gardenId, placeId, heightM }: OpenTierProps) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const frames = (useFrames(gardenId) ?? []).filter((one) => !one.isRemoved && one.body.placeId === placeId)
  const stands = frames.find(({ body }) => body.stage === 'stands') ?? frames[0]
  const pattern = stands?.body.design.pattern
  const base = `/g/${gardenId}/places/${placeId}/frame`
  if (!stands || pattern?.kind !== 'tiers') return <Link to={base}>{t('choose.openFrame')}</Link>
  const open = () => {
    const frameId = uuidv7()
    const level = { id: levelId(`l${uuidv7().slice(-12)}`), heightM: Math.round(heightM * 1000) / 1000 }
    const levels = [...pattern.levels, level]
    const body = {
      ...stands.body,
      name: `${stands.body.name}, ${t('choose.tierMore')}`,
      stage: 'idea' as const,
      design: { ...stands.body.design, pattern: { ...pattern, levels } },
    }
    dispatch(changed({ draft: { frameId, basedOn: 0, body }, body, isContinued: false }))
    void navigate(`${base}/${frameId}`)
  }
  return (
    <button type="button" className="btn" onClick={open}>
      {t('choose.openFrame')}
    </button>
  )
}
