import { useMemo } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useUnsettled } from '../../data/unsettled.ts'
import { UnsettledTies } from '../../ties/UnsettledTies.tsx'
import { Choice } from '../../ui/Choice.tsx'
import { SkipLinks } from '../../ui/SkipLinks.tsx'
import { useLasting } from '../../ui/use-lasting.ts'
import { BenchDrawing } from './BenchDrawing.tsx'
import { BenchTitle, ToolBar } from './BenchHead.tsx'
import { CompareStrip } from './choose/CompareStrip.tsx'
import { PlantWire } from './choose/PlantWire.tsx'
import { CountTable } from './count/CountRow.tsx'
import { DayShown } from './DayShown.tsx'
import { LooseWood } from './LooseWood.tsx'
import { Misfits } from './Misfits.tsx'
import { Outline } from './Outline.tsx'
import type { BenchRoom } from './use-bench-room.ts'
import { readings } from './use-reading-keys.ts'

/** Where skip links lead to. */
const PARTS = ['drawing', 'wood', 'slip'] as const
/** So many plants make a row worth counting. */
const COUNTED_FROM = 4

/** The sheet one works on: how it is read and looked at, the drawing, its days, and what lies under it. */
export function BenchSheet({ room }: { readonly room: BenchRoom }) {
  const { gardenId, place, data, on, today, onDay, state, send, choice, training, choosing, row } = room
  const { t } = useTranslation()
  const { reading } = state
  const { plant } = choice
  const all = useUnsettled(gardenId)
  const unsettled = useMemo(() => new Set(all.map((one) => one.tie.id)), [all])
  const goToLine = useLasting(room.goTo)
  const isDrawn = training !== null && training.view.stems.length > 0
  return (
    <section className="flex min-w-0 flex-col gap-2">
      <SkipLinks
        to={PARTS.filter((part) => part !== 'wood' || reading === 'look').map((part) => ({
          id: `bench-${part}`,
          label: t(`skip.${part}`),
        }))}
      />
      {/* Of a row that is counted only its tags are printed. */}
      <div className={`contents ${reading === 'count' ? 'print:hidden' : ''}`}>
        <BenchTitle place={place} training={training} on={on} today={today} />
        <Readings room={room} />
        <PlantWire plants={data.plants} chosenId={plant?.id ?? null} onChoose={room.goTo} />
        {/* In a row one counts by numbers, and only a drawn plant has a picture; a phone has no room for it. */}
        <div
          id="bench-drawing"
          tabIndex={-1}
          className={reading !== 'count' ? 'outline-none' : isDrawn ? 'max-sm:hidden' : 'hidden'}
        >
          <BenchDrawing room={room} unsettled={unsettled} />
        </div>
      </div>
      {reading !== 'count' && (
        <DayShown entries={data.entries} hemisphere={data.hemisphere} {...{ on, today, onDay }} />
      )}
      {choosing && training && <CompareStrip data={data} training={training} choosing={choosing} on={on} />}
      {reading === 'count' && (
        <CountTable {...{ place, row }} plantId={plant?.id ?? null} onPlant={goToLine} />
      )}
      {reading === 'look' && (
        <>
          <UnsettledTies
            gardenId={gardenId}
            items={all.filter((one) => one.place.id === place.id)}
            canWrite={room.canWrite}
            onWrite={room.recorder.write}
          />
          <LooseWood data={data} on={on} onChoose={(at) => send({ do: 'choose', at })} />
          <Misfits misfits={data.state.misfits} entries={data.entries} />
          {!choice.isGone && (
            <Outline
              key={plant?.id ?? ''}
              data={data}
              chosen={state.chosen}
              onChoose={(at) => send({ do: 'choose', at })}
              onNew={
                room.canWrite && training
                  ? (pieceId) => send({ do: 'grow-from', under: { pieceId, alongM: null, isByKey: true } })
                  : null
              }
              on={on}
              plantId={plant?.id ?? null}
              name={plant?.body.name ?? null}
              positions={training?.positions ?? []}
            />
          )}
        </>
      )}
    </section>
  )
}

/** How the sheet is read, from where it is looked at, and what is in the hand. */
function Readings({ room }: { readonly room: BenchRoom }) {
  const { data, state, send, looks, look, tools, recorder } = room
  const { t } = useTranslation()
  const { reading } = state
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
      <Choice
        isInline
        label={t('choose.readings.label')}
        value={reading}
        options={readings
          // A row is counted; one or two plants are not.
          .filter((value) => value !== 'count' || data.plants.length + data.gone.length >= COUNTED_FROM)
          .map((value) => ({ value, label: t(`choose.readings.${value}`) }))}
        onChange={room.read}
      />
      {looks.length > 1 && reading !== 'count' && (
        <Choice
          isInline
          label={t('wood.look.label')}
          value={look.from}
          options={looks.map((value) => ({ value, label: t(`wood.look.${value}`) }))}
          onChange={(from) => send({ do: 'look', from })}
        />
      )}
      <span className="flex-1" />
      {room.canWrite && (
        <ToolBar
          tools={tools}
          recorder={recorder}
          canDraw={data.plants.length > 0}
          isLooking={reading === 'look'}
        />
      )}
    </div>
  )
}
