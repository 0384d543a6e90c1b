import { lazy, Suspense, type ComponentType } from 'react'
import { NavLink, Navigate, useParams } from 'react-router'
import { Heading } from '../ui/Page'

/** The calculations that stand on their own, in the order the work asks for them. */
export const benchPages: { id: string; name: string; description: string; Page: ComponentType }[] = [
  {
    id: 'wall',
    name: 'Wall',
    description: 'what a wall takes',
    Page: lazy(async () => ({ default: (await import('./WallPage')).WallPage }))
  },
  {
    id: 'link',
    name: 'Link',
    description: 'what arrives between two points',
    Page: lazy(async () => ({ default: (await import('./LinkPage')).LinkPage }))
  },
  {
    id: 'rate',
    name: 'Rate',
    description: 'what a signal carries',
    Page: lazy(async () => ({ default: (await import('./RatePage')).RatePage }))
  },
  {
    id: 'addresses',
    name: 'Addresses',
    description: 'ranges, pools, what is free',
    Page: lazy(async () => ({ default: (await import('./AddressPage')).AddressPage }))
  },
  {
    id: 'channels',
    name: 'Channels',
    description: 'among the neighbours',
    Page: lazy(async () => ({ default: (await import('./ChannelsPage')).ChannelsPage }))
  },
  {
    id: 'qr',
    name: 'Passphrase',
    description: 'made, judged, as a QR',
    Page: lazy(async () => ({ default: (await import('./QrPage')).QrPage }))
  },
  {
    id: 'firmware',
    name: 'Firmware',
    description: 'the path to the newest',
    Page: lazy(async () => ({ default: (await import('./FirmwarePage')).FirmwarePage }))
  }
]

/** Bench: each calculation by itself, without a visit. */
export function Bench() {
  const { page } = useParams()
  const chosen = benchPages.find(({ id }) => id === page)
  if (!chosen) return <Navigate to={`/bench/${benchPages[0]!.id}`} replace />
  const { Page } = chosen
  return (
    <main className="mx-auto grid max-w-6xl gap-5 p-4 lg:grid-cols-[13rem_minmax(0,1fr)] lg:p-6">
      <nav aria-label="Calculations">
        <Heading>Bench</Heading>
        <ul className="mt-2 flex flex-wrap gap-1 lg:flex-col">
          {benchPages.map(({ id, name, description }) => (
            <li key={id}>
              <NavLink
                to={`/bench/${id}`}
                className="block min-h-11 border-l-4 border-transparent px-3 py-1.5 aria-[current=page]:border-plum aria-[current=page]:bg-sheet"
              >
                <b className="block">{name}</b>
                <span className="fine hidden lg:block">{description}</span>
              </NavLink>
            </li>
          ))}
        </ul>
      </nav>
      <Suspense fallback={<p className="text-soft">Loading …</p>}>
        <Page key={chosen.id} />
      </Suspense>
    </main>
  )
}
