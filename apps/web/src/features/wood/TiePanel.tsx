import type { Place } from '@klados/contract'
import { findKind } from '@klados/core/kinds'
import { findTieMaterial, lookAgain } from '@klados/core/ties'
import type { Tie } from '@klados/core/wood'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { formatDate } from '../../data/dates.ts'
import { TieActions } from '../../ties/TieActions.tsx'
import { SlipGroup, SlipRow } from '../../ui/Slip.tsx'
import { woodWords } from './wood-words.ts'
import { useUnits } from '../../ui/units.tsx'
import type { WoodBenchData } from './use-bench.ts'
import type { Recorder } from '../../data/use-recorder.ts'
import { tieMaterialWords } from '../../ui/id-words.ts'

interface TiePanelProps {
  readonly gardenId: string
  readonly tie: Tie
  readonly place: Place
  readonly data: WoodBenchData
  readonly on: string
  readonly canWrite: boolean
  readonly recorder: Recorder
}

/** One tie: when it becomes tight, when its stuff ends, and what was done about it. */
export function TiePanel({ gardenId, tie, place, data, on, canWrite, recorder }: TiePanelProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const piece = data.state.pieces.get(tie.pieceId)
  const plant = data.plants.find((one) => one.id === tie.plantId)
  const kind = findKind(plant?.body.kindId ?? '')
  const material = findTieMaterial(tie.materialId)
  if (!piece || !kind || !material) return null
  const look = lookAgain(tie, piece, kind, material, data.hemisphere)
  const urgency = data.urgencies.get(tie.id)
  const tight = look.tight
    ? look.tight.latestOn && look.tight.latestOn > look.tight.earliestOn
      ? t('wood.tightRange', {
          from: formatDate(look.tight.earliestOn),
          to: formatDate(look.tight.latestOn),
        })
      : t('wood.tightFrom', { from: formatDate(look.tight.earliestOn) })
    : t('wood.tightNever')
  return (
    <div className="flex flex-col gap-5" data-walk="tie">
      <SlipGroup title={t('wood.tieOf', { stem: `${woodWords(t, piece, data, on)}, ${plant!.body.name}` })}>
        <SlipRow label={tieMaterialWords(t, tie.materialId)}>{t(`wood.hitches.${tie.hitch}`)}</SlipRow>
        <SlipRow label={t('wood.madeOn', { date: '' })}>{formatDate(tie.madeOn)}</SlipRow>
        <SlipRow label={t('wood.slackNow')}>{units.length(tie.loopLengthMm / 1000, 'fine')}</SlipRow>
        <SlipRow label={t('wood.tight')}>{tight}</SlipRow>
        <SlipRow label={t('wood.material-ends', { material: tieMaterialWords(t, tie.materialId) })}>
          {formatDate(look.materialEnds.earliestOn)}
        </SlipRow>
        {tie.endedOn === null && (
          <SlipRow
            label={t('wood.lookOn')}
            isDeciding
            tone={urgency === 'overdue' ? 'limit' : urgency === 'due' ? 'due' : undefined}
          >
            {formatDate(look.dueOn)}
          </SlipRow>
        )}
      </SlipGroup>
      {canWrite && tie.endedOn === null && (
        <TieActions
          gardenId={gardenId}
          tie={tie}
          piece={piece}
          kind={kind}
          place={place}
          hemisphere={data.hemisphere}
          on={on}
          onWrite={recorder.write}
        />
      )}
    </div>
  )
}
