import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import { config } from 'zod/v4/core'
import './app/theme.css'
import { startLight } from './app/light'
import { router } from './app/routes'
import { keepSending } from './outbox/send'

// The page may not evaluate text as code, so Zod must not try to.
config({ jitless: true })
startLight()
void keepSending()
createRoot(document.getElementById('root')!).render(
  // A view that is asked for comes before whatever is typed next: as a transition it would wait until nothing else changes.
  <RouterProvider router={router} useTransitions={false} />
)
