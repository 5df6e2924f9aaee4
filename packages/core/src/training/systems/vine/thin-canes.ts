import { barsToKeep, inMerit, isBarred, lettered, sumOfPoints } from '../../judge.ts'
import { off, option, questionOf } from '../../options.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { Judgement, Question } from '../../question.ts'
import { isSpurred } from './canes.ts'
import type { Head } from './head.ts'
import { remark, speaksAgainst, speaksFor } from './says.ts'

/** A cane that lies leans at least so far from upright, degrees, or is led along a wire. */
const LIES_DEG = 55
/** So many of the summer's shoots grew too strong for the vine to be called so. */
const STRONG_SHARE = 0.5
/** A cane stays unless something asks for its going. */
const STAYS = 1

/** The extra canes of a cordon, laid last winter: wood of one season that lies and was not cut to a spur. */
const extraCanes = (view: PlantView, head: Head): Stem[] =>
  view.stems.filter(
    (stem) =>
      stem.age === 1 &&
      stem.id !== head.trunk.id &&
      stem.parent !== null &&
      !isSpurred(stem) &&
      stem.lengthM > view.settings.shortM &&
      (stem.piece.led.length > 0 || Math.abs(stem.leanDeg) > LIES_DEG),
  )

/** In August: whether an extra cane stays to the harvest or comes off whole, as a thinning of the crop. */
export function thinCanesQuestion(view: PlantView, head: Head): Question | null {
  const canes = extraCanes(view, head)
  if (canes.length === 0) return null
  const shoots = view.stems.filter((stem) => stem.age === 0)
  const strong = shoots.filter(({ baseMm }) => baseMm > view.settings.pencilMm[1]).length
  const isStrong = shoots.length > 0 && strong / shoots.length >= STRONG_SHARE
  const standing = view.stems
    .filter((stem) => stem.age === 1 && stem.id !== head.trunk.id)
    .reduce((sum, { buds }) => sum + buds, 0)
  const isHeavy = standing > view.target.max
  const judge = (stem: Stem): Judgement[] => [
    ...barsToKeep(stem),
    ...(isHeavy ? [speaksAgainst('heavy-crop', 2, standing, 'count')] : []),
    ...(isStrong ? [speaksFor('carries-growth', 2)] : []),
  ]
  const judged = lettered(
    inMerit(
      canes.map((stem) => ({ stem, judgements: judge(stem) })),
      (a, b) => a.stem.lengthM - b.stem.lengthM,
    ),
  )
  return questionOf({
    code: 'thin-canes',
    candidates: judged.map(({ stem, letter, judgements }) => ({
      pieceId: stem.id,
      letter,
      judgements,
      options: isBarred(judgements)
        ? [off()]
        : [option('keep', 'keep', { cost: -STAYS - sumOfPoints(judgements) }), off()],
    })),
    remarks: (chosen) => {
      const gone = judged.filter(({ stem }) => chosen.get(stem.id)?.deed === 'off')
      const buds = gone.reduce((sum, { stem }) => sum + stem.buds, 0)
      return gone.length > 0 && standing > 0
        ? [remark('thins-crop', { figure: buds, unit: 'count', n: standing })]
        : []
    },
  })
}
