import type { PiecePanelProps } from './piece-props.ts'
import { bends, faults, healths, lights, pieceRoles } from '@klados/core/wood'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Pick } from '../../ui/Choice.tsx'

const NOT_SEEN = 'not-seen'

/** What the hand and the eye tell of it, which no figure does: each is written down as it is picked. */
export function SeenOfPiece({ piece, place, on, recorder }: PiecePanelProps) {
  const { t } = useTranslation()
  const head = { placeId: place.id, plantId: piece.plantId, at: on }
  const none = { value: NOT_SEEN, label: t('enter.notSeen') }
  const nothing = { v: 1 as const, pieceId: piece.id, bends: null, light: null, fault: null }
  const see = (part: Partial<Pick<typeof piece, 'bends' | 'light' | 'fault'>>) =>
    recorder.write(t('enter.seen'), [{ ...head, kind: 'piece.seen', body: { ...nothing, ...part } }])
  const known = <V extends string>(options: readonly V[], value: string): V | null =>
    options.find((one) => one === value) ?? null
  return (
    <details>
      <summary className="font-display text-[0.9375rem] font-semibold">{t('enter.seen')}</summary>
      <div className="grid grid-cols-2 gap-2 pt-1">
        <Pick
          label={t('enter.called')}
          value={piece.calledRole ?? NOT_SEEN}
          options={[
            { value: NOT_SEEN, label: t('enter.calledBy') },
            ...pieceRoles.map((value) => ({ value, label: t(`wood.parts.${value}`) })),
          ]}
          onChange={(value) =>
            recorder.write(t('enter.called'), [
              {
                ...head,
                kind: 'piece.called',
                body: { v: 1, pieceId: piece.id, role: known(pieceRoles, value) },
              },
            ])
          }
        />
        <Pick
          label={t('enter.bends')}
          value={piece.bends ?? NOT_SEEN}
          options={[none, ...bends.map((value) => ({ value, label: t(`enter.bendsOf.${value}`) }))]}
          onChange={(value) => see({ bends: known(bends, value) })}
        />
        <Pick
          label={t('enter.light')}
          value={piece.light ?? NOT_SEEN}
          options={[none, ...lights.map((value) => ({ value, label: t(`enter.lightOf.${value}`) }))]}
          onChange={(value) => see({ light: known(lights, value) })}
        />
        <Pick
          label={t('enter.fault')}
          value={piece.fault ?? NOT_SEEN}
          options={[none, ...faults.map((value) => ({ value, label: t(`enter.faultOf.${value}`) }))]}
          onChange={(value) => see({ fault: known(faults, value) })}
        />
        <Pick
          label={t('enter.health')}
          value={piece.health ?? NOT_SEEN}
          options={[none, ...healths.map((value) => ({ value, label: t(`wood.health.${value}`) }))]}
          onChange={(value) => {
            const health = known(healths, value)
            if (health)
              recorder.write(t('enter.health'), [
                { ...head, kind: 'piece.judged', body: { v: 1, pieceId: piece.id, health, reason: '' } },
              ])
          }}
        />
      </div>
    </details>
  )
}
