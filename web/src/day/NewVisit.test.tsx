import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import { NewVisit } from './NewVisit'
import { idOf } from '@pasado/testing/logbook'
import { answers, asked, currentAddress, json } from '../../test/stage'
import { listedHome, view } from '../../test/view'

const user = userEvent.setup()
beforeEach(() => answers.clear())

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
    // No country is guessed: it says which channels are permitted.
    expect(screen.getAllByRole('alert').map(({ textContent }) => textContent)).toContain(
      'Choose the country: it says which channels are permitted.'
    )
    await user.selectOptions(screen.getByLabelText('Country'), 'Skerrow Isles')
    await user.click(screen.getByRole('button', { name: 'Open the visit' }))
    await waitFor(() => expect(currentAddress()).toMatch(/^\/visit\/[0-9a-f-]{36}\/brief$/))
    const { body } = asked.find(({ method }) => method === 'POST')!
    expect(body).toMatchObject({
      technician: idOf('me'),
      brief: { customerName: 'Cressa Oakum', street: '6 Trawl Street', reason: 'new', country: 'XS' }
    })
    expect((body as { brief: object }).brief).not.toHaveProperty('phone')
    // The next one in the same country is not asked again.
    view(<NewVisit />, '/visit/new', '/visit/new')
    expect(screen.getAllByLabelText('Country').at(-1)).toHaveProperty('value', 'XS')
  })

  it('is not sent before it is known who may go; where that cannot be known, this is told', async () => {
    view(<NewVisit />, '/visit/new', '/visit/new')
    expect(screen.getByRole('button', { name: 'Open the visit' })).toHaveProperty('disabled', true)
    answers.set('/technicians', json({ title: 'No.', status: 403 }, 403))
    view(<NewVisit />, '/visit/new', '/visit/new')
    expect((await screen.findByRole('alert')).textContent).toContain('The technicians could not be loaded')
    expect(screen.getByRole('button', { name: 'Open the visit' })).toHaveProperty('disabled', false)
  })

  it('at a home that is known takes its facts over; what the server refuses is told at its field', async () => {
    answers.set('/technicians', people)
    answers.set('/homes/', json({ home: listedHome, visits: [] }))
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
