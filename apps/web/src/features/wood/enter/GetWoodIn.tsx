import { listPlain } from '../../../i18n/language.ts'
import { quickWords } from '../quick-words.ts'
import type { Place } from '@klados/contract'
import { pathLengthM } from '@klados/core/geometry'
import type { DeepPoint } from '@klados/core/geometry'
import { levelWires, readQuickLine, standingStem } from '@klados/core/training'
import type { ExpectedPiece, QuickLine, QuickStem, Under as StemBase } from '@klados/core/training'
import { lineOf, wayFrom } from '@klados/core/wood'
import type { FrameTrack, Parent, Piece, Stretch } from '@klados/core/wood'
import type { TFunction } from '../../../i18n/texts.ts'
import { useEffect, useMemo, useRef, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import type { NewEntry } from '../../../data/record.ts'
import type { Recorder } from '../../../data/use-recorder.ts'
import { Check, Pick } from '../../../ui/Choice.tsx'
import { LineField } from '../../../ui/LineField.tsx'
import { NumberField } from '../../../ui/NumberField.tsx'
import { woodWords } from '../wood-words.ts'
import { useUnits } from '../../../ui/units.tsx'
import type { Units } from '../../../ui/units.tsx'
import { SystemPanel } from '../choose/SystemPanel.tsx'
import type { Training } from '../choose/training.ts'
import type { WoodBenchData } from '../use-bench.ts'
import { footOf } from '../foot.ts'
import { seasonsOfNew, stemEntries } from './stem-entries.ts'
import { systemWords } from '../../../i18n/craft-words.ts'

/** The piece that new wood is to grow from: pressed on the drawing, and where along it; or chosen in the outline. */
export interface Under {
  readonly pieceId: string
  readonly alongM: number | null
  readonly isByKey: boolean
}

interface GetWoodInProps {
  readonly gardenId: string
  readonly place: Place
  readonly data: WoodBenchData
  readonly training: Training
  readonly recorder: Recorder
  readonly on: string
  readonly under: Under | null
  readonly onUnder: (under: Under | null) => void
  /** What is about to be put there, for the drawing. */
  readonly onExpect: (paths: readonly (readonly DeepPoint[])[]) => void
}

const CROWN = 'crown'
const GRAFT = 'below-graft'
/** Between stems that are called out one after another. */
const NEXT_M = 0.03

/** A tape laid along a stem says its end so nearly. */
const SAME_PLACE_M = 0.01

/** Ways to tell Klados what stands: the wood that one expects, stems called out, a neighbour's copied. */
export function GetWoodIn(props: GetWoodInProps) {
  const { t } = useTranslation()
  const { training } = props
  const isEmpty = training.view.stems.length === 0
  const hasSystems = training.systems.length > 0
  // Whoever has begun goes on: it folds only under a hand, or on a plant that has its wood already.
  const [isOpen, setIsOpen] = useState(isEmpty)
  return (
    <details open={isOpen || props.under !== null} onToggle={(event) => setIsOpen(event.currentTarget.open)}>
      <summary className="font-display text-[0.9375rem] font-semibold">{t('enter.title')}</summary>
      <div className="flex flex-col gap-4 pt-1">
        {isEmpty && (
          <p className="text-slate">
            {t(hasSystems ? 'choose.noWood' : 'enter.noSystems', { name: training.plant.body.name })}
          </p>
        )}
        {isEmpty && hasSystems && !training.system && <SystemPanel {...props} placeId={props.place.id} />}
        {isEmpty && training.system && <Skeleton {...props} />}
        <CallOut {...props} />
        {isEmpty && <CopyWood {...props} />}
      </div>
    </details>
  )
}

/** Entries for pieces that hang together, under ids of their own; nobody has measured these. */
function entriesFor(
  pieces: readonly ExpectedPiece[],
  tracks: readonly FrameTrack[],
  head: { readonly placeId: string; readonly plantId: string; readonly at: string },
): NewEntry[] {
  const ids = new Map(pieces.map(({ name }) => [name, uuidv7()]))
  return pieces.map(
    ({ name, on, alongM, path, way, seasonsOld, baseMm, role, side, buds }): NewEntry => ({
      ...head,
      kind: 'piece.grew',
      body: {
        v: 3,
        pieceId: ids.get(name)!,
        parent: on === null ? { on: 'crown', leadId: null } : { on: 'piece', pieceId: ids.get(on)!, alongM },
        way: way ?? wayFrom(path, tracks),
        seasonsOld,
        baseMm,
        tipMm: null,
        buds,
        side,
        role,
        isTypical: true,
      },
    }),
  )
}

function Skeleton({ place, data, training, recorder, on, onExpect }: GetWoodInProps) {
  const { t } = useTranslation()
  const { system, view, plant } = training
  const [years, setYears] = useState(Math.min(30, Math.max(1, Math.round(view.years))))
  const pieces = useMemo(() => system?.skeleton(view, years) ?? [], [system, view, years])
  const show = () => onExpect(pieces.map(({ path }) => path))
  if (pieces.length === 0) return null
  return (
    <div
      className="flex flex-col gap-1"
      onFocus={show}
      onPointerEnter={show}
      onPointerLeave={() => onExpect([])}
    >
      <h3 className="font-semibold">{t('enter.skeleton')}</h3>
      <div className="flex items-end gap-2">
        <NumberField
          label={t('enter.years')}
          value={years}
          min={1}
          max={60}
          step={1}
          onChange={(value) => setYears(Math.round(value))}
        />
        <button
          type="button"
          className="btn btn-main"
          onClick={() => {
            onExpect([])
            recorder.write(
              t('enter.skeletonDone', { system: systemWords(t, system!.id) }),
              entriesFor(pieces, data.tracks, { placeId: place.id, plantId: plant.id, at: on }),
            )
          }}
        >
          {t('enter.put')}
        </button>
      </div>
      <p className="text-[0.8125rem] text-slate">{t('enter.skeletonHint', { count: pieces.length })}</p>
    </div>
  )
}

function CallOut({ place, data, training, recorder, on, under, onUnder, onExpect }: GetWoodInProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const input = useRef<HTMLInputElement>(null)
  const [text, setText] = useState('')
  const [next, setNext] = useState<ReadonlyMap<string, number>>(new Map())
  const { view, plant } = training
  const bearers = view.stems.filter((stem) => stem.age >= 1 || stem.role === 'trunk')
  const from = under?.pieceId ?? (bearers.length === 0 ? CROWN : null)
  const [source, setSource] = useState<string>(CROWN)
  const roots = view.stems.filter((stem) => stem.parent === null)
  const picked = from ?? source
  const placeOf = (line: QuickLine) => {
    const at = placeSaid(line)
    // A place along something is said of the one stem that there is from the ground, if no other was picked.
    const chosen = at !== null && picked === CROWN && roots.length === 1 ? roots[0]!.id : picked
    const piece = data.state.pieces.get(chosen)
    const longM = piece ? pathLengthM(piece.path) : 0
    const base = {
      path: piece?.path ?? null,
      foot: footOf(place, data, plant),
      earlier: roots.length,
      nextM: (under?.pieceId === chosen ? under.alongM : null) ?? next.get(chosen) ?? NEXT_M,
      wires: levelWires(view).map(({ path }) => path),
    }
    const misplaced = at === null ? null : !piece ? 'nowhere' : at > longM + SAME_PLACE_M ? 'beyond' : null
    return { chosen, piece, longM, base, alongM: at ?? base.nextM, misplaced } as const
  }
  const signs = quickWords(t)
  const line = readQuickLine(text, units.system, signs)
  const { chosen, piece, longM, base, alongM: sitsAtM, misplaced } = placeOf(line)
  const canAdd = line.ok && misplaced === null
  useEffect(() => {
    if (under?.isByKey) input.current?.focus()
  }, [under])
  const type = (value: string) => {
    setText(value)
    const read = readQuickLine(value, units.system, signs)
    const there = placeOf(read)
    onExpect(read.ok && !there.misplaced ? [standing(read.stem, { ...there, training, data }).path] : [])
  }
  const isLonger = line.ok && line.stem.lengthM > longestM(training)
  const add = () => {
    if (!canAdd) return
    const { alongM, way } = standing(line.stem, { base, chosen, training, data })
    const seasonsOld = line.stem.seasonsOld ?? seasonsOfNew(view.stage)
    const stands = { parent: parentOf(line.stem, chosen, alongM), way, seasonsOld, role: null }
    const head = { placeId: place.id, plantId: plant.id, at: on }
    recorder.write(t('enter.added'), stemEntries(line.stem, stands, head).entries)
    setNext(new Map(next).set(chosen, alongM + NEXT_M))
    onUnder(null)
    setSource(chosen)
    setText('')
    onExpect([])
    input.current?.focus()
  }
  const words = listPlain([...signs.keys()].filter((word) => word.length > 2))
  const failure = misplaced
    ? t(`enter.${misplaced}`, { length: units.length(longM) })
    : line.ok || text.trim() === ''
      ? undefined
      : t(`enter.failure.${line.reason}`, { word: 'word' in line ? line.word : '' })
  return (
    <form
      className="flex flex-col gap-1"
      onSubmit={(event) => {
        event.preventDefault()
        add()
      }}
    >
      <h3 className="font-semibold">{t('enter.along')}</h3>
      <Pick
        label={t('enter.from')}
        value={chosen}
        options={[
          { value: CROWN, label: t('enter.fromCrown') },
          { value: GRAFT, label: t('enter.fromGraft') },
          ...bearers.map((stem) => ({ value: stem.id, label: bearerWords(t, stem.piece, data, on, units) })),
        ]}
        onChange={(value) => {
          onUnder(null)
          setSource(value)
        }}
      />
      {piece && !misplaced && (
        <p className="text-[0.8125rem] text-slate">
          {t('enter.sitsOn', {
            piece: woodWords(t, piece, data, on),
            length: units.length(sitsAtM, 'short'),
          })}
        </p>
      )}
      <LineField
        label={t('enter.line')}
        hint={t(units.system === 'metric' ? 'enter.lineHint' : 'enter.lineHintImperial', { words })}
        error={failure}
        input={input}
        value={text}
        onChange={type}
      />
      {isLonger && (
        <p className="text-ochre">
          {t('enter.longer', {
            kind: t(`kind.${training.view.kind.id}` as 'kind.pear'),
            length: units.length(line.stem.lengthM),
          })}
        </p>
      )}
      <button type="submit" className="btn self-start" disabled={!canAdd}>
        {t('enter.add')}
      </button>
    </form>
  )
}

/** How a stem that was called out stands: as its system leads it, else upright or along the nearest wire. */
function standing(
  stem: QuickStem,
  {
    base,
    chosen,
    training: { system, view },
    data,
  }: {
    readonly base: StemBase
    readonly chosen: string
    readonly training: Training
    readonly data: WoodBenchData
  },
): { readonly alongM: number; readonly path: readonly DeepPoint[]; readonly way: readonly Stretch[] } {
  const { alongM, path } = standingStem(stem, base)
  const way =
    system?.leads?.(view, {
      lengthM: stem.lengthM,
      side: stem.side,
      under: view.stem(chosen) ?? null,
      alongM,
    }) ?? wayFrom(path, data.tracks)
  return { alongM, path: lineOf(way), way }
}

/** The place along what a stem sits on, where its line says one; what grows below the graft has none. */
const placeSaid = (line: QuickLine): number | null =>
  line.ok && !line.stem.isBelowGraft ? line.stem.alongM : null

/** Longer than a season can make it, with a good margin over the kind's own best. */
const longestM = ({ view }: Training): number => (view.kind.caneM?.[1] ?? 4) * 1.3

/** Nearer upright than this, of its own length, a stem points to no side. */
const UPRIGHT = 0.1

/** What a stem is, to which side it points, and how long it is: two stubs of one head are told apart. */
function bearerWords(t: TFunction, piece: Piece, data: WoodBenchData, on: string, units: Units): string {
  const [from, to] = [piece.path[0]!, piece.path.at(-1)!]
  const lengthM = pathLengthM(piece.path)
  const isUpright = Math.abs(to.xM - from.xM) < lengthM * UPRIGHT
  const side =
    piece.side === 'left' || piece.side === 'right'
      ? piece.side
      : isUpright
        ? null
        : to.xM < from.xM
          ? 'left'
          : 'right'
  const words = [woodWords(t, piece, data, on), ...(side ? [t(`choose.side.${side}`)] : [])]
  return listPlain([...words, units.length(lengthM)])
}

const parentOf = (stem: QuickStem, source: string, alongM: number): Parent =>
  stem.isBelowGraft || source === GRAFT
    ? { on: 'below-graft' }
    : source === CROWN
      ? { on: 'crown', leadId: null }
      : { on: 'piece', pieceId: source, alongM }

function CopyWood({ place, data, training, recorder, on }: GetWoodInProps) {
  const { t } = useTranslation()
  const [isMirrored, setIsMirrored] = useState(false)
  const { plant } = training
  const others = data.plants.filter(
    (one) =>
      one.id !== plant.id &&
      data.pieces.some((piece) => piece.plantId === one.id && piece.removedOn === null),
  )
  const [otherId, setOtherId] = useState(others[0]?.id ?? '')
  const other = others.find((one) => one.id === otherId) ?? others[0]
  if (!other) return null
  const copy = () => {
    const move = ({ xM, ...rest }: DeepPoint): DeepPoint => ({
      ...rest,
      xM: plant.body.xM + (isMirrored ? other.body.xM - xM : xM - other.body.xM),
    })
    const sideOf = (side: Piece['side']): ExpectedPiece['side'] =>
      side === 'left' || side === 'right'
        ? (side === 'left') === isMirrored
          ? 'right'
          : 'left'
        : side === 'up'
          ? 'up'
          : null
    const pieces = data.pieces
      .filter((piece) => piece.plantId === other.id && piece.removedOn === null)
      .map(
        (piece): ExpectedPiece => ({
          name: piece.id,
          on: piece.parent.on === 'piece' ? piece.parent.pieceId : null,
          alongM: piece.parent.on === 'piece' ? piece.parent.alongM : 0,
          path: piece.path.map(move),
          seasonsOld: piece.seasonsThen,
          baseMm: piece.baseMm,
          role: piece.calledRole,
          side: sideOf(piece.side),
          buds: piece.buds,
        }),
      )
    recorder.write(
      t('enter.copied', { name: other.body.name }),
      entriesFor(pieces, data.tracks, { placeId: place.id, plantId: plant.id, at: on }),
    )
  }
  return (
    <div className="flex flex-col gap-1">
      <div className="flex items-end gap-2">
        <Pick
          label={t('enter.copy')}
          value={other.id}
          options={others.map((one) => ({ value: one.id, label: one.body.name }))}
          onChange={setOtherId}
        />
        <button type="button" className="btn" onClick={copy}>
          {t('enter.copyDo')}
        </button>
      </div>
      <Check label={t('enter.mirrored')} isOn={isMirrored} onChange={setIsMirrored} />
    </div>
  )
}
