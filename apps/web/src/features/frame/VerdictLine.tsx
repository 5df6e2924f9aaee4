import type { FrameBody, FrameStage, Place } from '@klados/contract'
import { coverage } from '@klados/core/strength'
import type { FramePlan } from '@klados/core/plan'
import { Link } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useCatalogue } from '../../data/catalogue.ts'
import { useNames } from '../../plan/names.ts'
import { checkWords, outcomeWords } from '../../plan/verdict.ts'
import { goToPart } from '../../ui/go-to-part.ts'
import { formatMoney } from '../../ui/money.ts'
import { useUnits } from '../../ui/units.tsx'
import { VERDICT_TONE } from './Checks.tsx'
import { JUMPS } from './jumps.ts'

interface VerdictLineProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly plan: FramePlan
  readonly design: FrameBody['design']
  readonly stage: FrameStage
  readonly isSaved: boolean
  readonly canWrite: boolean
  readonly currency: string
}

/** Under the drawing, in sight while one types: whether it holds, by how much at least, what it costs, what to do next. */
export function VerdictLine(props: VerdictLineProps) {
  const { gardenId, plan, design, stage, currency } = props
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const catalogue = useCatalogue(gardenId)
  const { checks, outcome, takeOff } = plan
  const holds = outcome.verdict === 'holds'
  const weakest = holds ? leastCovered(checks) : checks[0]
  const words = weakest && checkWords({ t, units, names, catalogue }, weakest)
  // What cannot be judged of a frame that stands is not said to give way.
  const givesWay = outcome.counts.fails + outcome.counts.doubtful
  const verdict =
    stage === 'stands' && givesWay > 0
      ? t('verdict.ifRebuilt', { count: givesWay })
      : outcomeWords(t, outcome)
  return (
    <section
      aria-label={t('verdict.label')}
      data-walk="verdict"
      className="flex flex-wrap items-baseline gap-x-3 gap-y-1 border-b border-faint py-1 max-sm:text-[0.875rem]"
    >
      <p role="status" className={VERDICT_TONE[outcome.verdict]}>
        {verdict}
      </p>
      {words && (
        <p className="min-w-0 text-slate max-sm:line-clamp-1">
          {t(holds ? 'verdict.weakest' : 'verdict.worst', { title: words.title, needs: words.needs })}
        </p>
      )}
      <p className="ml-auto flex flex-wrap items-baseline gap-x-3">
        {stage !== 'stands' && takeOff && <strong>{formatMoney(takeOff.cost, currency)}</strong>}
        <Next {...props} />
      </p>
      {design.plantKindId === null && checks.length > 0 && !plan.frame?.traits.isCover && (
        <p className="basis-full text-ochre">
          {t('verdict.whatClimbs')} {props.canWrite && <Jump to="plant">{t('verdict.choosePlant')}</Jump>}
        </p>
      )}
    </section>
  )
}

/** What is nearest to its limit of all that holds; none where nothing is asked. */
const leastCovered = (checks: FramePlan['checks']) =>
  checks
    .filter((one) => one.unit !== 'none' && Number.isFinite(coverage(one) ?? Infinity))
    .sort((a, b) => coverage(a)! - coverage(b)!)[0]

function Next({ gardenId, place, frameId, plan, stage, isSaved, canWrite }: VerdictLineProps) {
  const { t } = useTranslation()
  const base = `/g/${gardenId}/places/${place.id}`
  const open = plan.checks.filter(({ verdict }) => verdict !== 'holds')
  if (open.length > 0 && open.every(({ missing }) => missing === 'fence'))
    return <Link to={`${base}/measures#fence`}>{t('verdict.measureFence')}</Link>
  if (plan.outcome.open > 0)
    return <Jump to="checks">{t(stage === 'stands' ? 'verdict.lookAt' : 'verdict.seeFailing')}</Jump>
  if (plan.warnings.length > 0 && !isSaved) return <Jump to="checks">{t('verdict.toMind')}</Jump>
  if (!isSaved) return canWrite ? <Jump to="save">{t('verdict.save')}</Jump> : null
  return stage === 'stands' ? (
    <Link to={`${base}/wood`}>{t('verdict.plants')}</Link>
  ) : (
    <Link to={`${base}/frame/${frameId}/sheet`}>{t('verdict.sheet')}</Link>
  )
}

function Jump({ to, children }: { readonly to: keyof typeof JUMPS; readonly children: string }) {
  return (
    <button
      type="button"
      className="underline underline-offset-[3px] min-h-6"
      onClick={() => goToPart(JUMPS[to], 'center')}
    >
      {children}
    </button>
  )
}
