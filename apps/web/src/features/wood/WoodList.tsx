import { polylineLengthM } from '@klados/core/geometry'
import { findKind } from '@klados/core/kinds'
import { baseDiameterMm } from '@klados/core/wood'
import type { Piece, PieceRole } from '@klados/core/wood'
import { useTranslation } from 'react-i18next'
import type { Hit } from '../../elevation/Elevation.tsx'
import { Pick } from '../../ui/Choice.tsx'
import { pieceRole, pieceWords } from '../../ui/piece-words.ts'
import { useUnits } from '../../ui/units.tsx'
import type { WoodBenchData } from './use-bench.ts'

interface WoodListProps {
  readonly data: WoodBenchData
  readonly chosen: Hit | null
  readonly onChoose: (hit: Hit) => void
  readonly on: string
  readonly plantId: string | null
  readonly onPlant: (id: string | null) => void
}

const MAIN: ReadonlySet<PieceRole> = new Set(['trunk', 'arm', 'rib', 'leader', 'cane', 'bine', 'shoot'])

/**
 * The same wood as rows, so that all of it can be reached without a pointer; main wood first, spurs behind
 * it.
 */
export function WoodList({ data, chosen, onChoose, on, plantId, onPlant }: WoodListProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = new Map(data.plants.map((plant) => [plant.id, plant.body.name]))
  const kinds = new Map(data.plants.map((plant) => [plant.id, findKind(plant.body.kindId)]))
  const thicknessMm = (piece: Piece) => {
    const kind = kinds.get(piece.plantId)
    return kind ? baseDiameterMm(piece, kind, on, data.hemisphere) : piece.baseMm
  }
  const rows = data.pieces
    .filter(
      (piece) =>
        piece.removedOn === null &&
        names.has(piece.plantId) &&
        (plantId === null || piece.plantId === plantId),
    )
    .sort((a, b) => Number(MAIN.has(pieceRole(b, data, on))) - Number(MAIN.has(pieceRole(a, data, on))))
  return (
    <section className="min-w-0">
      <div className="mb-1 flex flex-wrap items-end gap-4">
        <h2>{t('wood.stems')}</h2>
        <p className="flex-1 text-slate max-sm:basis-full">{t('wood.chooseHint')}</p>
        {data.plants.length > 1 && (
          <div className="w-48">
            <Pick
              label={t('wood.plant')}
              value={plantId ?? ''}
              options={[
                { value: '', label: t('wood.allPlants') },
                ...data.plants.map((plant) => ({ value: plant.id, label: plant.body.name })),
              ]}
              onChange={(id) => onPlant(id === '' ? null : id)}
            />
          </div>
        )}
      </div>
      {rows.length === 0 ? (
        <p className="text-slate">{t('wood.noStems')}</p>
      ) : (
        <div className="max-h-52 overflow-y-auto" tabIndex={0} role="region" aria-label={t('wood.stems')}>
          <table className="w-full text-left">
            <thead className="text-[13px] text-slate">
              <tr>
                <th className="font-normal" scope="col">
                  {t('wood.part')}
                </th>
                <th className="font-normal" scope="col">
                  {t('wood.plant')}
                </th>
                <th className="text-right font-normal" scope="col">
                  {t('wood.thickness')}
                </th>
                <th className="text-right font-normal" scope="col">
                  {t('wood.length')}
                </th>
                <th className="text-right font-normal" scope="col">
                  {t('wood.ties')}
                </th>
              </tr>
            </thead>
            <tbody>
              {rows.map((piece) => (
                <tr key={piece.id} className={chosen?.id === piece.id ? 'bg-wash' : ''}>
                  <td>
                    <button
                      type="button"
                      className="min-h-6 underline decoration-faint underline-offset-4"
                      aria-pressed={chosen?.id === piece.id}
                      onClick={() => onChoose({ kind: 'wood', id: piece.id })}
                    >
                      {pieceWords(t, piece, data, on)}
                    </button>
                  </td>
                  <td>{names.get(piece.plantId)}</td>
                  <td className="text-right">{units.length(thicknessMm(piece) / 1000, 'fine')}</td>
                  <td className="text-right">{units.length(polylineLengthM(piece.path))}</td>
                  <td className="text-right">
                    {data.ties.filter((tie) => tie.pieceId === piece.id && tie.endedOn === null).length || ''}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  )
}
