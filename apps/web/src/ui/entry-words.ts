import { isNewer } from '@klados/core/journal'
import type { JournalEntry } from '@klados/core/journal'
import { readingUnits } from '@klados/core/readings'
import { formatMass } from '@klados/core/units'
import type { TFunction } from '../i18n/texts.ts'
import { ageWords } from './piece-words.ts'
import type { Units } from './units.tsx'
import { questionWords } from '../i18n/craft-words.ts'

/** What an entry says, in a few words. */
export function entryWords(t: TFunction, units: Units, entry: JournalEntry): string {
  if (isNewer(entry)) return t('newer.entry')
  if (entry.kind === 'tie.replaced' && entry.body.v === 3)
    return t('entry.tie.failed', { why: t(`wood.tieEnds.${entry.body.why}`) })
  if (entry.kind === 'photo.taken' && entry.body.note === '') return t('note.photo')
  return t(`entry.${entry.kind}`, figuresOf(t, units, entry))
}

/** What of an entry's own figures and words goes into its sentence. */
function figuresOf(t: TFunction, units: Units, entry: JournalEntry): Record<string, string | number> {
  const mm = (value: number | null) => (value === null ? '–' : units.length(value / 1000, 'fine'))
  const mass = (grams: number | null) => (grams === null ? '–' : formatMass(grams / 1000, units.system))
  switch (entry.kind) {
    case 'stem.drawn':
      return { part: t(`wood.parts.${entry.body.part}`) }
    case 'piece.grew':
      return {
        part: entry.body.role ? t(`wood.parts.${entry.body.role}`) : ageWords(t, entry.body.seasonsOld),
      }
    case 'stem.measured':
      return { d: mm(entry.body.diameterMm) }
    case 'piece.measured':
      return { d: mm(entry.body.baseMm) }
    case 'piece.cut':
    case 'piece.removed':
    case 'piece.rubbed-out':
    case 'piece.pulled':
    case 'stem.shortened':
    case 'stem.removed':
    case 'tie.removed':
      return { reason: entry.body.reason || '–' }
    case 'piece.lowered':
      return { angle: Math.round(entry.body.angleDeg) }
    case 'piece.nodes':
      return { count: entry.body.nodes, rooted: entry.body.rooted }
    case 'piece.judged':
      return { health: t(`wood.health.${entry.body.health}`), reason: entry.body.reason }
    case 'piece.called':
      return { part: entry.body.role === null ? '–' : t(`wood.parts.${entry.body.role}`) }
    case 'choice.made':
      return { question: questionWords(t, entry.body.system, entry.body.question) }
    case 'tie.ended':
      return { why: t(`wood.tieEnds.${entry.body.why}`) }
    case 'wire.tensioned':
    case 'wire.measured':
      return { pull: units.force(entry.body.tensionN) }
    case 'wire.lifted':
      return { height: units.length(entry.body.toHeightM, 'short') }
    case 'cover.changed':
      return { is: t(`reading.cover.${entry.body.is}`) }
    case 'reading.taken':
      return { what: t(`reading.of.${entry.body.what}`), value: readingValue(units, entry.body) }
    case 'stage.seen':
      return { stage: t(`reading.stage.${entry.body.stage}`) }
    case 'plant.canes':
      return { fresh: entry.body.fresh, fruited: entry.body.fruited, cutOut: entry.body.cutOut }
    case 'plant.watered':
      return { water: entry.body.litres === null ? '–' : units.water(entry.body.litres) }
    case 'plant.fed':
      return { what: entry.body.what, mass: mass(entry.body.grams) }
    case 'plant.mulched':
      return { what: entry.body.what }
    case 'plant.treated':
      return { what: entry.body.what, against: entry.body.against || '–' }
    case 'plant.died':
    case 'plant.replanted':
      return { why: entry.body.why || '–' }
    case 'photo.taken':
      return { note: entry.body.note }
    case 'note.written':
      return { text: entry.body.text }
    default:
      return {}
  }
}

function readingValue(
  units: Units,
  { what, value }: Extract<JournalEntry, { kind: 'reading.taken' }>['body'],
): string {
  switch (readingUnits[what]) {
    case 'm':
      return units.length(value, 'fine')
    case 'kg':
      return formatMass(value, units.system)
    case 'count':
      return String(value)
  }
}
