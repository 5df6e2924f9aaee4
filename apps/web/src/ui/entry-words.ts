import type { JournalEntry } from '@klados/core/journal'
import type { TFunction } from 'i18next'
import type { Units } from './units.tsx'

/** What an entry says, in a few words. */
export function entryWords(t: TFunction, units: Units, entry: JournalEntry): string {
  const words = (values: Record<string, string> = {}) => t(`entry.${entry.kind}`, values)
  switch (entry.kind) {
    case 'stem.drawn':
      return words({ part: t(`wood.parts.${entry.body.part}`) })
    case 'stem.measured':
      return words({ d: units.length(entry.body.diameterMm / 1000, 'fine') })
    case 'stem.shortened':
    case 'stem.removed':
    case 'tie.removed':
      return words({ reason: entry.body.reason || '–' })
    case 'note.written':
      return words({ text: entry.body.text })
    case 'stem.redrawn':
    case 'tie.made':
    case 'tie.checked':
    case 'tie.loosened':
    case 'tie.replaced':
    case 'tie.postponed':
    case 'entry.withdrawn':
    case 'fixing.set':
    case 'post.placed':
    case 'anchor.driven':
      return words()
    case 'wire.tensioned':
    case 'wire.measured':
      return words({ pull: units.force(entry.body.tensionN) })
  }
}
