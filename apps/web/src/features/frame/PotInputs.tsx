import { BALLAST_RANGE_KG } from '@klados/core/frame'
import type { Pot } from '@klados/core/frame'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Check, Choice } from '../../ui/Choice.tsx'
import { Fold } from './Group.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { MassField } from '../../ui/MassField.tsx'

interface PotInputsProps {
  readonly pot: Pot | null
  readonly canBeNone: boolean
  /** What lies in it is asked for at once. */
  readonly isAll: boolean
  readonly onChange: (pot: Pot | null) => void
}

const USUAL: Pot = {
  shape: 'round',
  widthM: 0.4,
  heightM: 0.4,
  ballastKg: 0,
  drainageM: 0,
  hasCharcoal: false,
  isThere: false,
}

/** The pot that it stands in, or the ground. */
export function PotInputs({ pot, canBeNone, isAll, onChange }: PotInputsProps) {
  const { t } = useTranslation()
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="text-[0.8125rem] text-slate">{t('pot.title')}</legend>
      {canBeNone && (
        <Check
          label={t('pot.standsIn')}
          isOn={pot !== null}
          onChange={(isOn) => onChange(isOn ? USUAL : null)}
        />
      )}
      {pot && (
        <div className="grid grid-cols-2 items-end gap-2">
          <div className="col-span-2">
            <Choice
              label={t('pot.shape')}
              value={pot.shape}
              options={(['round', 'square'] as const).map((value) => ({
                value,
                label: t(`pot.shapes.${value}`),
              }))}
              onChange={(shape) => onChange({ ...pot, shape })}
            />
          </div>
          <LengthField
            label={t('pot.width')}
            style="short"
            minM={0.05}
            maxM={3}
            valueM={pot.widthM}
            onChange={(widthM) => onChange({ ...pot, widthM })}
          />
          <div className="order-last col-span-2">
            <Check
              label={t('pot.isThere')}
              isOn={pot.isThere}
              onChange={(isThere) => onChange({ ...pot, isThere })}
            />
          </div>
          <LengthField
            label={t('pot.height')}
            style="short"
            minM={0.05}
            maxM={2}
            valueM={pot.heightM}
            onChange={(heightM) => onChange({ ...pot, heightM })}
          />
          <div className="order-last col-span-2">
            <Fold
              title={t('pot.filling')}
              isOpen={isAll}
              isInner
              unusual={[pot.ballastKg > 0, pot.drainageM > 0, pot.hasCharcoal].filter(Boolean).length}
            >
              <div className="grid grid-cols-2 items-end gap-2">
                <MassField
                  label={t('pot.ballast')}
                  valueKg={pot.ballastKg}
                  maxKg={BALLAST_RANGE_KG[1]}
                  onChange={(ballastKg) => onChange({ ...pot, ballastKg })}
                />
                <LengthField
                  label={t('pot.drainage')}
                  style="short"
                  minM={0}
                  maxM={pot.heightM}
                  valueM={pot.drainageM}
                  onChange={(drainageM) => onChange({ ...pot, drainageM })}
                />
                <div className="col-span-2">
                  <Check
                    label={t('pot.charcoal')}
                    isOn={pot.hasCharcoal}
                    onChange={(hasCharcoal) => onChange({ ...pot, hasCharcoal })}
                  />
                </div>
              </div>
            </Fold>
          </div>
        </div>
      )}
    </fieldset>
  )
}
