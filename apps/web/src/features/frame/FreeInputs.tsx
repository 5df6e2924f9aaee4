import type { PlaceBody } from '@klados/contract'
import { MAX_FREE_NODES } from '@klados/contract/limits'
import { useTranslation } from 'react-i18next'
import { Check, Pick } from '../../ui/Choice.tsx'
import type { PatternOf } from './change.ts'
import { nextNodeId, toggleRun, withoutNode } from './free-nodes.ts'

interface FreeInputsProps {
  readonly place: PlaceBody
  readonly pattern: PatternOf<'free'>
  readonly onChange: (what: string, pattern: PatternOf<'free'>) => void
  readonly nodeId: string | null
  readonly onNode: (id: string | null) => void
}

/**
 * Nodes put on the drawing by hand, and wires between them: everything here can be done by a click there too.
 */
export function FreeInputs({ place, pattern, onChange, nodeId, onNode }: FreeInputsProps) {
  const { t } = useTranslation()
  const chosen = pattern.nodes.find((node) => node.id === nodeId)
  const add = () => {
    const id = nextNodeId(pattern)
    const from = chosen ?? pattern.nodes.at(-1)!
    const node = {
      id,
      xM: Math.min(place.widthM, Math.round((from.xM + 0.3) * 1000) / 1000),
      yM: from.yM,
      isStart: false,
    }
    onChange(`add ${id}`, {
      ...pattern,
      nodes: [...pattern.nodes, node],
      runs: [...pattern.runs, [from.id, id]],
    })
    onNode(id)
  }
  return (
    <div className="flex flex-col gap-2">
      <p className="text-[12.5px] text-slate">{t('free.hint')}</p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn" disabled={pattern.nodes.length >= MAX_FREE_NODES} onClick={add}>
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
          <Pick
            label={t('free.wireTo')}
            value=""
            options={[
              { value: '', label: t('free.choose') },
              ...pattern.nodes
                .filter((node) => node.id !== chosen.id)
                .map((node) => ({
                  value: node.id,
                  label: `${t(pattern.runs.some((run) => run.includes(node.id) && run.includes(chosen.id)) ? 'free.unwire' : 'free.wire', { node: node.id.slice(1) })}`,
                })),
            ]}
            onChange={(other) => other && onChange(`wire ${other}`, toggleRun(pattern, chosen.id, other))}
          />
        </>
      )}
    </div>
  )
}
