import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { cleanup, render } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'
import { CheckPage } from '../src/day/CheckPage'
import { useSession } from '../src/app/session'
import { Compare } from '../src/visit/stages/configure/compare/Compare'
import { Networks } from '../src/visit/stages/configure/wifi/Networks'
import { Prove } from '../src/visit/stages/prove/Prove'
import { complete, idOf, node, router, study } from '../../core/test/fixture'
import { answers, asked, currentAddress, json, show, written } from './stage'

vi.mock('idb-keyval', () => import('./idb'))

const user = userEvent.setup({ delay: null })
const form = () => screen.getByRole('form', { name: 'A run' })
const fill = async (label: string, text: string) => {
  const field = within(form()).getByLabelText(label)
  await user.clear(field)
  await user.type(field, text)
}

describe('measuring', () => {
  it('a room’s run goes to the unit and band that are chosen; what cannot be is refused at its field and stays typed', async () => {
    show(complete(), <Prove />, { at: '/visit/x/prove' })
    await user.click(screen.getByRole('button', { name: 'Measure Study' }))
    await fill('Signal, dBm', '55')
    await fill('Down, Mbit/s', '140')
    await user.click(within(form()).getByRole('button', { name: 'Record this run' }))
    expect(within(form()).getByRole('alert').textContent).toContain('Signal must be at most -10 dBm')
    expect(within(form()).getByLabelText('Down, Mbit/s')).toHaveProperty('value', '140')
    await fill('Signal, dBm', '−55')
    await fill('Latency idle, ms', '0.012')
    await user.click(within(form()).getByRole('button', { name: 'Record this run' }))
    expect(within(form()).getByRole('alertdialog').textContent).toContain('Then it is 12 ms')
    await user.click(screen.getByRole('button', { name: 'Yes, take it so' }))
    expect(written('measurement.set')).toMatchObject([
      {
        set: {
          at: 'room',
          room: study,
          unit: node,
          band: '5',
          dbm: -55,
          runs: [{ downMbps: 140, idleMs: 12 }],
          by: 'phone',
          how: 'typed'
        }
      }
    ])
  })

  it('a second run soon after is a run of the same measurement; a figure that is as entered is kept as such', async () => {
    show(complete(), <Prove />, { at: '/visit/x/prove' })
    await user.click(screen.getByRole('button', { name: 'Measure the source' }))
    for (const down of ['290', '36']) {
      await fill('Down, Mbit/s', down)
      await user.click(within(form()).getByRole('button', { name: 'Record this run' }))
    }
    await user.click(screen.getByRole('button', { name: 'It is as entered' }))
    const [first, second] = written('measurement.set')
    expect(second).toMatchObject({ id: first!.id, set: { runs: [{ downMbps: 290 }, { downMbps: 36 }], sure: true } })
    expect(screen.getByRole('region', { name: 'Source' }).textContent).toContain('Median of 2 runs')
  })

  it('a room that goes stale says why, and one that falls short leads to the search', async () => {
    show(complete().write('unit.event', { unit: router, what: 'moved' }), <Prove />, { at: '/visit/x/prove' })
    expect(screen.getByRole('listitem', { name: 'Room Study' }).textContent).toContain('Hall router was moved since.')
    show(
      complete().write('measurement.set', { id: idOf('mst'), set: { dbm: -50, runs: [{ downMbps: 40, idleMs: 14 }] } }),
      <Prove />,
      { at: '/visit/x/prove' }
    )
    await user.click(screen.getByRole('button', { name: 'Find the fault: Study' }))
    expect(written('fault.search')).toMatchObject([{ about: { unit: node, room: study } }])
    expect(currentAddress()).toContain('part=fault')
    expect(await screen.findByRole('region', { name: 'Causes' })).toBeDefined()
  })
})

describe('finding a fault', () => {
  const begin = async () => {
    show(complete(), <Prove />, { at: '/visit/x/prove?part=fault' })
    await user.selectOptions(screen.getByLabelText('What does not work'), 'Study node')
    await user.click(screen.getByRole('button', { name: 'Find the fault' }))
  }

  it('a tap answers, is written, and can be taken back; what the record knows is not asked', async () => {
    await begin()
    const seen = screen.getByRole('region', { name: 'What was seen' })
    expect(seen.textContent).toContain('Is the unit’s firmware an approved one? approved the firmware recorded')
    const next = screen.getByRole('group', { name: 'Look at this next' })
    const asks = within(next).getByRole('heading').textContent
    await user.click(within(next).getAllByRole('button')[0]!)
    await waitFor(() => expect(written('fault.observed')).toHaveLength(1))
    await user.click(within(seen).getByRole('button', { name: `Take back: ${asks}` }))
    expect(written('fault.observed').at(-1)).toMatchObject({ answer: null })
    expect(within(screen.getByRole('group', { name: 'Look at this next' })).getByRole('heading').textContent).toBe(asks)
  })

  it('told that the line is down it hands over to the provider, with what was ruled out', async () => {
    const log = complete()
      .write('unit.set', {
        id: idOf('gw'),
        set: { name: 'Gateway', model: 'brackwater-c3', modelVersion: 1, role: 'gateway' }
      })
      .write('thing.removed', { thing: 'measurement', id: idOf('src') })
      .write('fault.search', { search: idOf('hunt'), about: { unit: node } })
    for (const [observation, answer] of [
      ['line-lamp', 'no-line'],
      ['wired-modem', 'no'],
      ['others', 'down'],
      ['wifi-unit', 'no'],
      ['ping-number', 'no']
    ] as const)
      log.write('fault.observed', { search: idOf('hunt'), observation, answer })
    show(log, <Prove />, { at: '/visit/x/prove?part=fault' })
    const mend = screen.getByRole('group', { name: 'Mend this' })
    expect(mend.textContent).toContain('The line is down')
    await user.click(within(mend).getByRole('button', { name: 'Hand over to the provider' }))
    const text = screen.getByLabelText<HTMLTextAreaElement>('Text to send').value
    expect(text).toContain('Ruled out:')
    expect(text).not.toContain('Oakum')
    await user.click(screen.getByRole('button', { name: 'Given to the provider' }))
    expect(written('fault.found')).toMatchObject([{ cause: 'line-down', end: 'provider' }])
  })

  it('answers that hardly go together are shown, not swallowed', () => {
    const log = complete().write('fault.search', { search: idOf('hunt'), about: { unit: node } })
    for (const [observation, answer] of [
      ['unit-lamp', 'starts-over'],
      ['wifi-unit', 'yes'],
      ['client-count', 'rises'],
      ['adapter-label', 'own']
    ] as const)
      log.write('fault.observed', { search: idOf('hunt'), observation, answer })
    show(log, <Prove />, { at: '/visit/x/prove?part=fault' })
    expect(screen.getByRole('note').textContent).toContain('hardly go together')
  })
})

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
        floor: { dbm: -67, mbps: 100, addedMs: 20, says: 'what the standard wants' },
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

describe('networks and comparing', () => {
  it('a school that changes shows what it would change, and records it with one press', async () => {
    show(complete().write('brief.set', { set: { bandNames: 'one-a-band' } }), <Networks />)
    const proposed = screen.getByRole('list', { name: 'Proposed networks' })
    expect(
      within(proposed)
        .getAllByRole('listitem')
        .map((one) => one.textContent?.slice(0, 12))
    ).toEqual(['Razorbillhom', 'Razorbill-5h'])
    await user.click(screen.getByRole('button', { name: 'Record these networks' }))
    expect(written('network.set')).toHaveLength(2)
    expect(screen.getByRole('button', { name: 'These are recorded' })).toBeDefined()
    expect(screen.getAllByText(/The same as of Razorbill/)).toHaveLength(1)
  })

  it('what is wanted, recorded and told stand side by side; an address that differs is taken with one press', async () => {
    show(
      complete().write('unit.read', {
        unit: node,
        values: { 'lan.address': '192.168.1.77', 'wifi.ssid': 'OSTREL-1', 'device.serial': 'TE1-2' }
      }),
      <Compare />
    )
    const table = screen.getByRole('region', { name: 'Read from Study node' })
    expect(
      within(table).getByRole('row', { name: /Network name.*Razorbill.*OSTREL-1.*mend it on the unit/ })
    ).toBeDefined()
    expect(within(table).getByRole('row', { name: /^Serial.*–.*TE1-2.*TE1-2/ })).toBeDefined()
    await user.click(within(table).getByRole('button', { name: 'Take Address from the unit' }))
    expect(written('host.set')).toMatchObject([{ id: idOf('hn'), set: { address: '192.168.1.77' } }])
  })
})
