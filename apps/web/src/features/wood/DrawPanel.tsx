import { quickWords } from './quick-words.ts'
import { polylineLengthM } from '@klados/core/geometry'
import type { Point } from '@klados/core/geometry'
import { readQuickLine } from '@klados/core/training'
import { pieceRoles } from '@klados/core/wood'
import type { PieceRole } from '@klados/core/wood'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Check, Pick } from '../../ui/Choice.tsx'
import { LineField } from '../../ui/LineField.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { ageWords } from '../../ui/piece-words.ts'
import { useUnits } from '../../ui/units.tsx'
import type { WoodBenchData } from './use-bench.ts'
import type { PieceTraits, WoodTools } from './use-wood-tools.ts'

interface DrawPanelProps {
  readonly data: WoodBenchData
  readonly tools: WoodTools
  /** The place's photo behind the drawing, to draw over: shown or not; `null` where there is none. */
  readonly photo: { readonly isShown: boolean; readonly onShow: (isShown: boolean) => void } | null
}

const DERIVED = 'derived'
const AGES = [0, 1, 2, 3, 4, 6, 10] as const

/** What the stem being drawn is, its figures, and its line point by point for those who draw without a pointer. */
export function DrawPanel({ data, tools, photo }: DrawPanelProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const { points, traits } = tools
  const set = (part: Partial<PieceTraits>) => tools.setTraits({ ...traits, ...part })
  return (
    <section className="flex flex-col gap-2">
      <h2>{t('wood.tool.draw')}</h2>
      <p className="text-slate">{t('wood.drawHint')}</p>
      {photo && <Check label={t('wood.overPhoto')} isOn={photo.isShown} onChange={photo.onShow} />}
      <p role="status" className="font-semibold">
        {t('wood.drawFrom', { count: points.length, length: units.length(polylineLengthM(points)) })}
      </p>
      <DrawnFigures tools={tools} />
      <Pick
        label={t('wood.part')}
        value={traits.role ?? DERIVED}
        options={[
          { value: DERIVED, label: t('wood.derived') },
          ...pieceRoles.map((value) => ({ value, label: t(`wood.parts.${value}`) })),
        ]}
        onChange={(part) => set({ role: part === DERIVED ? null : (part as PieceRole) })}
      />
      <Pick
        label={t('wood.age')}
        value={traits.ageSeasons === null ? DERIVED : String(traits.ageSeasons)}
        options={[
          { value: DERIVED, label: t('wood.latest') },
          ...AGES.map((age) => ({
            value: String(age),
            label: ageWords(t, age),
          })),
        ]}
        onChange={(age) => set({ ageSeasons: age === DERIVED ? null : Number(age) })}
      />
      <PointByPoint data={data} onAdd={tools.add} />
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-main" disabled={points.length < 2} onClick={tools.finish}>
          {t('wood.finish')}
        </button>
        <button type="button" className="btn btn-plain" onClick={() => tools.pick('choose')}>
          {t('wood.cancel')}
        </button>
      </div>
    </section>
  )
}

/** After a line the figures are typed; Enter writes it down and the next can be drawn. */
function DrawnFigures({ tools }: { readonly tools: WoodTools }) {
  const { t } = useTranslation()
  const units = useUnits()
  const input = useRef<HTMLInputElement>(null)
  const [text, setText] = useState('')
  const { points, strokes } = tools
  useEffect(() => {
    if (strokes > 0) input.current?.focus()
  }, [strokes])
  const isDrawn = points.length >= 2
  const read = readQuickLine(text, units.system, quickWords(t), isDrawn ? polylineLengthM(points) : null)
  const failure = isDrawn && !read.ok && text.trim() !== '' ? read : null
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        if (!read.ok || !isDrawn) return
        tools.record(read.stem)
        setText('')
      }}
    >
      <LineField
        label={t('enter.line')}
        hint={t(units.system === 'metric' ? 'wood.figuresHint' : 'wood.figuresHintImperial')}
        error={
          failure
            ? t(`enter.failure.${failure.reason}`, { word: 'word' in failure ? failure.word : '' })
            : undefined
        }
        input={input}
        value={text}
        onChange={setText}
      />
    </form>
  )
}

function PointByPoint({ data, onAdd }: { data: WoodBenchData; onAdd: (point: Point) => void }) {
  const { t } = useTranslation()
  const [next, setNext] = useState<Point>({ xM: data.plants[0]?.body.xM ?? 0, yM: 0 })
  const nodes = data.frames.flatMap((frame) => frame.nodes)
  return (
    <details>
      <summary>{t('wood.drawKeyboard')}</summary>
      <div className="flex flex-col gap-2">
        {nodes.length > 0 && (
          <Pick
            label={t('wood.toNode')}
            value=""
            options={[
              { value: '', label: '–' },
              ...nodes.map((node) => ({ value: node.id, label: t('frame.nodeNumber', { n: node.number }) })),
            ]}
            onChange={(id) => {
              const node = nodes.find((one) => one.id === id)
              if (node) setNext(node.at)
            }}
          />
        )}
        <div className="grid grid-cols-2 gap-2">
          <LengthField
            label={t('place.fromLeft')}
            style="short"
            minM={0}
            valueM={next.xM}
            onChange={(xM) => setNext({ ...next, xM })}
          />
          <LengthField
            label={t('place.aboveSoil')}
            style="short"
            minM={0}
            valueM={next.yM}
            onChange={(yM) => setNext({ ...next, yM })}
          />
        </div>
        <button type="button" className="btn self-start" onClick={() => onAdd(next)}>
          {t('wood.addPoint')}
        </button>
      </div>
    </details>
  )
}
