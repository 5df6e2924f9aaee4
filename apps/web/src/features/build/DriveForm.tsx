import type { MarkOutRow } from '@klados/core/frame'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { NewEntry } from '../../data/journal.ts'
import { Check } from '../../ui/Choice.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { NumberField } from '../../ui/NumberField.tsx'

interface DriveFormProps {
  readonly frameId: string
  readonly row: Extract<MarkOutRow, { what: 'anchor' }>
  readonly onWrite: (entry: Pick<NewEntry, 'kind' | 'body'>) => void
}

const USUAL_DEPTH_M = 1.1
const USUAL_ANGLE_DEG = 45

/**
 * How a ground screw went in: what counts for its holding. 0 for torque or test means that it was not
 * measured.
 */
export function DriveForm({ frameId, row, onWrite }: DriveFormProps) {
  const { t } = useTranslation()
  const [depthM, setDepthM] = useState(USUAL_DEPTH_M)
  const [angleDeg, setAngleDeg] = useState(USUAL_ANGLE_DEG)
  const [torqueNm, setTorqueNm] = useState(0)
  const [reworks, setReworks] = useState(0)
  const [movedM, setMovedM] = useState(0)
  const [pullTestN, setPullTestN] = useState(0)
  const [isRefused, setIsRefused] = useState(false)
  const save = () =>
    onWrite({
      kind: 'anchor.driven',
      body: {
        v: 1,
        frameId,
        anchorId: row.partId,
        depthM,
        angleDeg,
        torqueNm: torqueNm || null,
        reworks,
        isRefused,
        movedM,
        pullTestN: pullTestN || null,
      },
    })
  return (
    <div className="flex flex-col gap-2">
      <p className="text-slate">{t('drive.caution')}</p>
      <div className="grid grid-cols-2 items-end gap-2">
        <LengthField
          label={t('drive.depth')}
          style="short"
          minM={0}
          maxM={5}
          valueM={depthM}
          onChange={setDepthM}
        />
        <NumberField
          label={t('drive.angle')}
          value={angleDeg}
          min={0}
          max={80}
          step={1}
          onChange={setAngleDeg}
        />
        <NumberField
          label={t('drive.torque')}
          value={torqueNm}
          min={0}
          max={20000}
          step={1}
          onChange={setTorqueNm}
        />
        <NumberField
          label={t('drive.reworks')}
          value={reworks}
          min={0}
          max={50}
          step={1}
          onChange={setReworks}
        />
        <LengthField
          label={t('drive.moved')}
          style="short"
          minM={0}
          maxM={20}
          valueM={movedM}
          onChange={setMovedM}
        />
        <NumberField
          label={t('drive.pullTest')}
          value={pullTestN}
          min={0}
          max={1e6}
          step={1}
          onChange={setPullTestN}
        />
      </div>
      <Check label={t('drive.refused')} isOn={isRefused} onChange={setIsRefused} />
      <button type="button" className="btn btn-main min-h-14 text-[17px]" onClick={save}>
        {t('drive.save')}
      </button>
    </div>
  )
}
