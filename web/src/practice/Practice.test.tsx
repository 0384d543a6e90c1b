import { cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter, Route, Routes } from 'react-router'
import { beforeEach, describe, expect, it } from 'vitest'
import { demoHouses } from '@pasado/demo/houses'
import { demoModels } from '@pasado/demo/models/all'
import { Practice } from './Practice'
import { PracticeHouse } from './PracticeHouse'
import { answers, asked, json } from '../../test/stage'

const user = userEvent.setup({ delay: null })
const at = (path: string) =>
  render(
    <MemoryRouter initialEntries={[path]}>
      <Routes>
        <Route path="/practice" element={<Practice />} />
        <Route path="/practice/:house" element={<PracticeHouse />} />
      </Routes>
    </MemoryRouter>
  )
beforeEach(() => {
  cleanup()
  asked.length = 0
  answers.clear()
})

describe('Practice', () => {
  it('lists the houses, and tells what is wrong with a file', async () => {
    answers.set(
      '/houses',
      json({
        houses: [
          {
            id: 'h',
            name: 'Mesh',
            says: 'Two nodes.',
            units: ['Router'],
            template: true,
            madeAt: '2026-11-01T10:00:00.000Z'
          }
        ]
      })
    )
    at('/practice')
    expect(await screen.findByRole('button', { name: 'Go in' })).toBeDefined()
    await user.upload(
      screen.getByLabelText('A house from a file'),
      new File(['{"format":"pasado.house-run/3"}'], 'h.json', { type: 'application/json' })
    )
    expect((await screen.findByRole('alert')).textContent).toContain('another version')
  })

  it('a unit that is plugged in starts, and what was done goes to the server in its order', async () => {
    answers.set('/catalogue', json({ models: demoModels }))
    answers.set('/actions', () => new Response(JSON.stringify({ count: 1 })))
    answers.set('/houses/', json({ format: 'pasado.house-run/1', definition: demoHouses[0], actions: [] }))
    at('/practice/h')
    await user.click(await screen.findByRole('radio', { name: 'stop' }))
    const work = within(screen.getByRole('region', { name: 'Gateway' }))
    await user.click(work.getByRole('button', { name: 'Plug it in' }))
    expect(within(screen.getByRole('list', { name: 'Events, newest first' })).getByText(/starting/)).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'To what happens next' }))
    expect(
      within(screen.getByRole('list', { name: 'Events, newest first' })).getByText(/looking for the line/)
    ).toBeDefined()
    await waitFor(() =>
      expect(
        asked
          .filter(({ path }) => path.endsWith('/actions'))
          .flatMap(({ body }) => (body as { actions: { do: string }[] }).actions.map((action) => action.do))
          .slice(0, 2)
      ).toEqual(['plug', 'wait'])
    )
  })
})
