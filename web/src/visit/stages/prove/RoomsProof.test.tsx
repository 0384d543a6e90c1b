import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { Prove } from './Prove'
import { complete, idOf, node, router, study } from '@pasado/testing/logbook'
import { currentAddress, show, written } from '../../../../test/stage'

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

  it('a hop of which nothing is known is asked for where the room stands; then its link is in the way', async () => {
    const log = complete()
      .write('unit.set', { id: node, set: { cabled: null } })
      .write('measurement.set', { id: idOf('mst'), set: { unit: node, dbm: -50, runs: [{ downMbps: 40 }] } })
    show(log, <Prove />, { at: '/visit/x/prove' })
    const study = within(screen.getByRole('listitem', { name: 'Room Study' }))
    await user.type(study.getByLabelText('Signal of its hop'), '-55{Enter}')
    expect(written('unit.set')).toMatchObject([{ id: node, set: { hopDbm: -55 } }])
    expect(study.queryByLabelText('Signal of its hop')).toBeNull()
    await user.click(study.getByText('The way, link by link'))
    expect(study.getByText(/the hop from Hall router to Study node/).textContent).toContain('as its page tells')
  })

  it('a weak room is not asked whether its speed was in MB/s', async () => {
    show(complete(), <Prove />, { at: '/visit/x/prove' })
    await user.click(screen.getByRole('button', { name: 'Measure Study' }))
    for (const [dbm, asks] of [
      ['-88', false],
      ['-45', true]
    ] as const) {
      await fill('Signal, dBm', dbm)
      await fill('Down, Mbit/s', '36')
      await user.click(within(form()).getByRole('button', { name: 'Record this run' }))
      expect(within(form()).queryByText(/Are these MB\/s/) !== null).toBe(asks)
    }
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
