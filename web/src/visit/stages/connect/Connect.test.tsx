import { act, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { Connect } from './Connect'
import { complete, home, idOf, router } from '@pasado/testing/logbook'
import { write } from '../../session/write'
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

  it('which VLANs a cable carries is asked where a segment has one, and that there is none can be said', async () => {
    const log = complete()
    show(log, <Connect />)
    within(map())
      .getByRole('button', { name: /^Cable from Hall router, Internet/ })
      .focus()
    await user.keyboard('{Enter}')
    expect(screen.queryByRole('group', { name: 'VLANs on it, tagged at both ports' })).toBeNull()
    act(() => write('segment.set', { id: home, set: { vlan: 20 } }))
    const tagged = await screen.findByRole('group', { name: 'VLANs on it, tagged at both ports' })
    await user.click(within(tagged).getByRole('button', { name: '20 Home' }))
    await user.click(within(tagged).getByRole('button', { name: 'none' }))
    await user.click(
      within(screen.getByRole('group', { name: 'Untagged on it' })).getByRole('button', { name: '20 Home' })
    )
    expect(written('cable.set').map(({ set }) => set)).toEqual([{ tagged: [20] }, { tagged: [] }, { untagged: 20 }])
  })

  it('whoever is led to a cable finds it chosen', () => {
    show(complete(), <Connect />, { at: `/visit/x/connect?at=cable.${idOf('wan')}.linkMbps` })
    expect(screen.getByRole('region', { name: 'The cable that is chosen' }).textContent).toContain(
      'Hall router, Internet'
    )
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
    // The restart is the step of its method.
    expect(written('wait.started')).toMatchObject([
      { task: `step:${idOf('m')}:activation:0`, what: 'until online, all is well', usualMin: 3, mostMin: 5 }
    ])
    await user.click(
      within(screen.getByRole('region', { name: 'Old equipment' })).getByRole('button', { name: 'old router' })
    )
    await user.click(
      within(screen.getByRole('radiogroup', { name: 'Goes' })).getByRole('radio', { name: 'to the provider' })
    )
    expect(written('fitting.set')).toMatchObject([{ set: { kind: 'old-router' } }, { set: { returns: 'provider' } }])
  })
})
