import type { CraftWarning } from '@klados/core/warnings'
import type { TFunction } from '../i18n/texts.ts'
import type { Units } from '../ui/units.tsx'

/** What the craft warns of, with its reason, in the reader's units. */
export function warningWords(t: TFunction, units: Units, { code, figures }: CraftWarning): string {
  const length = (key: string) => units.length(figures[key] ?? 0, 'short')
  return t(`warning.${code}`, {
    gap: length('gapM'),
    clear: length('clearM'),
    start: length('startM'),
    from: length('fromM'),
    least: length('leastM'),
    length: units.length(figures.lengthM ?? 0),
    bends: figures.bends,
    off: length('offM'),
    mass: units.mass(figures.massKg ?? 0),
    pressure: units.floorLoad(figures.kgPerM2 ?? 0),
    frost: length('frostM'),
    now: length('nowM'),
    thick: units.length(figures.nowM ?? 0, 'fine'),
    grip: units.length(figures.mostM ?? 0, 'fine'),
    wanted: length('wantedM'),
    roots: length('rootsM'),
    pole: length('poleM'),
    low: units.length(figures.lowM ?? 0),
    high: units.length(figures.highM ?? 0),
    way: units.length(figures.wayM ?? 0),
    need: length('needM'),
    room: length('roomM'),
  })
}
