import { useRef } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useCatalogue } from '../../data/catalogue.ts'
import { useNames } from '../../plan/names.ts'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { frameKinds } from '@klados/core/frame'
import type { PatternOf } from './change.ts'
import { fieldWords } from '../../ui/id-words.ts'
import { Fold } from './Group.tsx'
import { newLevelId } from './new-part.ts'

type Row = PatternOf<'row'>
type Level = Row['levels'][number]

interface RowInputsProps {
  readonly gardenId: string
  readonly pattern: Row
  readonly onChange: (what: string, pattern: Row) => void
}

const { fields } = frameKinds.row
const { of: levelField } = fields.levels
const LEVEL_STEP_M = 0.3

/** Wires of a row from below: how high, one or a pair, of which wire. */
export function RowWires({ pattern, onChange }: Omit<RowInputsProps, 'gardenId'>) {
  const { t } = useTranslation()
  const set = (what: string, part: Partial<Row>) => onChange(what, { ...pattern, ...part })
  const setLevel = (what: string, at: number, part: Partial<Level>) =>
    set(`${what} ${at}`, {
      levels: pattern.levels.map((level, i) => (i === at ? { ...level, ...part } : level)),
    })
  return (
    <>
      {pattern.levels.map((level, i) => (
        <div
          key={level.id}
          className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_minmax(0,1fr)_auto] items-end gap-2 border-b border-dotted border-faint pb-2 md:grid-cols-[84px_minmax(0,1.5fr)_minmax(0,1fr)_84px_84px_auto] md:border-0 md:pb-0"
        >
          <LengthField
            label={t('row.height', { n: i + 1 })}
            style="short"
            minM={levelField.heightM.minM}
            maxM={levelField.heightM.maxM}
            valueM={level.heightM}
            onChange={(heightM) => setLevel('height', i, { heightM })}
          />
          <div className="col-span-2 md:col-span-1">
            <Pick
              label={t('row.form')}
              value={level.form}
              options={levelField.form.options.map((value) => ({
                value,
                label: t(`row.forms.${value}`),
              }))}
              onChange={(form) => setLevel('form', i, { form: form as Level['form'] })}
            />
          </div>
          <div className="order-1 md:order-none">
            <Pick
              label={t('row.role')}
              value={level.role}
              options={levelField.role.options.map((value) => ({
                value,
                label: t(`row.roles.${value}`),
              }))}
              onChange={(role) => setLevel('role', i, { role: role as Level['role'] })}
            />
          </div>
          <div className="order-1 md:order-none">
            {level.form === 'arms' && (
              <LengthField
                label={t('row.spread')}
                style="short"
                minM={levelField.spreadM.minM}
                maxM={levelField.spreadM.maxM}
                valueM={level.spreadM}
                onChange={(spreadM) => setLevel('spread', i, { spreadM })}
              />
            )}
          </div>
          <div className="order-1 md:order-none">
            {level.form !== 'single' && (
              <LengthField
                label={t('row.lift')}
                style="short"
                minM={levelField.liftM.minM}
                maxM={levelField.liftM.maxM}
                valueM={level.liftM}
                onChange={(liftM) => setLevel('lift', i, { liftM })}
              />
            )}
          </div>
          <button
            type="button"
            className="btn"
            aria-label={t('row.removeWire', { n: i + 1 })}
            disabled={pattern.levels.length === 1}
            onClick={() => set('take', { levels: pattern.levels.filter((_, other) => other !== i) })}
          >
            ×
          </button>
        </div>
      ))}
      <button
        type="button"
        className="btn self-start"
        disabled={pattern.levels.length >= fields.levels.max}
        onClick={() => set('add', { levels: withWireMore(pattern) })}
      >
        {t('row.addWire')}
      </button>
    </>
  )
}

/**
 * One more wire like the top one: a step above it, or, where the posts end before that, in the middle of the widest
 * gap between the wires that there are.
 */
function withWireMore({ levels, postHeightM }: Row): Row['levels'] {
  const top = levels.at(-1)!
  const above = levels.length
  const highestM = top.heightM + LEVEL_STEP_M + (top.form === 'single' ? 0 : top.liftM)
  if (highestM <= postHeightM) return insert(above, top.heightM + LEVEL_STEP_M)
  const gaps = levels.map(({ heightM }, i) => ({
    at: i,
    fromM: levels[i - 1]?.heightM ?? 0,
    toM: heightM,
  }))
  const widest = gaps.reduce((a, b) => (b.toM - b.fromM > a.toM - a.fromM ? b : a))
  return insert(widest.at, (widest.fromM + widest.toM) / 2)

  function insert(at: number, heightM: number): Row['levels'] {
    const like = levels[Math.min(at, levels.length - 1)]!
    const wire = { ...like, id: newLevelId(), heightM: Math.round(heightM * 1000) / 1000 }
    return [...levels.slice(0, at), wire, ...levels.slice(at)]
  }
}

const ANGLE_DEG = 45
const { roomBeyondM: room } = fields
const { attachHeightM: attach, angleDeg: angle, inLine, strands } = fields.end.of['tied-back']

/** What holds the ends of a row, and the cross-arms where it has them. */
export function RowEnds({
  gardenId,
  pattern,
  onChange,
  isAll,
}: RowInputsProps & { readonly isAll: boolean }) {
  const { t } = useTranslation()
  const catalogue = useCatalogue(gardenId)
  const names = useNames()
  const { end } = pattern
  const set = (what: string, next: Row['end']) => onChange(what, { ...pattern, end: next })
  // Whoever looks at another end and comes back finds what was chosen before.
  const left = useRef<Partial<Record<Row['end']['kind'], Row['end']>>>({})
  const attachHeightM = end.kind === 'free' ? Math.round(pattern.postHeightM * 80) / 100 : end.attachHeightM
  const angleDeg = end.kind === 'free' ? ANGLE_DEG : end.angleDeg
  const usual: { readonly [K in Row['end']['kind']]: Row['end'] } = {
    free: { kind: 'free' },
    braced: { kind: 'braced', attachHeightM, angleDeg, stockId: pattern.postStockId },
    'tied-back': {
      kind: 'tied-back',
      attachHeightM,
      angleDeg,
      screwId: catalogue.screws.find((one) => one.head === 'eye')?.id ?? '',
      inLine: 1,
      strands: 3,
    },
  }
  const pick = (kind: Row['end']['kind']) => {
    left.current[end.kind] = end
    set('end', left.current[kind] ?? usual[kind])
  }
  return (
    <>
      <Choice
        label={t('row.end')}
        value={end.kind}
        options={(['tied-back', 'braced', 'free'] as const).map((value) => ({
          value,
          label: t(`row.ends.${value}`),
        }))}
        onChange={pick}
      />
      <LengthField
        label={fieldWords(t, 'roomBeyondM')}
        style="short"
        minM={room.minM}
        maxM={room.maxM}
        valueM={pattern.roomBeyondM}
        onClear={() => onChange('room beyond', { ...pattern, roomBeyondM: null })}
        placeholder={t('frame.notTold')}
        onChange={(roomBeyondM) => onChange('room beyond', { ...pattern, roomBeyondM })}
      />
      {end.kind !== 'free' && (
        <Fold
          title={t(`row.endOf.${end.kind}`)}
          isOpen={isAll}
          isInner
          unusual={JSON.stringify(end) === JSON.stringify(usual[end.kind]) ? 0 : 1}
        >
          <div className="grid grid-cols-2 items-end gap-2">
            <LengthField
              label={t('row.attach')}
              style="short"
              minM={attach.minM}
              maxM={attach.maxM}
              valueM={end.attachHeightM}
              onChange={(m) => set('attach', { ...end, attachHeightM: m })}
            />
            <NumberField
              label={t('row.angle')}
              value={end.angleDeg}
              min={angle.min}
              max={angle.max}
              step={angle.step}
              onChange={(degrees) => set('angle', { ...end, angleDeg: degrees })}
            />
            {end.kind === 'tied-back' && (
              <NumberField
                label={t('row.inLine')}
                value={end.inLine}
                min={inLine.min}
                max={inLine.max}
                step={1}
                onChange={(count) => set('in-line', { ...end, inLine: Math.round(count) })}
              />
            )}
            {end.kind === 'tied-back' && (
              <NumberField
                label={t('row.strands')}
                value={end.strands}
                min={strands.min}
                max={strands.max}
                step={1}
                onChange={(count) => set('strands', { ...end, strands: Math.round(count) })}
              />
            )}
            <div className="col-span-2">
              {end.kind === 'tied-back' ? (
                <Pick
                  label={t('row.anchor')}
                  value={end.screwId}
                  options={catalogue.screws
                    .filter((one) => one.head === 'eye')
                    .map((one) => ({ value: one.id, label: names.screw(one) }))}
                  onChange={(screwId) => set('anchor', { ...end, screwId })}
                />
              ) : (
                <Pick
                  label={t('row.brace')}
                  value={end.stockId}
                  options={catalogue.stock
                    .filter((one) => one.use === 'post')
                    .map((one) => ({ value: one.id, label: names.stock(one) }))}
                  onChange={(stockId) => set('brace', { ...end, stockId })}
                />
              )}
            </div>
          </div>
        </Fold>
      )}
      {pattern.levels.some((level) => level.form === 'arms') && (
        <ArmStock gardenId={gardenId} pattern={pattern} onChange={onChange} />
      )}
    </>
  )
}

function ArmStock({ gardenId, pattern, onChange }: RowInputsProps) {
  const { t } = useTranslation()
  const catalogue = useCatalogue(gardenId)
  const names = useNames()
  return (
    <Pick
      label={t('row.arms')}
      value={pattern.armStockId}
      options={catalogue.stock
        .filter((one) => one.use === 'bar')
        .map((one) => ({ value: one.id, label: names.stock(one) }))}
      onChange={(armStockId) => onChange('arms', { ...pattern, armStockId })}
    />
  )
}
