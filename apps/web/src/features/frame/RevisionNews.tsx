import { partsGone } from '@klados/core/design'
import type { Frame, LineId, NodeId } from '@klados/core/frame'
import { tiesMovedBy } from '@klados/core/wood'
import type { MovedTie } from '@klados/core/wood'
import type { Plant } from '@klados/contract'
import type { FrameCondition } from '@klados/core/journal'
import type { TFunction } from '../../i18n/texts.ts'
import { useMemo } from 'react'
import { listPlain } from '../../i18n/language.ts'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { usePlants } from '../../data/documents.ts'
import { standingAt } from '../../data/standing.ts'
import { useWoodOf } from '../../data/use-wood-of.ts'
import { linesInWords } from '../../plan/line-words.ts'
import { useCondition } from '../../plan/use-plan.ts'
import { standingWords } from '../../ties/UnsettledTies.tsx'
import { Message } from '../../ui/Message.tsx'
import { useUnits } from '../../ui/units.tsx'
import { useSame } from '../../ui/use-same.ts'

/** What a revision does to what is written of a frame, before it is saved. */
export interface RevisionNews {
  readonly ties: readonly MovedTie[]
  /** Parts that go and of which the journal or a plant says something, in words. */
  readonly gone: readonly string[]
  /** The wires of the frame as it was, as their grower calls them. */
  readonly names: ReadonlyMap<LineId, string>
}

const NONE: RevisionNews = { ties: [], gone: [], names: new Map() }

/** Ties and logs that a frame as it is drawn now would leave without their part. */
export function useRevisionNews(
  gardenId: string,
  placeId: string,
  frameId: string,
  before: Frame | null,
  after: Frame | null,
): RevisionNews {
  const { t } = useTranslation()
  const condition = useCondition(frameId)
  const plants = usePlants(gardenId)
  const here = useSame(standingAt(plants, placeId))
  const wood = useWoodOf(here.map(({ id }) => id))
  return useMemo(() => {
    if (!before || !after || before === after) return NONE
    const ours = new Set(here.map((plant) => plant.id))
    const ties = [...wood.ties.values()].filter((tie) => ours.has(tie.plantId))
    return {
      ties: tiesMovedBy(frameId, before, after, ties),
      gone: goneInWords(t, before, after, condition, here),
      names: linesInWords(t, before),
    }
  }, [t, before, after, condition, here, wood, frameId])
}

function goneInWords(
  t: TFunction,
  before: Frame,
  after: Frame,
  condition: FrameCondition,
  plants: readonly Plant[],
): string[] {
  const { lines, members, anchors, nodes } = partsGone(before, after)
  const names = linesInWords(t, before)
  const logged = (what: string, count: number) => (count > 0 ? [t('standing.logs', { what, count })] : [])
  const labelOf = (id: unknown) =>
    [...before.members, ...before.anchors, ...before.nodes].find((part) => part.id === id)?.label ?? ''
  const startsAt = (node: NodeId) => plants.filter((plant) => plant.body.startNodeId === node)
  return [
    ...lines.flatMap((id: LineId) => logged(names.get(id) ?? '', condition.tensions.get(id)?.length ?? 0)),
    ...members.flatMap((id) => logged(labelOf(id), condition.posts.has(id) ? 1 : 0)),
    ...anchors.flatMap((id) => logged(labelOf(id), condition.drives.has(id) ? 1 : 0)),
    ...nodes.flatMap((id) => logged(labelOf(id), condition.fixings.has(id) ? 1 : 0)),
    ...nodes.flatMap((id) => startsAt(id).map((plant) => t('standing.plantAt', { plant: plant.body.name }))),
  ]
}

const distanceOf = (standing: MovedTie['standing']) => (standing.is === 'free' ? Infinity : standing.byM)

/** Said before saving: which ties will sit elsewhere or hang free, and which written-of parts go. */
export function RevisionMessage({ news }: { news: RevisionNews }) {
  const { t } = useTranslation()
  const units = useUnits()
  const { ties, gone, names } = news
  if (ties.length === 0 && gone.length === 0) return null
  // One line for each wire: a node that steps off a spot makes its ties differ by a little.
  const byPart = new Map<string, MovedTie[]>()
  for (const one of ties) {
    const part = one.support.on === 'line' ? one.support.lineId : one.support.memberId
    byPart.set(part, [...(byPart.get(part) ?? []), one])
  }
  const farthest = (group: readonly MovedTie[]) =>
    group.reduce((a, b) => (distanceOf(b.standing) > distanceOf(a.standing) ? b : a))
  const lines = [...byPart.values()].map((group) => {
    const { support, standing } = farthest(group)
    const name = support.on === 'line' ? names.get(support.lineId) : null
    return {
      count: group.length,
      words: [name, standingWords(t, units, standing)].filter(Boolean).join(': '),
    }
  })
  return (
    <Message tone="due">
      {ties.length > 0 && (
        <>
          <p>{t('standing.willMove', { count: ties.length })}:</p>
          <ul className="list-disc pl-5">
            {lines.map(({ words, count }) => (
              <li key={words}>
                {count} × {words}
              </li>
            ))}
          </ul>
        </>
      )}
      {gone.length > 0 && (
        <p>
          {t('standing.gone')}: {listPlain(gone)}.
        </p>
      )}
    </Message>
  )
}
