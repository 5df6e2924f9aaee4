import type { FramePlan } from '@klados/core/plan'
import type { Place } from '@klados/contract'
import { useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { alongStyle, isMoved, markOutWords, tapeStyle, offText } from '../../plan/words.ts'
import { SlipRow } from '../../ui/Slip.tsx'
import { useUnits } from '../../ui/units.tsx'

const ROWS_AT_FIRST = 8

interface MarkOutTableProps {
  readonly place: Place
  readonly plan: FramePlan
  readonly nodeId: string | null
  readonly onNode: (id: string) => void
}

/** Where each mark goes, from the viewing end; a mark chosen here is chosen on the drawing. */
export function MarkOutTable({ place, plan, nodeId, onNode }: MarkOutTableProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const [isWhole, setIsWhole] = useState(false)
  const { markOut } = plan
  if (!markOut || markOut.rows.length === 0) return null
  const rows = isWhole ? markOut.rows : markOut.rows.slice(0, ROWS_AT_FIRST)
  const hasHeights = markOut.rows.some((row) => row.what === 'node')
  const hasDepth = markOut.rows.some((row) => Math.abs(row.outM) > 1e-3)
  return (
    <section>
      <h2>{t('slip.markOut')}</h2>
      <p className="mb-1 text-slate">{markOutWords(t, markOut, place.body.viewingEnd)}</p>
      <table className="w-full text-right">
        <thead className="text-[0.8125rem] text-slate">
          <tr>
            <th className="text-left font-normal" scope="col">
              {t(hasHeights ? 'slip.node' : 'slip.mark')}
            </th>
            <th className="font-normal" scope="col">
              {t('slip.along')}
            </th>
            {hasHeights && (
              <th className="font-normal" scope="col">
                {t('slip.height')}
              </th>
            )}
            {hasDepth && (
              <th className="font-normal" scope="col">
                {t('slip.back')}
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={`${row.what} ${row.label}`} className={row.partId === nodeId ? 'bg-wash' : ''}>
              <th scope="row" className="text-left font-normal">
                <button
                  type="button"
                  className="min-h-6 min-w-6 text-left underline decoration-faint underline-offset-4"
                  onClick={() => onNode(row.partId)}
                >
                  {row.label}
                </button>
              </th>
              <td className={isMoved(row) ? 'text-ochre' : ''}>
                {offText(t, units, row.alongM, alongStyle(row, place.body.widthM), 'along')}
              </td>
              {hasHeights && (
                <td className={isMoved(row) ? 'text-ochre' : ''}>
                  {row.what === 'node' ? units.length(row.heightM, 'short') : ''}
                </td>
              )}
              {hasDepth && <td>{offText(t, units, row.outM, tapeStyle(row.outM), 'back')}</td>}
            </tr>
          ))}
        </tbody>
      </table>
      {!isWhole && markOut.rows.length > ROWS_AT_FIRST && (
        <button type="button" className="btn btn-plain px-0" onClick={() => setIsWhole(true)}>
          {t('slip.showAll', { count: markOut.rows.length })}
        </button>
      )}
      <dl>
        {markOut.diagonals.map(({ from, to, lengthM }) => (
          <SlipRow key={`${from} ${to}`} label={t('slip.diagonalOf', { from, to })}>
            {units.length(lengthM, tapeStyle(lengthM))}
          </SlipRow>
        ))}
      </dl>
    </section>
  )
}
