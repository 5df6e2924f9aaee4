import type { PlaceBody } from '@klados/contract'
import { frameKinds } from '@klados/core/frame'
import type { FrameNode, NodeId } from '@klados/core/frame'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Check, Pick as PickOne } from '../../ui/Choice.tsx'
import type { PatternOf } from './change.ts'
import { toggleRun, withoutNode } from './free-nodes.ts'
import { newNodeId } from './new-part.ts'

interface FreeInputsProps {
  readonly place: PlaceBody
  readonly pattern: PatternOf<'free'>
  readonly onChange: (what: string, pattern: PatternOf<'free'>) => void
  readonly nodeId: string | null
  readonly onNode: (id: NodeId | null) => void
  /** As they are laid out, with the numbers that they go by. */
  readonly laid: readonly FrameNode[]
}

/**
 * Nodes put on the drawing by hand, and wires between them: everything here can be done by a click there too.
 */
export function FreeInputs({ place, pattern, onChange, nodeId, onNode, laid }: FreeInputsProps) {
  const { t } = useTranslation()
  const chosen = pattern.nodes.find((node) => node.id === nodeId)
  const add = () => {
    const id = newNodeId()
    const from = chosen ?? pattern.nodes.at(-1)!
    const node = {
      id,
      xM: Math.min(place.widthM, Math.round((from.xM + 0.3) * 1000) / 1000),
      yM: from.yM,
      isStart: false,
    }
    onChange('add', {
      ...pattern,
      nodes: [...pattern.nodes, node],
      runs: [...pattern.runs, [from.id, id]],
    })
    onNode(id)
  }
  return (
    <div className="flex flex-col gap-2">
      <p className="text-[0.78125rem] text-slate">{t('free.hint')}</p>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="btn"
          disabled={pattern.nodes.length >= frameKinds.free.fields.nodes.max}
          onClick={add}
        >
          {t('free.add')}
        </button>
        {chosen && pattern.nodes.length > 1 && (
          <button
            type="button"
            className="btn"
            onClick={() => {
              onChange(`take ${chosen.id}`, withoutNode(pattern, chosen.id))
              onNode(null)
            }}
          >
            {t('free.remove')}
          </button>
        )}
      </div>
      {chosen && (
        <>
          <Check
            label={t('free.start')}
            isOn={chosen.isStart}
            onChange={(isStart) =>
              onChange('start', {
                ...pattern,
                nodes: pattern.nodes.map((node) => (node.id === chosen.id ? { ...node, isStart } : node)),
              })
            }
          />
          <WireTo pattern={pattern} chosen={chosen.id} laid={laid} onChange={onChange} />
        </>
      )}
    </div>
  )
}

interface WireToProps extends Pick<FreeInputsProps, 'pattern' | 'laid' | 'onChange'> {
  readonly chosen: NodeId
}

/** Puts a wire from the chosen node to another, or takes the one that is there away. */
function WireTo({ pattern, chosen, laid, onChange }: WireToProps) {
  const { t } = useTranslation()
  const isWired = (other: NodeId) => pattern.runs.some((run) => run.includes(other) && run.includes(chosen))
  const others = laid.filter((node) => node.id !== chosen).sort((a, b) => a.number - b.number)
  return (
    <PickOne
      label={t('free.wireTo')}
      value=""
      options={[
        { value: '', label: t('free.choose') },
        ...others.map(({ id, number }) => ({
          value: id,
          label: t(isWired(id) ? 'free.unwire' : 'free.wire', { node: number }),
        })),
      ]}
      onChange={(value) => {
        const other = others.find((node) => node.id === value)
        if (other) onChange(`wire ${other.id}`, toggleRun(pattern, chosen, other.id))
      }}
    />
  )
}
