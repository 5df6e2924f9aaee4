import { frameTracks, ledToSupports, wayFrom } from '@klados/core/wood'
import type { FrameTrack } from '@klados/core/wood'
import type { TFunction } from '../i18n/texts.ts'
import { Link } from 'react-router'
import { useTranslation } from '../i18n/use-translation.tsx'
import { todayHere } from '../data/dates.ts'
import { useHemisphere } from '../data/agenda.ts'
import type { NewEntry } from '../data/record.ts'
import type { UnsettledTie } from '../data/unsettled.ts'
import { onePress } from '../ui/one-press.ts'
import { findKind } from '@klados/core/kinds'
import { pieceWords } from '../ui/piece-words.ts'
import { useUnits } from '../ui/units.tsx'
import type { Units } from '../ui/units.tsx'

interface UnsettledTiesProps {
  readonly gardenId: string
  readonly items: readonly UnsettledTie[]
  readonly canWrite: boolean
  readonly onWrite: (what: string, entries: readonly NewEntry[]) => void
}

/** What of a tie's support has changed: how far it is off and which way, or that it is gone. */
export function standingWords(t: TFunction, units: Units, standing: UnsettledTie['standing']): string {
  if (standing.is === 'free') return t('standing.free')
  const isUpright = Math.abs(standing.higherM) > standing.byM / 2
  const awayM = isUpright ? Math.abs(standing.higherM) : standing.byM
  // Nobody moves wood by millimetres.
  const by = units.length(Math.max(0.01, Math.round(awayM * 100) / 100), 'short')
  return t(`standing.${isUpright ? (standing.higherM > 0 ? 'higher' : 'lower') : 'beside'}`, { by })
}

/**
 * Ties that wait to be settled after a frame was revised: in sight until each is led to its wire or taken
 * off.
 */
export function UnsettledTies({ gardenId, items, canWrite, onWrite }: UnsettledTiesProps) {
  const { t } = useTranslation()
  if (items.length === 0) return null
  const pieces = new Map<string, UnsettledTie[]>()
  for (const item of items) pieces.set(item.piece.id, [...(pieces.get(item.piece.id) ?? []), item])
  return (
    <section className="border-l-4 border-ochre bg-paper px-3 py-2">
      <h2 className="text-ochre">{t('standing.title')}</h2>
      <p>{t('standing.intro', { count: items.length })}</p>
      {canWrite && <LeadAll groups={[...pieces.values()]} onWrite={onWrite} />}
      <ul>
        {[...pieces.values()].map((group) => (
          <OnePiece
            key={group[0]!.piece.id}
            gardenId={gardenId}
            group={group}
            canWrite={canWrite}
            onWrite={onWrite}
          />
        ))}
      </ul>
    </section>
  )
}

type Group = readonly UnsettledTie[]

/** The ties of a piece that have a wire to be led to, with where that is. */
const movedIn = (group: Group) =>
  group.flatMap(({ tie, standing }) => (standing.is === 'elsewhere' ? [{ tie, now: standing.now }] : []))

/** What wood of some ties can be led along now. */
const tracksFor = ([first]: Group): FrameTrack[] =>
  frameTracks([...first!.frames].map(([frameId, frame]) => ({ frameId, frame })))

/** A piece led to where its supports are now, along what it then runs along. */
function ledEntry(group: Group, tracks: readonly FrameTrack[]): NewEntry {
  const { piece, plant, place } = group[0]!
  const way = wayFrom(ledToSupports(piece, movedIn(group)), tracks)
  return {
    placeId: place.id,
    plantId: plant.id,
    at: todayHere(),
    kind: 'piece.laid',
    body: { v: 2, pieceId: piece.id, way },
  }
}

/** Of many pieces all that have a wire to go to, in one press. */
function LeadAll({
  groups,
  onWrite,
}: {
  readonly groups: readonly Group[]
  readonly onWrite: UnsettledTiesProps['onWrite']
}) {
  const { t } = useTranslation()
  const movable = groups.filter((group) => movedIn(group).length > 0)
  if (movable.length < 2) return null
  return (
    <button
      type="button"
      className="btn min-h-11"
      onClick={onePress(() => {
        const tracks = tracksFor(movable[0]!)
        onWrite(
          t('standing.ledDo'),
          movable.map((group) => ledEntry(group, tracks)),
        )
      })}
    >
      {t('standing.ledAll', { count: movable.length })}
    </button>
  )
}

interface OnePieceProps extends Omit<UnsettledTiesProps, 'items'> {
  readonly group: readonly UnsettledTie[]
}

/** The unsettled ties of one piece: wood is led as a whole, ties come off one by one. */
function OnePiece({ gardenId, group, canWrite, onWrite }: OnePieceProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const hemisphere = useHemisphere(gardenId)
  const { piece, plant, place, wood } = group[0]!
  const on = todayHere()
  const head = { placeId: place.id, plantId: plant.id, at: on }
  const hasWire = movedIn(group).length > 0
  const part = pieceWords(t, piece, { state: wood, hemisphere }, on, findKind(plant.body.kindId)?.habit)
  return (
    <li className="flex flex-col gap-1 border-b border-dotted border-faint py-2 last:border-b-0">
      <p className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <Link className="font-semibold" to={`/g/${gardenId}/places/${place.id}/wood`}>
          {t('wood.tieOf', { stem: `${part}, ${plant.body.name}` })}
        </Link>
        {canWrite && hasWire && (
          <button
            type="button"
            className="btn min-h-11"
            onClick={onePress(() => onWrite(t('standing.ledDo'), [ledEntry(group, tracksFor(group))]))}
          >
            {t('standing.led')}
          </button>
        )}
      </p>
      {group.map(({ tie, standing }) => (
        <p key={tie.id} className="flex flex-wrap items-center gap-x-3 gap-y-1">
          <span className="min-w-0 flex-1">
            {t('round.tieAt', { height: units.length(tie.at.yM), along: units.length(tie.at.xM) })}:{' '}
            {standingWords(t, units, standing)}
          </span>
          {canWrite && (
            <button
              type="button"
              className="btn min-h-11"
              onClick={onePress(() =>
                onWrite(t('standing.offDo'), [
                  { ...head, kind: 'tie.ended', body: { v: 1, tieId: tie.id, why: 'taken-off' } },
                ]),
              )}
            >
              {t('standing.off')}
            </button>
          )}
        </p>
      ))}
    </li>
  )
}
