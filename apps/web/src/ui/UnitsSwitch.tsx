import { usePreferMutation } from '../data/api.ts'
import { useTranslation } from '../i18n/use-translation.tsx'
import { useUnits } from './units.tsx'

/** The other system of units, offered where lengths are typed. */
export function UnitsSwitch() {
  const { t } = useTranslation()
  const { system } = useUnits()
  const [prefer] = usePreferMutation()
  const other = system === 'metric' ? 'imperial' : 'metric'
  return (
    <button type="button" className="btn btn-plain px-0" onClick={() => void prefer({ units: other })}>
      {t(`menu.switchTo.${other}`)}
    </button>
  )
}
