import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { cleanup, render } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'
import { CheckPage } from './CheckPage'
import { useSession } from '../app/session'
import { idOf, study } from '@pasado/testing/logbook'
import { answers, asked, json } from '../../test/stage'

const user = userEvent.setup({ delay: null })

describe('a check', () => {
  it('sets each room against what it was; what is sent is what was measured', async () => {
    cleanup()
    asked.length = 0
    answers.clear()
    useSession.setState({ me: { id: 'x', login: 'isolde', name: 'Isolde Marram', role: 'technician' } })
    const check = {
      id: idOf('check'),
      visit: idOf('visit'),
      street: '4 Lantern Rise',
      customer: 'Ailsa Drumgold',
      technician: 'Isolde Marram',
      from: '2026-01-06T09:00:00Z',
      to: '2026-01-06T13:00:00Z',
      done: null,
      by: null
    }
    answers.set('/result', json({ id: check.id }, 201))
    answers.set(
      '/checks/',
      json({
        check,
        rooms: [{ room: study, name: 'Study', band: '5', dbm: -58, downMbps: 210, idleMs: 14 }],
        floor: { dbm: -67, mbps: 100, addedMs: 20, reason: 'what the standard wants' },
        sourceMbps: 302,
        result: null
      })
    )
    render(
      <MemoryRouter initialEntries={[`/check/${check.id}`]}>
        <Routes>
          <Route path="/check/:id" element={<CheckPage />} />
        </Routes>
      </MemoryRouter>
    )
    const row = await screen.findByRole('listitem', { name: 'Room Study' })
    await user.type(within(row).getByLabelText('Signal, dBm in Study now'), '-59')
    await user.type(within(row).getByLabelText('Down, Mbit/s in Study now'), '120')
    expect(row.textContent).toContain('Speed down from 210 to 120 Mbit/s since the visit, and still enough.')
    await user.click(screen.getByRole('button', { name: 'The check is done' }))
    await waitFor(() =>
      expect(asked.find(({ method }) => method === 'POST')?.body).toEqual({
        rooms: [{ room: study, dbm: -59, run: { downMbps: 120 } }]
      })
    )
  })
})
