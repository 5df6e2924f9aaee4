import { polylineLengthM } from '@klados/core/geometry'
import { findKind } from '@klados/core/kinds'
import { baseDiameterMm } from '@klados/core/wood'
import type { Piece } from '@klados/core/wood'
import { useMemo, useState } from 'react'
import type { KeyboardEvent } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import type { Hit } from '../../elevation/Elevation.tsx'
import { woodWords } from './wood-words.ts'
import { useUnits } from '../../ui/units.tsx'
import type { Position } from '@klados/core/training'
import { aboutWords, nearWords, positionWords, thickWords } from './choose/words.ts'
import { craftOf } from '../../i18n/craft-words.ts'
import type { WoodBenchData } from './use-bench.ts'

interface OutlineProps {
  readonly data: WoodBenchData
  readonly chosen: Hit | null
  readonly onChoose: (hit: Hit) => void
  /** New wood on a piece; `null` for those who only look. */
  readonly onNew: ((pieceId: string) => void) | null
  readonly on: string
  /** Whose wood is listed; of all plants together only the mains. */
  readonly plantId: string | null
  readonly name: string | null
  /** What a piece is in its plant's system. */
  readonly positions: readonly Position[]
}

/** So many pieces below each other are laid open by themselves. */
const OPEN_UP_TO = 14
/** Of one piece so many are listed at first. */
const LISTED = 40

/** The plant as an indented tree: all of its wood, without a pointer; only what is laid open is on the page. */
export function Outline({ data, chosen, onChoose, onNew, on, plantId, name, positions }: OutlineProps) {
  const { t } = useTranslation()
  const placeOf = useMemo(() => new Map(positions.map((one) => [one.pieceId, one])), [positions])
  const { roots, childrenOf } = useMemo(() => treeOf(data.pieces, plantId, data), [data, plantId])
  return (
    <section id="bench-wood" tabIndex={-1} className="min-w-0 outline-none">
      <h2>{name ? t('outline.title', { name }) : t('outline.titleAll')}</h2>
      <p className="text-[0.8125rem] text-slate">{t(onNew ? 'outline.hint' : 'wood.chooseHint')}</p>
      {roots.length === 0 ? (
        <p className="text-slate">{t('outline.none')}</p>
      ) : (
        <div
          className="max-h-64 overflow-y-auto"
          tabIndex={0}
          role="region"
          aria-label={t('wood.stems')}
          onKeyDown={stepThrough}
        >
          <Branch pieces={roots} {...{ data, chosen, onChoose, onNew, on, childrenOf, placeOf }} />
        </div>
      )}
    </section>
  )
}

/** Arrows go up and down through what is laid open. */
function stepThrough(event: KeyboardEvent<HTMLElement>) {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
  if (step === 0) return
  const twigs = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-twig]')]
  const at = twigs.indexOf(document.activeElement as HTMLElement)
  twigs[Math.min(twigs.length - 1, Math.max(0, at + step))]?.focus()
  event.preventDefault()
}

function treeOf(pieces: readonly Piece[], plantId: string | null, data: WoodBenchData) {
  const ours = new Set(data.plants.map(({ id }) => id))
  const living = pieces.filter(
    (piece) =>
      piece.removedOn === null && ours.has(piece.plantId) && (plantId === null || piece.plantId === plantId),
  )
  const ids = new Set(living.map(({ id }) => id))
  const children = new Map<string, Piece[]>()
  const roots: Piece[] = []
  for (const piece of living) {
    const { parent } = piece
    if (parent.on !== 'piece' || !ids.has(parent.pieceId)) roots.push(piece)
    else {
      const list = children.get(parent.pieceId)
      if (list) list.push(piece)
      else children.set(parent.pieceId, [piece])
    }
  }
  const alongOf = ({ parent }: Piece) => (parent.on === 'piece' ? parent.alongM : 0)
  for (const list of children.values()) list.sort((a, b) => alongOf(a) - alongOf(b))
  return { roots, childrenOf: (id: string): readonly Piece[] => children.get(id) ?? [] }
}

interface BranchProps {
  readonly pieces: readonly Piece[]
  readonly data: WoodBenchData
  readonly chosen: Hit | null
  readonly onChoose: (hit: Hit) => void
  readonly onNew: ((pieceId: string) => void) | null
  readonly on: string
  readonly childrenOf: (id: string) => readonly Piece[]
  readonly placeOf: ReadonlyMap<string | null, Position>
}

function Branch({ pieces, ...rest }: BranchProps) {
  const { t } = useTranslation()
  const [isWhole, setIsWhole] = useState(false)
  const shown = isWhole ? pieces : pieces.slice(0, LISTED)
  return (
    <ul className="border-l border-faint pl-3">
      {shown.map((piece) => (
        <Twig key={piece.id} piece={piece} {...rest} />
      ))}
      {shown.length < pieces.length && (
        <li>
          <button type="button" className="btn btn-plain px-0" onClick={() => setIsWhole(true)}>
            {t('choose.more', { count: pieces.length - shown.length })}
          </button>
        </li>
      )}
    </ul>
  )
}

function Twig({ piece, ...rest }: Omit<BranchProps, 'pieces'> & { piece: Piece }) {
  const { data, chosen, onChoose, onNew, on, childrenOf, placeOf } = rest
  const place = placeOf.get(piece.id)
  const { t } = useTranslation()
  const units = useUnits()
  const children = childrenOf(piece.id)
  const [isOpen, setIsOpen] = useState(
    children.length > 0 && children.length <= OPEN_UP_TO && piece.parent.on !== 'piece',
  )
  const plant = data.plants.find((one) => one.id === piece.plantId)?.body
  const craft = craftOf(t, plant?.system ?? null)
  const kind = findKind(plant?.kindId ?? '')
  const mm = kind ? baseDiameterMm(piece, kind, on, data.hemisphere) : piece.baseMm
  const figures = aboutWords(
    t,
    piece.isTypical,
    `${thickWords(units, mm)}, ${units.length(polylineLengthM(piece.path))}`,
  )
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'ArrowRight' && children.length > 0) setIsOpen(true)
    else if (event.key === 'ArrowLeft') setIsOpen(false)
    else if (event.key === 'n' && onNew && !event.ctrlKey && !event.metaKey) onNew(piece.id)
    else return
    event.preventDefault()
  }
  const at = piece.parent.on === 'piece' ? ` @ ${nearWords(units, piece.parent.alongM)}` : ''
  return (
    <li>
      <span className={`flex items-baseline gap-2 ${chosen?.id === piece.id ? 'bg-wash' : ''}`}>
        <button
          type="button"
          className="min-h-7 underline decoration-faint underline-offset-4"
          data-twig=""
          aria-pressed={chosen?.id === piece.id}
          onKeyDown={onKey}
          onClick={() => onChoose({ kind: 'wood', id: piece.id })}
        >
          {woodWords(t, piece, data, on)}
        </button>
        <span className="text-[0.8125rem] text-slate">
          {place && `${positionWords(craft, place)}, `}
          {figures}
          {at}
        </span>
        {children.length > 0 && (
          <button
            type="button"
            className="min-h-7 px-1 text-[0.8125rem] text-slate"
            aria-expanded={isOpen}
            onClick={() => setIsOpen(!isOpen)}
          >
            {isOpen ? '−' : '+'} {t('outline.children', { count: children.length })}
          </button>
        )}
      </span>
      {isOpen && children.length > 0 && <Branch pieces={children} {...rest} />}
    </li>
  )
}
