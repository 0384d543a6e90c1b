import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import './app/theme.css'
import { startLight } from './app/light'
import { router } from './app/routes'

startLight()
createRoot(document.getElementById('root')!).render(<RouterProvider router={router} />)
