import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { catalogue, complete, home, idOf, opened, router } from '@pasado/testing/logbook'
import { useSession } from '../../app/session'
import { Pairing } from '../stages/start/Pairing'
import { UnitKit } from '../stages/kit/UnitKit'
import { useVisit } from '../session/visit-state'
import { modelOf } from '@pasado/core/catalogue/model'
import { show, written } from '../../../test/stage'
import { WhatStays } from './WhatStays'

const user = userEvent.setup({ delay: null })
const reed = idOf('reed')
const form = () => within(screen.getByRole('form', { name: 'Record the router that stays' }))

describe('what stays', () => {
  it('is asked for where the line ends at a router that stays, and kept with its range by one press', async () => {
    show(opened({ accessLine: 'existing-router' }), <WhatStays />)
    await user.type(form().getByRole('combobox', { name: 'Make and model' }), 'Marlin 7')
    await user.type(form().getByRole('textbox', { name: 'Address' }), '192.168.7.1')
    await user.click(form().getByRole('radio', { name: 'Yes' }))
    await user.click(form().getByRole('button', { name: 'It stays' }))
    const [range] = written('segment.set')
    expect(range).toMatchObject({ set: { name: 'Home', use: 'home', cidr: '192.168.7.0/24', gateway: '192.168.7.1' } })
    expect(written('stays.set')).toMatchObject([
      {
        set: {
          kind: 'router',
          makeModel: 'Marlin 7',
          address: '192.168.7.1',
          givesAddresses: 'yes',
          segment: (range as { id: string }).id
        }
      }
    ])
    expect(screen.queryByRole('form')).toBeNull()
  })

  it('an address that is none is told at once, and nothing is kept', async () => {
    show(opened(), <WhatStays />)
    await user.click(screen.getByRole('radio', { name: 'router' }))
    await user.type(form().getByRole('textbox', { name: 'Address' }), '192.168.7')
    await user.click(form().getByRole('button', { name: 'It stays' }))
    expect(screen.getByRole('alert').textContent).toBe(
      'Address must be an IPv4 address: four numbers 0–255 joined by dots'
    )
    expect(written('stays.set')).toEqual([])
  })

  it('the first press of a pairing is on it, or it is recorded there', async () => {
    const log = () =>
      opened().write('unit.set', { id: reed, set: { name: 'Reed', model: 'quillet-reed', role: 'extender' } })
    const Presses = () => {
      const unit = useVisit((state) => state.record.units[reed])!
      return <Pairing unit={unit} model={modelOf(unit, catalogue)!} />
    }
    show(log(), <Presses />)
    expect(screen.getByRole('button', { name: 'Pressed on the router' })).toHaveProperty('disabled', true)
    await user.type(form().getByRole('combobox', { name: 'Make and model' }), 'Marlin 7')
    await user.click(form().getByRole('button', { name: 'It stays' }))
    await user.click(screen.getByRole('button', { name: 'Pressed on Marlin 7' }))
    const [stays] = written('stays.set')
    expect(written('pairing.pressed')).toEqual([{ unit: reed, which: 'first', on: (stays as { id: string }).id }])
  })

  it('a model of the catalogue is known by its maker and name; its lamps are then looked at where it is recorded', async () => {
    show(opened(), <WhatStays />)
    await user.click(screen.getByRole('radio', { name: 'modem' }))
    const ask = within(screen.getByRole('form', { name: 'Record the modem that stays' }))
    await user.type(ask.getByRole('combobox', { name: 'Make and model' }), 'karstine sill')
    await user.click(ask.getByRole('button', { name: 'It stays' }))
    expect(written('stays.set')).toMatchObject([
      { set: { kind: 'modem', makeModel: 'karstine sill', model: 'karstine-sill', modelVersion: 1 } }
    ])
    const modem = idOf('their modem')
    show(
      opened().write('stays.set', { id: modem, set: { kind: 'modem', makeModel: 'Sill', model: 'karstine-sill' } }),
      <WhatStays />
    )
    const lamps = within(screen.getByRole('region', { name: 'Lamps' }))
    await user.click(lamps.getAllByRole('radio', { name: 'dark' })[0]!)
    await user.click(lamps.getByRole('button', { name: 'Log it' }))
    expect(written('lamp.seen')).toMatchObject([{ unit: modem }])
    await user.selectOptions(screen.getByRole('combobox', { name: 'In the catalogue' }), 'not in it')
    expect(written('stays.set')).toEqual([{ id: modem, set: { model: null, modelVersion: null }, origin: 'catalogue' }])
  })

  it('a lead turns a used unit into it, and back', async () => {
    const lead = { id: idOf('lead'), name: 'Wenna Tarrow', login: 'wenna', role: 'lead' as const }
    show(
      complete().write('unit.set', { id: router, set: { used: true } }),
      <UnitKit unit={complete().record().units[router]!} />
    )
    expect(screen.queryByRole('button', { name: /It is not ours/ })).toBeNull()
    useSession.setState({ me: lead } as never)
    await user.click(await screen.findByRole('button', { name: /It is not ours/ }))
    expect(written('stays.set')).toMatchObject([{ id: router, set: { kind: 'router', segment: home } }])
    expect(written('thing.removed')).toEqual([{ thing: 'unit', id: router }])
  })

  it('what was done to it is one press, and back it goes to being ours', async () => {
    show(
      complete()
        .write('stays.set', { id: router, set: { kind: 'router', name: 'Hall router' } })
        .write('thing.removed', { thing: 'unit', id: router }),
      <WhatStays />
    )
    await user.click(screen.getByRole('button', { name: 'Reset: Hall router' }))
    expect(written('unit.event')).toEqual([{ unit: router, what: 'reset' }])
    await user.click(screen.getByRole('button', { name: 'It is ours after all' }))
    expect(written('thing.removed')).toEqual([{ thing: 'stays', id: router }])
    expect(written('thing.restored')).toEqual([{ thing: 'unit', id: router }])
  })
})
