import { useTranslation } from '../../../i18n/use-translation.tsx'

interface BudTapeProps {
  readonly buds: number
  readonly min: number
  readonly max: number
  readonly aim: number
  readonly why: string
  readonly words: string
  /** How many of them lie each way, where that is asked. */
  readonly sides?: string | null
}

const WIDTH = 400
const HEIGHT = 30

/** The number of buds read on the tape: what is wanted is framed, a pointer stands at what there is. */
export function BudTape({ buds, min, max, aim, why, words, sides = null }: BudTapeProps) {
  const { t } = useTranslation()
  const end = Math.max(20, Math.ceil(Math.max(max, buds, aim) * 1.2))
  const x = (n: number) => (n / end) * WIDTH
  const step = end > 120 ? 20 : end > 60 ? 10 : 5
  const ticks = Array.from({ length: end + 1 }, (_, n) => n)
  const state =
    buds > max
      ? t('choose.over', { count: buds - max })
      : buds < min
        ? t('choose.under', { count: min - buds })
        : t('choose.within')
  return (
    <div>
      <svg viewBox={`0 -10 ${WIDTH} ${HEIGHT + 14}`} className="block w-full" aria-hidden="true">
        <rect className="draw-tape" x={0} y={0} width={WIDTH} height={HEIGHT} />
        {end <= 120 &&
          ticks.map((n) => (
            <line
              key={n}
              className="draw-tape-tick"
              x1={x(n)}
              x2={x(n)}
              y1={0}
              y2={n % step === 0 ? 10 : 5}
            />
          ))}
        {ticks
          .filter((n) => n > 0 && n % (step * 2) === 0 && n < end)
          .map((n) => (
            <text key={n} className="draw-tape-figure" x={x(n)} y={HEIGHT - 7} textAnchor="middle">
              {n}
            </text>
          ))}
        <rect
          x={x(min)}
          y={-3}
          width={Math.max(2, x(max) - x(min))}
          height={HEIGHT + 6}
          fill="none"
          stroke="var(--verdigris)"
          strokeWidth="2"
        />
        <path
          d={`M${x(buds) - 6} -9 L${x(buds) + 6} -9 L${x(buds)} 2 Z`}
          fill={buds >= min && buds <= max ? 'var(--verdigris)' : 'var(--iron)'}
        />
      </svg>
      <p className="flex flex-wrap justify-between gap-x-4">
        <span>
          <strong>{words}</strong>{' '}
          <span className={buds >= min && buds <= max ? 'text-verdigris' : 'text-iron'}>{state}</span>
          {sides && <span className="text-slate"> · {sides}</span>}
        </span>
        <span className="text-slate">
          {why}: {t('choose.between', { min, max })}
        </span>
      </p>
    </div>
  )
}
