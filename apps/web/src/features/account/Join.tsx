import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useAcceptInvitationMutation, useLookAtInvitationQuery, useSessionQuery } from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { Loading, Message } from '../../ui/Message.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { forgetInvitation, rememberInvitation } from './invitation-link.ts'

/** Where an invitation's link leads: what it is to, and one's word on it. */
export function Join() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [link] = useState(rememberInvitation)
  const { data: session } = useSessionQuery(undefined)
  const { data: invitation, error } = useLookAtInvitationQuery(link)
  const [accept, { isLoading }] = useAcceptInvitationMutation()
  const [failure, setFailure] = useState<ApiError>()
  const join = async () => {
    const outcome = await accept(link)
    if (outcome.error) return setFailure(outcome.error as ApiError)
    forgetInvitation()
    void navigate(`/g/${link.gardenId}/places`, { replace: true })
  }
  const refusal = failure ?? (error as ApiError | undefined)
  const account = session?.account
  if (!invitation && !refusal) return <Loading>{t('app.loading')}</Loading>
  return (
    <main className="mx-auto flex max-w-md flex-col gap-4 px-6 py-10">
      <p className="font-display text-[min(2.75rem,14vw)] font-bold leading-none tracking-tight">
        {t('app.name')}
      </p>
      <ScreenTitle>{t('invitation.title')}</ScreenTitle>
      {refusal && <Message tone="limit">{refusalWords(t, refusal)}</Message>}
      {invitation && (
        <p>
          {t('invitation.text', {
            by: invitation.invitedBy,
            garden: invitation.gardenName,
            role: t(`role.${invitation.role}`),
          })}
        </p>
      )}
      {invitation && account && !account.isDemo && (
        <>
          <p className="text-slate">{t('invitation.as', { name: account.name, email: account.email })}</p>
          <button
            type="button"
            className="btn btn-main self-start"
            disabled={isLoading}
            onClick={() => void join()}
          >
            {t('invitation.accept', { garden: invitation.gardenName })}
          </button>
        </>
      )}
      {invitation && (!account || account.isDemo) && (
        <>
          <p>{t('invitation.signInFirst')}</p>
          <Link className="btn btn-main self-start no-underline" to="/sign-in">
            {t('account.signIn')}
          </Link>
        </>
      )}
      {refusal && (
        <Link className="btn self-start no-underline" to="/" onClick={forgetInvitation}>
          {t('invitation.toGarden')}
        </Link>
      )}
    </main>
  )
}
