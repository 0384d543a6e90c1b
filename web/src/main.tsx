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
createRoot(document.getElementById('root')!).render(<RouterProvider router={router} />)
