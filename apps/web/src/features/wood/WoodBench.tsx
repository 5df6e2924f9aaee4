import type { Place } from '@klados/contract'
import { distanceM } from '@klados/core/geometry'
import type { Point } from '@klados/core/geometry'
import { snapPoint } from '@klados/core/wood'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, Navigate, useParams, useSearchParams } from 'react-router'
import { usePlaces } from '../../data/documents.ts'
import { formatDate, todayHere } from '../../data/dates.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import { useAppSelector } from '../../data/store.ts'
import { Elevation } from '../../elevation/Elevation.tsx'
import type { Hit } from '../../elevation/Elevation.tsx'
import { Choice } from '../../ui/Choice.tsx'
import { Loading, Message } from '../../ui/Message.tsx'
import { Slip } from '../../ui/Slip.tsx'
import { DrawPanel } from './DrawPanel.tsx'
import type { PieceTraits } from './DrawPanel.tsx'
import { EntryList } from './EntryList.tsx'
import { Figures } from './Figures.tsx'
import { newPieceEntry } from './new-piece.ts'
import { Rings } from './Rings.tsx'
import { StandPanel } from './StandPanel.tsx'
import { PiecePanel } from './PiecePanel.tsx'
import { TiePanel } from './TiePanel.tsx'
import { useBenchDrawing } from './use-bench-drawing.ts'
import { useWoodBench } from './use-bench.ts'
import type { WoodBenchData } from './use-bench.ts'
import { useRecorder } from '../../data/use-recorder.ts'
import { useUnsettled } from '../../data/unsettled.ts'
import { UnsettledTies } from '../../ties/UnsettledTies.tsx'
import { WoodList } from './WoodList.tsx'

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

type Tool = 'choose' | 'draw' | 'stand'
const SNAP_PX = 10
const SAME_SPOT_PX = 2
const FOOT_Y_M = 0

function Loaded(props: BenchProps) {
  const { gardenId, place, on } = props
  const data = useWoodBench(gardenId, place, on)
  const { t } = useTranslation()
  if (!data) return <Loading>{t('app.loading')}</Loading>
  return <Bench {...props} data={data} />
}

/**
 * The wood bench: the plant on its frame, any day of its life; draw, tie, cut, all of it into the journal.
 */
function Bench({ gardenId, place, on, onDay, today, data }: BenchProps & { data: WoodBenchData }) {
  const { t } = useTranslation()
  const canWrite = useCanWrite(gardenId)
  const recorder = useRecorder()
  const [search] = useSearchParams()
  const [tool, setTool] = useState<Tool>(data.plants.length === 0 ? 'stand' : 'choose')
  const [chosen, setChosen] = useState<Hit | null>(
    search.get('tie') ? { kind: 'tie', id: search.get('tie')! } : null,
  )
  const [plantId, setPlantId] = useState<string | null>(null)
  const [points, setPoints] = useState<readonly Point[]>([])
  const [hover, setHover] = useState<Point | null>(null)
  const [standAtM, setStandAtM] = useState<number | null>(null)
  const [traits, setTraits] = useState<PieceTraits>({ role: 'arm', ageSeasons: 0, baseMm: 8 })
  const allUnsettled = useUnsettled(gardenId)
  const unsettled = allUnsettled.filter((one) => one.place.id === place.id)
  const unsettledIds = useMemo(() => new Set(allUnsettled.map((one) => one.tie.id)), [allUnsettled])
  const list = useBenchDrawing(place, data, on, standAtM, unsettledIds)
  const piece = chosen?.kind === 'wood' ? data.state.pieces.get(chosen.id) : undefined
  const tie = chosen?.kind === 'tie' ? data.state.ties.get(chosen.id) : undefined
  const plant = data.plants.find(
    (one) =>
      one.id === (plantId ?? piece?.plantId ?? tie?.plantId ?? (chosen?.kind === 'foot' ? chosen.id : null)),
  )

  const snap = (at: Point, pxPerM: number): Point => {
    const { nodes, runs } = data.snaps
    const alive = data.pieces.filter((one) => one.removedOn === null)
    const feet = data.plants.map((one) => ({ xM: one.body.xM, yM: FOOT_Y_M }))
    const { point } = snapPoint(
      at,
      { nodes: [...nodes, ...feet], runs, wood: alive.map((one) => one.path) },
      SNAP_PX / pxPerM,
    )
    const mm = (m: number) => Math.round(m * 1000) / 1000
    return { xM: mm(point.xM), yM: Math.max(0, mm(point.yM)) }
  }
  const pickTool = (next: Tool) => {
    setTool(next)
    setPoints([])
    setHover(null)
    setStandAtM(null)
  }
  const finish = () => {
    if (points.length < 2) return
    const drawn = newPieceEntry(points, traits, {
      place,
      plants: data.plants,
      pieces: data.pieces,
      plantId,
      on,
    })
    if (drawn) {
      recorder.write(t('entry.piece.grew', { part: t(`wood.parts.${traits.role}`) }), [drawn.entry])
      setChosen({ kind: 'wood', id: drawn.pieceId })
    }
    pickTool('choose')
  }
  const press = (at: Point, hit: Hit | null, pxPerM: number) => {
    if (tool === 'draw') {
      const next = snap(at, pxPerM)
      const last = points.at(-1)
      // A second click on the same spot, as a double click gives, ends the piece.
      if (last && distanceM(last, next) * pxPerM < SAME_SPOT_PX) finish()
      else setPoints([...points, next])
    } else if (tool === 'stand')
      setStandAtM(Math.min(place.body.widthM, Math.max(0, Math.round(at.xM * 1000) / 1000)))
    else setChosen(hit?.kind === 'node' ? null : hit)
  }
  const key = (event: React.KeyboardEvent): boolean => {
    if (event.key === 'Escape' && tool !== 'choose') {
      pickTool('choose')
      return true
    }
    if (tool !== 'draw') return false
    if (event.key === 'Enter') finish()
    else if (event.key === 'Backspace') setPoints((old) => old.slice(0, -1))
    else return false
    return true
  }
  const tools: readonly Tool[] = ['choose', 'draw', 'stand']
  return (
    <div className="grid min-h-0 flex-1 gap-6 lg:grid-cols-[minmax(0,1fr)_330px]">
      <section className="flex min-w-0 flex-col gap-2">
        <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
          <h1>{place.body.name}</h1>
          <p className={on === today ? 'text-slate' : 'font-semibold text-verdigris'}>
            {on === today ? t('wood.today') : t('wood.on', { date: formatDate(on, 'long') })}
          </p>
          <span className="flex-1" />
          {canWrite && (
            <>
              <Choice
                label={t('wood.tool.label')}
                value={tool}
                options={tools
                  .filter((one) => one !== 'draw' || data.plants.length > 0)
                  .map((value) => ({ value, label: t(`wood.tool.${value}`) }))}
                onChange={pickTool}
              />
              <button type="button" className="btn" disabled={!recorder.last} onClick={recorder.undo}>
                {recorder.last ? t('wood.undo', { what: recorder.last.what }) : t('wood.undoNone')}
              </button>
            </>
          )}
        </div>
        <Elevation
          label={t('place.drawing', { name: place.body.name })}
          wall={place.body}
          surface={place.body.surface}
          list={list}
          chosenId={chosen?.id ?? null}
          isDrawing={tool !== 'choose'}
          onPress={press}
          onHover={tool === 'draw' ? (at, pxPerM) => setHover(snap(at, pxPerM)) : () => undefined}
          onKey={key}
          overlay={(view) => {
            const shown = hover && points.length > 0 ? [...points, hover] : points
            return (
              <g aria-hidden="true" pointerEvents="none">
                <polyline
                  className="draw-wire-chosen"
                  strokeDasharray="7 4"
                  points={shown.map((p) => `${view.x(p.xM)},${view.y(p.yM)}`).join(' ')}
                />
                {shown.map((p, i) => (
                  <circle key={i} className="draw-chosen-halo" cx={view.x(p.xM)} cy={view.y(p.yM)} r={5} />
                ))}
              </g>
            )
          }}
        />
        <Rings entries={data.entries} hemisphere={data.hemisphere} on={on} today={today} onDay={onDay} />
        <UnsettledTies gardenId={gardenId} items={unsettled} canWrite={canWrite} onWrite={recorder.write} />
        {data.state.misfits.length > 0 && (
          <Message tone="due">{t('wood.misfits', { count: data.state.misfits.length })}</Message>
        )}
        <WoodList
          data={data}
          chosen={chosen}
          onChoose={setChosen}
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
          {tool === 'draw' && (
            <DrawPanel
              data={data}
              points={points}
              traits={traits}
              onTraits={setTraits}
              onAdd={(p) => setPoints((old) => [...old, p])}
              onFinish={finish}
              onCancel={() => pickTool('choose')}
            />
          )}
          {tool === 'stand' && (
            <StandPanel
              gardenId={gardenId}
              place={place}
              data={data}
              atM={standAtM}
              onAt={setStandAtM}
              onDone={(id) => {
                pickTool('choose')
                setPlantId(id)
              }}
            />
          )}
          {tool === 'choose' && piece && (
            <PiecePanel
              key={piece.id}
              piece={piece}
              place={place}
              data={data}
              on={on}
              canWrite={canWrite}
              recorder={recorder}
            />
          )}
          {tool === 'choose' && tie && (
            <TiePanel
              key={tie.id}
              tie={tie}
              place={place}
              data={data}
              on={on}
              canWrite={canWrite}
              recorder={recorder}
            />
          )}
          {tool === 'choose' && !piece && !tie && (
            <Figures
              gardenId={gardenId}
              place={place}
              data={data}
              plant={plant ?? null}
              on={on}
              canWrite={canWrite}
            />
          )}
          <EntryList
            data={data}
            place={place}
            plant={plant ?? null}
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
