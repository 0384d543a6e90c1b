import { createBrowserRouter, Navigate, useRouteError } from 'react-router'
import { Shell } from './Shell'
import { visitScript } from './visit-script'
import { Button } from '../ui/Button'
import { Heading } from '../ui/Page'

function Lost() {
  return (
    <main className="mx-auto max-w-xl p-6">
      <Heading>There is nothing at this address</Heading>
      <p className="mt-2">
        Go back to{' '}
        <a className="underline" href="/">
          your day
        </a>
        .
      </p>
    </main>
  )
}

function Fault() {
  const error = useRouteError()
  return (
    <main className="mx-auto max-w-xl p-6" role="alert">
      <Heading>This page stopped working</Heading>
      <p className="mt-2">What was typed is kept. Load the page again; if it happens twice, tell your lead.</p>
      <p className="fine mt-2">{error instanceof Error ? error.name : 'Unknown fault'}</p>
      <Button kind="main" className="mt-4" onClick={() => location.reload()}>
        Load again
      </Button>
    </main>
  )
}

/** Every view, each loaded when it is first gone to. */
export const router = createBrowserRouter([
  {
    path: '/login',
    lazy: async () => ({ Component: (await import('./LogIn')).LogIn }),
    errorElement: <Fault />,
    HydrateFallback: () => null
  },
  {
    path: '/pack',
    lazy: async () => ({ Component: (await import('../pack/PackPage')).PackPage }),
    errorElement: <Fault />,
    HydrateFallback: () => null
  },
  {
    element: <Shell />,
    errorElement: <Fault />,
    HydrateFallback: () => null,
    children: [
      { path: '/', lazy: async () => ({ Component: (await import('../day/Day')).Day }) },
      { path: '/visit/new', lazy: async () => ({ Component: (await import('../day/NewVisit')).NewVisit }) },
      { path: '/visit/:id', element: <Navigate to="brief" replace /> },
      { path: '/visit/:id/:stage', lazy: async () => ({ Component: (await visitScript()).Visit }) },
      { path: '/day/ways', lazy: async () => ({ Component: (await import('../day/WaysPage')).WaysPage }) },
      { path: '/check/:id', lazy: async () => ({ Component: (await import('../day/CheckPage')).CheckPage }) },
      { path: '/homes', lazy: async () => ({ Component: (await import('../homes/Homes')).Homes }) },
      { path: '/homes/:id', lazy: async () => ({ Component: (await import('../homes/Home')).Home }) },
      {
        path: '/homes/:id/compare',
        lazy: async () => ({ Component: (await import('../homes/CompareVisits')).CompareVisits })
      },
      { path: '/people', lazy: async () => ({ Component: (await import('../people/PeoplePage')).PeoplePage }) },
      { path: '/review/:id', lazy: async () => ({ Component: (await import('../review/ReviewPage')).ReviewPage }) },
      { path: '/standard', lazy: async () => ({ Component: (await import('../standard/StandardView')).StandardView }) },
      {
        path: '/standard/figures',
        lazy: async () => ({ Component: (await import('../standard/FiguresPage')).FiguresPage })
      },
      { path: '/catalogue', lazy: async () => ({ Component: (await import('../catalogue/Catalogue')).Catalogue }) },
      {
        path: '/catalogue/new/edit',
        lazy: async () => ({ Component: (await import('../catalogue/edit/ModelEditor')).ModelEditor })
      },
      {
        path: '/catalogue/:id/edit',
        lazy: async () => ({ Component: (await import('../catalogue/edit/ModelEditor')).ModelEditor })
      },
      {
        path: '/catalogue/:id/homes',
        lazy: async () => ({ Component: (await import('../advisory/AdvisoryPage')).AdvisoryPage })
      },
      { path: '/catalogue/:id', lazy: async () => ({ Component: (await import('../catalogue/ModelView')).ModelView }) },
      { path: '/practice', lazy: async () => ({ Component: (await import('../practice/Practice')).Practice }) },
      {
        path: '/practice/:house',
        lazy: async () => ({ Component: (await import('../practice/PracticeHouse')).PracticeHouse })
      },
      { path: '/bench', lazy: async () => ({ Component: (await import('../calculators/Calculators')).Bench }) },
      { path: '/bench/:page', lazy: async () => ({ Component: (await import('../calculators/Calculators')).Bench }) },
      { path: '/parts', lazy: async () => ({ Component: (await import('../ui/Parts')).Parts }) },
      { path: '*', element: <Lost /> }
    ]
  }
])
