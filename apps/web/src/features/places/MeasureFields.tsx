import { surfaces } from '@klados/core/catalogue'
import { placeKinds, settings } from '@klados/core/frame'
import type { PlaceBody } from '@klados/contract'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { UnitsSwitch } from '../../ui/UnitsSwitch.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { FenceFields } from './FenceFields.tsx'
import { changedKind, hasFace } from './measures.ts'
import { Rise, SiteConditions } from './SiteConditions.tsx'
import { EIGHTHS, facingWord } from './facing.ts'

const FACES = surfaces.filter((one) => one !== 'open')

interface MeasureFieldsProps {
  readonly body: PlaceBody
  readonly nameError: string | undefined
  readonly onChange: (part: Partial<PlaceBody>) => void
}

/** The figures that one measures first, and what stands and blows around the place. */
export function MeasureFields({ body, nameError, onChange }: MeasureFieldsProps) {
  const { t } = useTranslation()
  const isFaced = hasFace(body.kind)
  return (
    <>
      <TextField
        label={t('place.name')}
        value={body.name}
        placeholder={t('place.namePlaceholder')}
        error={nameError}
        onChange={(name) => onChange({ name })}
      />
      <Pick
        label={t('place.kind')}
        value={body.kind}
        options={placeKinds.map((value) => ({ value, label: t(`place.${value}`) }))}
        onChange={(value) => onChange(changedKind(body.kind, value as PlaceBody['kind']))}
      />
      <div className="flex justify-end">
        <UnitsSwitch />
      </div>
      <LengthField
        label={t(isFaced ? 'place.width' : 'place.length')}
        hint={t('place.widthHint')}
        valueM={body.widthM}
        minM={0.2}
        maxM={500}
        onChange={(widthM) => onChange({ widthM })}
      />
      <LengthField
        label={t(isFaced ? 'place.usableHeight' : 'place.height')}
        hint={t(isFaced ? 'place.usableHeightHint' : 'place.heightHint')}
        valueM={body.usableHeightM}
        minM={0.1}
        maxM={30}
        onChange={(usableHeightM) => onChange({ usableHeightM })}
      />
      {isFaced && (
        <LengthField
          label={t('place.firstFork')}
          hint={t('place.firstForkHint')}
          valueM={body.firstForkM}
          minM={0}
          maxM={10}
          onChange={(firstForkM) => onChange({ firstForkM })}
        />
      )}
      {body.kind === 'row' && <Rise riseM={body.riseM} onChange={(riseM) => onChange({ riseM })} />}
      <div className="grid grid-cols-2 gap-3">
        <Pick
          label={t('place.facing')}
          value={String(body.facingDeg)}
          options={[...new Set<number>([...EIGHTHS, body.facingDeg])].map((value) => ({
            value: String(value),
            label: facingWord(t, value),
          }))}
          onChange={(value) => onChange({ facingDeg: Number(value) })}
        />
        {isFaced && (
          <Pick
            label={t('place.surface')}
            value={body.surface}
            options={FACES.map((value) => ({ value, label: t(`surface.${value}`) }))}
            onChange={(value) => onChange({ surface: value as PlaceBody['surface'] })}
          />
        )}
      </div>
      {isFaced && body.surface === 'boards' && (
        <FenceFields fence={body.fence} levels={body.levels} onChange={onChange} />
      )}
      <Pick
        label={t('place.setting')}
        value={body.setting}
        options={settings
          // The ground of a terrace is a floor, which "in the open" says nothing of.
          .filter((value) => value === body.setting || !(body.kind === 'terrace' && value === 'open'))
          .map((value) => ({ value, label: t(`setting.${value}`) }))}
        onChange={(value) => onChange({ setting: value as PlaceBody['setting'] })}
      />
      <Choice
        label={t('place.viewingEnd')}
        value={body.viewingEnd}
        options={(['left', 'right'] as const).map((value) => ({ value, label: t(`place.${value}`) }))}
        onChange={(viewingEnd) => onChange({ viewingEnd })}
      />
      <SiteConditions body={body} hasFace={isFaced} onChange={onChange} />
    </>
  )
}
