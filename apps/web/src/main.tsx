import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { Provider } from 'react-redux'
import { RouterProvider } from 'react-router'
import { createStore } from './data/store.ts'
import type { SyncDesk } from './data/sync/desk.ts'
import { startTexts } from './i18n/index.ts'
import { makeRouter } from './shell/routes.tsx'
import { applyTheme } from './shell/theme.ts'
import './styles.css'

applyTheme()
const desk = {} as SyncDesk
const store = createStore(desk)

void startTexts().then(() => {
  createRoot(document.getElementById('root')!).render(
    <StrictMode>
      <Provider store={store}>
        <RouterProvider router={makeRouter(store, desk)} />
      </Provider>
    </StrictMode>,
  )
})
