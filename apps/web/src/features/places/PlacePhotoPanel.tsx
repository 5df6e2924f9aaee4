import type { PlaceBody, PlacePhoto } from '@klados/contract'
import { useRef, useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { usePhotoUrl } from '../../data/photo-url.ts'
import { TakePhoto } from '../../notes/TakePhoto.tsx'
import { mapOf } from '../../elevation/PhotoUnderlay.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { Message } from '../../ui/Message.tsx'
import { useUnits } from '../../ui/units.tsx'

interface PlacePhotoPanelProps {
  readonly gardenId: string
  readonly body: PlaceBody
  readonly onChange: (photo: PlacePhoto | null) => void
}

type Marks = PlacePhoto['marks']

/** The wall's own corners are the points that one knows without measuring again: the marks begin there. */
function startMarks(body: PlaceBody, widthPx: number, heightPx: number): Marks {
  const topM = body.firstForkM + body.usableHeightM
  const mark = (shareX: number, shareY: number, xM: number, yM: number): Marks[number] => ({
    pixel: { xPx: Math.round(widthPx * shareX), yPx: Math.round(heightPx * shareY) },
    at: { xM, yM },
  })
  return [
    mark(0.1, 0.1, 0, topM),
    mark(0.9, 0.1, body.widthM, topM),
    mark(0.9, 0.9, body.widthM, 0),
    mark(0.1, 0.9, 0, 0),
  ]
}

/** A phone photo of the wall, set straight by dragging four marks onto points whose places are known. */
export function PlacePhotoPanel({ gardenId, body, onChange }: PlacePhotoPanelProps) {
  const { t } = useTranslation()
  const { photo } = body
  return (
    <section className="mb-3">
      <h2>{t('photo.title')}</h2>
      <p className="max-w-prose text-slate">{t(photo ? 'photo.markHint' : 'photo.hint')}</p>
      <div className="my-2 flex flex-wrap items-center gap-3">
        <TakePhoto
          gardenId={gardenId}
          label={t(photo ? 'photo.other' : 'photo.choose')}
          onTaken={({ fileId, widthPx, heightPx }) =>
            onChange({ fileId, widthPx, heightPx, marks: startMarks(body, widthPx, heightPx) })
          }
        />
        {photo && (
          <button type="button" className="btn btn-plain" onClick={() => onChange(null)}>
            {t('photo.remove')}
          </button>
        )}
      </div>
      {photo && (
        <MarkPhoto
          gardenId={gardenId}
          body={body}
          photo={photo}
          onMarks={(marks) => onChange({ ...photo, marks })}
        />
      )}
    </section>
  )
}

interface MarkPhotoProps {
  readonly gardenId: string
  readonly body: PlaceBody
  readonly photo: PlacePhoto
  readonly onMarks: (marks: Marks) => void
}

const GRIP_SHARE = 0.018
const KEY_STEP_PX = 4

function MarkPhoto({ gardenId, body, photo, onMarks }: MarkPhotoProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const href = usePhotoUrl(gardenId, photo.fileId)
  const svg = useRef<SVGSVGElement>(null)
  const [dragged, setDragged] = useState<number | null>(null)
  const { widthPx, heightPx, marks } = photo
  const set = (at: number, part: Partial<Marks[number]>) =>
    onMarks(marks.map((mark, i) => (i === at ? { ...mark, ...part } : mark)) as Marks)
  const move = (event: React.PointerEvent) => {
    if (dragged === null) return
    const box = svg.current!.getBoundingClientRect()
    const hold = (value: number, most: number) => Math.round(Math.min(most, Math.max(0, value)))
    set(dragged, {
      pixel: {
        xPx: hold(((event.clientX - box.left) / box.width) * widthPx, widthPx),
        yPx: hold(((event.clientY - box.top) / box.height) * heightPx, heightPx),
      },
    })
  }
  const key = (event: React.KeyboardEvent, i: number) => {
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key]
    if (!way) return
    event.preventDefault()
    const { xPx, yPx } = marks[i]!.pixel
    set(i, { pixel: { xPx: xPx + way[0]! * KEY_STEP_PX, yPx: yPx + way[1]! * KEY_STEP_PX } })
  }
  const radius = GRIP_SHARE * widthPx
  const isGood = mapOf(marks) !== null
  return (
    <div className="flex flex-col gap-2">
      <svg
        ref={svg}
        viewBox={`0 0 ${widthPx} ${heightPx}`}
        className="w-full max-w-2xl touch-none"
        role="group"
        aria-label={t('photo.marks')}
        onPointerMove={move}
        onPointerUp={() => setDragged(null)}
        onPointerCancel={() => setDragged(null)}
      >
        <image href={href} width={widthPx} height={heightPx} />
        <polygon
          points={marks.map(({ pixel }) => `${pixel.xPx},${pixel.yPx}`).join(' ')}
          fill="none"
          stroke={isGood ? 'var(--verdigris)' : 'var(--iron)'}
          strokeWidth={radius / 5}
        />
        {marks.map(({ pixel }, i) => (
          <g
            key={i}
            tabIndex={0}
            role="button"
            aria-label={t('photo.mark', { n: i + 1 })}
            className="cursor-move"
            onKeyDown={(event) => key(event, i)}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId)
              setDragged(i)
            }}
          >
            <circle cx={pixel.xPx} cy={pixel.yPx} r={radius * 1.8} fill="transparent" />
            <circle
              cx={pixel.xPx}
              cy={pixel.yPx}
              r={radius}
              fill="none"
              stroke="#fff"
              strokeWidth={radius / 2.5}
            />
            <circle
              cx={pixel.xPx}
              cy={pixel.yPx}
              r={radius}
              fill="none"
              stroke="#23262a"
              strokeWidth={radius / 6}
            />
            <text
              x={pixel.xPx + radius * 1.4}
              y={pixel.yPx - radius}
              fontSize={radius * 2}
              fill="#fff"
              stroke="#23262a"
              strokeWidth={radius / 4}
              paintOrder="stroke"
            >
              {i + 1}
            </text>
          </g>
        ))}
      </svg>
      {!isGood && <Message tone="limit">{t('problem.geometry/points-in-line')}</Message>}
      <div className="grid max-w-2xl grid-cols-2 gap-x-6 gap-y-2 sm:grid-cols-4">
        {marks.map(({ at }, i) => (
          <fieldset key={i} className="flex flex-col gap-1">
            <legend className="text-[0.8125rem] text-slate">{t('photo.mark', { n: i + 1 })}</legend>
            <LengthField
              label={t('place.fromLeft')}
              minM={0}
              maxM={body.widthM * 2}
              valueM={at.xM}
              onChange={(xM) => set(i, { at: { ...at, xM } })}
            />
            <LengthField
              label={t('place.aboveSoil')}
              minM={0}
              maxM={50}
              valueM={at.yM}
              onChange={(yM) => set(i, { at: { ...at, yM } })}
            />
          </fieldset>
        ))}
      </div>
      <p className="text-slate">{t('photo.check', { width: units.length(body.widthM) })}</p>
    </div>
  )
}
