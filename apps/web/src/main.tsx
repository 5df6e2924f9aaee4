import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { Provider } from 'react-redux'
import { RouterProvider } from 'react-router'
import { watchConnection } from './data/connection.ts'
import { storeDrafts } from './data/drafts.ts'
import { createStore } from './data/store.ts'
import { startTexts } from './i18n/index.ts'
import { makeRouter } from './shell/routes.tsx'
import { applyTheme } from './shell/theme.ts'
import './styles.css'

applyTheme()
const store = createStore()
watchConnection(store)
let drafts = store.getState().drafts
store.subscribe(() => {
  const now = store.getState().drafts
  if (now !== drafts) storeDrafts((drafts = now))
})

void startTexts().then(() => {
  createRoot(document.getElementById('root')!).render(
    <StrictMode>
      <Provider store={store}>
        <RouterProvider router={makeRouter()} />
      </Provider>
    </StrictMode>,
  )
})
