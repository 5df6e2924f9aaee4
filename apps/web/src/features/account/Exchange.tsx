import type { ImportAnswers, ImportQuestion } from '@klados/contract'
import { useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { api } from '../../data/api.ts'
import { dayAt, formatDate } from '../../data/dates.ts'
import { readOn } from '../../data/read-journal.ts'
import { useAppDispatch } from '../../data/store.ts'
import { Choice } from '../../ui/Choice.tsx'
import { Message } from '../../ui/Message.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { sendGardenFile } from './send-garden-file.ts'
import type { ImportEnd, Sending } from './send-garden-file.ts'

type Into = 'new' | 'same'
interface Asked {
  readonly file: File
  readonly questions: readonly ImportQuestion[]
}

/** The whole garden out as one file; such a file as a new garden, or back into the one that it is of. */
export function Exchange({ gardenId, isOwner }: { gardenId: string; isOwner: boolean }) {
  const { t } = useTranslation()
  const taking = useTaking(gardenId)
  return (
    <section className="flex max-w-xl flex-col gap-3">
      <h2 className="text-[1.25rem]">{t('exchange.title')}</h2>
      <p className="text-slate">{t('exchange.intro')}</p>
      <div className="flex flex-wrap items-center gap-4">
        <a className="btn no-underline" href={`/api/gardens/${gardenId}/export`} download="garden.json">
          {t('exchange.export')}
        </a>
        <a href="/api/schema/klados.json">{t('exchange.schema')}</a>
      </div>
      <p className="text-slate">{t('exchange.introIn')}</p>
      <div className="flex flex-wrap items-center gap-4">
        <PickFile into="new" taking={taking} />
        {isOwner && <PickFile into="same" taking={taking} />}
      </div>
      <HowFar taking={taking} />
    </section>
  )
}

/** For somebody who is in no garden: one of theirs from a file. */
export function NewFromFile() {
  const taking = useTaking(null)
  return (
    <div className="flex flex-col items-start gap-3">
      <PickFile into="new" taking={taking} />
      <HowFar taking={taking} />
    </div>
  )
}

type Taking = ReturnType<typeof useTaking>

/** Sends a file and follows it; what it asks is kept with the file until it is answered. */
function useTaking(gardenId: string | null) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const [share, setShare] = useState<number | null>(null)
  const [news, setNews] = useState<{ tone: 'plain' | 'limit'; text: string } | null>(null)
  const [asked, setAsked] = useState<Asked | null>(null)
  const sending = useRef<Sending | null>(null)

  const tell = (end: ImportEnd, file: File) => {
    if ('questions' in end) return setAsked({ file, questions: end.questions })
    if ('error' in end) {
      const { code, message } = end.error
      // The server's sentence names the very place in the file; the words for its code alone would not.
      const text = code.startsWith('exchange/') ? message : refusalWords(t, end.error)
      return setNews({ tone: 'limit', text })
    }
    dispatch(api.util.invalidateTags(['Session', 'Place', 'Frame', 'Plant', 'Stores']))
    setNews({ tone: 'plain', text: t('exchange.done', { ...end.done.counts }) })
    if (end.done.gardenId === gardenId) return void dispatch(readOn())
    const session = dispatch(api.endpoints.session.initiate(undefined, { forceRefetch: true }))
    void session.then(() => navigate(`/g/${end.done.gardenId}/places`))
  }
  const take = async (into: Into, file: File | undefined, answers?: ImportAnswers) => {
    if (!file) return
    setNews(null)
    setAsked(null)
    setShare(0)
    const url = into === 'new' ? '/api/gardens-from-file' : `/api/gardens/${gardenId}/import`
    const fields = into === 'new' ? { gardenId: uuidv7() } : answers ? { answers } : {}
    sending.current = sendGardenFile(url, file, fields, setShare)
    const end = await sending.current.end
    setShare(null)
    if ('stopped' in end) setNews({ tone: 'plain', text: t('exchange.stopped') })
    else tell(end, file)
  }
  return { share, news, asked, take, stop: () => sending.current?.stop(), leave: () => setAsked(null) }
}

function PickFile({ into, taking }: { into: Into; taking: Taking }) {
  const { t } = useTranslation()
  return (
    <label className="btn cursor-pointer">
      {t(into === 'new' ? 'exchange.makeNew' : 'exchange.takeBack')}
      <input
        type="file"
        accept="application/json,.json"
        className="sr-only"
        disabled={taking.share !== null}
        onChange={(event) => {
          void taking.take(into, event.target.files?.[0])
          event.target.value = ''
        }}
      />
    </label>
  )
}

function HowFar({ taking }: { taking: Taking }) {
  const { t } = useTranslation()
  const { share, asked, news } = taking
  return (
    <>
      {share !== null && (
        <p className="flex items-center gap-3" role="status">
          <label className="flex items-center gap-3">
            {t('exchange.taking', { percent: Math.round(share * 100) })}
            <progress value={share} max={1} />
          </label>
          <button type="button" className="btn" onClick={taking.stop}>
            {t('background.stop')}
          </button>
        </p>
      )}
      {asked && (
        <Questions
          {...asked}
          onAnswer={(answers) => void taking.take('same', asked.file, answers)}
          onStop={taking.leave}
        />
      )}
      {news && <Message tone={news.tone}>{news.text}</Message>}
    </>
  )
}

interface QuestionsProps extends Asked {
  readonly onAnswer: (answers: ImportAnswers) => void
  readonly onStop: () => void
}

/**
 * Documents that the garden has newer than the file, or other: each wants its answer before anything is
 * changed.
 */
function Questions({ questions, onAnswer, onStop }: QuestionsProps) {
  const { t } = useTranslation()
  const [answers, setAnswers] = useState<ImportAnswers>({})
  const all = (answer: 'keep' | 'take') =>
    setAnswers(Object.fromEntries(questions.map(({ id }) => [id, answer])))
  const isWhole = questions.every(({ id }) => answers[id])
  return (
    <div className="flex flex-col gap-3 border-l-4 border-ochre bg-paper px-4 py-3">
      <p>{t('exchange.questions', { count: questions.length })}</p>
      <ul className="flex max-h-96 flex-col overflow-y-auto">
        {questions.map(({ kind, id, name, stored, file }) => (
          <li
            key={id}
            className="flex flex-wrap items-end gap-x-4 gap-y-1 border-b border-dotted border-faint py-2"
          >
            <span className="min-w-0 flex-1 basis-48">
              <span className="block font-semibold">{t(`exchange.kind.${kind}`, { name })}</span>
              <span className="block text-[0.8125rem] text-slate">
                {t('exchange.stored', {
                  version: stored.version,
                  date: formatDate(dayAt(stored.savedAt)),
                  by: stored.savedBy,
                })}
                ;{' '}
                {file.savedAt
                  ? t('exchange.inFile', {
                      version: file.version,
                      date: formatDate(dayAt(file.savedAt)),
                    })
                  : t('exchange.inOldFile')}
              </span>
            </span>
            <Choice
              label={t('exchange.stands')}
              value={answers[id] ?? ''}
              options={(['keep', 'take'] as const).map((value) => ({ value, label: t(`exchange.${value}`) }))}
              onChange={(answer) => setAnswers((old) => ({ ...old, [id]: answer as 'keep' | 'take' }))}
            />
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-3">
        <button type="button" className="btn btn-main" disabled={!isWhole} onClick={() => onAnswer(answers)}>
          {t('exchange.goOn')}
        </button>
        <button type="button" className="btn" onClick={() => all('keep')}>
          {t('exchange.keepAll')}
        </button>
        <button type="button" className="btn" onClick={() => all('take')}>
          {t('exchange.takeAll')}
        </button>
        <button type="button" className="btn btn-plain px-0" onClick={onStop}>
          {t('exchange.leave')}
        </button>
      </div>
    </div>
  )
}
