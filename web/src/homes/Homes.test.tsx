import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import { Home } from './Home'
import { Homes } from './Homes'
import { idOf } from '@pasado/testing/logbook'
import { answers, asked, json } from '../../test/stage'
import { listedHome, listedVisit, view } from '../../test/view'

const user = userEvent.setup()
beforeEach(() => answers.clear())

describe('Homes', () => {
  it('are found as one types, and tell by what', async () => {
    answers.set('/homes', json({ homes: [{ ...listedHome, foundBy: ['street', 'mac'] }] }))
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
      json({
        home: listedHome,
        visits: [listedVisit(), listedVisit({ id: idOf('before'), sealedAt: '2026-01-05T12:00:00Z' })]
      })
    )
    view(<Home />, '/homes/:id', `/homes/${idOf('house')}`)
    expect(await screen.findByText('sealed 5 Jan 2026')).toBeDefined()
    expect(screen.getByRole('link', { name: 'New visit here' }).getAttribute('href')).toBe(
      `/visit/new?home=${idOf('house')}`
    )
  })
})
