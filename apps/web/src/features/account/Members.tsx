import type { Garden, Role } from '@klados/contract'
import type { TFunction } from '../../i18n/texts.ts'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { useTranslation } from '../../i18n/use-translation.tsx'
import {
  useAddMemberMutation,
  useMakeResetLinkMutation,
  useSessionQuery,
  useSetMemberMutation,
  useTakeInvitationBackMutation,
} from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { dayAt, formatDate } from '../../data/dates.ts'
import { Pick } from '../../ui/Choice.tsx'
import { Field } from '../../ui/Field.tsx'
import { Message } from '../../ui/Message.tsx'
import { refusalWords } from '../../ui/refusal.ts'

const ROLES: readonly Role[] = ['owner', 'grower', 'viewer']

/** Who belongs to a garden, who is invited, and what an owner can do about it. */
export function Members({ garden, isDemo }: { garden: Garden; isDemo: boolean }) {
  const { t } = useTranslation()
  const [setMember] = useSetMemberMutation()
  const [addMember] = useAddMemberMutation()
  const [makeLink] = useMakeResetLinkMutation()
  const { data: session } = useSessionQuery(undefined)
  const [takeBack] = useTakeInvitationBackMutation()
  const [invited, setInvited] = useState<{ email: string; url: string; until: string } | null>(null)
  const [link, setLink] = useState<ResetLink | null>(null)
  const [failure, setFailure] = useState<string>()
  const canWrite = garden.role === 'owner'
  const tell = async (sent: Promise<{ error?: unknown }>) => {
    const { error } = await sent
    setFailure(error ? refusalWords(t, error as ApiError) : undefined)
    return !error
  }
  const invite = async (email: string, role: Role) => {
    const { data, error } = await addMember({ gardenId: garden.id, email, role })
    setFailure(error ? refusalWords(t, error as ApiError) : undefined)
    setInvited(data ? { email, url: `${window.location.origin}${data.path}`, until: data.expiresAt } : null)
    return !error
  }
  const resetLink = async (accountId: string) => {
    const { data, error } = await makeLink({ gardenId: garden.id, accountId })
    setFailure(error ? refusalWords(t, error as ApiError) : undefined)
    setLink(data ? { accountId, url: `${window.location.origin}${data.path}`, until: data.expiresAt } : null)
  }
  return (
    <section className="flex flex-col gap-3">
      <h2 className="text-[1.25rem]">{t('garden.people')}</h2>
      <p className="text-slate">{t('garden.peopleIntro')}</p>
      {failure && <Message tone="limit">{failure}</Message>}
      <ul className="flex flex-col gap-2">
        {garden.members.map((member) => (
          <MemberLine
            key={member.accountId}
            member={member}
            canWrite={canWrite && !isDemo}
            hasAddress={!isDemo}
            isSelf={member.accountId === session?.account?.id}
            link={link?.accountId === member.accountId ? link : null}
            onRole={(role) =>
              void tell(setMember({ gardenId: garden.id, accountId: member.accountId, role }))
            }
            onReset={() => void resetLink(member.accountId)}
          />
        ))}
      </ul>
      {(garden.invitations ?? []).map(({ email, role, expiresAt }) => (
        <InvitedLine
          key={email}
          email={email}
          role={role}
          until={expiresAt}
          onTakeBack={() => void tell(takeBack({ gardenId: garden.id, email }))}
        />
      ))}
      {isDemo ? <p>{t('refusal.garden/demo')}</p> : canWrite && <AddMember onAdd={invite} />}
      {invited && (
        <LinkToHandOver
          label={t('garden.inviteLink', {
            email: invited.email,
            until: formatDate(dayAt(invited.until)),
          })}
          url={invited.url}
        />
      )}
    </section>
  )
}

interface ResetLink {
  readonly accountId: string
  readonly url: string
  readonly until: string
}

const roleOptions = (t: TFunction) => ROLES.map((value) => ({ value, label: t(`role.${value}`) }))

interface MemberLineProps {
  readonly member: Garden['members'][number]
  readonly canWrite: boolean
  /** Nobody writes to the made-up crew of the demo. */
  readonly hasAddress: boolean
  readonly isSelf: boolean
  /** One that was just made for this member. */
  readonly link: ResetLink | null
  readonly onRole: (role: Role | null) => void
  readonly onReset: () => void
}

function MemberLine({ member, canWrite, hasAddress, isSelf, link, onRole, onReset }: MemberLineProps) {
  const { t } = useTranslation()
  return (
    <li className="flex flex-wrap items-end gap-3 border-b border-dotted border-faint pb-2">
      <span className="min-w-0 flex-1">
        <span className="block truncate font-semibold">{member.name}</span>
        {hasAddress && <span className="block truncate text-slate">{member.email}</span>}
      </span>
      {canWrite ? (
        <>
          <Pick
            label={t('garden.role')}
            value={member.role}
            options={roleOptions(t)}
            onChange={(value) => onRole(value as Role)}
          />
          <button
            type="button"
            className="btn"
            aria-label={t('garden.remove', { name: member.name })}
            onClick={() => onRole(null)}
          >
            ×
          </button>
          {!isSelf && (
            <button
              type="button"
              className="btn btn-plain px-0"
              aria-label={t('garden.resetFor', { name: member.name })}
              onClick={onReset}
            >
              {t('garden.reset')}
            </button>
          )}
          {link && (
            <div className="basis-full">
              <LinkToHandOver
                label={t('garden.resetLink', {
                  name: member.name,
                  until: formatDate(dayAt(link.until)),
                })}
                url={link.url}
              />
            </div>
          )}
        </>
      ) : (
        t(`role.${member.role}`)
      )}
    </li>
  )
}

/** A link that somebody has to be given by hand: there is no mail here. */
function LinkToHandOver({ label, url }: { label: string; url: string }) {
  return (
    <Field label={label}>
      {(ids) => (
        <input {...ids} className="input" readOnly value={url} onFocus={(event) => event.target.select()} />
      )}
    </Field>
  )
}

interface InvitedLineProps {
  readonly email: string
  readonly role: Role
  readonly until: string
  readonly onTakeBack: () => void
}

/** Somebody who has not answered yet. */
function InvitedLine({ email, role, until, onTakeBack }: InvitedLineProps) {
  const { t } = useTranslation()
  return (
    <p className="flex flex-wrap items-center gap-3 border-b border-dotted border-faint pb-2">
      <span className="min-w-0 flex-1">
        <span className="block truncate">{email}</span>
        <span className="block text-[0.8125rem] text-slate">
          {t('garden.invited', { role: t(`role.${role}`), until: formatDate(dayAt(until)) })}
        </span>
      </span>
      <button
        type="button"
        className="btn"
        aria-label={t('garden.takeBackOf', { email })}
        onClick={onTakeBack}
      >
        {t('garden.takeBack')}
      </button>
    </p>
  )
}

function AddMember({ onAdd }: { onAdd: (email: string, role: Role) => Promise<boolean> }) {
  const { t } = useTranslation()
  const [role, setRole] = useState<Role>('grower')
  const { register, handleSubmit, reset } = useForm({ defaultValues: { email: '' } })
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) =>
        void handleSubmit(async ({ email }) => {
          if (await onAdd(email, role)) reset()
        })(event)
      }
    >
      <h2>{t('garden.add')}</h2>
      <Field label={t('garden.email')}>
        {(ids) => (
          <input
            {...ids}
            {...register('email', { required: true })}
            className="input"
            type="email"
            autoComplete="off"
          />
        )}
      </Field>
      <Pick
        label={t('garden.role')}
        value={role}
        options={roleOptions(t)}
        onChange={(value) => setRole(value as Role)}
      />
      <button type="submit" className="btn self-start">
        {t('garden.addButton')}
      </button>
    </form>
  )
}
