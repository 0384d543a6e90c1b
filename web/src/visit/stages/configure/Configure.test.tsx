import { fireEvent, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { Configure } from './Configure'
import { complete, home, idOf, network, node } from '@pasado/testing/logbook'
import { placeKey } from '../../session/place'
import { useVisit } from '../../session/visit-state'
import { answers, asked, enter, json, show, written } from '../../../../test/stage'

const user = userEvent.setup()

describe('Configure', () => {
  it('an address that slipped is told with the mend', async () => {
    show(complete(), <Configure />)
    await enter('Address of Study node', '192.169.1.20')
    expect(screen.getByText('192.169.1.20 is a public address')).toBeDefined()
    await user.click(screen.getByRole('button', { name: /192.169… is a public address. Use 192.168.1.20/ }))
    expect(written('host.set').map(({ set }) => set.address)).toEqual(['192.169.1.20', '192.168.1.20'])
    expect(screen.queryByText('192.169.1.20 is a public address')).toBeNull()
  })

  it('a range that was begun is completed; a second DHCP server is told', async () => {
    show(complete(), <Configure />)
    await enter('Range', '192.168.7')
    await user.click(screen.getByRole('button', { name: 'Use 192.168.7.0/24' }))
    expect(written('segment.set')).toEqual([{ id: home, set: { cidr: '192.168.7.0/24' }, origin: 'typed' }])
    await user.click(screen.getByRole('button', { name: 'A second DHCP server' }))
    fireEvent.change(screen.getAllByRole('combobox', { name: 'DHCP server' })[1]!, { target: { value: node } })
    expect(screen.getByText(/Hall router, Study node all serve addresses here/)).toBeDefined()
  })

  it('a unit’s address is suggested: the gateway’s for the router, a free one for the others', async () => {
    const log = complete()
      .write('thing.removed', { thing: 'host', id: idOf('hr') })
      .write('thing.removed', { thing: 'host', id: idOf('hn') })
    show(log, <Configure />)
    await user.click(screen.getByRole('button', { name: 'Address of Hall router' }))
    await user.click(screen.getByRole('button', { name: 'Address of Study node' }))
    expect(written('host.set').map(({ set }) => set.address)).toEqual(['192.168.1.1', '192.168.1.254'])
  })

  it('a router whose page has no address is led to where it gets one', () => {
    show(complete().write('thing.removed', { thing: 'host', id: idOf('hr') }), <Configure />)
    const open = useVisit
      .getState()
      .findings.find(({ rule, outcome }) => rule === 'addr-reachable' && outcome === 'unproven')!
    expect(screen.getByRole('button', { name: 'Address of Hall router' }).dataset.place).toBe(placeKey(open.place!))
  })

  it('the parts of the stage tell what is open in each', () => {
    show(complete().write('unit.set', { id: node, set: { firmwareAfter: '2.8.1' } }), <Configure />)
    expect(screen.getAllByRole('tab').map((tab) => tab.textContent)).toEqual([
      'Addresses',
      'Wi-Fi',
      'Channels',
      'Logins',
      'Firmware · 1 open',
      'In order',
      'Compare'
    ])
  })

  it('what a dump tells stands beside the record, differences are taken one by one, and nothing secret is kept', async () => {
    show(complete(), <Configure />, { at: '/visit/x/configure?part=compare' })
    const of = within(screen.getByRole('region', { name: 'Read from Study node' }))
    await user.upload(
      of.getByLabelText('Dump of Study node'),
      new File(
        [
          'Device.DeviceInfo.SoftwareVersion=3.0.0\nDevice.DHCPv4.Server.Enable=1\nDevice.WiFi.AccessPoint.1.Security.KeyPassphrase=demo-secret-plover\nnonsense'
        ],
        'dump.txt',
        { type: 'text/plain' }
      )
    )
    expect(await of.findByText(/line 4 is no name=value/)).toBeDefined()
    expect(of.getByRole('row', { name: /Firmware.*3\.1\.0.*3\.0\.0/ })).toBeDefined()
    await user.click(of.getByRole('button', { name: 'Take DHCP server from the unit' }))
    expect(written('unit.set').at(-1)).toEqual({ id: node, set: { dhcpServer: 'on' }, origin: 'measured' })
    expect(JSON.stringify(written('unit.read'))).not.toContain('plover')
  })

  it('a place of the docket opens the part it stands in', () => {
    show(complete(), <Configure />, { at: `/visit/x/configure?at=unit.${node}.firmwareAfter` })
    expect(screen.getByRole('tab', { name: 'Firmware' }).getAttribute('aria-selected')).toBe('true')
    expect(screen.getAllByText(/withdrawn/)).toHaveLength(2)
  })

  it('networks: bands are several, and the last one can be taken away', async () => {
    show(complete(), <Configure />, { at: '/visit/x/configure?part=wifi' })
    await user.click(screen.getByRole('button', { name: '6 GHz' }))
    await user.click(screen.getByRole('button', { name: '2.4 GHz' }))
    expect(written('network.set').map(({ set }) => set.bands)).toEqual([
      ['2.4', '5', '6'],
      ['5', '6']
    ])
  })

  it('a network can be said to be theirs, of what stays and sends', async () => {
    const theirs = idOf('theirs')
    const log = complete()
      .write('stays.set', { id: theirs, set: { kind: 'router', makeModel: 'Marlin 7' } })
      .write('stays.set', { id: idOf('printer'), set: { kind: 'printer', makeModel: 'Gull 2' } })
    show(log, <Configure />, { at: '/visit/x/configure?part=wifi' })
    const of = screen.getByRole<HTMLSelectElement>('combobox', { name: 'Theirs, of what stays' })
    expect(Array.from(of.options, ({ text }) => text)).toEqual(['ours', 'Marlin 7'])
    fireEvent.change(of, { target: { value: theirs } })
    expect(written('network.set').at(-1)).toMatchObject({ id: network, set: { stays: theirs } })
  })

  it('a name and a passphrase that are prepared stand apart, and are in use at the press of Typed in', async () => {
    const log = complete().prepared(network, idOf('later'))
    show(log, <Configure />)
    await user.click(screen.getByRole('tab', { name: /Wi-Fi/ }))
    const prepared = screen.getByRole('group', { name: 'Prepared, on no air yet' })
    await enter('Name to type in', 'Gannet')
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Name (SSID)' }).value).toBe('Razorbill')
    expect(useVisit.getState().findings.filter(({ wasProven }) => wasProven)).toEqual([])
    await user.click(within(prepared).getByRole('button', { name: 'Typed in' }))
    expect(written('network.set').at(-1)).toEqual({ id: network, set: { ssid: 'Gannet', preparedName: null } })
    expect(written('secret.typed-in')).toEqual([{ ref: idOf('later') }])
    expect(screen.queryByRole('group', { name: 'Prepared, on no air yet' })).toBeNull()
    expect(useVisit.getState().findings.some(({ wasProven }) => wasProven)).toBe(true)
  })

  it('a code to join shows the passphrase, so it asks the vault for it first', async () => {
    show(complete(), <Configure />, { at: '/visit/x/configure?part=wifi' })
    answers.set('/show', json({ value: 'demo-plover-and-42' }))
    await user.click(screen.getByRole('button', { name: 'Show the code to join Razorbill' }))
    expect(await screen.findByRole('img', { name: 'Code to join Razorbill' })).toBeDefined()
    expect(asked[0]).toMatchObject({ body: { why: 'joining a device' } })
  })
})
