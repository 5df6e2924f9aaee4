import { polylineLengthM } from '@klados/core/geometry'
import type { Point } from '@klados/core/geometry'
import { pieceRoles } from '@klados/core/wood'
import type { PieceRole } from '@klados/core/wood'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Pick } from '../../ui/Choice.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { useUnits } from '../../ui/units.tsx'
import type { WoodBenchData } from './use-bench.ts'

export interface PieceTraits {
  readonly role: PieceRole
  readonly ageSeasons: number
  readonly baseMm: number
}

interface DrawPanelProps {
  readonly data: WoodBenchData
  readonly points: readonly Point[]
  readonly traits: PieceTraits
  readonly onTraits: (traits: PieceTraits) => void
  readonly onAdd: (point: Point) => void
  readonly onFinish: () => void
  readonly onCancel: () => void
}

/** What the piece being drawn is, and its line point by point for those who draw without a pointer. */
export function DrawPanel({ data, points, traits, onTraits, onAdd, onFinish, onCancel }: DrawPanelProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const [next, setNext] = useState<Point>({ xM: data.plants[0]?.body.xM ?? 0, yM: 0 })
  const set = (part: Partial<PieceTraits>) => onTraits({ ...traits, ...part })
  const ages = [0, 1, 2, 3, 4, 6, 10]
  const nodes = data.frames.flatMap((frame) => frame.nodes)
  return (
    <section className="flex flex-col gap-2">
      <h2>{t('wood.tool.draw')}</h2>
      <p className="text-slate">{t('wood.drawHint')}</p>
      <Pick
        label={t('wood.part')}
        value={traits.role}
        options={pieceRoles.map((value) => ({ value, label: t(`wood.parts.${value}`) }))}
        onChange={(part) => set({ role: part as PieceRole })}
      />
      <Pick
        label={t('wood.age')}
        value={String(traits.ageSeasons)}
        options={ages.map((age) => ({
          value: String(age),
          label: age < 3 ? t(`wood.ages.${age as 0}`) : t('wood.ages.older', { count: age }),
        }))}
        onChange={(age) => set({ ageSeasons: Number(age) })}
      />
      <LengthField
        label={t('wood.thickness')}
        style="fine"
        maxM={1}
        valueM={traits.baseMm / 1000}
        onChange={(m) => set({ baseMm: m * 1000 })}
      />
      <p role="status" className="font-semibold">
        {t('wood.drawFrom', { count: points.length, length: units.length(polylineLengthM(points)) })}
      </p>
      <h3 className="text-slate">{t('wood.drawKeyboard')}</h3>
      {nodes.length > 0 && (
        <Pick
          label={t('wood.toNode')}
          value=""
          options={[
            { value: '', label: '–' },
            ...nodes.map((node) => ({ value: node.id, label: t('frame.nodeNumber', { n: node.number }) })),
          ]}
          onChange={(id) => {
            const node = nodes.find((one) => one.id === id)
            if (node) setNext(node.at)
          }}
        />
      )}
      <div className="grid grid-cols-2 gap-2">
        <LengthField
          label={t('place.fromLeft')}
          style="short"
          minM={0}
          valueM={next.xM}
          onChange={(xM) => setNext({ ...next, xM })}
        />
        <LengthField
          label={t('place.aboveSoil')}
          style="short"
          minM={0}
          valueM={next.yM}
          onChange={(yM) => setNext({ ...next, yM })}
        />
      </div>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn" onClick={() => onAdd(next)}>
          {t('wood.addPoint')}
        </button>
        <button type="button" className="btn btn-main" disabled={points.length < 2} onClick={onFinish}>
          {t('wood.finish')}
        </button>
        <button type="button" className="btn btn-plain" onClick={onCancel}>
          {t('wood.cancel')}
        </button>
      </div>
    </section>
  )
}
