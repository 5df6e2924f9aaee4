import type { Catalogue } from '@klados/core/catalogue'
import type { FramePlan } from '@klados/core/plan'
import type { FrameBody, Place } from '@klados/contract'
import { drawSite } from '@klados/core/drawing'
import type { DisplayList } from '@klados/core/drawing'
import type { Frame } from '@klados/core/frame'
import type { Point, ViewDirection } from '@klados/core/geometry'
import { useMemo } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useCatalogue } from '../../data/catalogue.ts'
import { Elevation } from '../../elevation/Elevation.tsx'
import type { Hit } from '../../elevation/Elevation.tsx'
import { PhotoUnderlay } from '../../elevation/PhotoUnderlay.tsx'
import { DimensionShape, Marks } from '../../elevation/marks.tsx'
import type { View } from '../../elevation/view.ts'
import { drawLaid, layOut } from '../../plan/lay-out.ts'
import { useUnits } from '../../ui/units.tsx'
import type { Chosen } from './bench-keys.ts'
import type { Step } from './Stringing.tsx'

export interface Sibling {
  readonly id: string
  readonly name: string
  readonly body: FrameBody
}

interface BenchDrawingProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly kindName: string
  readonly plan: FramePlan
  /** As it is, or, while it cannot be laid out, as it last was. */
  readonly frame: Frame | null
  readonly view: ViewDirection
  readonly siblings: readonly Sibling[]
  /** What somebody else has saved of this frame meanwhile. */
  readonly theirs: FrameBody['design'] | null
  readonly chosen: Chosen
  readonly onPress: (at: Point, hit: Hit | null) => void
  /** Null where nothing may be dragged. */
  readonly onDrag: ((at: Point, hit: Hit) => void) | null
  readonly onKey: (event: React.KeyboardEvent) => boolean
}

/** The place and the frame on it, over its photo, with the other frames here faintly behind. */
export function BenchDrawing(props: BenchDrawingProps) {
  const { gardenId, place, frameId, kindName, plan, frame, view, siblings, theirs, chosen } = props
  const { t } = useTranslation()
  const list = useBenchList(gardenId, place, frame, view)
  const others = useSiblingMarks(gardenId, place, siblings, frameId)
  const catalogue = useCatalogue(gardenId)
  const another = useMemo(() => (theirs ? faintly(place, theirs, catalogue) : []), [place, theirs, catalogue])
  const isFront = view === 'elevation'
  const { photo } = place.body
  return (
    <Elevation
      label={t('frame.drawing', {
        pattern: kindName,
        place: place.body.name,
        nodes: frame?.nodes.length ?? 0,
        runs: frame?.runs.length ?? 0,
      })}
      described={t('frame.drawn', { kind: t(`frame.${plan.frame?.kind ?? 'free'}Text`) })}
      wall={place.body}
      surface={place.body.surface}
      list={list}
      from={view}
      chosenId={chosen.nodeId}
      showNumbers
      tapeAlong
      onPress={props.onPress}
      {...(props.onDrag ? { onDrag: props.onDrag } : {})}
      onKey={props.onKey}
      underlay={(v) =>
        isFront && (
          <>
            {photo && <PhotoUnderlay gardenId={gardenId} photo={photo} view={v} />}
            {others.length > 0 && (
              <g className="draw-sibling" aria-hidden="true" pointerEvents="none">
                <Marks list={others} view={v} movedText={() => ''} />
              </g>
            )}
            {another.length > 0 && (
              <g className="draw-theirs" aria-hidden="true" pointerEvents="none">
                <Marks list={another} view={v} movedText={() => ''} />
              </g>
            )}
          </>
        )
      }
      overlay={(v) =>
        frame && isFront && <BenchOverlay view={v} place={place} frame={frame} plan={plan} {...chosen} />
      }
    />
  )
}

function useBenchList(gardenId: string, place: Place, frame: Frame | null, view: ViewDirection): DisplayList {
  const catalogue = useCatalogue(gardenId)
  return useMemo(() => {
    const site = view === 'elevation' ? drawSite(place.body, place.body.surface) : []
    return [...site, ...(frame ? drawLaid(frame, catalogue, view) : [])]
  }, [place, frame, view, catalogue])
}

/** The wires and posts of the other frames here, faintly: what a later tier has to fit. */
function useSiblingMarks(
  gardenId: string,
  place: Place,
  siblings: readonly Sibling[],
  frameId: string,
): DisplayList {
  const catalogue = useCatalogue(gardenId)
  return useMemo(
    () =>
      siblings
        .filter((sibling) => sibling.id !== frameId)
        .flatMap((sibling) => faintly(place, sibling.body.design, catalogue)),
    [siblings, frameId, place, catalogue],
  )
}

interface Faint {
  readonly place: Place
  readonly catalogue: Catalogue
  readonly marks: DisplayList
}

/** Other frames change much less often than the one on the bench: each is laid out once for as long as it stays. */
const drawnOnce = new WeakMap<FrameBody['design'], Faint>()

function faintly(place: Place, design: FrameBody['design'], catalogue: Catalogue): DisplayList {
  const known = drawnOnce.get(design)
  if (known?.place === place && known.catalogue === catalogue) return known.marks
  const frame = layOut(place.body, design, catalogue)
  const marks = frame
    ? drawLaid(frame, catalogue).filter((mark) => mark.kind === 'line' || mark.kind === 'member')
    : []
  drawnOnce.set(design, { place, catalogue, marks })
  return marks
}

interface OverlayProps {
  readonly view: View
  readonly place: Place
  readonly frame: Frame
  readonly plan: FramePlan
  readonly nodeId: string | null
  readonly step: Step | null
}

/**
 * What was asked for: the chosen node's distances from the datum, and the chosen piece of wire as far as it
 * is strung.
 */
function BenchOverlay({ view, place, frame, plan, nodeId, step }: OverlayProps) {
  const units = useUnits()
  const node = frame.nodes.find((one) => one.id === nodeId && one.number > 0)
  const way = step === null ? undefined : plan.wires[step.wire]?.stringing?.pieces[step.piece]
  const datumM = place.body.viewingEnd === 'left' ? 0 : place.body.widthM
  const pointAt = (index: number) =>
    `${view.x(frame.nodes[index]!.at.xM)},${view.y(frame.nodes[index]!.at.yM)}`
  const last = way && step ? frame.nodes[way.nodes[step.runs]!] : undefined
  return (
    <>
      {way && step && (
        <polyline
          className="draw-wire-chosen"
          points={way.nodes
            .slice(0, step.runs + 1)
            .map(pointAt)
            .join(' ')}
        />
      )}
      {last && <circle className="draw-chosen-halo" cx={view.x(last.at.xM)} cy={view.y(last.at.yM)} r={8} />}
      {node && (
        <>
          <DimensionShape
            view={view}
            from={{ xM: datumM, yM: node.at.yM }}
            to={node.at}
            text={units.length(Math.abs(node.at.xM - datumM), 'short')}
          />
          <DimensionShape
            view={view}
            from={{ xM: node.at.xM, yM: 0 }}
            to={node.at}
            text={units.length(node.at.yM, 'short')}
          />
        </>
      )}
    </>
  )
}
