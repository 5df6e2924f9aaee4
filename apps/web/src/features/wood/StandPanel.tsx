import { clauses } from '../../i18n/clauses.ts'
import type { Place, PlantBody } from '@klados/contract'
import { listPlain } from '../../i18n/language.ts'
import { DateField } from '../../ui/DateField.tsx'
import type { NodeId } from '@klados/core/frame'
import { findKind, plantKinds } from '@klados/core/kinds'
import { systemsFor } from '@klados/core/training'
import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { todayHere } from '../../data/dates.ts'
import { saveDocument } from '../../data/saves.ts'
import { useAppDispatch } from '../../data/store.ts'
import { plantWants } from '../../plan/plant-wants.ts'
import type { PlantWants } from '../../plan/plant-wants.ts'
import { Pick } from '../../ui/Choice.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { onePress } from '../../ui/one-press.ts'
import { refusalWords } from '../../ui/refusal.ts'
import { Message } from '../../ui/Message.tsx'
import { useUnits } from '../../ui/units.tsx'
import type { WoodBenchData } from './use-bench.ts'
import { kindWords } from '../../ui/id-words.ts'
import { TextField } from '../../ui/TextField.tsx'
import { systemWords } from '../../i18n/craft-words.ts'

interface StandPanelProps {
  readonly gardenId: string
  readonly place: Place
  readonly data: WoodBenchData
  readonly atM: number | null
  readonly onAt: (xM: number) => void
  readonly onDone: (plantId: string) => void
  /** Several at once, in their order. */
  readonly onAll: (plantIds: readonly string[]) => void
}

/** How far from a start node a plant still counts as standing at it. */
const AT_NODE_M = 0.1
const mm = (m: number) => Math.round(m * 1000) / 1000

/** Stand a plant at the foot: at a start node of the pattern, or anywhere. */
export function StandPanel({ gardenId, place, data, atM, onAt, onDone, onAll }: StandPanelProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const dispatch = useAppDispatch()
  const [kindId, setKindId] = useState(data.plants[0]?.body.kindId ?? data.usualKindId ?? 'pear')
  const [name, setName] = useState('')
  const [plantedOn, setPlantedOn] = useState(todayHere())
  const [trouble, setTrouble] = useState<string | null>(null)
  const kind = findKind(kindId)!
  const isWired = data.frames.some(({ runs }) => runs.length > 0)
  const systems = systemsFor(kindId).filter(({ needsWires }) => isWired || !needsWires)
  // The usual one is proposed until another is taken, or none.
  const [taken, setTaken] = useState<{ readonly kindId: string; readonly system: string | null } | null>(null)
  const system = taken?.kindId === kindId ? taken.system : (systems[0]?.id ?? null)
  const wants = data.frames[0] ? plantWants(place, data.frames[0], data.plants, kindId) : null
  const isNodes = data.frames[0]?.nodes.some((node) => node.isStart) ?? false
  const hasSpots = (data.frames[0]?.plants.length ?? 0) > 0

  const called = (n: number) => `${kindWords(t, kindId)} ${n}`
  const bodyAt = (xM: number, startNodeId: NodeId | null, name: string): PlantBody => ({
    placeId: place.id,
    name,
    kindId,
    xM,
    startNodeId,
    plantedOn,
    system,
    rootstock: '',
    graftHeightM: null,
    motherId: null,
    formPlanted: null,
    leads: [],
    budGoal: null,
    ended: null,
  })
  /** Its id, or null where it was refused, which is said. One that waits for the server stands on the bench already. */
  const add = async (body: PlantBody): Promise<string | null> => {
    const id = uuidv7()
    const outcome = await dispatch(saveDocument('plants', gardenId, { id, basedOn: 0, body }))
    if (outcome.kind === 'saved' || outcome.kind === 'waiting') return id
    if (outcome.kind === 'refused') setTrouble(refusalWords(t, outcome))
    return null
  }
  const stand = async () => {
    const node = wants?.freeNodes.find((one) => Math.abs(one.xM - atM!) <= AT_NODE_M)
    const id = await add(bodyAt(atM!, node?.id ?? null, name.trim() || called(data.plants.length + 1)))
    if (id !== null) onDone(id)
  }
  const standAll = async () => {
    // All at once: a plant's part of the row is what its neighbours leave it, from the first look on.
    const made = await Promise.all(
      (wants?.free ?? []).map(({ xM, startNodeId }, i) =>
        add(bodyAt(mm(xM), startNodeId, called(data.plants.length + 1 + i))),
      ),
    )
    onAll(made.filter((id) => id !== null))
  }
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        void stand()
      }}
    >
      <h2>{t('wood.stand')}</h2>
      <p className="text-slate">{t('wood.noneText')}</p>
      <KindPick kindId={kindId} onKind={setKindId} />
      {systems.length > 0 && (
        <Pick
          label={t('choose.system')}
          value={system ?? ''}
          options={[
            { value: '', label: t('choose.systemNone') },
            ...systems.map(({ id }) => ({ value: id, label: systemWords(t, id) })),
          ]}
          onChange={(id) => setTaken({ kindId, system: id || null })}
        />
      )}
      {wants && (
        <p>
          {isNodes
            ? t('wood.wantsNodes', { count: wants.want })
            : hasSpots
              ? t('wood.wantsSpots', { count: wants.want })
              : t('wood.wants', {
                  kind: kindWords(t, kindId),
                  count: wants.want,
                  spacing: units.length(kind.spacingM),
                })}
        </p>
      )}
      {wants && wants.freeNodes.length > 0 && <StartNodes nodes={wants.freeNodes} atM={atM} onAt={onAt} />}
      <div className="grid grid-cols-2 gap-2">
        <LengthField
          label={t('wood.standAt')}
          minM={0}
          maxM={place.body.widthM}
          valueM={atM}
          onChange={onAt}
        />
        <DateField label={t('wood.plantedOn')} max={todayHere()} value={plantedOn} onChange={setPlantedOn} />
      </div>
      <TextField
        label={t('wood.plantName')}
        value={name}
        placeholder={`${kindWords(t, kindId)} ${data.plants.length + 1}`}
        onChange={setName}
      />
      {trouble && <Message tone="due">{trouble}</Message>}
      <button type="submit" className="btn btn-main" disabled={atM === null}>
        {t('wood.standHere')}
      </button>
      {wants && wants.free.length > 0 && (
        <button type="button" className="btn" onClick={onePress(() => void standAll())}>
          {t('wood.standAll', { count: wants.free.length })}
        </button>
      )}
    </form>
  )
}

function KindPick({ kindId, onKind }: { kindId: string; onKind: (kindId: string) => void }) {
  const { t } = useTranslation()
  const kind = findKind(kindId)!
  const facts = [t(`hold.${kind.holds}`), t(`light.${kind.light}`), t(`prunedAt.${kind.prunedAt}`)]
  return (
    <>
      <Pick
        label={t('wood.kind')}
        value={kindId}
        options={plantKinds
          .map((one) => ({ value: one.id, label: t(`kind.${one.id}`) }))
          .sort((a, b) => a.label.localeCompare(b.label))}
        onChange={onKind}
      />
      <p className="text-[0.8125rem] text-slate">
        <em>{kind.botanical}</em>: {clauses(t, facts)}.{' '}
        {kind.hazards.length > 0 && (
          <strong className="font-semibold text-ochre">
            {listPlain(kind.hazards.map((hazard) => t(`hazard.${hazard}`)))}.
          </strong>
        )}
      </p>
    </>
  )
}

interface StartNodesProps {
  readonly nodes: PlantWants['freeNodes']
  readonly atM: number | null
  readonly onAt: (xM: number) => void
}

/** The start nodes that have no plant yet, to stand one at. */
function StartNodes({ nodes, atM, onAt }: StartNodesProps) {
  const { t } = useTranslation()
  return (
    <fieldset>
      <legend className="text-[0.8125rem] text-slate">{t('wood.startNodes')}</legend>
      <div className="mt-1 flex flex-wrap gap-1">
        {nodes.map((node) => (
          <button
            key={node.id}
            type="button"
            className={`btn px-2 ${atM !== null && Math.abs(node.xM - atM) <= AT_NODE_M ? 'btn-main' : ''}`}
            aria-label={t('wood.pickStart', { n: node.number })}
            onClick={() => onAt(node.xM)}
          >
            {node.number}
          </button>
        ))}
      </div>
    </fieldset>
  )
}
