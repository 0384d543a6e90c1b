import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { ParsedLabel, Proposal } from '@pasado/core/labels/parse'
import { Kit } from './Kit'
import { useOutbox } from '../../../outbox/outbox'
import { keepSending } from '../../../outbox/send'
import { useVisit } from '../../session/visit-state'
import { box, complete, idOf, ownAdapter, router } from '@pasado/testing/logbook'
import { answers, asked, json, show, written } from '../../../../test/stage'
import { clearStores, inStore } from '../../../../test/idb'

const seen = vi.hoisted((): { label: unknown; problem: Error | null } => ({ label: null, problem: null }))
vi.mock('../../../workers/label', () => ({
  NoPicture: class extends Error {},
  warmUp: () => undefined,
  glance: () => Promise.resolve([]),
  eyesFor: () => ({ size: () => ({ width: 100, height: 80 }) })
}))
vi.mock('../../../labels/read-label', () => ({
  readLabel: () => (seen.problem ? Promise.reject(seen.problem) : Promise.resolve(seen.label))
}))
vi.mock('../../../labels/picture-file', () => import('../../../../test/picture-file'))
vi.stubGlobal('createImageBitmap', () => Promise.reject(new Error('no pictures here')))

const user = userEvent.setup()
beforeEach(() => {
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
    await user.upload(await screen.findByLabelText('Take or choose a photo'), photo())
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
    await user.click(await screen.findByRole('button', { name: 'Paste its text' }))
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
    await user.upload(await screen.findByLabelText('Take or choose a photo'), large)
    expect((await screen.findByRole('alert')).textContent).toContain('13.0 MB')
    const { NoPicture } = await import('../../../workers/label')
    seen.problem = new NoPicture()
    await user.upload(screen.getByLabelText('Take or choose a photo'), photo())
    await waitFor(() => expect(screen.getByRole('alert').textContent).toContain('not a picture'))
    expect(screen.getByRole('button', { name: 'Paste its text' })).toBeDefined()
  })

  it('a device without a camera says what to do instead', async () => {
    show(complete(), <Kit />, { at: `/visit/x/kit?unit=${router}` })
    await user.click(screen.getByRole('button', { name: 'Read its label' }))
    await user.click(await screen.findByRole('button', { name: 'Point the camera at it' }))
    expect((await screen.findByRole('alert')).textContent).toContain('Choose a photo')
  })
})
