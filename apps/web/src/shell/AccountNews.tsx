import { useNavigate } from 'react-router'
import { useTranslation } from '../i18n/use-translation.tsx'
import {
  useAcceptInvitationMutation,
  useDeclineInvitationMutation,
  useDropNoticeMutation,
  useInvitationsQuery,
  useSessionQuery,
} from '../data/api.ts'
import type { SessionHere } from '../data/api.ts'
import { formatTime } from '../data/dates.ts'
import { Message } from '../ui/Message.tsx'

/** What has been done about one's account, and gardens that one is invited to. */
export function AccountNews() {
  const { data: session } = useSessionQuery(undefined)
  const account = session?.account
  if (!account || account.isDemo || session.isExpired || session.other !== undefined) return null
  return (
    <>
      <Notices notices={session.notices ?? []} />
      <Invitations />
    </>
  )
}

function Notices({ notices }: { notices: NonNullable<SessionHere['notices']> }) {
  const { t } = useTranslation()
  const [drop] = useDropNoticeMutation()
  return notices.map(({ id, kind, byName, gardenName, at }) => {
    const key =
      kind === 'reset-link-made' && byName === '' ? 'notice.operators-link-made' : (`notice.${kind}` as const)
    return (
      <Message key={id} tone="due">
        {t(key, { by: byName, garden: gardenName, at: formatTime(Date.parse(at)) })}{' '}
        <button type="button" className="btn" onClick={() => void drop(id)}>
          {t('notice.read')}
        </button>
      </Message>
    )
  })
}

function Invitations() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { data: invitations = [] } = useInvitationsQuery(undefined)
  const [accept] = useAcceptInvitationMutation()
  const [decline] = useDeclineInvitationMutation()
  const join = async (gardenId: string) => {
    const { error } = await accept({ gardenId })
    if (!error) void navigate(`/g/${gardenId}/places`)
  }
  return invitations.map(({ gardenId, gardenName, role, invitedBy }) => (
    <Message key={gardenId} tone="plain">
      {t('invitation.text', { by: invitedBy, garden: gardenName, role: t(`role.${role}`) })}{' '}
      <span className="inline-flex gap-2">
        <button type="button" className="btn" onClick={() => void join(gardenId)}>
          {t('invitation.accept', { garden: gardenName })}
        </button>
        <button type="button" className="btn btn-plain" onClick={() => void decline({ gardenId })}>
          {t('invitation.decline')}
        </button>
      </span>
    </Message>
  ))
}
