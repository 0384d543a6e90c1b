import { cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useEffect, useState } from 'react'
import { MemoryRouter, Route, Routes, useLocation } from 'react-router'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { summarise } from '@pasado/core/documents/visit-summary'
import { evaluate } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { demoModels } from '@pasado/demo/models/all'
import { type ApiProblem, ask } from '../src/app/api'
import { LogIn } from '../src/app/LogIn'
import { Shell } from '../src/app/Shell'
import { reads } from '../src/app/read'
import { useSession, type Me } from '../src/app/session'
import { Catalogue } from '../src/catalogue/Catalogue'
import { modelsInText } from '../src/catalogue/ImportModel'
import { ModelView } from '../src/catalogue/ModelView'
import { Day } from '../src/day/Day'
import { NewVisit } from '../src/day/NewVisit'
import type { ListedVisit } from '@pasado/core/api/day'
import { Home } from '../src/homes/Home'
import { Homes } from '../src/homes/Homes'
import { placeKey, useArriveAtPlace } from '../src/visit/session/place'
import { catalogue, complete, idOf } from '../../core/test/fixture'
import { answers, asked, json } from './stage'

vi.mock('idb-keyval', () => import('./idb'))

vi.stubGlobal('CSS', { escape: (text: string) => text })
const user = userEvent.setup()
const me: Me = { id: idOf('me'), login: 'isolde', name: 'Isolde Marram', role: 'technician' }
let address = ''

function Address() {
  const { pathname, search } = useLocation()
  address = pathname + search
  return null
}

/** Shows a view at an address, as somebody who is logged in. */
function view(part: React.ReactNode, path: string, at: string, who: Me | null | undefined = me) {
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

const record = complete().record()
const summary = summarise(record, evaluate(record, catalogue, firstStandard))
const visit = (change: Partial<ListedVisit> = {}): ListedVisit => ({
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
  review: 'none',
  summary: { ...summary, reason: 'new' },
  ...change
})
const listed = {
  id: idOf('house'),
  customerId: idOf('customer'),
  customer: 'Cressa Oakum',
  street: '6 Trawl Street',
  town: 'Ness Skerrow',
  latestVisit: idOf('visit')
}

beforeEach(() => {
  answers.clear()
  sessionStorage.clear()
})

describe('logging in', () => {
  it('asks for both, and goes where the person wanted to go', async () => {
    view(<LogIn />, '/login', '/login?to=%2Fhomes')
    await user.click(screen.getByRole('button', { name: 'Log in' }))
    expect(await screen.findByText('Enter your login.')).toBeDefined()
    expect(asked).toEqual([])
    answers.set('/session', json({ person: me }))
    await user.type(screen.getByLabelText('Login'), 'isolde')
    await user.type(screen.getByLabelText('Password'), 'demo')
    await user.click(screen.getByRole('button', { name: 'Log in' }))
    await waitFor(() => expect(address).toBe('/homes'))
  })

  it('a wrong password is told; an address of another site is not gone to', async () => {
    view(<LogIn />, '/login', '/login?to=%2F%2Fevil.example.org')
    answers.set('/session', json({ title: 'Login or password are not right.', status: 401 }, 401))
    await user.type(screen.getByLabelText('Login'), 'isolde')
    await user.type(screen.getByLabelText('Password'), 'wrong')
    await user.click(screen.getByRole('button', { name: 'Log in' }))
    expect((await screen.findByRole('alert')).textContent).toBe('Login or password are not right.')
    answers.set('/session', json({ person: me }))
    await user.click(screen.getByRole('button', { name: 'Log in' }))
    await waitFor(() => expect(address).toBe('/'))
  })

  it('who is not logged in is sent to the log-in, and comes back', () => {
    view(<Shell />, '/homes', '/homes?q=kelp', null)
    expect(address).toBe('/login?to=%2Fhomes%3Fq%3Dkelp')
  })

  it('a menu logs out here or everywhere', async () => {
    view(<Shell />, '/', '/')
    answers.set('/sessions', () => new Response(null, { status: 204 }))
    await user.click(screen.getByRole('button', { name: /Isolde Marram/ }))
    await user.click(await screen.findByRole('menuitem', { name: 'Log out everywhere' }))
    await waitFor(() => expect(address).toBe('/login'))
    expect(asked.at(-1)).toMatchObject({ method: 'DELETE', path: '/api/sessions' })
  })

  it('a person’s outbox has one id on a device, whichever tab asks', async () => {
    const { outboxIdOf } = await import('../src/outbox/rows')
    const [one, two] = [await outboxIdOf('isolde'), await outboxIdOf('isolde')]
    expect(one).toBe(two)
    expect(one).toMatch(/^[0-9a-f-]{36}$/)
    expect(await outboxIdOf('corin')).not.toBe(one)
  })
})

describe('asking the server', () => {
  it('no answer, a fault and a refusal are told apart', async () => {
    answers.set(
      '/homes/refused',
      json({ title: 'No.', status: 422, errors: [{ pointer: '/a', field: 'a', detail: 'is odd' }] }, 422)
    )
    answers.set('/homes/fault', () => new Response('<html>', { status: 502 }))
    const problem = await ask('GET /homes/:id', { params: { id: 'refused' } }).catch(
      (error: unknown) => error as ApiProblem
    )
    expect([(problem as ApiProblem).status, (problem as ApiProblem).passing, (problem as ApiProblem).words]).toEqual([
      422,
      false,
      'No. a is odd'
    ])
    expect(
      await ask('GET /homes/:id', { params: { id: 'fault' } }).catch((error: unknown) => (error as ApiProblem).passing)
    ).toBe(true)
  })
})

describe('Day', () => {
  it('shows today and later apart, with what each lacks', async () => {
    answers.set(
      '/day',
      json({
        visits: [
          visit(),
          visit({
            id: idOf('later'),
            street: '9 Later Lane',
            plannedAt: new Date(Date.now() + 3 * 86_400_000).toISOString()
          }),
          visit({
            id: idOf('old'),
            street: '1 Late Row',
            plannedAt: new Date(Date.now() - 3 * 86_400_000).toISOString(),
            review: 'returned'
          })
        ],
        review: []
      })
    )
    view(<Day />, '/', '/')
    expect(within(await screen.findByRole('region', { name: 'Today' })).getByText('6 Trawl Street')).toBeDefined()
    expect(within(screen.getByRole('region', { name: 'Later' })).getByText('9 Later Lane')).toBeDefined()
    const overdue = screen.getByRole('region', { name: 'Overdue' })
    expect(within(overdue).getByText('back from review')).toBeDefined()
    expect(within(overdue).getAllByText(/open$/)).toHaveLength(1)
    expect(screen.getAllByRole('img', { name: `${summary.open} between here and sign-off` })).toHaveLength(3)
  })

  it('a lead sees what waits for review, and everybody’s visits', async () => {
    answers.set('/day', json({ visits: [], review: [visit({ review: 'asked' })] }))
    view(<Day />, '/', '/', { ...me, role: 'lead' })
    expect(
      within(await screen.findByRole('region', { name: 'Waits for your review' })).getByText('in review')
    ).toBeDefined()
    expect(asked[0]!.path).toBe('/api/day?whose=all')
    await user.click(screen.getByRole('button', { name: 'Mine' }))
    await waitFor(() => expect(asked.at(-1)!.path).toBe('/api/day?whose=mine'))
    expect(await screen.findByText(/No open visit of yours/)).toBeDefined()
  })

  it('tells that the server is away', async () => {
    answers.set('/day', json({ title: 'The database cannot be reached just now.', status: 503 }, 503))
    view(<Day />, '/', '/')
    expect((await screen.findByRole('alert')).textContent).toContain('It is tried again.')
  })
})

describe('a new visit', () => {
  const people = json({
    technicians: [
      { id: idOf('me'), name: 'Isolde Marram' },
      { id: idOf('corin'), name: 'Corin Saltway' }
    ]
  })

  it('asks for customer and home, and opens with ids of its own', async () => {
    answers.set('/technicians', people)
    answers.set('/visits', json({ id: 'x' }, 201))
    view(<NewVisit />, '/visit/new', '/visit/new')
    await screen.findByRole('option', { name: 'Corin Saltway' })
    await user.click(screen.getByRole('button', { name: 'Open the visit' }))
    expect((await screen.findAllByRole('alert')).map(({ textContent }) => textContent)).toContain(
      'Enter the street and number.'
    )
    await user.type(screen.getByLabelText('Customer'), 'Cressa Oakum')
    await user.type(screen.getByLabelText('Street'), '6 Trawl Street')
    await user.type(screen.getByLabelText('Town or island'), 'Ness Skerrow')
    await user.click(screen.getByRole('button', { name: 'Open the visit' }))
    await waitFor(() => expect(address).toMatch(/^\/visit\/[0-9a-f-]{36}\/brief$/))
    const { body } = asked.find(({ method }) => method === 'POST')!
    expect(body).toMatchObject({
      technician: idOf('me'),
      brief: { customerName: 'Cressa Oakum', street: '6 Trawl Street', reason: 'new' }
    })
    expect((body as { brief: object }).brief).not.toHaveProperty('phone')
  })

  it('at a home that is known takes its facts over; what the server refuses is told at its field', async () => {
    answers.set('/technicians', people)
    answers.set('/homes/', json({ home: listed, visits: [] }))
    answers.set(
      '/visits',
      json(
        {
          title: 'Something is not acceptable.',
          status: 422,
          errors: [{ pointer: '/brief/phone', field: 'brief.phone', detail: 'must not be blank' }]
        },
        422
      )
    )
    view(<NewVisit />, '/visit/new', `/visit/new?home=${idOf('house')}`)
    expect(await screen.findByRole('heading', { name: 'New visit at 6 Trawl Street' })).toBeDefined()
    expect(screen.getByLabelText('Customer')).toHaveProperty('value', 'Cressa Oakum')
    await user.type(screen.getByLabelText('Telephone'), '555-0199')
    await user.click(screen.getByRole('button', { name: 'Open the visit' }))
    await waitFor(() => expect(screen.getByLabelText('Telephone').getAttribute('aria-invalid')).toBe('true'))
    expect(screen.getByLabelText('Telephone')).toHaveProperty('value', '555-0199')
    expect(asked.find(({ method }) => method === 'POST')!.body).toMatchObject({
      home: idOf('house'),
      customer: idOf('customer')
    })
  })
})

describe('Homes', () => {
  it('are found as one types, and tell by what', async () => {
    answers.set('/homes', json({ homes: [{ ...listed, foundBy: ['street', 'mac'] }] }))
    view(<Homes />, '/homes', '/homes')
    await user.type(screen.getByLabelText('Find a home'), 'traw')
    await waitFor(() => expect(asked.at(-1)!.path).toBe('/api/homes?q=traw'))
    expect((await screen.findByRole('link')).textContent).toContain('by street, MAC address')
    answers.set('/homes', json({ homes: [] }))
    await user.type(screen.getByLabelText('Find a home'), 'xx')
    expect(await screen.findByText(/No home is found by that/)).toBeDefined()
  })

  it('a home shows its visits, and starts a new one', async () => {
    answers.set(
      '/homes/',
      json({ home: listed, visits: [visit(), visit({ id: idOf('before'), sealedAt: '2026-01-05T12:00:00Z' })] })
    )
    view(<Home />, '/homes/:id', `/homes/${idOf('house')}`)
    expect(await screen.findByText('sealed 5 Jan 2026')).toBeDefined()
    expect(screen.getByRole('link', { name: 'New visit here' }).getAttribute('href')).toBe(
      `/visit/new?home=${idOf('house')}`
    )
  })
})

describe('Catalogue', () => {
  const heron = demoModels.find(({ id }) => id === 'ostrel-heron')!
  const two = [...demoModels, { ...heron, version: 2 }]

  it('shows each model once, in its newest version, by maker and by role', async () => {
    answers.set('/catalogue', json({ models: two }))
    view(<Catalogue />, '/catalogue', '/catalogue')
    const models = await screen.findByRole('list', { name: 'Models' })
    await waitFor(() => expect(within(models).getAllByRole('link')).toHaveLength(demoModels.length))
    expect(within(models).getByRole('link', { name: /Ostrel Heron/ }).textContent).toContain('version 2')
    await user.type(screen.getByLabelText('Find a model'), 'quillet')
    await user.selectOptions(screen.getByLabelText('Can be'), 'extender')
    expect(
      within(models)
        .getAllByRole('link')
        .map((link) => link.getAttribute('href'))
    ).toEqual(['/catalogue/quillet-reed', '/catalogue/quillet-rush'])
    expect(screen.queryByRole('button', { name: 'Take in models' })).toBeNull()
  })

  it('a model acts out every one of its states', async () => {
    answers.set('/catalogue', json({ models: two }))
    view(<ModelView />, '/catalogue/:id', '/catalogue/quillet-reed')
    const front = await screen.findByRole('group', { name: 'Front of Reed' })
    const reed = demoModels.find(({ id }) => id === 'quillet-reed')!
    for (const state of reed.states) {
      await user.click(
        within(screen.getByRole('group', { name: 'States and moves' })).getByRole('button', {
          name: new RegExp(`^${state.meaning}`)
        })
      )
      expect(within(front).queryAllByRole('img', { name: 'may do anything' })).toHaveLength(
        reed.lamps.length - state.lamps.length
      )
      expect(document.body.textContent).toContain(`${state.action}.`)
    }
  })

  it('an older version can be looked at', async () => {
    answers.set('/catalogue', json({ models: two }))
    view(<ModelView />, '/catalogue/:id', '/catalogue/ostrel-heron')
    await user.selectOptions(await screen.findByLabelText('Version'), '1')
    expect(screen.getByLabelText('Version')).toHaveProperty('value', '1')
    view(<ModelView />, '/catalogue/:id', '/catalogue/none')
    expect(await screen.findByText(/The catalogue has no such model/)).toBeDefined()
  })

  it('a text that is no model, or one with faults, is told line by line', () => {
    expect(modelsInText('{').faults).toEqual([expect.stringContaining('not well-formed')])
    expect(modelsInText('{}').faults.length).toBeGreaterThan(5)
    expect(modelsInText(JSON.stringify({ ...heron, start: 'asleep' })).faults).toContain(
      'start: no state of this model is called asleep'
    )
    expect(modelsInText(JSON.stringify(heron))).toMatchObject({ faults: [], models: [{ id: 'ostrel-heron' }] })
  })
})

it('the cursor goes to the place that the address asks for', async () => {
  function Page() {
    useArriveAtPlace()
    return (
      <div data-place={placeKey({ kind: 'unit', id: 'a', field: 'mac' })}>
        <button disabled type="button">
          no
        </button>
        <input aria-label="MAC address" />
      </div>
    )
  }
  view(<Page />, '/visit', '/visit?at=unit.a.mac')
  await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText('MAC address')))
})

it('the cursor is not taken from somebody who has begun to type elsewhere', async () => {
  function Page() {
    useArriveAtPlace()
    const [there, setThere] = useState(false)
    useEffect(() => {
      const timer = setTimeout(() => setThere(true), 200)
      return () => clearTimeout(timer)
    }, [])
    return (
      <>
        <input aria-label="Serial" />
        {there && <input aria-label="MAC address" data-place="unit.a.mac" />}
      </>
    )
  }
  view(<Page />, '/visit', '/visit?at=unit.a.mac')
  await user.type(screen.getByLabelText('Serial'), 'FL3')
  await screen.findByLabelText('MAC address')
  await new Promise((resolve) => setTimeout(resolve, 200))
  expect(document.activeElement).toBe(screen.getByLabelText('Serial'))
})
