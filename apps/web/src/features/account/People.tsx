import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import { listWords } from '../../i18n/language.ts'
import type { Garden } from '@klados/contract'
import { useForm } from 'react-hook-form'
import { useParams } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useGardenQuery, useSaveGardenMutation, useSessionQuery } from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { Field } from '../../ui/Field.tsx'
import { Exchange } from './Exchange.tsx'
import { GardenEnd } from './GardenEnd.tsx'
import { Members } from './Members.tsx'
import { OwnAccount } from './OwnAccount.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { Loading, Message } from '../../ui/Message.tsx'

/** What the garden is called, where it lies, and who belongs to it. */
export function People() {
  const { gardenId } = useParams() as { gardenId: string }
  const { t } = useTranslation()
  const { data: garden } = useGardenQuery(gardenId)
  const { data: session } = useSessionQuery(undefined)
  const isDemo = Boolean(session?.memberships.find((one) => one.gardenId === gardenId)?.goesAt)
  if (!garden) return <Loading>{t('app.loading')}</Loading>
  return (
    <div className="grid max-w-4xl grid-cols-1 gap-10 md:grid-cols-2">
      <Settings garden={garden} />
      <Members garden={garden} isDemo={isDemo} />
      <Exchange gardenId={gardenId} isOwner={garden.role === 'owner'} />
      <OwnAccount />
      {!session?.account?.isDemo && <GardenEnd garden={garden} />}
    </div>
  )
}

/** What stands in the list for no time zone of the garden's own. */
const READERS = ''

/** All that this browser knows, and the one that was chosen by another. */
const timeZones = (chosen: string | null | undefined): readonly string[] =>
  [...new Set([...Intl.supportedValuesOf('timeZone'), ...(chosen ? [chosen] : [])])].sort()

function Settings({ garden }: { garden: Garden }) {
  const { t } = useTranslation()
  const [save, outcome] = useSaveGardenMutation()
  const { name, latitudeDeg, currency } = garden
  const { register, handleSubmit } = useForm({
    defaultValues: { name, latitudeDeg, currency, timeZone: garden.timeZone ?? READERS },
  })
  const canWrite = garden.role === 'owner'
  const error = outcome.error as ApiError | undefined
  const labels: Readonly<Record<string, string>> = {
    name: t('garden.name'),
    latitudeDeg: t('garden.latitude'),
    currency: t('garden.currency'),
  }
  const badFields = (fields: NonNullable<ApiError['fields']>) =>
    listWords([...new Set(fields.map(({ path }) => labels[path] ?? path))])
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) =>
        void handleSubmit(({ timeZone, ...rest }) =>
          save({
            gardenId: garden.id,
            // What stays as it is is not named: a server of before knows no time zones.
            settings: {
              ...rest,
              ...(timeZone === (garden.timeZone ?? READERS)
                ? {}
                : { timeZone: timeZone === READERS ? null : timeZone }),
            },
          }),
        )(event)
      }
    >
      <ScreenTitle>{t('garden.title')}</ScreenTitle>
      {error && (
        <Message tone="limit">
          {error.fields ? t('garden.badFields', { fields: badFields(error.fields) }) : refusalWords(t, error)}
        </Message>
      )}
      <fieldset disabled={!canWrite} className="flex flex-col gap-3">
        <Field label={t('garden.name')}>
          {(ids) => <input {...ids} {...register('name')} className="input" />}
        </Field>
        <Field label={t('garden.latitude')} hint={t('garden.latitudeHint')}>
          {(ids) => (
            <input
              {...ids}
              {...register('latitudeDeg', { valueAsNumber: true })}
              className="input"
              type="number"
              step="0.1"
            />
          )}
        </Field>
        <Field label={t('garden.currency')}>
          {(ids) => (
            <input
              {...ids}
              {...register('currency', { setValueAs: (v: string) => v.trim().toUpperCase() })}
              className="input"
              maxLength={3}
            />
          )}
        </Field>
        <Field label={t('garden.timeZone')} hint={t('garden.timeZoneHint')}>
          {(ids) => (
            <select {...ids} {...register('timeZone')} className="input">
              <option value={READERS}>{t('garden.timeZoneOfReader')}</option>
              {timeZones(garden.timeZone).map((zone) => (
                <option key={zone} translate="no">
                  {zone}
                </option>
              ))}
            </select>
          )}
        </Field>
        {canWrite && (
          <button type="submit" className="btn btn-main self-start">
            {t('garden.save')}
          </button>
        )}
        <p role="status" className="text-verdigris">
          {outcome.isSuccess && t('garden.saved')}
        </p>
      </fieldset>
    </form>
  )
}
