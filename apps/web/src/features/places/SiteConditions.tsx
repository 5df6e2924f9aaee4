import { soilIds } from '@klados/contract'
import type { PlaceBody } from '@klados/contract'
import type { Rhythm } from '@klados/core/frame'
import { METRES_PER } from '@klados/core/units'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Check, Choice, Pick } from '../../ui/Choice.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { TemperatureField } from '../../ui/TemperatureField.tsx'
import { useUnits } from '../../ui/units.tsx'

interface SiteConditionsProps {
  readonly body: PlaceBody
  readonly hasFace: boolean
  readonly onChange: (part: Partial<PlaceBody>) => void
}

/** Metres per second in a mile per hour. */
const MPH = (1000 * METRES_PER.yd * 1.76) / 3600
/** Pascals in a pound-force per square foot. */
const PSF = 47.880259
const round = (value: number, to: number) => Math.round(value / to) * to

/**
 * What the place does to a frame at its worst, and lines of the wall that fixings can sit on. Ordinary values
 * to begin with.
 */
export function SiteConditions({ body, hasFace, onChange }: SiteConditionsProps) {
  const { t } = useTranslation()
  const { system } = useUnits()
  const { conditions } = body
  const set = (part: Partial<PlaceBody['conditions']>) => onChange({ conditions: { ...conditions, ...part } })
  const isMetric = system === 'metric'
  return (
    <details className="border-t border-faint pt-2">
      <summary className="font-semibold">{t('site.title')}</summary>
      <div className="mt-2 grid grid-cols-2 items-end gap-3">
        <TemperatureField
          label={t('site.coldest')}
          valueC={conditions.coldestC}
          onChange={(coldestC) => set({ coldestC })}
        />
        <TemperatureField
          label={t('site.hottest')}
          valueC={conditions.hottestC}
          onChange={(hottestC) => set({ hottestC })}
        />
        <NumberField
          label={t(isMetric ? 'site.windMetric' : 'site.windImperial')}
          value={isMetric ? round(conditions.windMPerS, 0.1) : Math.round(conditions.windMPerS / MPH)}
          min={0}
          max={isMetric ? 80 : 178}
          step={0.1}
          onChange={(v) => set({ windMPerS: isMetric ? v : v * MPH })}
        />
        <NumberField
          label={t(isMetric ? 'site.snowMetric' : 'site.snowImperial')}
          value={isMetric ? conditions.snowPa / 1000 : round(conditions.snowPa / PSF, 0.1)}
          min={0}
          max={isMetric ? 20 : 400}
          step={0.01}
          onChange={(v) => set({ snowPa: isMetric ? v * 1000 : v * PSF })}
        />
        <LengthField
          label={t('site.ice')}
          style="fine"
          minM={0}
          maxM={0.1}
          valueM={conditions.iceMm / 1000}
          onChange={(m) => set({ iceMm: m * 1000 })}
        />
        {!hasFace && (
          <LengthField
            label={t('site.frost')}
            style="short"
            minM={0}
            maxM={3}
            valueM={conditions.frostDepthM}
            onChange={(frostDepthM) => set({ frostDepthM })}
          />
        )}
        {!hasFace && (
          <div className="col-span-2">
            <Pick
              label={t('site.soil')}
              value={conditions.soil}
              options={soilIds.map((value) => ({ value, label: t(`soil.${value}`) }))}
              onChange={(soil) => set({ soil: soil as PlaceBody['conditions']['soil'] })}
            />
          </div>
        )}
        {hasFace && (
          <RhythmInputs
            title={t('site.uprights')}
            rhythm={body.uprights}
            onChange={(uprights) => onChange({ uprights })}
            from={t('place.fromLeft')}
          />
        )}
        {hasFace && body.surface !== 'boards' && (
          <RhythmInputs
            title={t('site.levels')}
            rhythm={body.levels}
            onChange={(levels) => onChange({ levels })}
            from={t('place.aboveSoil')}
          />
        )}
      </div>
    </details>
  )
}

const USUAL_RHYTHM: Rhythm = { firstM: 0.075, stepM: 0.075 }

function RhythmInputs({
  title,
  rhythm,
  from,
  onChange,
}: {
  title: string
  rhythm: Rhythm | null
  from: string
  onChange: (rhythm: Rhythm | null) => void
}) {
  const { t } = useTranslation()
  return (
    <div className="col-span-2 grid grid-cols-2 items-end gap-3">
      <div className="col-span-2">
        <Check
          label={title}
          isOn={rhythm !== null}
          onChange={(isOn) => onChange(isOn ? USUAL_RHYTHM : null)}
        />
      </div>
      {rhythm && (
        <LengthField
          label={t('site.first', { from })}
          style="short"
          minM={0}
          maxM={50}
          valueM={rhythm.firstM}
          onChange={(firstM) => onChange({ ...rhythm, firstM })}
        />
      )}
      {rhythm && (
        <LengthField
          label={t('site.step')}
          style="short"
          minM={0.02}
          maxM={10}
          valueM={rhythm.stepM}
          onChange={(stepM) => onChange({ ...rhythm, stepM })}
        />
      )}
    </div>
  )
}

/** How far the ground rises along a row, and to which end. */
export function Rise({ riseM, onChange }: { riseM: number; onChange: (riseM: number) => void }) {
  const { t } = useTranslation()
  const way = riseM < 0 ? 'left' : 'right'
  return (
    <div className="grid grid-cols-2 items-end gap-3">
      <LengthField
        label={t('place.rise')}
        minM={0}
        maxM={100}
        valueM={Math.abs(riseM)}
        onChange={(m) => onChange(way === 'left' ? -m : m)}
      />
      <Choice
        label={t('place.riseTo')}
        value={way}
        options={(['left', 'right'] as const).map((value) => ({
          value,
          label: t(`place.riseEnds.${value}`),
        }))}
        onChange={(to) => onChange(to === 'left' ? -Math.abs(riseM) : Math.abs(riseM))}
      />
    </div>
  )
}
