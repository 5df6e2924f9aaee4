import { useTranslation } from '../../i18n/use-translation.tsx'
import type { Hit } from '../../elevation/Elevation.tsx'
import type { WoodBenchData } from './use-bench.ts'
import { woodWords } from './wood-words.ts'

interface LooseWoodProps {
  readonly data: WoodBenchData
  readonly on: string
  readonly onChoose: (hit: Hit) => void
}

/** Wood that has lost what it ran along, in sight until it is led elsewhere. */
export function LooseWood({ data, on, onChoose }: LooseWoodProps) {
  const { t } = useTranslation()
  const loose = data.pieces.filter(({ id }) => data.loose.has(id))
  if (loose.length === 0) return null
  const nameOf = (plantId: string) => data.plants.find(({ id }) => id === plantId)?.body.name ?? ''
  return (
    <section className="border-l-4 border-ochre bg-paper px-3 py-2">
      <h2 className="text-ochre">{t('wood.loose.title')}</h2>
      <p>{t('wood.loose.text')}</p>
      <ul>
        {loose.map((piece) => (
          <li key={piece.id}>
            <button
              type="button"
              className="btn btn-plain min-h-11"
              onClick={() => onChoose({ kind: 'wood', id: piece.id })}
            >
              {woodWords(t, piece, data, on)}, {nameOf(piece.plantId)}
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}
