import { cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter, Route, Routes } from 'react-router'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { demoHouses } from '@pasado/demo/houses'
import { demoModels } from '@pasado/demo/models/all'
import { Bench } from '../src/calculators/Calculators'
import { Practice } from '../src/practice/Practice'
import { PracticeHouse } from '../src/practice/PracticeHouse'
import { answers, asked, json } from './stage'

vi.mock('../src/workers/strength', () => ({
  strengthOf: (value: string) =>
    Promise.resolve({ score: value.length > 12 ? 4 : 1, bits: value.length * 3, warning: '' })
}))

const user = userEvent.setup({ delay: null })
const at = (path: string) =>
  render(
    <MemoryRouter initialEntries={[path]}>
      <Routes>
        <Route path="/bench/:page" element={<Bench />} />
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
const result = () => screen.getByRole('status', { name: 'What comes out' }).textContent

describe('Bench', () => {
  it('a wall: more of it takes more, and a thickness that cannot be is told', async () => {
    at('/bench/wall')
    const thickness = await screen.findByRole('textbox', { name: 'Thickness, mm' })
    const figure = () => Number(/([\d.]+)dB|([\d.]+) dB/.exec(result())![1] ?? /([\d.]+) dB/.exec(result())![1])
    const thin = figure()
    await user.clear(thickness)
    await user.type(thickness, '480')
    expect(figure()).toBeGreaterThan(thin)
    await user.clear(thickness)
    await user.type(thickness, '0')
    expect(screen.getByRole('alert').textContent).toContain('must be above 0')
  })

  it('a link: each wall takes its share, and it all adds up', async () => {
    at('/bench/link')
    await screen.findByText('Where it goes')
    const arrives = () => Number(/Arrives(-?[\d.]+) dBm/.exec(screen.getByRole('table').textContent)![1])
    const before = arrives()
    await user.click(screen.getByRole('button', { name: 'Add a wall' }))
    expect(arrives()).toBeLessThan(before)
    await user.click(screen.getByRole('button', { name: 'Take out wall 2' }))
    expect(arrives()).toBeCloseTo(before, 6)
    await user.clear(screen.getByRole('textbox', { name: 'Floors between' }))
    await user.type(screen.getByRole('textbox', { name: 'Floors between' }), '1,5')
    expect(screen.getByRole('alert').textContent).toContain('whole number')
  })

  it('a rate: a signal above zero is told, one too weak carries nothing', async () => {
    at('/bench/rate')
    const signal = await screen.findByRole('textbox', { name: 'Signal, dBm' })
    await user.clear(signal)
    await user.type(signal, '20')
    expect(screen.getByRole('alert').textContent).toContain('signals are below zero')
    await user.clear(signal)
    await user.type(signal, '−90')
    expect(result()).toContain('No rate holds')
  })

  it('addresses: the free one, what is wrong, and a range with bits behind its prefix', async () => {
    at('/bench/addresses')
    await waitFor(() => expect(result()).toContain('192.168.20.254'))
    expect(result()).toContain('camera')
    const range = screen.getByRole('textbox', { name: /^Range/ })
    await user.clear(range)
    await user.type(range, '192.168.20.7/24')
    expect(screen.getByRole('alert').textContent).toContain('the network itself is 192.168.20.0/24')
  })

  it('a passphrase is made and judged, a blank at the end of a name is told', async () => {
    at('/bench/qr')
    await user.type(await screen.findByRole('textbox', { name: /^Name/ }), 'Gull ')
    expect(screen.getByText(/5 of 32 octets; a blank at an end/)).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'Make one' }))
    expect(await screen.findByText(/: 4 of 4/)).toBeDefined()
    expect(await screen.findByRole('img', { name: /QR code to join/ })).toBeDefined()
  })

  it('firmware: the path of a model of the catalogue', async () => {
    answers.set('/catalogue', json({ models: demoModels }))
    at('/bench/firmware')
    await user.selectOptions(
      await screen.findByRole('combobox', { name: 'Model' }),
      await screen.findByRole('option', { name: 'Ostrel Heron' })
    )
    expect(result()).toContain('2.8.1 → 3.0.2 → 3.1.0')
    await user.clear(screen.getByRole('textbox', { name: /^Runs now/ }))
    await user.type(screen.getByRole('textbox', { name: /^Runs now/ }), '3..1')
    expect(screen.getByRole('alert').textContent).toContain('Runs now')
  })
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
          .flatMap(({ body }) => (body as { actions: { do: string }[] }).actions.map((one) => one.do))
          .slice(0, 2)
      ).toEqual(['plug', 'wait'])
    )
  })
})
