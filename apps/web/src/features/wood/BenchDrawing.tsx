import { useDeferredValue, useMemo } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Elevation } from '../../elevation/Elevation.tsx'
import { PhotoUnderlay } from '../../elevation/PhotoUnderlay.tsx'
import { ExpectedWood, PieceBeingDrawn, SidesOfSheet } from './BenchMarks.tsx'
import { inInkOf, marksOf, windowOf } from './bench-window.ts'
import { ProposalMarks } from './choose/ProposalMarks.tsx'
import { useBenchDrawing } from './use-bench-drawing.ts'
import type { BenchRoom } from './use-bench-room.ts'

/** Of more plants in one picture the names would lie on each other. */
const LABELLED = 8

interface BenchDrawingProps {
  readonly room: BenchRoom
  readonly unsettled: ReadonlySet<string>
}

/** The plant on its frame, from where one looks, with what is being drawn, expected and proposed over it. */
export function BenchDrawing({ room, unsettled }: BenchDrawingProps) {
  const { gardenId, place, data, on, state, choice, training, choosing, look, tools, photo } = room
  const { t } = useTranslation()
  const { reading } = state
  const isFront = look.from === 'elevation'
  const marks = useMemo(() => marksOf(reading, training, choosing), [reading, training, choosing])
  const shown = useMemo(() => (isFront ? windowOf(place, training) : null), [isFront, place, training])
  const inInk = useMemo(() => inInkOf(reading, training), [reading, training])
  const isCrowded = shown === null && data.plants.length > LABELLED
  const list = useBenchDrawing(place, data, on, tools.standAtM, unsettled, inInk, isCrowded, look)
  // Who and what comes first, its picture a breath later: on a phone a row of vines takes its time.
  const plantId = choice.plant?.id
  const picture = useMemo(
    () => ({ list, shown, look, key: shown ? (plantId ?? 'whole') : look.from }),
    [list, shown, look, plantId],
  )
  const drawn = useDeferredValue(picture)
  return (
    <Elevation
      label={
        isFront
          ? t('place.drawing', { name: place.body.name })
          : t('wood.look.drawing', { name: place.body.name, from: t(`wood.look.${look.from}`) })
      }
      wall={place.body}
      surface={place.body.surface}
      list={drawn.list}
      from={drawn.look.from}
      window={drawn.shown}
      windowKey={drawn.key}
      chosenId={choosing?.focused ?? state.chosen?.id ?? null}
      isDrawing={tools.tool !== 'choose'}
      {...(tools.tool === 'choose'
        ? { onTap: tools.press }
        : { onPress: tools.press, onRelease: tools.release })}
      {...(photo?.isShown && isFront && tools.tool === 'draw'
        ? {
            underlay: (view) => <PhotoUnderlay gardenId={gardenId} photo={place.body.photo!} view={view} />,
          }
        : {})}
      onHover={tools.hover}
      onKey={tools.key}
      overlay={(view) => (
        <>
          <SidesOfSheet {...{ view, look }} />
          <PieceBeingDrawn {...{ view, look }} points={tools.shown} />
          <ExpectedWood {...{ view, look }} paths={state.expected} />
          {training && marks && <ProposalMarks {...{ view, look }} plant={training.view} {...marks} />}
        </>
      )}
    />
  )
}
