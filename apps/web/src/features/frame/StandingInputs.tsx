import { unknownParts } from '@klados/core/design'
import { frameStages } from '@klados/contract'
import type { FrameStage } from '@klados/contract'
import { BALLAST_RANGE_KG, kindOf } from '@klados/core/frame'
import { useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Check, Choice } from '../../ui/Choice.tsx'
import { Message } from '../../ui/Message.tsx'
import { MassField } from '../../ui/MassField.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { Fold, Group } from './Group.tsx'
import type { InputsProps } from './inputs-props.ts'

/** The dearest ready-made frame that anybody types. */
const DEAREST = 100_000

/** Whether it is an idea, to be built, or there already; what nobody knows of it; what one costs ready made. */
export function StandingInputs({
  place,
  design,
  stage,
  onStage,
  onSpots,
  onChange,
  currency,
  isAll,
}: InputsProps & { readonly isAll: boolean }) {
  const { t } = useTranslation()
  const { unknown } = design
  const { pattern } = design
  const isOnFloor =
    place.setting === 'terrace' &&
    kindOf(pattern).traits.stands === 'on-legs' &&
    (!('pot' in pattern) || pattern.pot === null) &&
    pattern.kind !== 'column'
  return (
    <Group title="standing">
      <Stage stage={stage} onStage={onStage} onSpots={onSpots} />
      {isOnFloor && (
        <MassField
          label={t('frame.feetBallast')}
          valueKg={design.feetBallastKg}
          maxKg={BALLAST_RANGE_KG[1]}
          onChange={(feetBallastKg) => onChange('feet ballast', { feetBallastKg })}
        />
      )}
      {(stage === 'stands' || unknown.length > 0) && (
        <fieldset className="flex flex-col gap-1">
          <legend className="text-[0.8125rem] text-slate">{t('frame.notKnown')}</legend>
          {unknownParts.map((part) => (
            <Check
              key={part}
              label={t(`frame.unknownParts.${part}`)}
              isOn={unknown.includes(part)}
              onChange={(isOn) =>
                onChange('unknown', {
                  unknown: unknownParts.filter((one) => (one === part ? isOn : unknown.includes(one))),
                })
              }
            />
          ))}
        </fieldset>
      )}
      {stage !== 'stands' && (
        <Fold title={t('frame.ready')} isOpen={isAll} isInner unusual={design.boughtPrice === null ? 0 : 1}>
          <NumberField
            label={t('frame.boughtPrice', { currency })}
            value={design.boughtPrice ?? 0}
            min={0}
            max={DEAREST}
            step={0.01}
            onChange={(price) => onChange('bought price', { boughtPrice: price > 0 ? price : null })}
          />
        </Fold>
      )}
    </Group>
  )
}

interface StageProps {
  readonly stage: FrameStage
  readonly onStage: (stage: FrameStage) => void
  readonly onSpots: number
}

/** Whether it is an idea or is to be built: not without a question where fixings lie on a pipe or a cable. */
function Stage({ stage, onStage, onSpots }: StageProps) {
  const { t } = useTranslation()
  const [isAsking, setIsAsking] = useState(false)
  const set = (next: FrameStage) => {
    setIsAsking(false)
    onStage(next)
  }
  return (
    <>
      <Choice
        label={t('frame.stage')}
        value={stage}
        options={frameStages.map((value) => ({ value, label: t(`frame.stages.${value}`) }))}
        onChange={(next) => (next === 'chosen' && onSpots > 0 ? setIsAsking(true) : set(next))}
      />
      {isAsking && (
        <Message tone="limit">
          <p>{t('frame.onSpots', { count: onSpots })}</p>
          <p className="mt-1 flex flex-wrap gap-2">
            <button type="button" className="btn" onClick={() => setIsAsking(false)}>
              {t('frame.onSpotsMove')}
            </button>
            <button type="button" className="btn" onClick={() => set('chosen')}>
              {t('frame.onSpotsBuild')}
            </button>
          </p>
        </Message>
      )}
      {!isAsking && stage !== 'idea' && onSpots > 0 && (
        <Message tone="due">{t('frame.onSpots', { count: onSpots })}</Message>
      )}
    </>
  )
}
