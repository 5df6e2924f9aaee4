import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { Provider } from 'react-redux'
import { RouterProvider } from 'react-router'
import { COPIED_ACCOUNT_KEY } from './data/copy/account-key.ts'
import { askEarly } from './data/early.ts'
import { createStore } from './data/store.ts'
import type { Desk } from './data/desk.ts'
import { startTexts } from './i18n/index.ts'
import { TextsProvider } from './i18n/use-translation.tsx'
import { KeepLanguage } from './shell/KeepLanguage.tsx'
import { makeRouter } from './shell/routes.tsx'
import { applyTheme } from './shell/theme.ts'
import { UnitsProvider } from './ui/units.tsx'
import './styles.css'

askEarly(location.pathname)
applyTheme()
const desk = {} as Desk
const store = createStore(desk)
const texts = startTexts()
// Begins to fetch the screen that the address names, while the texts are on their way.
const router = makeRouter(store, desk)

/** Only where somebody was here before: a first visit does not wait for it, nor fetch what reads it. */
const restore = async () => {
  if (localStorage.getItem(COPIED_ACCOUNT_KEY) === null) return
  const { restoreSession } = await import('./data/copy/copy.ts')
  await restoreSession(store)
}

void Promise.all([texts, restore()]).then(() => {
  createRoot(document.getElementById('root')!).render(
    <StrictMode>
      <Provider store={store}>
        <TextsProvider>
          <KeepLanguage />
          <UnitsProvider>
            <RouterProvider router={router} />
          </UnitsProvider>
        </TextsProvider>
      </Provider>
    </StrictMode>,
  )
})
