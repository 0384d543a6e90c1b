import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { Compare } from './Compare'
import { Networks } from '../wifi/Networks'
import { complete, idOf, node } from '@pasado/testing/logbook'
import { show, written } from '../../../../../test/stage'

const user = userEvent.setup({ delay: null })

describe('networks and comparing', () => {
  it('a school that changes shows what it would change, and records it with one press', async () => {
    show(complete().write('brief.set', { set: { bandNames: 'one-a-band' } }), <Networks />)
    const proposed = screen.getByRole('list', { name: 'Proposed networks' })
    expect(
      within(proposed)
        .getAllByRole('listitem')
        .map((element) => element.textContent?.slice(0, 12))
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
