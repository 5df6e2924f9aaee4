import type { ChoiceRecord } from '@klados/core/choices'
import { replayChoices } from '@klados/core/journal'
import { daysBetween } from '@klados/core/season'
import { useMemo } from 'react'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import { SlipGroup, SlipRow } from '../../../ui/Slip.tsx'
import type { WoodBenchData } from '../use-bench.ts'

/** Choices so far back are of this winter. */
const WINTER_DAYS = 200

const sum = (choices: readonly ChoiceRecord[], of: (choice: ChoiceRecord) => number) =>
  Math.round(choices.reduce((total, choice) => total + of(choice), 0))

/** What was planned at the place this winter against what is done: plants, ties, minutes. */
export function PlaceProgress({ data, on }: { readonly data: WoodBenchData; readonly on: string }) {
  const { t } = useTranslation()
  const choices = useMemo(
    () =>
      [...replayChoices(data.entries, on).values()].filter(
        ({ state, madeOn, plantId }) =>
          state !== 'dropped' &&
          daysBetween(madeOn, on) <= WINTER_DAYS &&
          // Nobody will do any more of what was planned of a plant that is gone.
          (state === 'done' || !data.gone.some(({ id }) => id === plantId)),
      ),
    [data.entries, data.gone, on],
  )
  if (choices.length === 0) return null
  const done = choices.filter(({ state }) => state === 'done')
  const timed = done.filter(({ tookMinutes }) => tookMinutes !== null)
  const of = (part: number, whole: number) => t('choose.progress.of', { part, whole })
  return (
    <SlipGroup title={t('choose.planAgainst')}>
      <SlipRow label={t('choose.progress.plants')}>{of(done.length, choices.length)}</SlipRow>
      <SlipRow label={t('choose.ties')}>
        {of(
          sum(done, ({ ties }) => ties),
          sum(choices, ({ ties }) => ties),
        )}
      </SlipRow>
      <SlipRow label={t('choose.minutes')}>
        {of(
          sum(done, ({ minutes }) => minutes),
          sum(choices, ({ minutes }) => minutes),
        )}
      </SlipRow>
      {timed.length > 0 && (
        <SlipRow label={t('choose.progress.took')}>
          {t('choose.progress.against', {
            took: sum(timed, ({ tookMinutes }) => tookMinutes ?? 0),
            thought: sum(timed, ({ minutes }) => minutes),
          })}
        </SlipRow>
      )}
    </SlipGroup>
  )
}
