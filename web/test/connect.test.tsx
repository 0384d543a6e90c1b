import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { Connect } from '../src/visit/stages/connect/Connect'
import { StartUp } from '../src/visit/stages/start/StartUp'
import { complete, idOf, node, opened, router } from '../../core/test/fixture'
import { show, written } from './stage'

vi.mock('idb-keyval', () => import('./idb'))

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

describe('a method', () => {
  const fresh = () =>
    opened()
      .write('unit.set', {
        id: router,
        set: { name: 'Router', model: 'ostrel-heron', modelVersion: 1, role: 'router' }
      })
      .write('unit.set', {
        id: node,
        set: { name: 'Node', model: 'ostrel-tern', modelVersion: 1, role: 'node', method: 'push-button' }
      })
      .write('lamp.seen', { unit: node, lamps: [{ lamp: 'status', colour: 'blue', pattern: 'blink' }] })

  it('goes on where the lamps say it stands, keeps the window of the two presses, and tells what to try when a step shows nothing', async () => {
    show(fresh(), <StartUp />, { at: `/visit/x/start?unit=${node}` })
    const method = within(screen.getByRole('region', { name: 'Setup method' }))
    expect(method.getByText('Step 2 of 2')).toBeDefined()
    await user.click(method.getByRole('button', { name: 'Pressed on Router' }))
    expect(written('wait.started')).toMatchObject([{ what: 'pairing window', mostMin: 2 }])
    expect(method.getByText(/^[12]:\d\d$/)).toBeDefined()
    await user.click(method.getByRole('button', { name: 'Sync pressed here, on Node' }))
    expect(written('pairing.pressed')).toEqual([
      { unit: node, which: 'first', on: router },
      { unit: node, which: 'second', on: node }
    ])
    expect(method.getByText(/The second press came 0 s after the first/)).toBeDefined()
    await user.click(method.getByRole('button', { name: 'I do not see it' }))
    const tries = method.getByRole('status').textContent
    expect(tries.indexOf('Restart')).toBeLessThan(tries.indexOf('factory reset'))
    expect(tries).toContain('It loses its pairing')
    await user.click(method.getByRole('button', { name: 'I see it' }))
    expect(written('lamp.seen').at(-1)).toMatchObject({ lamps: [{ colour: 'white', pattern: 'solid' }] })
    expect(screen.getByText(/Every step of the Sync buttons is done/)).toBeDefined()
  })

  it('a held button is counted, and what that length does is told and recorded', async () => {
    show(fresh(), <StartUp />, { at: `/visit/x/start?unit=${node}` })
    const hold = within(screen.getByRole('region', { name: 'Hold a button' }))
    const button = hold.getByRole('button', { name: /Hold here/ })
    button.focus()
    await user.keyboard('{ >}')
    await new Promise((resolve) => setTimeout(resolve, 700))
    await user.keyboard('{/ }')
    const [pressed] = written('button.pressed')
    expect(pressed!.seconds).toBeGreaterThan(0.5)
    expect(hold.getByText(/opens the pairing window/)).toBeDefined()
  })

  it('a method that its model no longer has is told', () => {
    show(fresh().write('unit.set', { id: node, set: { method: 'by-drum' } }), <StartUp />, {
      at: `/visit/x/start?unit=${node}`
    })
    expect(screen.getByText(/none that this version of the model knows/)).toBeDefined()
  })
})
