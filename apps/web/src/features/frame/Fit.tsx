import type { FrameBody, Place } from '@klados/contract'
import type { FitProposal } from '@klados/core/frame'
import { useMemo, useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useBackground } from '../../compute/use-background.ts'
import { Working } from '../../compute/Working.tsx'
import { useGardenQuery } from '../../data/api.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { formatMoney } from '../../ui/money.ts'
import { useUnits } from '../../ui/units.tsx'

interface FitProps {
  readonly gardenId: string
  readonly place: Place
  readonly design: FrameBody['design']
  readonly onTake: (pattern: FrameBody['design']['pattern']) => void
}

const FITTED = new Set(['diamonds', 'zigzag', 'triangles', 'grid', 'tiers', 'fan', 'row', 'overhead', 'net'])

/** The few best ways to fit the pattern into the length there is, side by side, to take one. */
export function Fit({ gardenId, place, design, onTake }: FitProps) {
  const { t } = useTranslation()
  const [isOpen, setIsOpen] = useState(false)
  if (!FITTED.has(design.pattern.kind)) return null
  return (
    <details onToggle={(event) => setIsOpen(event.currentTarget.open)} className="border-t border-faint pt-2">
      <summary className="font-display text-[0.9375rem] font-semibold">{t('fit.title')}</summary>
      {isOpen && <Proposals gardenId={gardenId} place={place} design={design} onTake={onTake} />}
    </details>
  )
}

function Proposals({ gardenId, place, design, onTake }: FitProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const catalogue = useCatalogue(gardenId)
  const { data: garden } = useGardenQuery(gardenId)
  const work = useMemo(() => ({ site: place.body, design, catalogue }), [place, design, catalogue])
  const { value: proposals, isCurrent, ...how } = useBackground('fits', work)
  const isNow = (fit: FitProposal) => JSON.stringify(fit.pattern) === JSON.stringify(design.pattern)
  if (!proposals) return <Working {...how} />
  if (proposals.length === 0) return <p className="text-slate">{t('fit.none')}</p>
  return (
    <div className="overflow-x-auto">
      <Working {...how} />
      <table className="w-full min-w-[560px] text-right">
        <thead className="text-[0.8125rem] text-slate">
          <tr>
            {(['count', 'size', 'off', 'left', 'fixings', 'wire', 'moved', 'cost'] as const).map((key) => (
              <th key={key} scope="col" className="px-2 font-normal">
                {t(`fit.${key}`)}
              </th>
            ))}
            <td />
          </tr>
        </thead>
        <tbody>
          {proposals.map(({ fit, cost }, i) => (
            <tr key={i} className={isNow(fit) ? 'bg-wash' : ''}>
              <th scope="row" className="px-2 font-semibold">
                {fit.isHalfAtEnd ? t('fit.andHalf', { count: fit.count }) : fit.count}
              </th>
              <td className="px-2">{units.length(fit.sizeM, 'short')}</td>
              <td className="px-2">{Math.round(fit.offShare * 100)} %</td>
              <td className="px-2">{units.length(fit.remainderM, 'short')}</td>
              <td className="px-2">{fit.fixings}</td>
              <td className="px-2">{units.length(fit.wireM)}</td>
              <td className={`px-2 ${fit.blocked > 0 ? 'text-iron' : ''}`}>
                {fit.blocked > 0
                  ? t('fit.blocked', { count: fit.blocked })
                  : units.length(fit.movedM, 'fine')}
              </td>
              <td className="px-2">{cost === null ? '–' : formatMoney(cost, garden?.currency ?? 'EUR')}</td>
              <td>
                <button
                  type="button"
                  className="btn"
                  disabled={!isCurrent || isNow(fit)}
                  onClick={() => onTake(fit.pattern as FrameBody['design']['pattern'])}
                >
                  {t(isNow(fit) ? 'fit.taken' : 'fit.take')}
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
