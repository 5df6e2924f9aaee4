import type { FrameDocument, Place } from '@klados/contract'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { usePlants } from '../../data/documents.ts'
import { saveDocument } from '../../data/saves.ts'
import type { SaveOutcome } from '../../data/saves.ts'
import { standingAt } from '../../data/standing.ts'
import { useAppDispatch } from '../../data/store.ts'
import { Message } from '../../ui/Message.tsx'
import { refusalWords } from '../../ui/refusal.ts'

interface AlikeProps {
  readonly gardenId: string
  readonly place: Place
  readonly stored: FrameDocument
}

/** More than these stay one place that is counted so often: nobody keeps records of each. */
const MOST = 100

/**
 * A frame of which several are wanted: one place that is counted so often, until each is to have plants and records of its
 * own. The others are made after it as it was saved, with the plants that stand here.
 */
export function Alike({ gardenId, place, stored }: AlikeProps) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const plants = standingAt(usePlants(gardenId), place.id)
  const [isMaking, setIsMaking] = useState(false)
  const [trouble, setTrouble] = useState<string | null>(null)
  const { design } = stored.body
  const count = design.repeat
  if (count < 2 || count > MOST) return null
  const once = { ...stored.body, design: { ...design, repeat: 1 } }
  const saves = (n: number): Promise<SaveOutcome<unknown>>[] => {
    const placeId = uuidv7()
    const body = { ...place.body, name: `${place.body.name} ${n}`, photo: null }
    return [
      dispatch(saveDocument('places', gardenId, { id: placeId, basedOn: 0, body })),
      dispatch(saveDocument('frames', gardenId, { id: uuidv7(), basedOn: 0, body: { ...once, placeId } })),
      ...plants.map((plant) => {
        const body = { ...plant.body, placeId, motherId: null }
        return dispatch(saveDocument('plants', gardenId, { id: uuidv7(), basedOn: 0, body }))
      }),
    ]
  }
  const make = async () => {
    setIsMaking(true)
    const { id, version } = stored
    const note = t('alike.note', { count })
    // Handed in at once and in this order: whatever happens to this page, all of them are kept and sent.
    const outcomes = await Promise.all([
      dispatch(saveDocument('frames', gardenId, { id, basedOn: version, body: once, note })),
      ...Array.from({ length: count - 1 }, (_, i) => saves(i + 2)).flat(),
    ])
    setIsMaking(false)
    const refused = outcomes.find((one) => one.kind === 'refused')
    if (refused?.kind === 'refused') setTrouble(refusalWords(t, refused))
    else if (outcomes[0]!.kind !== 'conflict') void navigate(`/g/${gardenId}/places`)
  }
  return (
    <section className="flex flex-col gap-2">
      {trouble && <Message tone="due">{trouble}</Message>}
      <p className="text-slate">{t('alike.text', { count })}</p>
      <button type="button" className="btn self-start" disabled={isMaking} onClick={() => void make()}>
        {t('alike.make', { count })}
      </button>
    </section>
  )
}
