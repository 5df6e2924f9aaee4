import type { FrameBody, PlaceBody } from '@klados/contract'
import { MAX_TIERS } from '@klados/contract/limits'
import { useTranslation } from 'react-i18next'
import { Choice } from '../../ui/Choice.tsx'
import { Field } from '../../ui/Field.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { useUnits } from '../../ui/units.tsx'
import { startDiamonds, startTiers } from './start-design.ts'

type Pattern = FrameBody['design']['pattern']
type Of<K extends Pattern['kind']> = Extract<Pattern, { kind: K }>

interface PatternInputsProps {
  readonly place: PlaceBody
  readonly pattern: Pattern
  readonly onChange: (what: string, pattern: Pattern) => void
}

export function PatternInputs({ place, pattern, onChange }: PatternInputsProps) {
  const { t } = useTranslation()
  return (
    <>
      <Choice
        label={t('frame.choosePattern')}
        value={pattern.kind}
        options={(['tiers', 'diamonds'] as const).map((value) => ({ value, label: t(`frame.${value}`) }))}
        onChange={(kind) => onChange('kind', kind === 'tiers' ? startTiers(place) : startDiamonds(place))}
      />
      {pattern.kind === 'tiers' ? (
        <TierInputs pattern={pattern} onChange={onChange} />
      ) : (
        <DiamondInputs place={place} pattern={pattern} onChange={onChange} />
      )}
    </>
  )
}

const TIER_STEP_M = 0.4

function TierInputs({
  pattern,
  onChange,
}: {
  pattern: Of<'tiers'>
  onChange: PatternInputsProps['onChange']
}) {
  const { t } = useTranslation()
  const { heightsM } = pattern
  const set = (what: string, heights: number[]) => onChange(what, { ...pattern, heightsM: heights })
  return (
    <>
      <LengthField label={t('frame.supportSpacing')} minM={0.1} valueM={pattern.maxSupportSpacingM} onChange={(maxSupportSpacingM) => onChange('spacing', { ...pattern, maxSupportSpacingM })} />
      <fieldset>
        <legend className="text-[13px] text-slate">{t('frame.heights')}</legend>
        <div className="grid grid-cols-3 gap-2">
          {heightsM.map((heightM, i) => (
            <LengthField key={i} label={t('frame.height', { n: i + 1 })} style="short" minM={0} maxM={50} valueM={heightM} onChange={(m) => set(`height ${i}`, heightsM.map((old, other) => (other === i ? m : old)))} />
          ))}
        </div>
        <div className="mt-1 flex flex-wrap gap-2">
          <button type="button" className="btn" disabled={heightsM.length >= MAX_TIERS} onClick={() => set('add', [...heightsM, Math.round((heightsM.at(-1)! + TIER_STEP_M) * 1000) / 1000])}>{t('frame.addTier')}</button>
          <button type="button" className="btn" disabled={heightsM.length === 1} onClick={() => set('take', heightsM.slice(0, -1))}>{t('frame.removeTier')}</button>
        </div>
      </fieldset>
    </>
  ) // prettier-ignore
}

function DiamondInputs({
  place,
  pattern,
  onChange,
}: {
  place: PlaceBody
  pattern: Of<'diamonds'>
  onChange: PatternInputsProps['onChange']
}) {
  const { t } = useTranslation()
  const units = useUnits()
  const { cell } = pattern
  const set = (what: string, part: Partial<Of<'diamonds'>>) => onChange(what, { ...pattern, ...part })
  const switchCell = (by: 'width' | 'count') => {
    if (by === cell.by) return
    const count =
      cell.by === 'width' ? Math.max(1, Math.floor(place.widthM / cell.widthM + 1e-6)) : cell.count
    const widthM =
      cell.by === 'count' ? place.widthM / (cell.count + (cell.halfAtEnd ? 0.5 : 0)) : cell.widthM
    set('by', {
      cell:
        by === 'width' ? { by, widthM: Math.floor(widthM * 1000) / 1000 } : { by, count, halfAtEnd: false },
    })
  }
  return (
    <>
      <Choice label={t('frame.cellBy')} value={cell.by} options={[{ value: 'width', label: t('frame.byWidth') }, { value: 'count', label: t('frame.byCount') }]} onChange={switchCell} />
      {cell.by === 'width' ? (
        <LengthField label={t('frame.cellWidth')} minM={0.05} valueM={cell.widthM} onChange={(widthM) => set('width', { cell: { by: 'width', widthM } })} />
      ) : (
        <div className="grid grid-cols-2 items-end gap-2">
          <Field label={t('frame.cellCount')}>
            {(ids) => <input {...ids} className="input" type="number" min={1} max={500} value={cell.count} onChange={(e) => set('count', { cell: { ...cell, count: Math.min(500, Math.max(1, Math.round(Number(e.target.value) || 1))) } })} />}
          </Field>
          <label className="flex min-h-8 items-center gap-1.5">
            <input type="checkbox" className="h-4 w-4 accent-[var(--verdigris)]" checked={cell.halfAtEnd} onChange={(e) => set('half', { cell: { ...cell, halfAtEnd: e.target.checked } })} />
            {t('frame.halfAtEnd')}
          </label>
        </div>
      )}
      <div className="grid grid-cols-2 gap-2">
        <Choice label={t('frame.rows')} value={String(pattern.rows)} options={['1', '2', '3'].map((value) => ({ value, label: value }))} onChange={(rows) => set('rows', { rows: Number(rows) })} />
        <LengthField label={t('frame.cellHeight')} hint={pattern.cellHeightM === null ? t('frame.cellHeightFill') : undefined} placeholder={units.length(place.usableHeightM / pattern.rows)} minM={0.05} valueM={pattern.cellHeightM} onChange={(cellHeightM) => set('cell height', { cellHeightM })} onClear={() => set('cell height', { cellHeightM: null })} />
      </div>
      <label className="flex min-h-8 items-center gap-1.5">
        <input type="checkbox" className="h-4 w-4 accent-[var(--verdigris)]" checked={pattern.closeCutEnd} onChange={(e) => set('close', { closeCutEnd: e.target.checked })} />
        {t('frame.closeCut')}
      </label>
    </>
  ) // prettier-ignore
}
