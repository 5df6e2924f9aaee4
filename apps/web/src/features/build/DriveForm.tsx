import type { Anchor, MarkOutRow } from '@klados/core/frame'
import { answerDrive } from '@klados/core/plan'
import type { FramePlan } from '@klados/core/plan'
import { findScrew } from '@klados/core/catalogue'
import type { Catalogue } from '@klados/core/catalogue'
import type { Place } from '@klados/contract'
import { useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import type { NewEntry } from '../../data/record.ts'
import { onePress } from '../../ui/one-press.ts'
import { Check } from '../../ui/Choice.tsx'
import { ForceField } from '../../ui/ForceField.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { Message } from '../../ui/Message.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useUnits } from '../../ui/units.tsx'

interface DriveFormProps {
  readonly place: Place
  readonly frameId: string
  readonly plan: FramePlan
  readonly catalogue: Catalogue
  readonly row: Extract<MarkOutRow, { what: 'anchor' }>
  readonly onWrite: (entry: Pick<NewEntry, 'kind' | 'body'>) => void
}

/** Where a screw of unknown length would stand. */
const USUAL_DEPTH_M = 1.1
/** Newton metres in a pound-foot. */
const LBFT = 1.3558179

/**
 * How a ground screw went in, and at once whether that is enough: what it holds as it stands, what is asked of it,
 * and how far to move it if it must. 0 for torque or test means that it was not measured.
 */
export function DriveForm({ place, frameId, plan, catalogue, row, onWrite }: DriveFormProps) {
  const { t } = useTranslation()
  const { system } = useUnits()
  const anchor = plan.frame?.anchors.find((one) => one.id === row.partId)
  const screw = anchor && findScrew(catalogue, anchor.screwId)
  const [depthM, setDepthM] = useState(screw?.lengthM ?? USUAL_DEPTH_M)
  const [angleDeg, setAngleDeg] = useState(anchor ? designedAngleDeg(anchor) : 0)
  const [torqueNm, setTorqueNm] = useState(0)
  const [reworks, setReworks] = useState(0)
  const [movedM, setMovedM] = useState(0)
  const [pullTestN, setPullTestN] = useState(0)
  const [isRefused, setIsRefused] = useState(false)
  const measured = { torqueNm: torqueNm || null, pullTestN: pullTestN || null }
  const isMetric = system === 'metric'
  const save = () =>
    onWrite({
      kind: 'anchor.driven',
      body: {
        v: 1,
        frameId,
        anchorId: row.partId,
        depthM,
        angleDeg,
        reworks,
        isRefused,
        movedM,
        ...measured,
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
          maxM={screw ? screw.lengthM * 1.5 : 5}
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
          label={t(isMetric ? 'drive.torque' : 'drive.torqueImperial')}
          value={isMetric ? torqueNm : Math.round(torqueNm / LBFT)}
          min={0}
          max={isMetric ? 20000 : 14000}
          step={1}
          onChange={(torque) => setTorqueNm(isMetric ? torque : torque * LBFT)}
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
        <ForceField label={t('drive.pullTest')} valueN={pullTestN} minN={0} onChange={setPullTestN} />
      </div>
      <Check label={t('drive.refused')} isOn={isRefused} onChange={setIsRefused} />
      {anchor && (
        <Verdict
          place={place}
          plan={plan}
          catalogue={catalogue}
          anchor={anchor}
          drive={{
            depthAlongM: depthM,
            angleFromVerticalRad: (angleDeg * Math.PI) / 180,
            reworks,
            ...measured,
          }}
        />
      )}
      <button type="button" className="btn btn-main min-h-14 text-[1.0625rem]" onClick={onePress(save)}>
        {t('drive.save')}
      </button>
    </div>
  )
}

/** In the line of what it holds; whole degrees from the vertical. */
function designedAngleDeg({ at, towards }: Anchor): number {
  const outM = Math.hypot(towards.xM - at.xM, towards.zM - at.zM)
  return Math.round((Math.atan2(outM, towards.yM - at.yM) * 180) / Math.PI)
}

interface VerdictProps extends Pick<DriveFormProps, 'place' | 'plan' | 'catalogue'> {
  readonly anchor: Anchor
  readonly drive: Parameters<typeof answerDrive>[3]
}

/** Whether to leave it or to move it, while one still stands beside it. */
function Verdict({ place, plan, catalogue, anchor, drive }: VerdictProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const answer = answerDrive(plan, { site: place.body, catalogue }, anchor, drive)
  if (!answer) return null
  const [low, high] = answer.holdingN.map((n) => units.force(n)) as [string, string]
  const holds = low === high ? low : t('check.range', { low, high })
  return (
    <Message tone={answer.verdict === 'fails' || answer.verdict === 'doubtful' ? 'limit' : 'plain'}>
      <p>
        <strong>{t(`drive.answer.${answer.verdict ?? 'untold'}`)}</strong>{' '}
        {answer.needN === null
          ? t('drive.holds', { holds })
          : t('drive.holdsAgainst', { holds, need: units.force(answer.needN) })}
        {answer.lostShare > 0.005 && ` ${t('drive.lost', { share: Math.round(answer.lostShare * 100) })}`}
      </p>
      {(answer.verdict === 'fails' || answer.verdict === 'doubtful') && (
        <p>{t('drive.move', { distance: units.length(answer.moveM, 'short') })}</p>
      )}
    </Message>
  )
}
