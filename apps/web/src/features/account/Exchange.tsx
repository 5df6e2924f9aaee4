import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useImportGardenMutation } from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { openJournal } from '../../data/journal.ts'
import { useAppDispatch } from '../../data/store.ts'
import { Message } from '../../ui/Message.tsx'
import { refusalWords } from '../../ui/refusal.ts'

/** The whole garden out as one file, and such a file in. */
export function Exchange({ gardenId, isOwner }: { gardenId: string; isOwner: boolean }) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const [importGarden, { isLoading }] = useImportGardenMutation()
  const [news, setNews] = useState<{ tone: 'plain' | 'limit'; text: string } | null>(null)
  const take = async (file: File | undefined) => {
    if (!file) return
    setNews(null)
    const json = await file.text().then((text) => JSON.parse(text) as unknown).catch(() => null) // prettier-ignore
    const result = await importGarden({ gardenId, file: json })
    if (result.error) {
      const { code, message } = result.error as ApiError
      // The server's sentence names the very place in the file; the words for its code alone would not.
      setNews({ tone: 'limit', text: code === 'request/malformed' || code.startsWith('exchange/') ? message : refusalWords(t, { code, message }) }) // prettier-ignore
      return
    }
    setNews({ tone: 'plain', text: t('exchange.done', { ...result.data }) })
    void dispatch(openJournal(gardenId))
  }
  return (
    <section className="flex max-w-xl flex-col gap-2">
      <h2>{t('exchange.title')}</h2>
      <p className="text-slate">{t('exchange.intro')}</p>
      <div className="flex flex-wrap items-center gap-4">
        <a className="btn no-underline" href={`/api/gardens/${gardenId}/export`} download="garden.json">{t('exchange.export')}</a>
        {isOwner && (
          <label className="btn cursor-pointer">
            {t('exchange.import')}
            <input type="file" accept="application/json,.json" className="sr-only" disabled={isLoading} onChange={(event) => void take(event.target.files?.[0])} />
          </label>
        )}
        <a href="/api/schema/klados.json">{t('exchange.schema')}</a>
      </div>
      {news && <Message tone={news.tone}>{news.text}</Message>}
    </section>
  ) // prettier-ignore
}
