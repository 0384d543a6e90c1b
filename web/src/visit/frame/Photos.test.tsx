import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Kit } from '../stages/kit/Kit'
import { useOutbox } from '../../outbox/outbox'
import { keepSending } from '../../outbox/send'
import { undo } from '../session/write'
import { complete, idOf, router } from '@pasado/testing/logbook'
import { asked, show, written } from '../../../test/stage'
import { clearStores, inStore } from '../../../test/idb'

vi.mock('../../labels/picture-file', () => import('../../../test/picture-file'))
vi.stubGlobal('createImageBitmap', () => Promise.reject(new Error('no pictures here')))

const user = userEvent.setup()
beforeEach(() => {
  clearStores()
  useOutbox.setState({ rows: [] })
})
const photo = () => new File([new Uint8Array([1, 2, 3])], 'label.jpg', { type: 'image/jpeg' })

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
