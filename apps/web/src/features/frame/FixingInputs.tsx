import { findFixing } from '@klados/core/catalogue'
import { USUAL_PLANT_OFF_M, standOffOf } from '@klados/core/design'
import type { FrameBody } from '@klados/contract'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useCatalogue } from '../../data/catalogue.ts'
import { useNames } from '../../plan/names.ts'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { Fold } from './Group.tsx'
import type { InputsProps } from './inputs-props.ts'

/** How the frame is held to its face, how far off it runs, and the one node that is chosen. */
export function FixingInputs({
  gardenId,
  place,
  design,
  onChange,
  node,
  nodeId,
  onStep,
  onMove,
  onPutBack,
  isOpen,
  unusual,
}: InputsProps & { readonly isOpen: boolean; readonly unusual: number }) {
  const { t } = useTranslation()
  const catalogue = useCatalogue(gardenId)
  const names = useNames()
  const draggedCount = Object.keys(design.dragged).length
  const along = (xM: number) => (place.viewingEnd === 'left' ? xM : place.widthM - xM)
  const highestM = place.firstForkM + place.usableHeightM
  const isOnWall = place.surface !== 'open'
  const isRow = design.pattern.kind === 'row'
  if (!isOnWall && !isRow) return null
  const snaps = [
    ['none'],
    place.uprights ? ['uprights'] : [],
    place.levels ? ['levels'] : [],
    place.uprights && place.levels ? ['both'] : [],
  ].flat() as FrameBody['design']['snap'][]
  const postXM = nodeId !== null && design.dragged[nodeId]?.xM
  const fixing = findFixing(catalogue, design.fixingId)
  return (
    <Fold title={t('frame.group.fixing')} isOpen={isOpen} unusual={unusual}>
      {isOnWall && (
        <Pick
          label={t('frame.fixing')}
          value={design.fixingId}
          options={catalogue.fixings.map((f) => ({ value: f.id, label: names.fixing(f) }))}
          onChange={(fixingId) => onChange('fixing', { fixingId })}
        />
      )}
      {isOnWall && fixing && (
        <div className="grid grid-cols-2 items-end gap-2">
          <LengthField
            label={t('frame.standOff')}
            style="short"
            minM={0}
            maxM={0.5}
            valueM={standOffOf(design, fixing)}
            onChange={(standOffM) => onChange('stand-off', { standOffM })}
          />
          <LengthField
            label={t('frame.plantOff')}
            style="short"
            minM={0}
            maxM={3}
            valueM={design.plantOffM ?? USUAL_PLANT_OFF_M}
            onChange={(plantOffM) => onChange('plant off', { plantOffM })}
          />
        </div>
      )}
      <LengthField
        label={t(isRow ? 'frame.postTolerance' : 'frame.tolerance')}
        style="short"
        minM={0}
        maxM={2}
        valueM={design.moveToleranceM}
        onChange={(moveToleranceM) => onChange('tolerance', { moveToleranceM })}
      />
      {isOnWall && snaps.length > 1 && (
        <Choice
          label={t('frame.snap')}
          value={design.snap}
          options={snaps.map((value) => ({ value, label: t(`frame.snaps.${value}`) }))}
          onChange={(snap) => onChange('snap', { snap })}
        />
      )}
      {isOnWall && (
        <div className="mt-1 flex flex-wrap items-center gap-2">
          <h3 className="mr-auto font-semibold">
            {node ? t('frame.nodeNumber', { n: node.number }) : t('frame.group.node')}
          </h3>
          <button type="button" className="btn" onClick={() => onStep(-1)}>
            {t('frame.previous')}
          </button>
          <button type="button" className="btn" onClick={() => onStep(1)}>
            {t('frame.next')}
          </button>
        </div>
      )}
      {isOnWall && node && (
        <div className="grid grid-cols-2 gap-2">
          <LengthField
            key={`${node.id} along`}
            label={t('frame.nodeAlong', { end: t(`place.${place.viewingEnd}`) })}
            style="short"
            minM={0}
            maxM={place.widthM}
            valueM={along(node.at.xM)}
            onChange={(m) => onMove(node.id, { xM: along(m), yM: node.at.yM })}
          />
          <LengthField
            key={`${node.id} height`}
            label={t('frame.nodeHeight')}
            style="short"
            minM={0}
            maxM={highestM}
            valueM={node.at.yM}
            onChange={(yM) => onMove(node.id, { xM: node.at.xM, yM })}
          />
          {node.state === 'dragged' && (
            <button type="button" className="btn" onClick={() => onPutBack(node.id)}>
              {t('frame.putBack')}
            </button>
          )}
        </div>
      )}
      {isOnWall && !node && <p className="text-[0.78125rem] text-slate">{t('frame.chooseNode')}</p>}
      {isRow && <p className="text-[0.78125rem] text-slate">{t('frame.choosePost')}</p>}
      {isRow && nodeId !== null && postXM !== false && postXM !== undefined && (
        <div className="grid grid-cols-2 items-end gap-2">
          <LengthField
            key={nodeId}
            label={t('frame.postAlong')}
            minM={0}
            maxM={place.widthM}
            valueM={along(postXM)}
            onChange={(m) => onMove(nodeId, { xM: along(m), yM: 0 })}
          />
          <button type="button" className="btn" onClick={() => onPutBack(nodeId)}>
            {t('frame.putBack')}
          </button>
        </div>
      )}
      {draggedCount > 0 && (
        <button
          type="button"
          className="btn btn-plain self-start px-0"
          onClick={() => onChange('put all back', { dragged: {} })}
        >
          {t('frame.putAllBack', { count: draggedCount })}
        </button>
      )}
    </Fold>
  )
}
