import type { Place } from '@klados/contract'
import type { ChoiceRecord } from '@klados/core/choices'
import { replayChoices } from '@klados/core/journal'
import { findKind } from '@klados/core/kinds'
import type { FollowUp, Stem } from '@klados/core/training'
import { useMemo, useState } from 'react'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import { formatDate } from '../../../data/dates.ts'
import type { Recorder } from '../../../data/use-recorder.ts'
import { onePress } from '../../../ui/one-press.ts'
import { tieMaterialWords } from '../../../ui/id-words.ts'
import { NumberField } from '../../../ui/NumberField.tsx'
import { SlipGroup, SlipRow } from '../../../ui/Slip.tsx'
import { useUnits } from '../../../ui/units.tsx'
import type { WoodBenchData } from '../use-bench.ts'
import { doneEntries, tiesFor } from './commit.ts'
import { download } from '../../../ui/download.ts'
import { cuttingSheet } from './cutting-sheet.ts'
import { woodWords } from '../wood-words.ts'
import { viewOfPlant } from './training.ts'
import type { Training } from './training.ts'
import { countAlike, deedWords, followWords, speech, writtenWhy } from './words.ts'
import { questionWords } from '../../../i18n/craft-words.ts'

const MOST_REASON = 200

interface DoSlipProps {
  readonly place: Place
  readonly data: WoodBenchData
  readonly training: Training
  readonly recorder: Recorder
  readonly on: string
  readonly canWrite: boolean
}

/** What was planned, as a list to work off at the plant; done, it stands in the journal. */
export function DoSlip({ place, data, training, recorder, on, canWrite }: DoSlipProps) {
  const { t } = useTranslation()
  const { planned, plant } = training
  if (!planned) return <p className="text-slate">{t('choose.doNone', { name: plant.body.name })}</p>
  return <Planned {...{ place, data, training, recorder, on, canWrite }} choice={planned} />
}

type Decided = ChoiceRecord['decided'][number]

/** What is done alike is said once, with the letters of all that it is done to; one's own choice by itself. */
function alike(decided: readonly Decided[], wordsOf: (one: Decided) => string) {
  const groups = new Map<string, { words: string; isOff: boolean; ones: Decided[] }>()
  for (const one of decided) {
    const words = wordsOf(one)
    const key = one.isOwn ? one.pieceId : words
    const known = groups.get(key)
    if (known) known.ones.push(one)
    else groups.set(key, { words, isOff: one.deed === 'off', ones: [one] })
  }
  // What stays first: the eye keeps it while the rest comes off.
  return [...groups.values()].sort((a, b) => Number(a.isOff) - Number(b.isOff))
}

function Planned({
  place,
  data,
  training,
  recorder,
  on,
  canWrite,
  choice,
}: DoSlipProps & { choice: ChoiceRecord }) {
  const { t } = useTranslation()
  const units = useUnits()
  const { view, plant } = training
  const say = speech(t, units, choice.system, view)
  const ties = useMemo(() => tiesFor(choice, view, data), [choice, view, data])
  const many = new Set(choice.decided.map(({ wire }) => wire).filter((wire) => wire !== null)).size > 1
  const head = { placeId: place.id, at: on, plantId: plant.id }
  const [took, setTook] = useState<number | null>(null)
  const reasonOf = (pieceId: string) => {
    const one = choice.decided.find((other) => other.pieceId === pieceId)
    return one ? writtenWhy(say, one).slice(0, MOST_REASON) : ''
  }
  const done = () =>
    recorder.write(t('choose.doneAll'), [
      { ...head, kind: 'choice.done', body: { v: 1, choiceId: choice.choiceId, minutes: took } },
      ...doneEntries(choice, ties, training, data, head, (pieceId) => reasonOf(pieceId)),
    ])
  /** Everything that is planned here, in the order along the place. */
  const sheet = async () => {
    const open = [...replayChoices(data.entries, on).values()].filter(({ state }) => state === 'planned')
    const inOrder = [...data.plants].sort((a, b) => a.body.xM - b.body.xM)
    const plants = inOrder.flatMap((one) =>
      open
        .filter(({ plantId }) => plantId === one.id)
        .map((planned) => ({
          name: one.body.name,
          choice: planned,
          view: viewOfPlant(place, data, one, on, view.input.latitudeDeg, null),
          stemName: ({ piece }: Stem) => woodWords(t, piece, data, on),
        })),
    )
    const hazards = new Set(
      inOrder
        .flatMap(({ body }) => findKind(body.kindId)?.hazards ?? [])
        .filter((hazard) => hazard === 'thorns'),
    )
    const cautions = [
      t('choose.caution.springing'),
      ...(hazards.size > 0 ? [t('choose.caution.thorns')] : []),
    ]
    const { sheetPdf } = await import('../../../documents/pdf.ts')
    const content = cuttingSheet(t, units, place.body.name, on, plants, cautions)
    download(`${content.title}.pdf`, 'application/pdf', await sheetPdf(content))
  }
  const count = ties.reduce((sum, plan) => sum + plan.ties.length, 0)
  return (
    <section className="flex flex-col gap-3">
      <div>
        <h2>{t('choose.doTitle', { name: plant.body.name })}</h2>
        <p className="text-slate">
          {t('choose.plannedOn', { date: formatDate(choice.madeOn) })} ·{' '}
          {questionWords(t, choice.system, choice.question)}
        </p>
      </div>
      <ol aria-label={t('choose.markingList')}>
        {alike(choice.decided, (one) => deedWords(say, choice.question, one, many)).map(
          ({ words, isOff, ones }) => (
            <li
              key={ones[0]!.pieceId}
              className="flex items-baseline gap-3 border-b border-dotted border-faint py-1"
            >
              <span className={`max-w-[55%] font-bold ${isOff ? 'text-iron' : 'text-verdigris'}`}>
                {ones.map(({ letter }) => letter).join(' ')}
              </span>
              <span className="flex-1">{words}</span>
              {ones[0]!.isOwn && (
                <span className="text-[0.8125rem] text-ochre">{ones[0]!.reason || t('choose.own')}</span>
              )}
            </li>
          ),
        )}
        {countAlike((choice.followUps ?? []).map((one) => followWords(say, one as FollowUp))).map(
          ({ words, count }) => (
            <li key={words} className="border-b border-dotted border-faint py-1 pl-7">
              {words}
              {count > 1 && ` × ${count}`}
            </li>
          ),
        )}
      </ol>
      <SlipGroup title="">
        <SlipRow label={t('choose.ties')}>{count}</SlipRow>
        {[...new Set(ties.map(({ materialId }) => materialId))].map((materialId) => {
          const ours = ties.filter((plan) => plan.materialId === materialId)
          const longest = Math.max(0, ...ours.flatMap((plan) => plan.ties.map(({ lengthMm }) => lengthMm)))
          return (
            <SlipRow
              key={materialId}
              label={t('choose.tieEach', {
                material: tieMaterialWords(t, materialId),
                length: units.length(longest / 1000, 'short'),
              })}
            >
              {t('choose.tieTotal', {
                length: units.length(ours.reduce((sum, { totalM }) => sum + totalM, 0)),
              })}
            </SlipRow>
          )
        })}
        <SlipRow label={t('choose.minutes')}>{choice.minutes}</SlipRow>
      </SlipGroup>
      {canWrite && (
        <>
          <NumberField
            label={t('choose.took')}
            value={took ?? Math.round(choice.minutes)}
            min={0}
            max={10_000}
            step={1}
            onChange={setTook}
          />
          <button type="button" className="btn btn-main py-2.5" onClick={onePress(done)}>
            {t('choose.cutTied')}
          </button>
          <p className="text-[0.8125rem] text-slate">{t('choose.doneHint')}</p>
          <div className="no-print flex gap-2">
            <button type="button" className="btn" onClick={() => void sheet()}>
              {t('choose.sheet.get')}
            </button>
            <button
              type="button"
              className="btn btn-plain"
              onClick={() =>
                recorder.write(t('choose.dropped'), [
                  { ...head, kind: 'choice.dropped', body: { v: 1, choiceId: choice.choiceId, reason: '' } },
                ])
              }
            >
              {t('choose.drop')}
            </button>
          </div>
        </>
      )}
    </section>
  )
}
