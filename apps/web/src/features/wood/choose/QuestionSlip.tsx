import { clauses } from '../../../i18n/clauses.ts'
import { cropForecast } from '@klados/core/budget'
import { formatMass } from '@klados/core/units'
import { cautionsOf, isRefused } from '@klados/core/training'
import type { Candidate, Option } from '@klados/core/training'
import { useMemo } from 'react'
import { listPlain } from '../../../i18n/language.ts'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import { tieMaterialWords } from '../../../ui/id-words.ts'
import { SlipGroup, SlipRow } from '../../../ui/Slip.tsx'
import { useUnits } from '../../../ui/units.tsx'
import { BudTape } from './BudTape.tsx'
import type { Answer } from './use-answer.ts'
import { OpenTier } from './OpenTier.tsx'
import { ProposalLines } from './ProposalLines.tsx'
import { shownOptions } from './options-shown.ts'
import type { Training } from './training.ts'
import type { Choosing } from './use-choosing.ts'
import {
  countAlike,
  deedWords,
  followWords,
  hasManyWires,
  judgementWords,
  letterOf,
  remarkWords,
  speech,
} from './words.ts'
import type { Speech } from './words.ts'
import { questionHint, questionWhy, questionWords } from '../../../i18n/craft-words.ts'

interface QuestionSlipProps {
  readonly gardenId: string
  readonly placeId: string
  readonly training: Training
  readonly choosing: Choosing
  readonly answer: Answer
  readonly canWrite: boolean
  readonly onCommit: (as: 'plan' | 'done') => void
}

/** One question with the proposal in a few lines; a press on a line opens its why and what else could be done. */
export function QuestionSlip(props: QuestionSlipProps) {
  const { gardenId, placeId, training, choosing, answer, canWrite, onCommit } = props
  const { t } = useTranslation()
  const units = useUnits()
  const { question, proposal } = choosing
  const { view } = training
  const { ties, tieCount, minutes } = answer
  const focused = question.candidates.find(({ pieceId }) => pieceId === choosing.focused)
  const name = (pieceId: string) =>
    letterOf(question.candidates, pieceId) ?? t(`wood.parts.${view.stem(pieceId)?.role ?? 'spur'}`)
  const { clusterYield } = view.kind
  const typical = question.candidates.filter(({ pieceId }) => view.stem(pieceId)?.piece.isTypical).length
  // Of how many clusters a number of buds is told, the words ask for it.
  const clustersOf = (buds: number) =>
    clusterYield ? rangeWords(cropForecast(buds, clusterYield).clusters) : ''
  const systemId = training.plant.body.system ?? ''
  const say = speech(t, units, systemId, view)
  return (
    <section
      className="flex flex-col gap-3"
      data-walk={`question ${focused ? 'opened' : ''} ${choosing.overrides.size > 0 ? 'otherwise' : ''}`}
    >
      <div>
        <h2>{questionWords(t, systemId, question.code)}</h2>
        <p className="text-slate">{questionHint(t, systemId, question.code)}</p>
      </div>
      {question.counts !== null && (
        <BudTape
          buds={proposal.buds}
          {...question.buds}
          words={t(`choose.${question.counts}`, { count: proposal.buds })}
          sides={proposal.bySide && t('choose.perSide', { ...proposal.bySide })}
          why={
            questionWhy(t, systemId, question.code) ??
            t(`choose.targetWhy.${view.target.why}`, {
              formula: view.target.why === 'weighed' ? view.target.by : goalFormula(training),
              mass: formatMass(view.input.pruningsKg ?? 0, units.system),
            })
          }
        />
      )}
      {typical > 0 && <p className="text-ochre">{t('choose.typical', { count: typical })}</p>}
      <Spoken say={say} choosing={choosing} />
      {focused ? (
        <Alternatives say={say} systemId={systemId} candidate={focused} choosing={choosing} />
      ) : (
        <ProposalLines say={say} choosing={choosing} />
      )}
      {!focused && (
        <>
          {proposal.followUps.length > 0 && (
            <details>
              <summary className="text-slate">
                {t('choose.followUps')}: {t('choose.more', { count: proposal.followUps.length })}
              </summary>
              <ul>
                {countAlike(proposal.followUps.map((one) => followWords(say, one))).map(
                  ({ words, count }) => (
                    <li key={words}>
                      {words}
                      {count > 1 && ` × ${count}`}
                    </li>
                  ),
                )}
              </ul>
            </details>
          )}
          {proposal.remarks.length > 0 && (
            <ul className="flex flex-col gap-1">
              {proposal.remarks.map((one, i) => (
                <li key={i} className={one.isLack ? 'text-ochre' : ''}>
                  {remarkWords(say, one, name, clustersOf)}{' '}
                  {one.wireAtM !== null && (
                    <OpenTier gardenId={gardenId} placeId={placeId} heightM={one.wireAtM} />
                  )}
                </li>
              ))}
            </ul>
          )}
          <SlipGroup title="">
            {proposal.bareM > 0.01 && question.weights.gapPerM > 0 && (
              <SlipRow label={t('choose.cover')} tone={proposal.bareM > 0.3 ? 'due' : undefined}>
                {t('choose.bare', { length: units.length(proposal.bareM) })}
              </SlipRow>
            )}
            {clusterYield && question.counts === 'buds' && (
              <SlipRow label={t('choose.crop')}>
                {t('choose.cropRange', {
                  from: formatMass(cropForecast(proposal.buds, clusterYield).cropKg[0], units.system),
                  to: formatMass(cropForecast(proposal.buds, clusterYield).cropKg[1], units.system),
                })}
              </SlipRow>
            )}
            {tieCount > 0 && (
              <SlipRow label={t('choose.ties')}>
                {tieCount},{' '}
                {listPlain([...new Set(ties.map(({ materialId }) => tieMaterialWords(t, materialId)))])},{' '}
                {units.length(ties.reduce((sum, plan) => sum + plan.totalM, 0))}
              </SlipRow>
            )}
            <SlipRow label={t('choose.minutes')}>{minutes}</SlipRow>
          </SlipGroup>
          {!question.isWoodMissing && (
            <p className="text-[0.8125rem] text-slate">
              {t(
                choosing.isLooking
                  ? 'choose.looking'
                  : proposal.isProven
                    ? 'choose.proven'
                    : 'choose.unproven',
              )}
            </p>
          )}
          {canWrite && !question.isWoodMissing && (
            <div className="flex flex-wrap items-center gap-2 bg-paper max-sm:sticky max-sm:bottom-0 max-sm:-mx-5 max-sm:border-t max-sm:border-faint max-sm:px-5 max-sm:py-2">
              <button type="button" className="btn btn-main flex-1 py-2.5" onClick={() => onCommit('plan')}>
                {t('choose.commitPlan')}
              </button>
              <button type="button" className="btn py-2.5" onClick={() => onCommit('done')}>
                {t('choose.recordDone')}
              </button>
            </div>
          )}
          {choosing.overrides.size > 0 && (
            <button type="button" className="btn btn-plain self-start px-0" onClick={choosing.reset}>
              {t('choose.back')}
            </button>
          )}
          <ul className="text-[0.8125rem] text-slate">
            {cautionsOf(view, proposal).map((code) => (
              <li key={code}>{t(`choose.caution.${code}`)}</li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}

function goalFormula({ plant }: Training): string {
  return plant.body.budGoal?.by === 'balanced' ? plant.body.budGoal.formula : ''
}

const rangeWords = ([low, high]: readonly [number, number]) =>
  Math.round(low) === Math.round(high) ? String(Math.round(low)) : `${Math.round(low)}–${Math.round(high)}`

/** For those who hear the page: which candidate is looked at, what is done with it, and how many buds that makes. */
function Spoken({ say, choosing }: { readonly say: Speech; readonly choosing: Choosing }) {
  const { t } = say
  const { question, proposal, focused } = choosing
  const candidate = question.candidates.find(({ pieceId }) => pieceId === focused)
  const deed = candidate && proposal.chosen.get(candidate.pieceId)
  return (
    <p role="status" className="sr-only">
      {candidate &&
        deed &&
        `${candidate.letter}: ${deedWords(say, question.code, deed, hasManyWires(question))}. `}
      {question.counts !== null && t(`choose.${question.counts}`, { count: proposal.buds })}
    </p>
  )
}

interface AlternativesProps {
  readonly say: Speech
  readonly systemId: string
  readonly candidate: Candidate
  readonly choosing: Choosing
}

/** One candidate: what speaks for and against it, what else can be done, and what would then change. */
function Alternatives({ say, systemId, candidate, choosing }: AlternativesProps) {
  const { t } = useTranslation()
  const { question, proposal, overrides } = choosing
  const now = proposal.chosen.get(candidate.pieceId)!
  const others = useMemo(() => shownOptions(candidate, now), [candidate, now])
  const many = hasManyWires(question)
  return (
    <div className="flex flex-col gap-2">
      <h3 className="font-semibold">
        <span className={now.deed === 'off' ? 'text-iron' : 'text-verdigris'}>{candidate.letter}</span>:{' '}
        {deedWords(say, question.code, now, many)}
      </h3>
      <ul>
        {candidate.judgements.map((one) => (
          <li
            key={one.code}
            className={one.tone === 'for' ? 'text-verdigris' : one.tone === 'tells' ? '' : 'text-iron'}
          >
            {one.tone === 'for' ? '+' : one.tone === 'tells' ? '·' : '−'}{' '}
            {judgementWords(say, one, candidate.pieceId)}
          </li>
        ))}
      </ul>
      <h3 className="text-slate">{t('choose.whyNot')}</h3>
      <ul className="flex flex-col gap-1">
        {others.map((option, i) => (
          <OptionLine
            key={option.id}
            say={say}
            n={i + 1}
            candidate={candidate}
            option={option}
            choosing={choosing}
            many={many}
          />
        ))}
      </ul>
      {choosing.refused && (
        <p role="alert" className="text-iron">
          {t('choose.refused', {
            rules: clauses(
              t,
              choosing.refused.rules.map((rule) => say.craft('rule', rule)),
            ),
          })}
        </p>
      )}
      {overrides.has(candidate.pieceId) && (
        <label className="block">
          <span className="text-[0.8125rem] text-slate">{t('choose.reason')}</span>
          <input
            className="input"
            maxLength={200}
            value={choosing.reasons.get(candidate.pieceId) ?? ''}
            onChange={(event) => choosing.giveReason(candidate.pieceId, event.target.value)}
          />
        </label>
      )}
      <button type="button" className="btn self-start" onClick={() => choosing.focus(null)}>
        {questionWords(t, systemId, question.code)}
      </button>
    </div>
  )
}

interface OptionLineProps {
  readonly say: Speech
  readonly n: number
  readonly candidate: Candidate
  readonly option: Option
  readonly choosing: Choosing
  readonly many: boolean
}

function OptionLine({ say, n, candidate, option, choosing, many }: OptionLineProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const { question } = choosing
  // biome-ignore lint/correctness/useExhaustiveDependencies: what would change follows from the proposal alone.
  const change = useMemo(
    () => choosing.whyNot(candidate.pieceId, option.id),
    [candidate.pieceId, option.id, choosing.proposal],
  )
  const words = () => {
    if (isRefused(change))
      return t('choose.refused', {
        rules: clauses(
          t,
          change.rules.map((rule) => say.craft('rule', rule)),
        ),
      })
    const more = [
      ...change.others
        .slice(0, 3)
        .map(
          ({ candidate: other, after }) => `${other.letter} ${deedWords(say, question.code, after, many)}`,
        ),
    ]
    const said = more.length > 0 ? [t('choose.alsoChanges', { list: listPlain(more) })] : []
    if (Math.abs(change.bareMoreM) > 0.04 && question.weights.gapPerM > 0)
      said.push(
        t(change.bareMoreM > 0 ? 'choose.bareMore' : 'choose.bareLess', {
          length: units.length(Math.abs(change.bareMoreM)),
        }),
      )
    if (change.budsMore !== 0 && question.counts !== null)
      said.push(
        t(`choose.${question.counts}${change.budsMore > 0 ? 'More' : 'Less'}`, {
          count: Math.abs(change.budsMore),
        }),
      )
    return said.length > 0 ? clauses(t, said) : t('choose.noOther')
  }
  return (
    <li>
      <button
        type="button"
        className="btn w-full justify-start text-left"
        onClick={() => choosing.take(candidate.pieceId, option.id)}
      >
        <span className="text-slate" aria-hidden="true">
          {n}
        </span>
        <span className="min-w-0 flex-1">
          {deedWords(say, question.code, option, many)}
          <span className="block text-[0.8125rem] text-slate">{words()}</span>
        </span>
      </button>
    </li>
  )
}
