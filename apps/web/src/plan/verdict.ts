import { formatNumber, listPlain } from '../i18n/language.ts'
import type { Catalogue } from '@klados/core/catalogue'
import { coverage } from '@klados/core/strength'
import type { Check, Outcome } from '@klados/core/strength'
import { formatMass } from '@klados/core/units'
import type { TFunction } from '../i18n/texts.ts'
import type { Units } from '../ui/units.tsx'
import type { Names } from './names.ts'

/**
 * How the checks of a frame came out, in one sentence: the same on the bench, side by side, on the sheet and
 * in the PDF.
 */
export function outcomeWords(t: TFunction, { verdict, counts, open }: Outcome): string {
  const of = open + counts.holds
  if (of === 0) return t('check.none')
  if (verdict === 'holds') return t('check.allHold', { count: of })
  const parts = (['fails', 'untold', 'doubtful'] as const).flatMap((one) =>
    counts[one] > 0 ? [t(`check.count.${one}`, { count: counts[one] })] : [],
  )
  return t('check.notAll', { parts: listPlain(parts), of })
}

/** One check in words: what it is about, how it stands, what is needed, what would help. */
export interface CheckWords {
  readonly title: string
  readonly verdict: string
  readonly needs: string
  readonly remedy: string | null
}

const AMPLE = 10
/** A figure this near to its need is told to the hundredth, and never rounds over it. */
const NEAR = 0.1

export function checkWords(
  { t, units, names, catalogue }: { t: TFunction; units: Units; names: Names; catalogue: Catalogue },
  check: Check,
): CheckWords {
  const share = coverage(check)
  const title = t(`check.code.${check.code}`, { subject: subjectOf(t, names, catalogue, check.subject) })
  if (share === null || check.need === null || check.holding === null) {
    const missing = t(`check.missing.${check.missing ?? 'figure'}`)
    return { title, verdict: t('check.verdict.untold'), needs: t('check.untold', { missing }), remedy: null }
  }
  if (check.unit === 'none') {
    const isSo = check.verdict === 'holds'
    return {
      title,
      verdict: t(isSo ? 'check.yes' : 'check.no'),
      needs: t(`check.needs.${check.code}`),
      remedy: isSo ? null : t(`check.remedy.${check.code}`),
    }
  }
  const [low, high] = check.holding
  const digits = Math.abs(share - 1) < NEAR ? 2 : 1
  const ratio =
    share >= AMPLE
      ? t('check.ample')
      : t('check.ratio', { ratio: formatNumber(Math.floor(share * 10 ** digits) / 10 ** digits, digits) })
  const holding =
    high - low > low * 0.005
      ? t('check.range', { low: amount(units, check.unit, low), high: amount(units, check.unit, high) })
      : amount(units, check.unit, low)
  const { depthM, ballastKg } = check.advice
  const remedy = t(`check.remedy.${check.code}`, {
    // Dug to a mark, it is as deep as it has to be: never rounded down.
    depth: depthM === undefined ? '' : units.cut(depthM, 'shears'),
    ballast: ballastKg === undefined ? '' : formatMass(ballastKg, units.system),
  })
  return {
    title,
    verdict: t(`check.verdict.${check.verdict}`, { ratio }),
    needs: t(`check.needs.${check.code}`, { need: amount(units, check.unit, check.need), holding }),
    remedy: check.verdict === 'holds' ? null : remedy,
  }
}

function subjectOf(t: TFunction, names: Names, catalogue: Catalogue, subject: string): string {
  const wire = catalogue.wires.find((one) => one.id === subject)
  if (wire) return names.wire(wire)
  const stock = catalogue.stock.find((one) => one.id === subject)
  if (stock) return names.stock(stock)
  return subject === 'beam' || subject === 'rafter' || subject === 'pot' || subject === 'brace'
    ? t(`check.subject.${subject}`)
    : subject
}

/** A figure of a check in the person's units. */
export function amount(units: Units, unit: Check['unit'], value: number): string {
  switch (unit) {
    case 'N':
      return units.force(value)
    case 'm':
      return units.length(value, value < 0.2 ? 'fine' : 'long')
    case 'Nm':
      return units.moment(value)
    case 'm/s':
      return units.speed(value)
    case 'none':
      return ''
  }
}
