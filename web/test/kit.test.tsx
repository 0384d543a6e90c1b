import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { catalogueOf } from '@pasado/core/catalogue/model'
import type { ParsedLabel, Proposal } from '@pasado/core/labels/parse'
import { Brief } from '../src/visit/stages/brief/Brief'
import { Kit } from '../src/visit/stages/kit/Kit'
import { useOutbox } from '../src/outbox/outbox'
import { keepSending } from '../src/outbox/send'
import { useVisit } from '../src/visit/session/visit-state'
import { undo } from '../src/visit/session/write'
import { box, catalogue, complete, idOf, node, opened, ownAdapter, router } from '../../core/test/fixture'
import { answers, asked, json, show, written } from './stage'
import { clearStores, inStore } from './idb'

vi.mock('idb-keyval', () => import('./idb'))
vi.mock('../src/workers/strength', () => ({ strengthOf: () => Promise.resolve({ score: 4, bits: 40, warning: '' }) }))
const seen = vi.hoisted((): { label: unknown; problem: Error | null } => ({ label: null, problem: null }))
vi.mock('../src/workers/label', () => ({
  NoPicture: class extends Error {},
  warmUp: () => undefined,
  glance: () => Promise.resolve([]),
  eyesFor: () => ({ size: () => ({ width: 100, height: 80 }) })
}))
vi.mock('../src/labels/read-label', () => ({
  readLabel: () => (seen.problem ? Promise.reject(seen.problem) : Promise.resolve(seen.label))
}))
vi.mock('../src/labels/picture-file', () => ({
  MOST_OCTETS: 12 * 1024 * 1024,
  PictureProblem: class extends Error {},
  readyToSend: (file: Blob) =>
    file.type.startsWith('image/') ? Promise.resolve(file) : Promise.reject(new Error('no'))
}))
vi.stubGlobal('createImageBitmap', () => Promise.reject(new Error('no pictures here')))

const user = userEvent.setup()
beforeEach(() => {
  sessionStorage.clear()
  clearStores()
  useOutbox.setState({ rows: [] })
  seen.problem = null
})

const spare = idOf('spare')
const proposal = (field: Proposal['field'], value: string, more: Partial<Proposal> = {}): Proposal => ({
  field,
  value,
  trust: 'likely',
  source: 'print',
  others: [],
  ...more
})
const label = (proposals: Proposal[], oddities: ParsedLabel['oddities'] = []): ParsedLabel => ({ proposals, oddities })
const photo = () => new File([new Uint8Array([1, 2, 3])], 'label.jpg', { type: 'image/jpeg' })

describe('boxes', () => {
  it('a kit is chosen in the Brief, and unpacked with one press: everything ticked, its units there with their roles', async () => {
    show(opened(), <Brief />)
    await user.click(screen.getByRole('button', { name: 'Add a box' }))
    await user.type(screen.getByRole('textbox', { name: 'Find a model' }), 'ostrel heron')
    await user.click(screen.getByRole('button', { name: /set of router and two Terns/ }))
    expect(written('box.set')).toMatchObject([
      { set: { model: 'ostrel-heron', modelVersion: 1, kit: 'trio' }, origin: 'catalogue' }
    ])
    expect(screen.getByText('Ostrel Heron, set of router and two Terns')).toBeDefined()
    const { pending } = useVisit.getState()
    show(opened().write('box.set', pending[0]!.body as never), <Kit />)
    await user.click(screen.getByRole('button', { name: 'All of it is here' }))
    expect(written('items.checked')).toMatchObject([
      {
        state: 'present',
        items: ['Heron router', 'Tern node', 'power adapter 12 V 2 A', 'network cable 1 m', 'start card']
      }
    ])
    expect(written('unit.set').map(({ set }) => [set.name, set.model, set.role])).toEqual([
      ['Heron', 'ostrel-heron', 'router'],
      ['Tern 1', 'ostrel-tern', 'node'],
      ['Tern 2', 'ostrel-tern', 'node']
    ])
    await user.click(screen.getByRole('button', { name: 'Tern 2: read its label' }))
    expect(screen.getByRole('heading', { name: 'Tern 2' })).toBeDefined()
  })

  it('what is missing says what was done, in one tap where it is usual', async () => {
    show(complete(), <Kit />, { at: `/visit/x/kit?box=${box}` })
    const cable = screen.getByRole('group', { name: 'network cable 1 m' })
    await user.click(within(cable).getByRole('button', { name: 'missing' }))
    await user.click(screen.getByRole('button', { name: 'took one from the van' }))
    expect(written('items.checked')).toEqual([
      { box, items: ['network cable 1 m'], state: 'missing', done: 'took one from the van' }
    ])
    expect(within(cable).getByRole('button', { name: 'missing' }).getAttribute('aria-pressed')).toBe('true')
    undo()
    await waitFor(() =>
      expect(within(cable).getByRole('button', { name: 'here' }).getAttribute('aria-pressed')).toBe('true')
    )
  })

  it('something extra is noted with what became of it, and not twice under a name of the list', async () => {
    show(complete(), <Kit />, { at: `/visit/x/kit?box=${box}` })
    await user.click(screen.getByText('Something else was in the box'))
    await user.type(screen.getByRole('textbox', { name: 'What is it?' }), 'start card')
    expect(screen.getByRole('alert').textContent).toContain('on the list')
    await user.clear(screen.getByRole('textbox', { name: 'What is it?' }))
    await user.type(screen.getByRole('textbox', { name: 'What is it?' }), 'an antenna')
    await user.click(screen.getByRole('button', { name: 'Note it' }))
    await user.type(screen.getByRole('textbox', { name: /what was done/ }), 'back to the store')
    await user.click(screen.getByRole('button', { name: 'Write it down' }))
    expect(written('items.checked')).toEqual([
      { box, items: ['an antenna'], state: 'extra', done: 'back to the store' }
    ])
  })

  it('a unit without a box is one that was used', async () => {
    show(opened(), <Kit />)
    await user.click(screen.getByRole('button', { name: 'Add a used unit' }))
    await user.type(screen.getByRole('textbox', { name: 'Find a model' }), 'sill')
    await user.click(screen.getByRole('button', { name: /Karstine Sill/ }))
    expect(written('unit.set')).toMatchObject([
      { set: { name: 'Sill', model: 'karstine-sill', modelVersion: 1, role: 'modem', used: true }, origin: 'catalogue' }
    ])
  })
})

describe('a unit', () => {
  it('its adapter is taken as the model’s in one press, and another one is called out', async () => {
    show(
      complete().write('unit.set', { id: node, set: { adapterPlug: null, adapterVolts: null, adapterAmps: null } }),
      <Kit />,
      { at: `/visit/x/kit?unit=${node}` }
    )
    await user.click(screen.getByRole('button', { name: /It says just that/ }))
    expect(written('unit.set')).toEqual([{ id: node, set: ownAdapter, origin: 'label' }])
    const volts = screen.getByRole('textbox', { name: 'Volts' })
    await user.clear(volts)
    await user.type(volts, '19')
    await user.tab()
    expect(screen.getByRole('alert').textContent).toContain('Do not plug it in')
  })

  it('the firmware it came with leads to the approved one, in so many installs and minutes', () => {
    show(complete(), <Kit />, { at: `/visit/x/kit?unit=${router}` })
    expect(screen.getByRole('region', { name: 'Firmware' }).textContent).toContain(
      '2.8.1 → 3.0.2 → 3.1.0: 2 updates, usually 10 min, at most 30 min'
    )
  })

  it('one that stands at another home is called out, and its move recorded with why', async () => {
    const elsewhere = {
      by: 'mac' as const,
      home: idOf('other'),
      visit: idOf('v'),
      since: '2025-11-02T10:00:00.000Z',
      sealed: true
    }
    show(complete().write('unit.elsewhere', { unit: node, found: [elsewhere] }), <Kit />, {
      at: `/visit/x/kit?unit=${node}`
    })
    answers.set('/homes/', json({ home: { street: '2 Curlew Bank', town: 'Great Skerrow' } }))
    const group = screen.getByRole('group', { name: 'Recorded at another home' })
    expect(group.textContent).toContain('live there since 2 November 2025')
    await user.click(within(group).getByRole('button', { name: 'It was really brought from there' }))
    await user.type(within(group).getByRole('textbox', { name: 'Why is it here now?' }), 'The customer moved.')
    await user.click(within(group).getByRole('button', { name: 'Record the move' }))
    expect(written('unit.transferred')).toEqual([{ unit: node, from: elsewhere.home, reason: 'The customer moved.' }])
    expect(screen.queryByRole('group', { name: 'Recorded at another home' })).toBeNull()
  })

  it('a newer version of its model is shown with what changed and what would no longer fit', async () => {
    const heron = [...catalogue.values()].find(({ id }) => id === 'ostrel-heron')!
    const next = { ...structuredClone(heron), version: 2 }
    next.methods[0]!.id = 'new-app'
    next.firmware.releases.push({ version: '3.2.0', date: '2026-10-01', fixesHole: true, withdrawn: false })
    show(complete(), <Kit />, { at: `/visit/x/kit?unit=${router}` })
    useVisit.setState({ catalogue: catalogueOf([...catalogue.values(), next]) })
    await user.click(await screen.findByRole('button', { name: 'See what changed' }))
    const sheet = screen.getByRole('dialog')
    expect(sheet.textContent).toContain('firmware · 3.2.0 added')
    expect(sheet.textContent).toContain('set up by the method app, which the model no longer has')
    await user.click(within(sheet).getByRole('button', { name: 'Move to version 2' }))
    expect(written('unit.set')).toEqual([{ id: router, set: { modelVersion: 2 }, origin: 'catalogue' }])
  })

  it('a second router is warned of', async () => {
    show(
      complete().write('unit.set', {
        id: idOf('third'),
        set: { model: 'oldmere-weir', modelVersion: 1, role: 'router', name: 'Old' }
      }),
      <Kit />,
      { at: `/visit/x/kit?unit=${idOf('third')}` }
    )
    expect(screen.getByText(/Hall router is the router already/)).toBeDefined()
    expect(screen.getByText(/Not: modem, gateway/)).toBeDefined()
  })
})

describe('reading a label', () => {
  async function read(found: ParsedLabel, unit = router) {
    seen.label = found
    show(
      complete().write('unit.set', {
        id: spare,
        set: { box, ...ownAdapter, name: 'Spare router', model: 'ostrel-heron', modelVersion: 1 }
      }),
      <Kit />,
      { at: `/visit/x/kit?unit=${unit}` }
    )
    answers.set('/secrets', json({ assessed: {} }, 201))
    answers.set('/entries?after', () =>
      json({ entries: asked.flatMap(({ body }) => (body as { entries?: unknown[] } | undefined)?.entries ?? []) })()
    )
    answers.set('/entries', json({ receipts: [] }))
    await keepSending()
    await user.click(screen.getByRole('button', { name: 'Read its label' }))
    await user.upload(screen.getByLabelText('Take or choose a photo'), photo())
    await screen.findByRole('button', { name: /^Take over/ })
  }

  it('takes over what is ticked: facts as from the label, secrets to the vault and nowhere else', async () => {
    await read(
      label([
        proposal('serial', 'HE1-4629-ACDE', { trust: 'certain', source: 'qr' }),
        proposal('mac', '00:00:5e:00:53:77'),
        proposal('key', 'demo-key-9911', { trust: 'certain', source: 'qr' }),
        proposal('ssid', 'Ostrel-5377', { trust: 'unsure' })
      ])
    )
    expect(screen.getByRole('checkbox', { name: 'Take over: Network name' })).toHaveProperty('checked', false)
    await user.click(screen.getByRole('checkbox', { name: /Keep the photo/ }))
    await user.click(screen.getByRole('button', { name: 'Take over 3 values' }))
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
    expect(written('unit.set')).toEqual([
      { id: router, set: { serial: 'HE1-4629-ACDE', mac: '00:00:5e:00:53:77' }, origin: 'label' }
    ])
    await waitFor(() =>
      expect(asked.filter(({ path }) => path.includes('/secrets'))).toMatchObject([
        { body: { purpose: 'label-key', id: router, origin: 'label', value: 'demo-key-9911' } }
      ])
    )
    expect(JSON.stringify(useVisit.getState().pending)).not.toContain('demo-key-9911')
    await waitFor(() => expect(useOutbox.getState().rows.filter(({ item }) => item.kind !== 'line')).toEqual([]))
  })

  it('without the server a secret stays sealed on the device, unreadable, and goes when it is back', async () => {
    await read(label([proposal('key', 'demo-key-9911', { trust: 'certain', source: 'qr' })]), spare)
    answers.set('/secrets', json({ title: 'away', status: 503 }, 503))
    await user.click(screen.getByRole('checkbox', { name: /Keep the photo/ }))
    await user.click(screen.getByRole('button', { name: 'Take over 1 value' }))
    expect(await screen.findByText('Sealed on this device, on its way to the vault.')).toBeDefined()
    const held = ([...inStore('pasado-outbox/rows').values()] as { iv?: Uint8Array; data: ArrayBuffer }[]).filter(
      ({ iv }) => iv
    )
    expect(held).toHaveLength(1)
    expect(new TextDecoder().decode(held[0]!.data)).not.toContain('demo-key-9911')
    answers.set('/secrets', json({ assessed: {} }, 201))
    await waitFor(() => expect(useOutbox.getState().rows.filter(({ item }) => item.kind !== 'line')).toEqual([]), {
      timeout: 6_000
    })
    await waitFor(() =>
      expect([...inStore('pasado-outbox/rows').values()].filter((row) => (row as { iv?: unknown }).iv)).toEqual([])
    )
  })

  it('another reading is one tap away, and what is typed is checked as the record will', async () => {
    await read(
      label([
        proposal('serial', 'HE1-4629-ACD0', { trust: 'unsure', others: ['HE1-4629-ACDO'] }),
        proposal('mac', '00:00:5e:00:53:77')
      ])
    )
    await user.click(screen.getByRole('button', { name: 'Serial is rather HE1-4629-ACDO' }))
    const mac = screen.getByRole('textbox', { name: 'MAC address' })
    await user.clear(mac)
    await user.type(mac, '00:00:5e:00:53')
    expect(screen.getByRole('alert').textContent).toContain('twelve hexadecimal digits')
    expect(screen.getByRole('button', { name: /^Take over/ })).toHaveProperty('disabled', true)
    await user.type(mac, ':78')
    await user.click(screen.getByRole('checkbox', { name: /Keep the photo/ }))
    await user.click(screen.getByRole('button', { name: 'Take over 2 values' }))
    await waitFor(() =>
      expect(written('unit.set')).toEqual([
        { id: router, set: { serial: 'HE1-4629-ACDO', mac: '00:00:5e:00:53:78' }, origin: 'label' }
      ])
    )
  })

  it('the label of another unit of the visit, or of another model, is called out and not taken by itself', async () => {
    await read(
      label(
        [proposal('mac', '00:00:5E:00:53:02', { trust: 'certain' })],
        [{ code: 'another-model', read: 'Ostrel Tern' }]
      )
    )
    expect(screen.getAllByRole('alert').map(({ textContent }) => textContent)).toEqual([
      expect.stringContaining('label of another unit: Ostrel Tern'),
      expect.stringContaining('Study node has this very MAC address')
    ])
    expect(screen.getByRole('checkbox', { name: 'Take over: MAC address' })).toHaveProperty('checked', false)
  })

  it('pasted text goes through the same parser', async () => {
    show(complete(), <Kit />, { at: `/visit/x/kit?unit=${router}` })
    await user.click(screen.getByRole('button', { name: 'Read its label' }))
    await user.click(screen.getByRole('button', { name: 'Paste its text' }))
    await user.click(screen.getByRole('textbox', { name: /Everything/ }))
    await user.paste('Ostrel Heron\nS/N: HE1-4629-ACDE\nWAN MAC: 00:00:5E:00:53:77\nLAN MAC: 00:00:5E:00:53:78')
    await user.click(screen.getByRole('button', { name: 'Find the values' }))
    expect(screen.getByRole('textbox', { name: 'Serial' })).toHaveProperty('value', 'HE1-4629-ACDE')
    expect(screen.getByRole('alert').textContent).toContain('Two MAC addresses')
  })

  it('a picture that is none, and one over 12 MB, say so and leave the other ways open', async () => {
    seen.label = label([])
    show(complete(), <Kit />, { at: `/visit/x/kit?unit=${router}` })
    await user.click(screen.getByRole('button', { name: 'Read its label' }))
    const large = photo()
    Object.defineProperty(large, 'size', { value: 13 * 1024 * 1024 })
    await user.upload(screen.getByLabelText('Take or choose a photo'), large)
    expect((await screen.findByRole('alert')).textContent).toContain('13.0 MB')
    const { NoPicture } = await import('../src/workers/label')
    seen.problem = new NoPicture()
    await user.upload(screen.getByLabelText('Take or choose a photo'), photo())
    await waitFor(() => expect(screen.getByRole('alert').textContent).toContain('not a picture'))
    expect(screen.getByRole('button', { name: 'Paste its text' })).toBeDefined()
  })

  it('a device without a camera says what to do instead', async () => {
    show(complete(), <Kit />, { at: `/visit/x/kit?unit=${router}` })
    await user.click(screen.getByRole('button', { name: 'Read its label' }))
    await user.click(screen.getByRole('button', { name: 'Point the camera at it' }))
    expect((await screen.findByRole('alert')).textContent).toContain('Choose a photo')
  })
})

describe('photos', () => {
  it('one is captioned, kept on the device and sent; one that is refused says why', async () => {
    const sent: FormData[] = []
    class FakeRequest {
      upload = {
        addEventListener: (_: string, heard: (event: unknown) => void) =>
          heard({ lengthComputable: true, loaded: 1, total: 2 })
      }
      status = 422
      responseText = JSON.stringify({
        title: 'Something in what was sent is not acceptable.',
        status: 422,
        errors: [{ field: 'caption', detail: 'holds a secret of this visit', pointer: '/caption' }]
      })
      #load: () => void = () => undefined
      open() {}
      addEventListener(what: string, heard: () => void) {
        if (what === 'load') this.#load = heard
      }
      send(form: FormData) {
        sent.push(form)
        this.#load()
      }
    }
    vi.stubGlobal('XMLHttpRequest', FakeRequest)
    show(complete(), <Kit />, { at: `/visit/x/kit?unit=${router}` })
    await keepSending()
    await user.upload(screen.getByLabelText('Add a photo'), photo())
    await user.type(await screen.findByRole('textbox', { name: 'What does it show?' }), 'On the shelf')
    await user.click(screen.getByRole('button', { name: 'Keep it' }))
    expect((await screen.findByText('Not taken')).textContent).toBeDefined()
    expect(screen.getByRole('alert').textContent).toContain('holds a secret')
    expect(Object.fromEntries([...sent[0]!].filter(([name]) => name !== 'photo' && name !== 'ref'))).toMatchObject({
      thing: 'unit',
      about: router,
      label: 'no',
      caption: 'On the shelf'
    })
    await user.click(screen.getByRole('button', { name: 'Put away' }))
    await waitFor(() =>
      expect([...inStore('pasado-outbox/rows').values()].filter((row) => (row as { iv?: unknown }).iv)).toEqual([])
    )
  })

  it('a kept one is captioned anew and taken out; that of a label is asked why', async () => {
    const photoAdded = (ref: string, isLabel: boolean) => ({
      ref,
      about: { thing: 'unit' as const, id: router },
      caption: isLabel ? null : 'Shelf',
      label: isLabel,
      width: 4,
      height: 3,
      octets: 9,
      sha256: 'a'.repeat(64)
    })
    show(
      complete()
        .write('photo.added', photoAdded(idOf('p1'), false))
        .write('photo.added', photoAdded(idOf('p2'), true)),
      <Kit />,
      { at: `/visit/x/kit?unit=${router}` }
    )
    await user.click(screen.getByRole('button', { name: 'Open: photo of the label' }))
    await user.click(
      within(screen.getByRole('group', { name: 'Why do you look at it?' })).getByRole('button', { name: 'checking it' })
    )
    expect(asked.at(-1)).toMatchObject({ method: 'POST', body: { why: 'checking it' } })
    await user.click(screen.getByRole('button', { name: 'Put away' }))
    await user.click(screen.getByRole('button', { name: 'Open: Shelf' }))
    await user.type(screen.getByRole('textbox', { name: 'What does it show?' }), ', left')
    await user.click(screen.getByRole('button', { name: 'Write it down' }))
    expect(written('photo.captioned')).toEqual([{ ref: idOf('p1'), caption: 'Shelf, left' }])
    await user.click(screen.getByRole('button', { name: 'Open: Shelf, left' }))
    await user.click(screen.getByRole('button', { name: 'Take it out' }))
    expect(screen.queryByRole('button', { name: /Open: Shelf/ })).toBeNull()
    undo()
    expect(await screen.findByRole('button', { name: /Open: Shelf/ })).toBeDefined()
  })
})
