import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import { Day } from './Day'
import { idOf } from '@pasado/testing/logbook'
import { answers, asked, json } from '../../test/stage'
import { listedVisit, me, view, summary } from '../../test/view'

const user = userEvent.setup()
beforeEach(() => answers.clear())

describe('Day', () => {
  it('shows today and later apart, with what each lacks', async () => {
    answers.set(
      '/day',
      json({
        visits: [
          listedVisit(),
          listedVisit({
            id: idOf('later'),
            street: '9 Later Lane',
            plannedAt: new Date(Date.now() + 3 * 86_400_000).toISOString()
          }),
          listedVisit({
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
    answers.set('/day', json({ visits: [], review: [listedVisit({ review: 'asked' })] }))
    view(<Day />, '/', '/', { ...me, role: 'lead' })
    expect(
      within(await screen.findByRole('region', { name: 'Waits for your review' })).getByText('in review')
    ).toBeDefined()
    const paths = () => asked.map(({ path }) => path)
    expect(paths()).toContain('/api/day?whose=all')
    await user.click(screen.getByRole('button', { name: 'Mine' }))
    await waitFor(() => expect(paths()).toContain('/api/day?whose=mine'))
    expect(await screen.findByText(/No open visit of yours/)).toBeDefined()
  })

  it('a lead sees what was let pass until a day that has passed', async () => {
    const waiver = {
      visit: idOf('sealed'),
      home: idOf('house'),
      street: '6 Trawl Street',
      customer: 'Cressa Oakum',
      rule: 'place-height',
      subject: idOf('node'),
      about: 'Study node: height',
      until: '2026-01-31',
      by: 'Wenna Tarrow'
    }
    answers.set('/day', json({ visits: [], review: [], waivers: [waiver] }))
    view(<Day />, '/', '/', { ...me, role: 'lead' })
    const due = await screen.findByRole('region', { name: 'Waivers whose day has passed' })
    expect(within(due).getByRole('link', { name: /31 Jan.*6 Trawl Street.*Study node: height.*Wenna/ })).toBeDefined()
  })

  it('a lead sees what came for a visit that was sealed already', async () => {
    const late = {
      visit: idOf('sealed'),
      street: '6 Trawl Street',
      customer: 'Cressa Oakum',
      lines: 3,
      last: '2026-02-03T12:00:00Z'
    }
    answers.set('/day', json({ visits: [], review: [], late: [late] }))
    view(<Day />, '/', '/', { ...me, role: 'lead' })
    const came = await screen.findByRole('region', { name: 'Came after the seal' })
    expect(within(came).getByRole('link', { name: /3 Feb.*6 Trawl Street.*3 lines/ })).toBeDefined()
  })

  it('a lead sees first which records were found not to hold, and what does not', async () => {
    const fault = {
      visit: idOf('sealed'),
      street: '6 Trawl Street',
      customer: 'Cressa Oakum',
      what: 'line 12 (unit.set) was altered, or a line before it was',
      foundAt: '2026-02-03T03:20:00Z'
    }
    answers.set('/day', json({ visits: [], review: [], faults: [fault] }))
    view(<Day />, '/', '/', { ...me, role: 'lead' })
    const found = await screen.findByRole('region', { name: 'Does not hold' })
    expect(
      within(found).getByRole('heading', { name: /^A visit is not as it should be, found on 3 Feb/ })
    ).toBeDefined()
    expect(within(found).getByRole('link', { name: /6 Trawl Street.*line 12/ })).toBeDefined()
  })

  it('tells that the server is away', async () => {
    answers.set('/day', json({ title: 'The database cannot be reached just now.', status: 503 }, 503))
    view(<Day />, '/', '/')
    expect((await screen.findByRole('alert')).textContent).toContain('It is tried again.')
  })
})
