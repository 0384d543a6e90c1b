import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { Kit } from './Kit'
import { complete, node, router } from '@pasado/testing/logbook'
import { enter, show, written } from '../../../../test/stage'

const user = userEvent.setup()

describe('Kit', () => {
  it('says how a unit is told from its twin, and offers the roles its model can take', () => {
    show(complete(), <Kit />, { at: `/visit/x/kit?unit=${node}` })
    expect(screen.getByText(/The Tern has one port/)).toBeDefined()
    expect(
      within(screen.getByRole('radiogroup', { name: 'Role here' }))
        .getAllByRole('radio')
        .map((element) => element.textContent)
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
