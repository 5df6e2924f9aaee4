import type { Place } from '@klados/contract'
import { nearestSeen } from '@klados/core/geometry'
import type { DeepPoint } from '@klados/core/geometry'
import { useDeferredValue, useMemo, useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { usePlaces } from '../../data/documents.ts'
import { todayHere } from '../../data/dates.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import { useAppSelector } from '../../data/store.ts'
import { Elevation } from '../../elevation/Elevation.tsx'
import { PhotoUnderlay } from '../../elevation/PhotoUnderlay.tsx'
import { NotHere } from '../../ui/NotHere.tsx'
import { Choice } from '../../ui/Choice.tsx'
import { Loading } from '../../ui/Message.tsx'
import { SkipLinks } from '../../ui/SkipLinks.tsx'
import { Slip } from '../../ui/Slip.tsx'
import { BenchTitle, ToolBar } from './BenchHead.tsx'
import { ExpectedWood, PieceBeingDrawn, SidesOfSheet } from './BenchMarks.tsx'
import { inInkOf, marksOf, windowOf } from './bench-window.ts'
import { lookOf, looksOf } from './looks.ts'
import type { LookName } from './looks.ts'
import { ChooseSlip } from './choose/ChooseSlip.tsx'
import { CompareStrip } from './choose/CompareStrip.tsx'
import { DoSlip } from './choose/DoSlip.tsx'
import { Memory } from './choose/Memory.tsx'
import { PlaceProgress } from './choose/PlaceProgress.tsx'
import { PlantWire } from './choose/PlantWire.tsx'
import { ProposalMarks } from './choose/ProposalMarks.tsx'
import { useTraining } from './choose/training.ts'
import { useAnswer } from './choose/use-answer.ts'
import { useChoosing } from './choose/use-choosing.ts'
import { CountSlip, CountTable } from './count/CountRow.tsx'
import { useRow } from './count/use-row.ts'
import { GetWoodIn } from './enter/GetWoodIn.tsx'
import type { Under } from './enter/GetWoodIn.tsx'
import { LooseWood } from './LooseWood.tsx'
import { Outline } from './Outline.tsx'
import { readings, useReadingKeys } from './use-reading-keys.ts'
import type { Reading } from './use-reading-keys.ts'
import { EntryList } from './EntryList.tsx'
import { Misfits } from './Misfits.tsx'
import { DayShown } from './DayShown.tsx'
import { useBenchDrawing } from './use-bench-drawing.ts'
import { useWoodBench } from './use-bench.ts'
import type { WoodBenchData } from './use-bench.ts'
import { useHistory } from '../../data/use-history.ts'
import { useRecorder } from '../../data/use-recorder.ts'
import { useUnsettled } from '../../data/unsettled.ts'
import { UnsettledTies } from '../../ties/UnsettledTies.tsx'
import { ToolPanel } from './ToolPanel.tsx'
import { useChosen } from './use-chosen.ts'
import { useWoodTools } from './use-wood-tools.ts'
import { useLasting } from '../../ui/use-lasting.ts'
import { useUndoKeys } from '../../ui/use-undo-keys.ts'

/** Where skip links lead to. */
const PARTS = ['drawing', 'wood', 'slip'] as const

/** The wood bench of a place; `?on=` opens it on a day, `?tie=` at a tie, `?plant=` at a plant. */
export function WoodBench() {
  const { gardenId, placeId } = useParams() as { gardenId: string; placeId: string }
  const { t } = useTranslation()
  const places = usePlaces(gardenId)
  const [search] = useSearchParams()
  const place = places?.find((one) => one.id === placeId)
  const status = useAppSelector((state) => state.journal.status)
  const history = useHistory(placeId)
  if (!places || status === 'empty' || status === 'reading') return <Loading>{t('app.loading')}</Loading>
  if (!place) return <NotHere gardenId={gardenId} />
  if (history === 'coming' && status === 'ready') return <Loading>{t('app.loading')}</Loading>
  return (
    <>
      {history === 'away' && (
        <p role="status" className="mb-2 text-[0.8125rem] text-slate">
          {t('wood.yearsAway')}
        </p>
      )}
      <OnADay key={`${place.id} ${search}`} gardenId={gardenId} place={place} asked={search.get('on')} />
    </>
  )
}

function OnADay({ asked, ...at }: { gardenId: string; place: Place; asked: string | null }) {
  const today = todayHere()
  const [on, setOn] = useState(asked ?? today)
  return <Loaded {...at} on={on} onDay={setOn} today={today} />
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

/**
 * The wood bench: the plant on its frame, any day of its life, in three readings: what stands, what to choose, what to
 * do. All of it goes into the journal.
 */
function Bench({ gardenId, place, on, onDay, today, data }: BenchProps & { data: WoodBenchData }) {
  const { t } = useTranslation()
  const canWrite = useCanWrite(gardenId)
  const recorder = useRecorder()
  useUndoKeys(recorder.last ? recorder.undo : null)
  const choice = useChosen(data)
  const { chosen, choose, plantId, setPlantId, plant, isGone } = choice
  const [reading, setReading] = useState<Reading>('look')
  // The switch is seen at once; what it asks of the plant takes a phone a breath.
  const settled = useDeferredValue(reading)
  const [under, setUnder] = useState<Under | null>(null)
  const [expected, setExpected] = useState<readonly (readonly DeepPoint[])[]>([])
  const [asked, ask] = useState<string | null>(null)
  const training = useTraining(gardenId, place, data, isGone ? null : plant, on, asked)
  const looks = useMemo(() => looksOf(data), [data])
  const [lookName, setLook] = useState<LookName | null>(null)
  // Where a system's wood is best seen, until one looks from elsewhere.
  const wanted = lookName ?? training?.system?.look ?? 'elevation'
  const look = useMemo(
    () => lookOf(looks.find((one) => one === wanted) ?? 'elevation', data),
    [looks, wanted, data],
  )
  const [isPhotoShown, showPhoto] = useState(true)
  const photo = place.body.photo && { isShown: isPhotoShown, onShow: showPhoto }
  const [againId, setAgainId] = useState<string | null>(null)
  const isAsked =
    settled === 'choose' && training !== null && (!training.answered || againId === training.plant.id)
  const choosing = useChoosing(isAsked ? training.question : null)
  const head = { placeId: place.id, at: on }
  const answer = useAnswer(choosing, training, data, head, recorder)
  const read = (next: Reading) => {
    setReading(next)
    setExpected([])
    if (next === 'choose') choose(plant ? { kind: 'foot', id: plant.id } : null)
  }
  const commit = (as: 'plan' | 'done') => {
    answer?.commit(as)
    setAgainId(null)
    choosing?.reset()
    read(as === 'plan' ? 'do' : 'look')
  }
  const goTo = (id: string) => {
    setPlantId(id)
    choose(null)
    choosing?.focus(null)
  }
  useReadingKeys({
    reading,
    onReading: read,
    choosing,
    onCommit: () => canWrite && commit('plan'),
    onNextPlant: (step) => {
      const inOrder = [...data.plants].sort((a, b) => a.body.xM - b.body.xM)
      const next = inOrder[inOrder.findIndex((one) => one.id === plant?.id) + step]
      if (next) goTo(next.id)
    },
  })
  const tools = useWoodTools({
    place,
    data,
    on,
    plantId: plant?.id ?? plantId,
    stage: training?.view.stage ?? 'growing',
    look,
    recorder,
    onChoose: (hit, at) => {
      if (
        choosing &&
        hit?.kind === 'wood' &&
        choosing.question.candidates.some(({ pieceId }) => pieceId === hit.id)
      ) {
        choosing.focus(hit.id)
        return
      }
      if (reading === 'choose') return
      choose(hit)
      const piece = hit?.kind === 'wood' ? data.state.pieces.get(hit.id) : undefined
      setUnder(
        piece && at
          ? { pieceId: piece.id, alongM: nearestSeen(piece.path, at, look).alongM, isByKey: false }
          : null,
      )
    },
  })
  const allUnsettled = useUnsettled(gardenId)
  const unsettled = allUnsettled.filter((one) => one.place.id === place.id)
  const unsettledIds = useMemo(() => new Set(allUnsettled.map((one) => one.tie.id)), [allUnsettled])
  const goToLine = useLasting(goTo)
  const isDrawn = training !== null && training.view.stems.length > 0
  const row = useRow(place, data, on, reading === 'count')
  const marks = useMemo(() => marksOf(reading, training, choosing), [reading, training, choosing])
  const isFront = look.from === 'elevation'
  const shown = useMemo(() => (isFront ? windowOf(place, training) : null), [isFront, place, training])
  const inInk = useMemo(() => inInkOf(reading, training), [reading, training])
  const list = useBenchDrawing(
    place,
    data,
    on,
    tools.standAtM,
    unsettledIds,
    inInk,
    shown === null && data.plants.length > LABELLED,
    look,
  )
  // Who and what comes first, its picture a breath later: on a phone a row of vines takes its time.
  const picture = useMemo(
    () => ({ list, shown, look, key: shown ? (plant?.id ?? 'whole') : look.from }),
    [list, shown, look, plant?.id],
  )
  const drawn = useDeferredValue(picture)
  return (
    <div className="grid min-h-0 flex-1 gap-6 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_350px]">
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
          <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
            <Choice
              isInline
              label={t('choose.readings.label')}
              value={reading}
              options={readings
                // A row is counted; one or two plants are not.
                .filter((value) => value !== 'count' || data.plants.length + data.gone.length >= COUNTED_FROM)
                .map((value) => ({ value, label: t(`choose.readings.${value}`) }))}
              onChange={read}
            />
            {looks.length > 1 && reading !== 'count' && (
              <Choice
                isInline
                label={t('wood.look.label')}
                value={look.from}
                options={looks.map((value) => ({ value, label: t(`wood.look.${value}`) }))}
                onChange={setLook}
              />
            )}
            <span className="flex-1" />
            {canWrite && (
              <ToolBar
                tools={tools}
                recorder={recorder}
                canDraw={data.plants.length > 0}
                isLooking={reading === 'look'}
              />
            )}
          </div>
          <PlantWire plants={data.plants} chosenId={plant?.id ?? null} onChoose={goTo} />
          {/* In a row one counts by numbers, and only a drawn plant has a picture; a phone has no room for it. */}
          <div
            id="bench-drawing"
            tabIndex={-1}
            className={reading !== 'count' ? 'outline-none' : isDrawn ? 'max-sm:hidden' : 'hidden'}
          >
            <Elevation
              label={
                isFront
                  ? t('place.drawing', { name: place.body.name })
                  : t('wood.look.drawing', { name: place.body.name, from: t(`wood.look.${look.from}`) })
              }
              wall={place.body}
              surface={place.body.surface}
              list={drawn.list}
              from={drawn.look.from}
              window={drawn.shown}
              windowKey={drawn.key}
              chosenId={choosing?.focused ?? chosen?.id ?? null}
              isDrawing={tools.tool !== 'choose'}
              {...(tools.tool === 'choose'
                ? { onTap: tools.press }
                : { onPress: tools.press, onRelease: tools.release })}
              {...(photo?.isShown && isFront && tools.tool === 'draw'
                ? {
                    underlay: (view) => (
                      <PhotoUnderlay gardenId={gardenId} photo={place.body.photo!} view={view} />
                    ),
                  }
                : {})}
              onHover={tools.hover}
              onKey={tools.key}
              overlay={(view) => (
                <>
                  <SidesOfSheet {...{ view, look }} />
                  <PieceBeingDrawn {...{ view, look }} points={tools.shown} />
                  <ExpectedWood {...{ view, look }} paths={expected} />
                  {training && marks && (
                    <ProposalMarks {...{ view, look }} plant={training.view} {...marks} />
                  )}
                </>
              )}
            />
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
              items={unsettled}
              canWrite={canWrite}
              onWrite={recorder.write}
            />
            <LooseWood data={data} on={on} onChoose={choose} />
            <Misfits misfits={data.state.misfits} entries={data.entries} />
            {!isGone && (
              <Outline
                key={plant?.id ?? ''}
                data={data}
                chosen={chosen}
                onChoose={choose}
                onNew={
                  canWrite && training
                    ? (pieceId) => setUnder({ pieceId, alongM: null, isByKey: true })
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
      <div
        id="bench-slip"
        tabIndex={-1}
        className={`flex flex-col gap-5 outline-none ${reading === 'count' ? 'print:hidden' : ''}`}
      >
        <Slip label={t('wood.title')}>
          <p
            role="status"
            className="text-verdigris empty:hidden"
            data-walk={recorder.news?.kind === 'recorded' ? 'recorded' : undefined}
          >
            {recorder.news && t(`wood.${recorder.news.kind}`, { what: recorder.news.what })}
          </p>
          {reading === 'look' && (
            <>
              {canWrite && training && tools.tool === 'choose' && (
                <GetWoodIn
                  key={training.plant.id}
                  gardenId={gardenId}
                  place={place}
                  data={data}
                  training={training}
                  recorder={recorder}
                  on={on}
                  under={under}
                  onUnder={setUnder}
                  onExpect={setExpected}
                />
              )}
              <ToolPanel
                gardenId={gardenId}
                place={place}
                data={data}
                on={on}
                canWrite={canWrite}
                recorder={recorder}
                tools={tools}
                choice={choice}
                photo={photo}
                training={training}
              />
              {training && tools.tool !== 'draw' && <Memory data={data} training={training} />}
              {tools.tool !== 'draw' && (
                <EntryList
                  gardenId={gardenId}
                  pieceId={choice.piece?.id ?? null}
                  data={data}
                  place={place}
                  plant={choice.plant}
                  on={on}
                  canWrite={canWrite}
                  recorder={recorder}
                />
              )}
              <p className="text-slate">{t('wood.spring')}</p>
            </>
          )}
          {reading === 'choose' && settled === reading && (
            <ChooseSlip
              data={data}
              gardenId={gardenId}
              placeId={place.id}
              training={training}
              choosing={choosing}
              answer={answer}
              recorder={recorder}
              on={on}
              canWrite={canWrite}
              onCommit={commit}
              onAskAgain={() => training && setAgainId(training.plant.id)}
              onAsk={ask}
            />
          )}
          {reading === 'count' && (
            <CountSlip
              {...{ gardenId, place, row, recorder, on, canWrite }}
              plantId={plant?.id ?? null}
              onPlant={goTo}
            />
          )}
          {reading === 'do' && <PlaceProgress data={data} on={on} />}
          {reading === 'do' &&
            (training ? (
              <DoSlip {...{ place, data, training, recorder, on, canWrite }} />
            ) : (
              <p className="text-slate">{t('choose.pickPlant')}</p>
            ))}
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

/** Of more plants in one picture the names would lie on each other. */
const LABELLED = 8
/** So many plants make a row worth counting. */
const COUNTED_FROM = 4
