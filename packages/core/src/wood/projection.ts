import { alongPath, distance3M, pathLengthM } from '../geometry/index.ts'
import type { DeepPoint } from '../geometry/index.ts'
import { projection } from '../fold/index.ts'
import type { EntryOf } from '../fold/index.ts'
import {
  SAME_M,
  addPiece,
  addTie,
  copyOf,
  cutPiece,
  emptyDraft,
  endTie,
  layPiece,
  lengthOf,
  removeSubtree,
  subtree,
} from './draft.ts'
import type { WoodDraft } from './draft.ts'
import { woodEntries } from './entries.ts'
import { addFirstTie, readFirstEntry } from './first-reader.ts'
import { changePiece, changeTie, misfit } from './live.ts'
import { ledBy, lineOf } from './way.ts'
import type { Led, Stretch } from './way.ts'
import type { Cut, Mark, Piece, Tie } from './wood.ts'

export type WoodEntry = EntryOf<typeof woodEntries>
type Of<K extends WoodEntry['kind']> = Extract<WoodEntry, { kind: K }>

/** Wood and ties of a garden. */
export const woodProjection = projection({
  name: 'wood',
  version: 6,
  kinds: woodEntries,
  initial: emptyDraft,
  apply,
  copy: copyOf,
})

function apply(draft: WoodDraft, entry: WoodEntry): void {
  switch (entry.kind) {
    case 'stem.drawn':
    case 'stem.redrawn':
    case 'stem.measured':
    case 'stem.shortened':
    case 'stem.removed':
      return readFirstEntry(draft, entry)
    case 'piece.grew':
      return grow(draft, entry)
    case 'piece.extended':
      return changePiece(draft, entry, entry.body.pieceId, (piece) => extend(draft, piece, entry))
    case 'piece.laid':
    case 'piece.lowered':
      return changePiece(draft, entry, entry.body.pieceId, (piece) => {
        const { path, led } = writtenOf(entry.body)
        layPiece(draft, piece, path, led)
      })
    case 'piece.measured':
      return changePiece(draft, entry, entry.body.pieceId, (piece) => measure(draft, piece, entry))
    case 'piece.cut':
    case 'piece.tipped':
      return changePiece(draft, entry, entry.body.pieceId, (piece) => cut(draft, piece, entry))
    case 'piece.removed':
    case 'piece.rubbed-out':
    case 'piece.pulled':
      return changePiece(draft, entry, entry.body.pieceId, (piece) =>
        removeSubtree(draft, piece.id, entry.at, entry.body.reason),
      )
    case 'piece.notched':
    case 'piece.stripped':
    case 'piece.thinned':
    case 'piece.wound':
    case 'piece.tucked':
    case 'piece.sealed':
    case 'piece.layered':
      return changePiece(draft, entry, entry.body.pieceId, (piece) => mark(draft, piece, entry))
    case 'piece.nodes':
      return changePiece(draft, entry, entry.body.pieceId, (piece) => {
        const { nodes, rooted } = entry.body
        const counted = { on: entry.at, nodes, rooted: Math.min(nodes, rooted) }
        draft.pieces.set(piece.id, { ...piece, nodeCounts: [...piece.nodeCounts, counted] })
      })
    case 'piece.judged':
      return changePiece(draft, entry, entry.body.pieceId, (piece) => {
        draft.pieces.set(piece.id, { ...piece, health: entry.body.health })
      })
    case 'piece.seen':
      return changePiece(draft, entry, entry.body.pieceId, (piece) => {
        const { bends, light, fault } = entry.body
        draft.pieces.set(piece.id, {
          ...piece,
          bends: bends ?? piece.bends,
          light: light ?? piece.light,
          fault: fault ?? piece.fault,
        })
      })
    case 'piece.meant':
      return changePiece(draft, entry, entry.body.pieceId, (piece) => {
        draft.pieces.set(piece.id, { ...piece, meantFor: entry.body.for })
      })
    case 'piece.called':
      return changePiece(draft, entry, entry.body.pieceId, (piece) => {
        draft.pieces.set(piece.id, { ...piece, calledRole: entry.body.role })
      })
    case 'piece.became-plant':
      return changePiece(draft, entry, entry.body.pieceId, (piece) =>
        part(draft, piece, entry.body.newPlantId),
      )
    case 'plant.divided':
      for (const id of entry.body.pieceIds)
        changePiece(draft, entry, id, (piece) => part(draft, piece, entry.body.newPlantId))
      return
    case 'tie.made':
      return entry.body.v === 1 ? addFirstTie(draft, entry, entry.body) : makeTie(draft, entry, entry.body)
    case 'tie.checked':
      return changeTie(draft, entry, entry.body.tieId, (tie) => {
        draft.ties.set(tie.id, { ...tie, lookedOn: entry.at, postponedUntil: null })
      })
    case 'tie.loosened':
      return changeTie(draft, entry, entry.body.tieId, (tie) => loosen(draft, tie, entry))
    case 'tie.replaced':
      return replaceTie(draft, entry)
    case 'tie.removed':
      return changeTie(draft, entry, entry.body.tieId, (tie) => endTie(draft, tie, entry.at, 'removed'))
    case 'tie.ended':
      return changeTie(draft, entry, entry.body.tieId, (tie) => endTie(draft, tie, entry.at, entry.body.why))
    case 'tie.postponed':
      return changeTie(draft, entry, entry.body.tieId, (tie) => {
        draft.ties.set(tie.id, { ...tie, postponedUntil: entry.body.untilOn })
      })
    case 'tie.addressed':
      return changeTie(draft, entry, entry.body.tieId, (tie) => {
        draft.ties.set(tie.id, { ...tie, support: entry.body.support })
      })
  }
}

function grow(draft: WoodDraft, entry: Of<'piece.grew'>): void {
  const { pieceId, parent, seasonsOld, baseMm, tipMm, buds, side, role } = entry.body
  if (draft.pieces.has(pieceId)) return misfit(draft, entry, 'already-there')
  const on = parent.on === 'piece' ? draft.pieces.get(parent.pieceId) : undefined
  if (parent.on === 'piece') {
    if (parent.pieceId === pieceId) return misfit(draft, entry, 'own-ancestor')
    if (!on) return misfit(draft, entry, 'no-such-wood')
    if (on.removedOn !== null) return misfit(draft, entry, 'wood-gone')
    // It sat on wood that was cut away by then: told late, it is gone with that wood.
    if (parent.alongM > lengthOf(on) + SAME_M) return misfit(draft, entry, 'wood-gone')
  }
  // Field by field: a garden of thirty years grows hundreds of thousands, and taken over as a rest each is ten times as slow.
  addPiece(draft, {
    id: pieceId,
    plantId: on?.plantId ?? entry.plantId ?? '',
    parent,
    ...writtenOf(entry.body),
    drawnOn: entry.at,
    seasonsThen: seasonsOld,
    baseMm,
    measuredOn: entry.at,
    tipMm,
    buds,
    side,
    health: null,
    bends: null,
    light: null,
    fault: null,
    meantFor: null,
    isTypical: entry.body.v !== 1 && entry.body.isTypical,
    calledRole: role,
    cuts: [],
    marks: [],
    nodeCounts: NONE_COUNTED,
    removedOn: null,
    removedWhy: null,
  })
}

type WrittenLine = { readonly path: readonly DeepPoint[] } | { readonly way: readonly Stretch[] }

/** The line of a piece as an entry of any version writes it, and what of it is led. */
function writtenOf(body: WrittenLine): {
  readonly path: readonly DeepPoint[]
  readonly led: readonly Led[]
} {
  return 'way' in body ? { path: lineOf(body.way), led: ledBy(body.way) } : { path: body.path, led: FREE }
}
// One empty list for all: a garden of thirty years holds hundreds of thousands of pieces.
const FREE: readonly Led[] = []
const NONE_COUNTED: Piece['nodeCounts'] = []

function extend(draft: WoodDraft, piece: Piece, { body }: Of<'piece.extended'>): void {
  // From its tip: a line that begins there says so twice.
  const written = writtenOf(body)
  const tip = piece.path.at(-1)!
  const [first, ...rest] = written.path
  const isTip = distance3M(first!, tip) < SAME_POINT_M
  const startM = lengthOf(piece) + distance3M(tip, first!)
  const led = written.led.map((one) => ({ ...one, startM: one.startM + startM, endM: one.endM + startM }))
  draft.pieces.set(piece.id, {
    ...piece,
    path: [...piece.path, ...(isTip ? rest : written.path)],
    led: led.length > 0 ? [...piece.led, ...led] : piece.led,
    buds: null,
  })
}
const SAME_POINT_M = 1e-6

function measure(draft: WoodDraft, piece: Piece, { at, body }: Of<'piece.measured'>): void {
  const { baseMm, tipMm, buds } = body
  draft.pieces.set(piece.id, {
    ...piece,
    isTypical: baseMm === null && piece.isTypical,
    baseMm: baseMm ?? piece.baseMm,
    measuredOn: baseMm === null ? piece.measuredOn : at,
    tipMm: tipMm ?? piece.tipMm,
    buds: buds ?? piece.buds,
  })
}

function cut(draft: WoodDraft, piece: Piece, entry: Of<'piece.cut' | 'piece.tipped'>): void {
  const { alongM } = entry.body
  if (alongM >= lengthOf(piece)) return misfit(draft, entry, 'longer-than-wood')
  const isCut = entry.kind === 'piece.cut'
  const done: Cut = {
    on: entry.at,
    alongM,
    reason: isCut ? entry.body.reason : '',
    aboveBuds: isCut ? entry.body.aboveBuds : null,
  }
  cutPiece(
    draft,
    piece,
    done,
    (child) => child.parent.on === 'piece' && child.parent.alongM > alongM + SAME_M,
  )
  const left = draft.pieces.get(piece.id)!
  draft.pieces.set(piece.id, { ...left, buds: done.aboveBuds, tipMm: null })
}

const MARKS = {
  'piece.notched': 'notched',
  'piece.stripped': 'stripped',
  'piece.thinned': 'thinned',
  'piece.wound': 'wound',
  'piece.tucked': 'tucked',
  'piece.sealed': 'sealed',
  'piece.layered': 'layered',
} as const

function mark(draft: WoodDraft, piece: Piece, entry: Of<keyof typeof MARKS>): void {
  const { alongM } = entry.body
  if (alongM !== null && alongM > lengthOf(piece) + SAME_M) return misfit(draft, entry, 'longer-than-wood')
  const made: Mark = { on: entry.at, what: MARKS[entry.kind], alongM }
  draft.pieces.set(piece.id, { ...piece, marks: [...piece.marks, made] })
}

/** From now on another plant's, with all that sits on it; it stands in the ground by itself. */
function part(draft: WoodDraft, piece: Piece, plantId: string): void {
  if (piece.parent.on === 'piece') {
    const siblings = draft.childrenOf.get(piece.parent.pieceId)!
    siblings.splice(siblings.indexOf(piece.id), 1)
  }
  for (const one of subtree(draft, piece.id)) {
    draft.pieces.set(one.id, { ...one, plantId })
    for (const id of draft.tiesOf.get(one.id) ?? []) draft.ties.set(id, { ...draft.ties.get(id)!, plantId })
  }
  draft.pieces.set(piece.id, { ...draft.pieces.get(piece.id)!, parent: { on: 'ground' } })
}

type LaterTie = Extract<Of<'tie.made'>['body'], { v: 2 }>

function makeTie(draft: WoodDraft, entry: WoodEntry, body: LaterTie): void {
  const { tieId, pieceId, alongM } = body
  const piece = draft.pieces.get(pieceId)
  if (draft.ties.has(tieId)) return misfit(draft, entry, 'already-there')
  if (!piece) return misfit(draft, entry, 'no-such-wood')
  // On wood that was cut away by then it went with that wood.
  if (piece.removedOn !== null || alongM > pathLengthM(piece.path) + SAME_M)
    return misfit(draft, entry, 'wood-gone')
  addTie(draft, {
    id: tieId,
    pieceId,
    plantId: piece.plantId,
    alongM,
    at: alongPath(piece.path, alongM),
    support: body.support,
    materialId: body.materialId,
    hitch: body.hitch,
    supportDiameterMm: body.supportDiameterMm,
    stemDiameterMm: body.stemDiameterMm,
    loopLengthMm: body.loopLengthMm,
    madeOn: entry.at,
    setOn: entry.at,
    lookedOn: null,
    postponedUntil: null,
    endedOn: null,
    endedWhy: null,
  })
}

function loosen(draft: WoodDraft, tie: Tie, { at, body }: Of<'tie.loosened'>): void {
  const { loopLengthMm, stemDiameterMm } = body
  draft.ties.set(tie.id, {
    ...tie,
    loopLengthMm,
    stemDiameterMm,
    setOn: at,
    lookedOn: at,
    postponedUntil: null,
  })
}

function replaceTie(draft: WoodDraft, entry: Of<'tie.replaced'>): void {
  const { body } = entry
  if (draft.ties.has(body.newTieId)) return misfit(draft, entry, 'already-there')
  changeTie(draft, entry, body.tieId, (old) => {
    const piece = draft.pieces.get(old.pieceId)!
    if (body.v === 2 && body.alongM > lengthOf(piece) + SAME_M) return misfit(draft, entry, 'wood-gone')
    if (body.v !== 2 && draft.byNearness.has(old.id)) draft.byNearness.add(body.newTieId)
    addTie(draft, {
      ...old,
      ...laterLoop(body, piece),
      id: body.newTieId,
      madeOn: entry.at,
      setOn: entry.at,
      lookedOn: null,
      postponedUntil: null,
    })
    draft.ties.set(old.id, { ...old, endedOn: entry.at, endedWhy: body.v === 3 ? body.why : 'replaced' })
  })
}

/** What of a tie is another where it was tied anew. */
function laterLoop(body: Of<'tie.replaced'>['body'], piece: Piece): Partial<Tie> {
  const { loopLengthMm, stemDiameterMm } = body
  if (body.v === 3) return { loopLengthMm, stemDiameterMm }
  const { materialId, hitch } = body
  const loop = { materialId, hitch, loopLengthMm, stemDiameterMm }
  if (body.v === 1) return loop
  const { alongM, support, supportDiameterMm } = body
  return { ...loop, alongM, support, supportDiameterMm, at: alongPath(piece.path, alongM) }
}
