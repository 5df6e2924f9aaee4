import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import { Navigate } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useSessionQuery, useSignOutMutation } from '../../data/api.ts'
import { AccountNews } from '../../shell/AccountNews.tsx'
import { NewFromFile } from './Exchange.tsx'
import { NewGarden } from './NewGarden.tsx'
import { OwnAccount } from './OwnAccount.tsx'

/** Where somebody stands who has an account and is in no garden, having left or deleted the last one. */
export function NoGarden() {
  const { t } = useTranslation()
  const { data: session } = useSessionQuery(undefined)
  const [signOut] = useSignOutMutation()
  if (session && (!session.account || session.memberships.length > 0)) return <Navigate replace to="/" />
  return (
    <main className="mx-auto flex max-w-md flex-col gap-6 px-6 py-10">
      <p className="font-display text-[min(2.75rem,14vw)] font-bold leading-none tracking-tight">
        {t('app.name')}
      </p>
      <ScreenTitle>{t('garden.none')}</ScreenTitle>
      <p>{t('garden.noneText')}</p>
      <AccountNews />
      <NewGarden />
      <NewFromFile />
      <OwnAccount />
      <button type="button" className="btn self-start" onClick={() => void signOut(undefined)}>
        {t('menu.signOut')}
      </button>
    </main>
  )
}
