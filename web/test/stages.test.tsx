import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { useVisit } from '../src/visit/session/visit-state'
import { Waits } from '../src/visit/frame/Waits'
import { Brief } from '../src/visit/stages/brief/Brief'
import { Configure } from '../src/visit/stages/configure/Configure'
import { Kit } from '../src/visit/stages/kit/Kit'
import { PlaceStage } from '../src/visit/stages/place/PlaceStage'
import { StartUp } from '../src/visit/stages/start/StartUp'
import { complete, home, idOf, node, opened, router } from '../../core/test/fixture'
import { answers, asked, json, show, written } from './stage'

vi.mock('idb-keyval', () => import('./idb'))
vi.mock('signature_pad', () => ({
  default: class {
    addEventListener() {}
    off() {}
    toData() {
      return [
        {
          points: [
            { x: 1, y: 2 },
            { x: 30, y: 40 }
          ]
        }
      ]
    }
    clear() {}
  }
}))
vi.mock('../src/workers/strength', () => ({
  strengthOf: (value: string) =>
    Promise.resolve({ score: value.length > 12 ? 4 : 1, bits: value.length * 3, warning: '' })
}))

const user = userEvent.setup()
beforeEach(() => {
  sessionStorage.clear()
})

async function enter(label: string, value: string): Promise<void> {
  const field = screen.getByRole('textbox', { name: label })
  await user.clear(field)
  if (value) await user.type(field, value)
  await user.tab()
}

const chip = (group: string, name: string) =>
  within(screen.getByRole('radiogroup', { name: group })).getByRole('radio', { name })

describe('Brief', () => {
  it('writes a field when it is left, and only where it changed', async () => {
    show(opened(), <Brief />)
    await enter('Telephone', '555-0199')
    await user.click(screen.getByRole('textbox', { name: 'Customer' }))
    await user.tab()
    expect(written('brief.set')).toEqual([{ set: { phone: '555-0199' }, origin: 'typed' }])
  })

  it('takes a decimal comma, and says what is wrong with a number at its field while what was typed stays', async () => {
    show(opened(), <Brief />)
    await enter('Paid for, up', '12,5')
    await enter('Paid for, down', '-3')
    expect(written('brief.set')).toEqual([{ set: { speedUpMbps: 12.5 }, origin: 'typed' }])
    expect(screen.getByRole('alert').textContent).toBe('Paid for, down must be above 0')
    expect(screen.getByRole('textbox', { name: 'Paid for, down' })).toHaveProperty('value', '-3')
    expect(screen.getByRole('textbox', { name: 'Paid for, down' }).getAttribute('aria-invalid')).toBe('true')
  })

  it('an emptied field is cleared', async () => {
    show(opened(), <Brief />)
    await enter('Second way to reach them', '')
    expect(written('brief.set')).toEqual([{ set: { secondContact: null }, origin: 'typed' }])
  })

  it('asks about alarms on a telephone line, with the caution', async () => {
    show(opened({ accessLine: 'telephone-line' }), <Brief />)
    expect(screen.getByText(/ringing voltage/)).toBeDefined()
    await user.click(
      chip('Did you ask about an alarm, a pendant, a lift or a fax on this line, before anything was unplugged?', 'Yes')
    )
    expect(written('rule.answered')).toEqual([{ rule: 'brief-line-alarm', answer: 'yes' }])
  })

  it('notes are written and shown', async () => {
    show(opened(), <Brief />)
    await user.type(screen.getByRole('textbox', { name: 'Note' }), 'The dog bites.')
    await user.click(screen.getByRole('button', { name: 'Write it down' }))
    expect(written('note.written')).toEqual([{ text: 'The dog bites.' }])
    expect(screen.getByText('The dog bites.')).toBeDefined()
  })

  it.each(['office', 'sealed'] as const)('nobody writes: %s', (who) => {
    const log = opened()
    if (who === 'sealed')
      log.write('sealed', {
        chain: '0'.repeat(64),
        record: '0'.repeat(64),
        standard: '0'.repeat(64),
        catalogue: '0'.repeat(64),
        key: 'k',
        signature: 's'
      })
    show(log, <Brief />, { role: who === 'office' ? 'office' : 'technician' })
    for (const field of screen.getAllByRole('textbox')) expect(field).toHaveProperty('disabled', true)
    expect(screen.queryByRole('button', { name: 'Write it down' })).toBeNull()
  })

  it('two who set one field are told, and one of the values is kept', async () => {
    const log = opened()
    for (const [phone, from] of [
      ['555-0111', 'a'],
      ['555-0122', 'b']
    ] as const)
      log.write('brief.set', { set: { phone } }, { from: idOf(from), base: 1 })
    show(log, <Brief />)
    const conflict = screen.getByRole('group', { name: 'Conflict: Telephone' })
    await user.click(within(conflict).getByRole('button', { name: 'Keep 555-0111' }))
    expect(written('conflict.settled')).toEqual([{ thing: 'brief', id: 'brief', field: 'phone', keep: 'earlier' }])
    expect(screen.queryByRole('group', { name: 'Conflict: Telephone' })).toBeNull()
    expect(screen.getByRole('textbox', { name: 'Telephone' })).toHaveProperty('value', '555-0111')
  })
})

describe('Kit', () => {
  it('says how a unit is told from its twin, and offers the roles its model can take', () => {
    show(complete(), <Kit />, { at: `/visit/x/kit?unit=${node}` })
    expect(screen.getByText(/The Tern has one port/)).toBeDefined()
    expect(
      within(screen.getByRole('radiogroup', { name: 'Role here' }))
        .getAllByRole('radio')
        .map((one) => one.textContent)
    ).toEqual(['node'])
  })

  it('a letter in a MAC address has its mend beside it', async () => {
    show(complete(), <Kit />)
    await enter('MAC address', 'OO:OO:5e:OO:53:2l')
    await user.click(screen.getByRole('button', { name: 'Use 0 for O and 1 for l or I' }))
    expect(written('unit.set')).toEqual([{ id: router, set: { mac: '00:00:5e:00:53:21' }, origin: 'typed' }])
  })

  it('a unit is taken out, and undone', async () => {
    show(complete(), <Kit />)
    await user.click(screen.getByRole('button', { name: 'Take this unit out of the visit' }))
    expect(written('thing.removed')).toEqual([{ thing: 'unit', id: router }])
    expect(screen.queryByRole('button', { name: /Hall router/ })).toBeNull()
  })
})

describe('secrets', () => {
  it('a typed one goes to the vault, and to nothing that waits on the device', async () => {
    show(complete(), <Kit />)
    answers.set('/secrets', json({ assessed: {} }, 201))
    await user.click(screen.getByRole('button', { name: 'Type one: Setup code' }))
    await user.type(screen.getByRole('textbox', { name: 'Setup code' }), 'DEMO-1234')
    await user.click(screen.getByRole('button', { name: 'Put into the vault' }))
    await waitFor(() =>
      expect(asked.at(-1)).toMatchObject({
        method: 'POST',
        body: { purpose: 'setup-code', thing: 'unit', id: router, origin: 'label', value: 'DEMO-1234' }
      })
    )
    expect(JSON.stringify(useVisit.getState().pending)).not.toContain('DEMO-1234')
    await waitFor(() => expect(screen.queryByRole('textbox', { name: 'Setup code' })).toBeNull())
  })

  it('one that could not be saved stays in its box, to be saved again under the same reference', async () => {
    show(complete(), <Kit />)
    answers.set('/secrets', json({ title: 'The database cannot be reached just now.', status: 503 }, 503))
    await user.click(screen.getByRole('button', { name: 'Type one: Setup code' }))
    await user.type(screen.getByRole('textbox', { name: 'Setup code' }), 'DEMO-1234')
    await user.click(screen.getByRole('button', { name: 'Put into the vault' }))
    expect((await screen.findByRole('alert')).textContent).toContain('It is kept in this box; save it again.')
    await user.click(screen.getByRole('button', { name: 'Put into the vault' }))
    const refs = asked.map(({ body }) => (body as { ref: string }).ref)
    expect([refs.length, new Set(refs).size]).toEqual([2, 1])
    expect(screen.getByRole('textbox', { name: 'Setup code' })).toHaveProperty('value', 'DEMO-1234')
  })

  it('a passphrase is made, its strength told, and refused where it is too short', async () => {
    show(complete(), <Configure />, { at: '/visit/x/configure?part=wifi' })
    await user.click(screen.getByRole('button', { name: 'Make one: Passphrase of Razorbill' }))
    const box = screen.getByRole('textbox', { name: 'Passphrase of Razorbill' })
    expect((box as HTMLInputElement).value).toMatch(/^([a-z]+-){5}\d\d$/)
    expect(await screen.findByText(/very strong: 4 of 4/)).toBeDefined()
    await user.clear(box)
    await user.type(box, 'short')
    await user.click(screen.getByRole('button', { name: 'Put into the vault' }))
    expect(screen.getByRole('alert').textContent).toContain('has 5 characters')
    expect(asked).toEqual([])
  })

  it('one is shown for a reason only, and hidden again', async () => {
    show(complete(), <Configure />, { at: '/visit/x/configure?part=wifi' })
    answers.set('/show', json({ value: 'demo-plover-42' }))
    expect(screen.queryByText('demo-plover-42')).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Show: Passphrase of Razorbill' }))
    expect(asked).toEqual([])
    await user.click(screen.getByRole('button', { name: 'telling the customer' }))
    await waitFor(() => expect(document.body.textContent).toContain('demo-plover-42'))
    expect(asked.at(-1)).toMatchObject({ body: { why: 'telling the customer' } })
    await user.click(screen.getByRole('button', { name: 'Hide' }))
    expect(document.body.textContent).not.toContain('demo-plover-42')
  })
})

describe('Place and Start up', () => {
  it('a unit set up elsewhere asks for its move', async () => {
    show(complete().write('unit.set', { id: node, set: { setUpPlace: 'hall' } }), <PlaceStage />)
    await user.click(screen.getByRole('button', { name: 'It stands at study now' }))
    expect(written('unit.event')).toEqual([{ unit: node, what: 'moved' }])
    expect(screen.getByText('The move is recorded.')).toBeDefined()
  })

  it('a look is read through the model’s table before it is logged', async () => {
    show(complete(), <StartUp />, { at: `/visit/x/start?unit=${node}` })
    await user.click(chip('Colour', 'amber'))
    await user.click(chip('Pattern', 'steady'))
    expect(screen.getByText('Joined, but too far.')).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'Log it' }))
    expect(written('lamp.seen')).toEqual([
      { unit: node, lamps: [{ lamp: 'status', colour: 'amber', pattern: 'solid' }] }
    ])
  })

  it('dark needs no pattern, and two colours need a second', async () => {
    show(complete(), <StartUp />)
    await user.click(chip('Colour', 'dark'))
    expect(screen.queryByRole('radiogroup', { name: 'Pattern' })).toBeNull()
    expect(screen.getByRole('button', { name: 'Log it' })).toHaveProperty('disabled', false)
    await user.click(chip('Colour', 'white'))
    await user.click(chip('Pattern', 'two colours in turn'))
    expect(screen.getByRole('button', { name: 'Log it' })).toHaveProperty('disabled', true)
    await user.click(chip('Second colour', 'and blue'))
    expect(screen.getByText(/No state of this model explains that/)).toBeDefined()
  })

  it('the same look on another model is told beside it', async () => {
    const log = complete().write('unit.set', {
      id: idOf('point'),
      set: { name: 'Point', model: 'fenmarrow-lattice-3', modelVersion: 1 }
    })
    show(log, <StartUp />, { at: `/visit/x/start?unit=${node}` })
    await user.click(chip('Colour', 'white'))
    await user.click(chip('Pattern', 'steady'))
    expect(screen.getByText('powered, not yet connected')).toBeDefined()
  })

  it('all prompts are answered no in one', async () => {
    show(
      opened().write('unit.set', { id: router, set: { name: 'R', model: 'ostrel-heron', modelVersion: 1 } }),
      <StartUp />
    )
    await user.click(screen.getByRole('button', { name: 'All no' }))
    expect(written('prompt.answered').map(({ prompt, answer }) => [prompt, answer])).toEqual(
      ['usage', 'crash', 'cloud', 'location', 'mail'].map((prompt) => [prompt, 'no'])
    )
  })

  it('a step’s wait runs at the foot and is ended', async () => {
    show(
      opened().write('unit.set', {
        id: node,
        set: { name: 'Study node', model: 'ostrel-tern', modelVersion: 1, role: 'node', method: 'push-button' }
      }),
      <>
        <StartUp />
        <Waits found={null} onDocket={() => undefined} onPlan={() => undefined} />
      </>
    )
    await user.click(screen.getByRole('button', { name: 'I see it' }))
    expect(written('method.step')).toEqual([{ unit: node, method: 'push-button', step: 0, seen: true }])
    expect(written('lamp.seen')).toEqual([
      { unit: node, lamps: [{ lamp: 'status', colour: 'blue', pattern: 'blink' }] }
    ])
    await user.click(screen.getByRole('button', { name: 'Done: start its clock' }))
    expect(within(screen.getByRole('list', { name: 'Waits' })).getByText(/usually 1 min, at most 2 min/)).toBeDefined()
    await user.click(screen.getByRole('button', { name: /^End the wait/ }))
    expect(screen.queryByRole('list', { name: 'Waits' })).toBeNull()
  })
})

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

  it('a code to join shows the passphrase, so it asks the vault for it first', async () => {
    show(complete(), <Configure />, { at: '/visit/x/configure?part=wifi' })
    answers.set('/show', json({ value: 'demo-plover-and-42' }))
    await user.click(screen.getByRole('button', { name: 'Show the code to join Razorbill' }))
    expect(await screen.findByRole('img', { name: 'Code to join Razorbill' })).toBeDefined()
    expect(asked[0]).toMatchObject({ body: { why: 'joining a device' } })
  })
})
