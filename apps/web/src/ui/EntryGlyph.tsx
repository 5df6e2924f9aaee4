import type { Glyph } from './entry-glyphs.ts'

/** Lines of each sign in a square of sixteen. */
const PATHS: Readonly<Record<Glyph, string>> = {
  cut: 'M3 13 L13 3 M8 3 L13 8',
  tie: 'M8 2 a6 6 0 1 0 0.01 0 M5 8 h6',
  wood: 'M8 15 V5 M8 9 L3 4 M8 7 L13 2',
  frame: 'M3 15 V3 M13 15 V3 M1 6 h14 M1 11 h14',
  plant: 'M8 15 V8 C2 8 2 2 8 2 C14 2 14 8 8 8',
  words: 'M2 4 h12 M2 8 h12 M2 12 h7',
}
const INK: Readonly<Record<Glyph, string>> = {
  cut: 'var(--iron)',
  tie: 'var(--verdigris)',
  wood: 'var(--ink)',
  frame: 'var(--slate)',
  plant: 'var(--verdigris)',
  words: 'var(--slate)',
}

/** The sign of an entry; its words say the same, so that it is for the eye alone. */
export function EntryGlyph({ glyph }: { glyph: Glyph }) {
  return (
    <svg aria-hidden="true" viewBox="0 0 16 16" className="mt-[3px] h-3.5 w-3.5 shrink-0">
      <path d={PATHS[glyph]} fill="none" stroke={INK[glyph]} strokeWidth="1.6" strokeLinecap="round" />
    </svg>
  )
}
