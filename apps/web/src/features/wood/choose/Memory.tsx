import { clauses } from '../../../i18n/clauses.ts'
import { formatNumber } from '../../../i18n/language.ts'
import { choiceOutcome } from '@klados/core/choices'
import type { ChoiceRecord } from '@klados/core/choices'
import { formatMass } from '@klados/core/units'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import { formatDate } from '../../../data/dates.ts'
import { useUnits } from '../../../ui/units.tsx'
import type { WoodBenchData } from '../use-bench.ts'
import type { Training } from './training.ts'
import { deedWords, speech } from './words.ts'
import { questionWords } from '../../../i18n/craft-words.ts'

const SHOWN = 3
/** On less than this a rate says nothing. */
const LONG_M = 0.3
/** What was laid or led can be judged by what broke on it. */
const LED: ReadonlySet<string> = new Set(['lay', 'to-and-fro', 'cut'])

/** Earlier choices of the plant beside what came of them. */
export function Memory({ data, training }: { readonly data: WoodBenchData; readonly training: Training }) {
  const { t } = useTranslation()
  const done = training.choices.filter(({ state }) => state === 'done')
  if (done.length === 0) return null
  return (
    <section>
      <h2>{t('choose.memory')}</h2>
      {done.slice(0, SHOWN).map((choice) => (
        <Remembered key={choice.choiceId} choice={choice} data={data} training={training} />
      ))}
    </section>
  )
}

interface RememberedProps {
  readonly choice: ChoiceRecord
  readonly data: WoodBenchData
  readonly training: Training
}

function Remembered({ choice, data, training }: RememberedProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const say = speech(t, units, choice.system, training.view)
  const outcome = choiceOutcome(choice, data.state.pieces, training.record?.readings ?? [])
  return (
    <div className="mt-1">
      <h3 className="text-slate">
        {t('choose.memoryOf', {
          date: formatDate(choice.doneOn ?? choice.madeOn),
          question: questionWords(t, choice.system, choice.question),
        })}
      </h3>
      <ul>
        {choice.decided
          .filter(({ deed, isOwn }) => LED.has(deed) || isOwn)
          .map((one) => {
            const came = outcome.pieces.find(({ pieceId }) => pieceId === one.pieceId)
            const said = [
              ...(one.isOwn
                ? [one.reason ? t('choose.memoryOwn', { reason: one.reason }) : t('choose.memoryOwnPlain')]
                : []),
              ...(came?.shootsPerM !== undefined && came.shootsPerM !== null && came.laidM > LONG_M
                ? [t('choose.memoryShoots', { rate: formatNumber(came.shootsPerM, 1) })]
                : []),
              ...(came && !came.isAlive && came.endedWhy
                ? [t('choose.memoryDead', { why: came.endedWhy })]
                : []),
            ]
            return (
              <li key={one.pieceId} className="flex gap-2 border-b border-dotted border-faint py-0.5">
                <span className="w-5 font-bold">{one.letter}</span>
                <span className="min-w-0 flex-1">
                  {deedWords(say, choice.question, one, false)}
                  {said.length > 0 && (
                    <span className="block text-[0.8125rem] text-slate">{clauses(t, said)}</span>
                  )}
                </span>
              </li>
            )
          })}
      </ul>
      {outcome.cropKg !== null && (
        <p>{t('choose.memoryCrop', { mass: formatMass(outcome.cropKg, units.system) })}</p>
      )}
      {!outcome.isTold && <p className="text-slate">{t('choose.memoryUntold')}</p>}
    </div>
  )
}
