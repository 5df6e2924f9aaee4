import { budFormulas } from '@klados/core/budget'
import type { BudFormulaId } from '@klados/core/budget'
import { SAMPLE, sampleBudget, sampleVines } from '@klados/core/tally'
import { formatMass } from '@klados/core/units'
import { useMemo, useState } from 'react'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import { saveDocument } from '../../../data/saves.ts'
import { useAppDispatch } from '../../../data/store.ts'
import { Pick } from '../../../ui/Choice.tsx'
import { SlipRow } from '../../../ui/Slip.tsx'
import { useUnits } from '../../../ui/units.tsx'
import { around } from '../choose/goal.ts'
import type { RowLine } from './use-row.ts'

interface SampleBudgetProps {
  readonly gardenId: string
  readonly row: readonly RowLine[]
  readonly onPlant: (plantId: string) => void
}

const LIMITS = { min: 12, max: 90 } as const

/** A row's budget from the prunings of a few of its vines: cut rough, weigh these, then trim the row to it. */
export function SampleBudgetOf({ gardenId, row, onPlant }: SampleBudgetProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const dispatch = useAppDispatch()
  const [formula, setFormula] = useState<BudFormulaId>('30+10')
  const [given, setGiven] = useState<number | null>(null)
  const sample = useMemo(() => new Set(sampleVines(row)), [row])
  const lines = row.filter(({ id }) => sample.has(id))
  // Others that were weighed all the same tell as much.
  const weighed = row.flatMap(({ is, counted }) =>
    (is === 'counted' || is === 'portrait') && counted?.pruningsKg ? [counted.pruningsKg] : [],
  )
  if (lines.length < SAMPLE.least) return null
  const found = sampleBudget(weighed, formula, LIMITS)
  const give = (buds: number) => {
    const bearing = row.filter(({ is }) => is === 'counted' || is === 'portrait')
    for (const { plant } of bearing)
      void dispatch(
        saveDocument('plants', gardenId, {
          id: plant.id,
          basedOn: plant.version,
          body: { ...plant.body, budGoal: around(buds) },
        }),
      )
    setGiven(bearing.length)
  }
  return (
    <details>
      <summary className="font-display text-[0.9375rem] font-semibold">{t('tally.sample.title')}</summary>
      <div className="flex flex-col gap-2">
        <p className="text-slate">{t('tally.sample.how', { count: lines.length })}</p>
        <ul className="flex flex-wrap gap-1">
          {lines.map(({ id, n, counted }) => (
            <li key={id}>
              <button type="button" className="btn px-2" onClick={() => onPlant(id)}>
                {n}
                {counted?.pruningsKg ? `: ${formatMass(counted.pruningsKg, units.system)}` : ''}
              </button>
            </li>
          ))}
        </ul>
        <Pick
          label={t('choose.formula')}
          value={formula}
          options={budFormulas.map(({ id }) => ({
            value: id,
            label: t('choose.formulaOf', { formula: id }),
          }))}
          onChange={(value) => setFormula(value as BudFormulaId)}
        />
        {!found && (
          <p className="text-slate">
            {t('tally.sample.notYet', { weighed: weighed.length, least: SAMPLE.least })}
          </p>
        )}
        {found && (
          <dl>
            <SlipRow label={t('tally.sample.mean', { count: found.weighed })}>
              {formatMass(found.meanKg, units.system)}
            </SlipRow>
            <SlipRow label={t('tally.sample.buds')} isDeciding>
              {found.buds === null || !found.range
                ? t('tally.sample.under')
                : t('tally.sample.range', { buds: found.buds, low: found.range[0], high: found.range[1] })}
            </SlipRow>
          </dl>
        )}
        {found && found.buds !== null && (
          <button type="button" className="btn self-start" onClick={() => give(found.buds!)}>
            {t('tally.sample.take', { buds: found.buds })}
          </button>
        )}
        {given !== null && (
          <p role="status" className="text-verdigris">
            {t('tally.sample.taken', { count: given })}
          </p>
        )}
      </div>
    </details>
  )
}
