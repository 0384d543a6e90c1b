import { act, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { putIn } from '../../outbox/outbox'
import { useVisit } from '../session/visit-state'
import { Configure } from '../stages/configure/Configure'
import { Kit } from '../stages/kit/Kit'
import { complete, idOf, router } from '@pasado/testing/logbook'
import { answers, asked, json, show } from '../../../test/stage'

const user = userEvent.setup()

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

  it('one that waits is said to be sealed on the device only once it is', async () => {
    const spare = idOf('spare')
    show(
      complete().write('unit.set', {
        id: spare,
        set: { name: 'Spare router', role: 'router', model: 'ostrel-heron', modelVersion: 1 }
      }),
      <Kit />,
      { at: `/visit/x/kit?unit=${spare}` }
    )
    const noCipher = vi.spyOn(crypto, 'subtle', 'get').mockReturnValue(undefined as never)
    const body = { purpose: 'setup-code', thing: 'unit', id: spare, origin: 'label' } as const
    const item = { kind: 'secret', ref: spare, look: { base: 0 }, body } as const
    act(() => void putIn(useVisit.getState().id!, 'Trawl Street', item, new Uint8Array(4)))
    expect(await screen.findByText(/stay on this page until it is there/)).toBeDefined()
    await act(() => new Promise((resolve) => setTimeout(resolve, 50)))
    expect(screen.queryByText(/Sealed on this device/)).toBeNull()
    noCipher.mockRestore()
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
