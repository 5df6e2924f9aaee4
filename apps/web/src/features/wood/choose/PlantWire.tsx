import type { Plant } from '@klados/contract'
import { useRef } from 'react'
import { useTranslation } from '../../../i18n/use-translation.tsx'

interface PlantWireProps {
  readonly plants: readonly Plant[]
  readonly chosenId: string | null
  readonly onChoose: (plantId: string) => void
}

/** Beyond so many, names do not fit beside each other: only the one chosen is named. */
const NAMED = 6

/** The plants of the place as knots on a wire; arrow keys go along it. */
export function PlantWire({ plants, chosenId, onChoose }: PlantWireProps) {
  const { t } = useTranslation()
  const list = useRef<HTMLDivElement>(null)
  const inOrder = [...plants].sort((a, b) => a.body.xM - b.body.xM)
  const at = inOrder.findIndex((one) => one.id === chosenId)
  const go = (to: number) => {
    const next = inOrder[Math.min(inOrder.length - 1, Math.max(0, to))]
    if (!next) return
    onChoose(next.id)
    list.current?.querySelectorAll<HTMLElement>('[role=radio]')[inOrder.indexOf(next)]?.focus()
  }
  if (inOrder.length < 2) return null
  return (
    <div className="flex items-center gap-3">
      <div
        ref={list}
        role="radiogroup"
        aria-label={t('choose.plants')}
        className="relative flex min-w-0 flex-1 justify-between overflow-x-auto"
        onKeyDown={(event) => {
          const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key]
          if (step === undefined) return
          event.preventDefault()
          go(at + step)
        }}
      >
        <span className="absolute inset-x-0 top-[13px] h-[1.4px] bg-slate" aria-hidden="true" />
        {inOrder.map((plant, i) => {
          const isChosen = plant.id === chosenId
          return (
            <button
              key={plant.id}
              type="button"
              role="radio"
              aria-checked={isChosen}
              aria-label={plant.body.name}
              tabIndex={isChosen || (at < 0 && i === 0) ? 0 : -1}
              className={`relative flex min-h-11 min-w-6 flex-col focus-visible:-outline-offset-2 items-center px-0.5 ${isChosen ? 'font-semibold text-verdigris' : ''}`}
              onClick={() => onChoose(plant.id)}
            >
              <Knot isChosen={isChosen} />
              {inOrder.length <= NAMED && (
                <span className="whitespace-nowrap text-[0.8125rem]">{plant.body.name}</span>
              )}
            </button>
          )
        })}
      </div>
      {at >= 0 && inOrder.length > NAMED && (
        <span className="whitespace-nowrap text-[0.8125rem] text-slate">
          <strong className="font-semibold text-verdigris">{inOrder[at]!.body.name}</strong>,{' '}
          {t('choose.plantOf', { n: at + 1, of: inOrder.length })}
        </span>
      )}
    </div>
  )
}

/** A tick on the wire; the chosen one is a figure of eight. */
function Knot({ isChosen }: { isChosen: boolean }) {
  return (
    <svg width="16" height="26" aria-hidden="true">
      {isChosen ? (
        <g fill="none" stroke="currentColor" strokeWidth="2.2">
          <ellipse cx="8" cy="8" rx="4.6" ry="5" />
          <ellipse cx="8" cy="18" rx="4.6" ry="5" />
        </g>
      ) : (
        <line x1="8" x2="8" y1="7" y2="19" stroke="var(--slate)" strokeWidth="2" />
      )}
    </svg>
  )
}
