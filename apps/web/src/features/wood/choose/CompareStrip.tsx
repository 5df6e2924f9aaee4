import { useTranslation } from '../../../i18n/use-translation.tsx'
import { woodWords } from '../wood-words.ts'
import { useUnits } from '../../../ui/units.tsx'
import type { WoodBenchData } from '../use-bench.ts'
import type { Training } from './training.ts'
import type { Choosing } from './use-choosing.ts'
import {
  aboutWords,
  deedWords,
  hasManyWires,
  nearWords,
  reasonWords,
  speech,
  thickWords,
  whereWords,
} from './words.ts'
import { questionWords } from '../../../i18n/craft-words.ts'

interface CompareStripProps {
  readonly data: WoodBenchData
  readonly training: Training
  readonly choosing: Choosing
  readonly on: string
}

/** All candidates side by side in the order of merit, as people compare them in their heads. */
export function CompareStrip({ data, training, choosing, on }: CompareStripProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const { question, proposal } = choosing
  const systemId = training.plant.body.system ?? ''
  const say = speech(t, units, systemId, training.view)
  const many = hasManyWires(question)
  return (
    <section className="min-w-0 overflow-x-auto max-sm:hidden">
      <table className="w-full text-left [&_td]:px-2 [&_th]:px-2 [&_td:not(:last-child)]:whitespace-nowrap">
        <caption className="sr-only">{questionWords(t, systemId, question.code)}</caption>
        <thead className="text-[0.8125rem] text-slate">
          <tr>
            <th scope="col" className="w-8" />
            <th scope="col" className="text-right font-normal">
              {t('choose.head.thick')}
            </th>
            <th scope="col" className="text-right font-normal">
              {t('choose.head.length')}
            </th>
            <th scope="col" className="text-right font-normal">
              {t('choose.head.joints')}
            </th>
            <th scope="col" className="text-right font-normal">
              {t('choose.head.buds')}
            </th>
            <th scope="col" className="font-normal">
              {t('choose.head.from')}
            </th>
            <th scope="col" className="font-normal">
              {t('choose.head.do')}
            </th>
            <th scope="col" className="font-normal">
              {t('choose.head.why')}
            </th>
          </tr>
        </thead>
        <tbody>
          {question.candidates.map((candidate) => {
            const { pieceId, letter } = candidate
            const stem = training.view.stem(pieceId)
            if (!stem) return null
            const one = proposal.chosen.get(pieceId)!
            const isOff = one.deed === 'off'
            return (
              <tr
                key={pieceId}
                className={`${pieceId === choosing.focused ? 'bg-wash' : ''} ${isOff ? 'text-slate' : ''}`}
              >
                <th scope="row">
                  <button
                    type="button"
                    className={`min-h-7 min-w-7 font-bold ${isOff ? 'text-iron' : 'text-verdigris'}`}
                    aria-pressed={pieceId === choosing.focused}
                    onClick={() => choosing.focus(pieceId === choosing.focused ? null : pieceId)}
                  >
                    {letter}
                  </button>
                </th>
                <td className="text-right">
                  {aboutWords(t, stem.piece.isTypical, thickWords(units, stem.baseMm))}
                </td>
                <td className="text-right">
                  {aboutWords(t, stem.piece.isTypical, units.length(stem.lengthM))}
                </td>
                <td className="text-right">{nearWords(units, stem.internodeM)}</td>
                <td
                  className="text-right"
                  title={t(stem.areBudsCounted ? 'choose.counted' : 'choose.reckoned')}
                >
                  {stem.areBudsCounted ? '' : '≈'}
                  {stem.buds}
                </td>
                <td>{whereWords(t, units, stem, ({ piece }) => woodWords(t, piece, data, on))}</td>
                <td>{deedWords(say, question.code, one, many)}</td>
                <td>{reasonWords(say, candidate, choosing)}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </section>
  )
}
