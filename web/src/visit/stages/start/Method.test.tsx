import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { StartUp } from './StartUp'
import { node, opened, router } from '@pasado/testing/logbook'
import { show, written } from '../../../../test/stage'

const user = userEvent.setup({ delay: null })

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
    expect(method.getByText(/The second press came \d+ s after the first/)).toBeDefined()
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
