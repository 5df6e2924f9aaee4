import type { EntryKind } from '@klados/core/journal'

/**
 * What an entry is about at a glance: a cut, a tie, wood that grew or was led, the frame, the whole plant,
 * words.
 */
export type Glyph = 'cut' | 'tie' | 'wood' | 'frame' | 'plant' | 'words'

/**
 * The sign that stands by each kind of entry, on the rings and in the list. The compiler wants one for every
 * kind.
 */
export const entryGlyphs: Readonly<Record<EntryKind, Glyph>> = {
  'piece.grew': 'wood',
  'piece.extended': 'wood',
  'piece.laid': 'wood',
  'piece.lowered': 'wood',
  'piece.measured': 'wood',
  'piece.cut': 'cut',
  'piece.tipped': 'cut',
  'piece.removed': 'cut',
  'piece.rubbed-out': 'cut',
  'piece.pulled': 'cut',
  'piece.notched': 'cut',
  'piece.stripped': 'plant',
  'piece.thinned': 'cut',
  'piece.wound': 'wood',
  'piece.tucked': 'wood',
  'piece.sealed': 'plant',
  'piece.layered': 'wood',
  'piece.judged': 'plant',
  'piece.called': 'words',
  'piece.became-plant': 'plant',
  'plant.divided': 'plant',
  'tie.made': 'tie',
  'tie.checked': 'tie',
  'tie.loosened': 'tie',
  'tie.replaced': 'tie',
  'tie.removed': 'tie',
  'tie.ended': 'tie',
  'tie.postponed': 'tie',
  'tie.addressed': 'tie',
  'stem.drawn': 'wood',
  'stem.redrawn': 'wood',
  'stem.measured': 'wood',
  'stem.shortened': 'cut',
  'stem.removed': 'cut',
  'fixing.set': 'frame',
  'post.placed': 'frame',
  'anchor.driven': 'frame',
  'wire.tensioned': 'frame',
  'wire.measured': 'frame',
  'wire.lifted': 'frame',
  'cover.changed': 'frame',
  'reading.taken': 'plant',
  'plant.tallied': 'plant',
  'stage.seen': 'plant',
  'plant.watered': 'plant',
  'plant.fed': 'plant',
  'plant.mulched': 'plant',
  'plant.treated': 'plant',
  'photo.taken': 'plant',
  'plant.died': 'plant',
  'plant.replanted': 'plant',
  'note.written': 'words',
  'entry.withdrawn': 'words',
}
