import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import { Brief } from '../brief/Brief'
import { Kit } from './Kit'
import { useOutbox } from '../../../outbox/outbox'
import { useVisit } from '../../session/visit-state'
import { undo } from '../../session/write'
import { box, complete, node, opened } from '@pasado/testing/logbook'
import { show, written } from '../../../../test/stage'
import { clearStores } from '../../../../test/idb'

const user = userEvent.setup()
beforeEach(() => {
  clearStores()
  useOutbox.setState({ rows: [] })
})

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

  it('one that is not needed goes from the visit with where it went, is not asked for again, and is put to use after all', async () => {
    show(complete(), <Kit />, { at: `/visit/x/kit?unit=${node}` })
    await user.click(screen.getByRole('button', { name: 'Not needed: left with the customer' }))
    expect(written('unit.set')).toEqual([{ id: node, set: { spare: 'with-customer' } }])
    expect(written('thing.removed')).toEqual([{ thing: 'unit', id: node }])
    show(
      complete()
        .write('unit.set', { id: node, set: { spare: 'taken-back' } })
        .write('thing.removed', { thing: 'unit', id: node }),
      <Kit />,
      { at: `/visit/x/kit?box=${box}` }
    )
    const spares = within(screen.getByRole('region', { name: 'Spare units of this box' }))
    expect(spares.getByText('Study node (TE1-2): taken back')).toBeDefined()
    await user.click(spares.getByRole('button', { name: 'Put to use after all: Study node' }))
    expect(written('thing.restored')).toEqual([{ thing: 'unit', id: node }])
    expect(written('unit.set')).toEqual([{ id: node, set: { spare: null } }])
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
