import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { Connect } from './Connect'
import { complete, idOf, router } from '@pasado/testing/logbook'
import { show, written } from '../../../../test/stage'

const user = userEvent.setup({ delay: null })
const map = () => screen.getByRole('group', { name: 'Port map' })
const port = (name: string) => within(map()).getByRole('button', { name })

describe('the port map', () => {
  it('a cable goes from port to port by the keyboard, and what is wrong stands beside it', async () => {
    show(
      complete().write('unit.set', {
        id: idOf('old'),
        set: { name: 'Old router', model: 'oldmere-weir', modelVersion: 1, role: 'access-point' }
      }),
      <Connect />
    )
    expect(screen.getByText('Every cable is as it is to be')).toBeDefined()
    port('Old router, WAN, free').focus()
    await user.keyboard('{Enter}')
    expect(screen.getByText(/From Old router, WAN: now the other port/)).toBeDefined()
    port('Hall router, 1, free').focus()
    await user.keyboard('{Enter}')
    await waitFor(() =>
      expect(written('cable.set')).toMatchObject([
        { set: { a: { id: idOf('old'), port: 'internet' }, b: { id: router, port: 'lan-1' }, kind: 'network' } }
      ])
    )
    expect(screen.getByRole('region', { name: 'What is wrong' }).textContent).toContain(
      'LAN to LAN, and nothing in the internet port'
    )
    await user.click(screen.getByRole('button', { name: '100 Mbit/s' }))
    expect(written('cable.set').at(-1)).toMatchObject({ set: { linkMbps: 100 } })
    await user.click(screen.getByRole('button', { name: 'Take the cable out' }))
    await waitFor(() => expect(screen.getByText('Every cable is as it is to be')).toBeDefined())
  })

  it('the same port twice lets go; a port that is taken is told', async () => {
    show(complete(), <Connect />)
    port('Hall router, 1, free').focus()
    await user.keyboard('{Enter}{Enter}')
    expect(screen.getByText(/Drag from port to port/)).toBeDefined()
    expect(written('cable.set')).toEqual([])
    port('Hall router, Internet, with a cable').focus()
    await user.keyboard('{Enter}')
    port('Study node, 1, free').focus()
    await user.keyboard('{Enter}')
    await waitFor(() =>
      expect(screen.getByRole('region', { name: 'What is wrong' }).textContent).toContain(
        'holds two cables; a port takes one'
      )
    )
  })

  it('old equipment is noted, the modem’s restart is a guided wait', async () => {
    show(
      complete().write('unit.set', {
        id: idOf('m'),
        set: { name: 'Modem', model: 'karstine-sill', modelVersion: 1, role: 'modem' }
      }),
      <Connect />
    )
    await user.click(screen.getByRole('button', { name: 'It is on again: wait for its lights' }))
    expect(written('unit.event')).toEqual([{ unit: idOf('m'), what: 'restarted' }])
    expect(written('wait.started')).toMatchObject([{ what: 'until its lights settle', usualMin: 3, mostMin: 5 }])
    await user.click(
      within(screen.getByRole('region', { name: 'Old equipment' })).getByRole('button', { name: 'old router' })
    )
    await user.click(
      within(screen.getByRole('radiogroup', { name: 'Goes' })).getByRole('radio', { name: 'to the provider' })
    )
    expect(written('fitting.set')).toMatchObject([{ set: { kind: 'old-router' } }, { set: { returns: 'provider' } }])
  })
})
