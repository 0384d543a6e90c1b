import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import { catalogueOf } from '@pasado/core/catalogue/model'
import { Kit } from './Kit'
import { useOutbox } from '../../../outbox/outbox'
import { useVisit } from '../../session/visit-state'
import { catalogue, complete, idOf, node, ownAdapter, router } from '@pasado/testing/logbook'
import { answers, json, show, written } from '../../../../test/stage'
import { clearStores } from '../../../../test/idb'

const user = userEvent.setup()
beforeEach(() => {
  clearStores()
  useOutbox.setState({ rows: [] })
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
