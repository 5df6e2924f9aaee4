import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import { standardCatalogue } from '@klados/core/catalogue'
import type { StoresBody } from '@klados/contract'
import { useEffect, useRef, useState } from 'react'
import { useParams } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { api, useGardenQuery } from '../../data/api.ts'
import { useStoresDocuments } from '../../data/documents.ts'
import { useStores } from '../../data/catalogue.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import { saveDocument } from '../../data/saves.ts'
import { useAppDispatch } from '../../data/store.ts'
import { Choice } from '../../ui/Choice.tsx'
import { Loading, Message } from '../../ui/Message.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { CatalogueEditor } from './CatalogueEditor.tsx'
import { OnHand } from './OnHand.tsx'
import { Shopping } from './Shopping.tsx'

const TABS = ['shopping', 'onHand', 'catalogue'] as const

/**
 * What the plans need, what is on hand, what can be bought: one document a garden, saved as it is changed.
 */
export function Stores() {
  const { gardenId } = useParams() as { gardenId: string }
  const { t } = useTranslation()
  const data = useStoresDocuments(gardenId)
  const { data: garden } = useGardenQuery(gardenId)
  const [tab, setTab] = useState<(typeof TABS)[number]>('shopping')
  const stores = useStoresEditor(gardenId)
  const canWrite = useCanWrite(gardenId)
  if (!data || !garden) return <Loading>{t('app.loading')}</Loading>
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2">
        <ScreenTitle>{t('stores.title')}</ScreenTitle>
        <Choice
          isInline
          label={t('stores.show')}
          value={tab}
          options={TABS.map((value) => ({ value, label: t(`stores.${value}`) }))}
          onChange={setTab}
        />
        <p role="status" className="text-slate">
          {stores.status && t(`stores.status.${stores.status}`)}
        </p>
      </div>
      {stores.problem && <Message tone="limit">{stores.problem}</Message>}
      {tab === 'shopping' && (
        <Shopping
          gardenId={gardenId}
          garden={garden}
          stores={stores.body}
          canWrite={canWrite}
          onChange={stores.change}
        />
      )}
      {tab === 'onHand' && <OnHand stores={stores.body} canWrite={canWrite} onChange={stores.change} />}
      {tab === 'catalogue' && (
        <CatalogueEditor
          catalogue={stores.body.catalogue ?? standardCatalogue}
          isOwn={stores.body.catalogue !== null}
          currency={garden.currency}
          canWrite={canWrite}
          onChange={(catalogue) => stores.change({ ...stores.body, catalogue })}
        />
      )}
    </div>
  )
}

export interface StoresEditor {
  readonly body: StoresBody
  readonly change: (body: StoresBody) => void
  readonly status: 'saving' | 'saved' | 'waiting' | null
  readonly problem: string | null
}

const EMPTY: StoresBody = { catalogue: null, onHand: [] }
/** Typing in one field is one save, once the fingers rest. */
const REST_MS = 700

/**
 * Changes show at once and are saved when they rest; a save that meets somebody else's newer one says so and
 * shows theirs.
 */
function useStoresEditor(gardenId: string): StoresEditor {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const stored = useStores(gardenId)
  const [freshId] = useState(() => uuidv7())
  const [draft, setDraft] = useState<StoresBody | null>(null)
  const [status, setStatus] = useState<StoresEditor['status']>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const waiting = useRef<{ body: StoresBody; timer: number } | null>(null)
  const save = async (body: StoresBody) => {
    waiting.current = null
    setStatus('saving')
    const outcome = await dispatch(
      saveDocument('stores', gardenId, { id: stored?.id ?? freshId, basedOn: stored?.version ?? 0, body }),
    )
    // What was typed since then has its own save to come.
    setDraft((now) => (now === body ? null : now))
    setStatus(outcome.kind === 'saved' || outcome.kind === 'waiting' ? outcome.kind : null)
    setProblem(
      outcome.kind === 'conflict'
        ? t('stores.conflict', { by: outcome.current.savedBy })
        : outcome.kind === 'refused'
          ? refusalWords(t, outcome)
          : null,
    )
    if (outcome.kind === 'conflict') dispatch(api.util.invalidateTags(['Stores']))
  }
  const change = (body: StoresBody) => {
    setDraft(body)
    setStatus(null)
    if (waiting.current) window.clearTimeout(waiting.current.timer)
    waiting.current = { body, timer: window.setTimeout(() => void save(body), REST_MS) }
  }
  // Leaving the screen or the page within that rest saves at once.
  const latest = useRef(save)
  useEffect(() => {
    latest.current = save
  })
  useEffect(() => {
    const flush = () => {
      if (!waiting.current) return
      window.clearTimeout(waiting.current.timer)
      void latest.current(waiting.current.body)
    }
    addEventListener('pagehide', flush)
    return () => {
      removeEventListener('pagehide', flush)
      flush()
    }
  }, [])
  return { body: draft ?? stored?.body ?? EMPTY, change, status, problem }
}
