import type { Place } from '@klados/contract'
import type { Point } from '@klados/core/geometry'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, Navigate, useParams, useSearchParams } from 'react-router'
import { usePlaces } from '../../data/documents.ts'
import { formatDate, todayHere } from '../../data/dates.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import { useAppSelector } from '../../data/store.ts'
import { Elevation } from '../../elevation/Elevation.tsx'
import type { Hit } from '../../elevation/Elevation.tsx'
import type { View } from '../../elevation/view.ts'
import { Choice } from '../../ui/Choice.tsx'
import { Loading, Message } from '../../ui/Message.tsx'
import { Slip } from '../../ui/Slip.tsx'
import { DrawPanel } from './DrawPanel.tsx'
import { EntryList } from './EntryList.tsx'
import { Figures } from './Figures.tsx'
import { Rings } from './Rings.tsx'
import { StandPanel } from './StandPanel.tsx'
import { PiecePanel } from './PiecePanel.tsx'
import { TiePanel } from './TiePanel.tsx'
import { useBenchDrawing } from './use-bench-drawing.ts'
import { useWoodBench } from './use-bench.ts'
import type { WoodBenchData } from './use-bench.ts'
import { useRecorder } from '../../data/use-recorder.ts'
import type { Recorder } from '../../data/use-recorder.ts'
import { useUnsettled } from '../../data/unsettled.ts'
import { UnsettledTies } from '../../ties/UnsettledTies.tsx'
import { useWoodTools, woodTools } from './use-wood-tools.ts'
import type { WoodTools } from './use-wood-tools.ts'
import { WoodList } from './WoodList.tsx'
import { useUndoKeys } from '../../ui/use-undo-keys.ts'

/** The wood bench of a place; `?on=` opens it on a day, `?tie=` at a tie. */
export function WoodBench() {
  const { gardenId, placeId } = useParams() as { gardenId: string; placeId: string }
  const { t } = useTranslation()
  const places = usePlaces(gardenId)
  const [search] = useSearchParams()
  const today = todayHere()
  const [on, setOn] = useState(search.get('on') ?? today)
  const place = places?.find((one) => one.id === placeId)
  const status = useAppSelector((state) => state.journal.status)
  if (!places || status === 'empty' || status === 'reading') return <Loading>{t('app.loading')}</Loading>
  if (!place) return <Navigate replace to={`/g/${gardenId}/places`} />
  return <Loaded key={place.id} gardenId={gardenId} place={place} on={on} onDay={setOn} today={today} />
}

interface BenchProps {
  readonly gardenId: string
  readonly place: Place
  readonly on: string
  readonly onDay: (on: string) => void
  readonly today: string
}

function Loaded(props: BenchProps) {
  const { gardenId, place, on } = props
  const data = useWoodBench(gardenId, place, on)
  const { t } = useTranslation()
  if (!data) return <Loading>{t('app.loading')}</Loading>
  return <Bench {...props} data={data} />
}

/** What is chosen, and whose plant it is: the one picked, or the one that the chosen part is of. */
function useChosen(data: WoodBenchData) {
  const [search] = useSearchParams()
  const tieAsked = search.get('tie')
  const [chosen, choose] = useState<Hit | null>(tieAsked ? { kind: 'tie', id: tieAsked } : null)
  const [plantId, setPlantId] = useState<string | null>(null)
  const piece = chosen?.kind === 'wood' ? data.state.pieces.get(chosen.id) : undefined
  const tie = chosen?.kind === 'tie' ? data.state.ties.get(chosen.id) : undefined
  const footId = chosen?.kind === 'foot' ? chosen.id : null
  const ownerId = plantId ?? piece?.plantId ?? tie?.plantId ?? footId
  // Where one plant stands alone there is none to choose: it is the one.
  const only = data.plants.length === 1 ? data.plants[0] : undefined
  const plant = data.plants.find((one) => one.id === ownerId) ?? only ?? null
  return { chosen, choose, plantId, setPlantId, piece, tie, plant }
}

/**
 * The wood bench: the plant on its frame, any day of its life; draw, tie, cut, all of it into the journal.
 */
function Bench({ gardenId, place, on, onDay, today, data }: BenchProps & { data: WoodBenchData }) {
  const { t } = useTranslation()
  const canWrite = useCanWrite(gardenId)
  const recorder = useRecorder()
  useUndoKeys(recorder.last ? recorder.undo : null)
  const choice = useChosen(data)
  const { chosen, choose, plantId, setPlantId } = choice
  const tools = useWoodTools({ place, data, on, plantId, recorder, onChoose: choose })
  const allUnsettled = useUnsettled(gardenId)
  const unsettled = allUnsettled.filter((one) => one.place.id === place.id)
  const unsettledIds = useMemo(() => new Set(allUnsettled.map((one) => one.tie.id)), [allUnsettled])
  const list = useBenchDrawing(place, data, on, tools.standAtM, unsettledIds)
  return (
    <div className="grid min-h-0 flex-1 gap-6 lg:grid-cols-[minmax(0,1fr)_330px]">
      <section className="flex min-w-0 flex-col gap-2">
        <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
          <h1>{place.body.name}</h1>
          <p className={on === today ? 'text-slate' : 'font-semibold text-verdigris'}>
            {on === today ? t('wood.today') : t('wood.on', { date: formatDate(on, 'long') })}
          </p>
          <span className="flex-1" />
          {canWrite && <ToolBar tools={tools} recorder={recorder} canDraw={data.plants.length > 0} />}
        </div>
        <Elevation
          label={t('place.drawing', { name: place.body.name })}
          wall={place.body}
          surface={place.body.surface}
          list={list}
          chosenId={chosen?.id ?? null}
          isDrawing={tools.tool !== 'choose'}
          onPress={tools.press}
          onHover={tools.hover}
          onKey={tools.key}
          overlay={(view) => <PieceBeingDrawn view={view} points={tools.shown} />}
        />
        <Rings entries={data.entries} hemisphere={data.hemisphere} on={on} today={today} onDay={onDay} />
        <UnsettledTies gardenId={gardenId} items={unsettled} canWrite={canWrite} onWrite={recorder.write} />
        {data.state.misfits.length > 0 && (
          <Message tone="due">{t('wood.misfits', { count: data.state.misfits.length })}</Message>
        )}
        <WoodList
          data={data}
          chosen={chosen}
          onChoose={choose}
          on={on}
          plantId={plantId}
          onPlant={setPlantId}
        />
      </section>
      <div className="flex flex-col gap-5">
        <Slip label={t('wood.title')}>
          <p role="status" className="text-verdigris empty:hidden">
            {recorder.news && t(`wood.${recorder.news.kind}`, { what: recorder.news.what })}
          </p>
          <Panel
            gardenId={gardenId}
            place={place}
            data={data}
            on={on}
            canWrite={canWrite}
            recorder={recorder}
            tools={tools}
            choice={choice}
          />
          <EntryList
            data={data}
            place={place}
            plant={choice.plant}
            on={on}
            canWrite={canWrite}
            recorder={recorder}
          />
          <p className="text-slate">{t('wood.spring')}</p>
          {data.frames.length === 0 && (
            <Link to={`/g/${gardenId}/places/${place.id}/frame`}>
              {t('places.frame')}: {t('places.noFrame')}
            </Link>
          )}
        </Slip>
      </div>
    </div>
  )
}

interface ToolBarProps {
  readonly tools: WoodTools
  readonly recorder: Recorder
  readonly canDraw: boolean
}

function ToolBar({ tools, recorder, canDraw }: ToolBarProps) {
  const { t } = useTranslation()
  return (
    <>
      <Choice
        label={t('wood.tool.label')}
        value={tools.tool}
        options={woodTools
          .filter((one) => one !== 'draw' || canDraw)
          .map((value) => ({ value, label: t(`wood.tool.${value}`) }))}
        onChange={tools.pick}
      />
      <button type="button" className="btn" disabled={!recorder.last} onClick={recorder.undo}>
        {recorder.last ? t('wood.undo', { what: recorder.last.what }) : t('wood.undoNone')}
      </button>
    </>
  )
}

function PieceBeingDrawn({ view, points }: { view: View; points: readonly Point[] }) {
  return (
    <g aria-hidden="true" pointerEvents="none">
      <polyline
        className="draw-wire-chosen"
        strokeDasharray="7 4"
        points={points.map((p) => `${view.x(p.xM)},${view.y(p.yM)}`).join(' ')}
      />
      {points.map((p, i) => (
        <circle key={i} className="draw-chosen-halo" cx={view.x(p.xM)} cy={view.y(p.yM)} r={5} />
      ))}
    </g>
  )
}

interface PanelProps {
  readonly gardenId: string
  readonly place: Place
  readonly data: WoodBenchData
  readonly on: string
  readonly canWrite: boolean
  readonly recorder: Recorder
  readonly tools: WoodTools
  readonly choice: ReturnType<typeof useChosen>
}

/** What the tool in the hand needs, or what is known of the part that is chosen. */
function Panel({ gardenId, tools, choice, ...rest }: PanelProps) {
  const { place, data, on, canWrite } = rest
  const { piece, tie, plant, setPlantId } = choice
  if (tools.tool === 'draw')
    return (
      <DrawPanel
        data={data}
        points={tools.points}
        traits={tools.traits}
        onTraits={tools.setTraits}
        onAdd={tools.add}
        onFinish={tools.finish}
        onCancel={() => tools.pick('choose')}
      />
    )
  if (tools.tool === 'stand')
    return (
      <StandPanel
        gardenId={gardenId}
        place={place}
        data={data}
        atM={tools.standAtM}
        onAt={tools.setStandAtM}
        onDone={(id) => {
          tools.pick('choose')
          setPlantId(id)
        }}
      />
    )
  if (piece) return <PiecePanel key={piece.id} piece={piece} {...rest} />
  if (tie) return <TiePanel key={tie.id} tie={tie} {...rest} />
  return <Figures gardenId={gardenId} place={place} data={data} plant={plant} on={on} canWrite={canWrite} />
}
