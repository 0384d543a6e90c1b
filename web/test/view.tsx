import { cleanup, render } from '@testing-library/react'
import type { ReactNode } from 'react'
import { MemoryRouter, Route, Routes } from 'react-router'
import type { ListedVisit } from '@pasado/core/api/day'
import { summarise } from '@pasado/core/documents/visit-summary'
import { evaluate } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { catalogue, complete, idOf } from '@pasado/testing/logbook'
import { reads } from '../src/app/read'
import { useSession, type Me } from '../src/app/session'
import { Address, asked } from './stage'

/** A technician, who looks at a view where nobody else is said to. */
export const me: Me = { id: idOf('me'), login: 'isolde', name: 'Isolde Marram', role: 'technician' }
/** A lead. */
export const lead: Me = { id: 'x', login: 'wenna', name: 'Wenna Tarrow', role: 'lead' }

/** Shows a view at an address, as somebody who is logged in. */
export function view(part: ReactNode, path: string, at: string, who: Me | null | undefined = me) {
  cleanup()
  reads.clear()
  asked.length = 0
  useSession.setState({ me: who })
  return render(
    <MemoryRouter initialEntries={[at]}>
      <Address />
      <Routes>
        <Route path={path} element={part} />
        <Route path="*" element={<p>elsewhere</p>} />
      </Routes>
    </MemoryRouter>
  )
}

const folded = complete().folded()
const { record } = folded
/** What lists tell of that visit. */
export const summary = summarise(record, evaluate(folded, catalogue, firstStandard))

/** A visit as lists hold it, of today and not sealed, but for what is said otherwise. */
export const listedVisit = (change: Partial<ListedVisit> = {}): ListedVisit => ({
  id: idOf('visit'),
  home: idOf('house'),
  technician: 't',
  seq: 3,
  technicianName: 'Isolde Marram',
  customer: 'Cressa Oakum',
  street: '6 Trawl Street',
  town: 'Ness Skerrow',
  plannedAt: new Date().toISOString(),
  openedAt: new Date().toISOString(),
  sealedAt: null,
  cancelledAt: null,
  review: 'none',
  summary: { ...summary, reason: 'new' },
  ...change
})

/** The home of that visit as lists hold it. */
export const listedHome = {
  id: idOf('house'),
  customerId: idOf('customer'),
  customer: 'Cressa Oakum',
  street: '6 Trawl Street',
  town: 'Ness Skerrow',
  latestVisit: idOf('visit')
}
