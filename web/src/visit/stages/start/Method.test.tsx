import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { StartUp } from './StartUp'
import { catalogue, node, opened, router } from '@pasado/testing/logbook'
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

  const gateway = () =>
    opened().write('unit.set', {
      id: router,
      set: { name: 'Gateway', model: 'brackwater-l2', modelVersion: 1, role: 'gateway', method: 'activation' }
    })
  const looksOf = (name: string) =>
    [...catalogue.values()].find(({ id }) => id === 'brackwater-l2')!.states.find(({ state }) => state === name)!
      .lamps as never

  it('who does not see it while its clock runs is told to wait, and nothing is noted as not seen', async () => {
    show(
      gateway()
        .write('method.step', { unit: router, method: 'activation', step: 0, seen: true })
        .write('lamp.seen', { unit: router, lamps: looksOf('training') }),
      <StartUp />,
      { at: `/visit/x/start?unit=${router}` }
    )
    const method = within(screen.getByRole('region', { name: 'Setup method' }))
    expect(method.getByText('Step 2 of 3')).toBeDefined()
    await user.click(method.getByRole('button', { name: 'Done: start its clock' }))
    await user.click(method.getByRole('button', { name: 'I do not see it' }))
    expect(method.getByRole('status').textContent).toMatch(/^It has run 0:0\d of usually 15 min: wait\./)
    expect(method.queryByText(/factory reset/)).toBeNull()
    expect(written('method.step')).toEqual([])
  })

  it('lamps that are past a step offer to call it done, and going on logs no look that nobody took', async () => {
    show(gateway().write('lamp.seen', { unit: router, lamps: looksOf('training') }), <StartUp />, {
      at: `/visit/x/start?unit=${router}`
    })
    const method = within(screen.getByRole('region', { name: 'Setup method' }))
    expect(method.getByText('Step 1 of 3')).toBeDefined()
    await user.click(method.getByRole('button', { name: 'Step 1 is done' }))
    expect(written('method.step')).toEqual([{ unit: router, method: 'activation', step: 0, seen: true }])
    expect(written('lamp.seen')).toEqual([])
    expect(method.getByText('Step 2 of 3')).toBeDefined()
  })

  it('a look at lamps starts the clock of what takes its time, and ends it', async () => {
    show(gateway().write('lamp.seen', { unit: router, lamps: looksOf('seeking') }), <StartUp />, {
      at: `/visit/x/start?unit=${router}`
    })
    const lamps = within(screen.getByRole('region', { name: 'Lamps' }))
    for (const [lamp, colour, pattern, second] of [
      ['Power', 'green', 'steady'],
      ['Line', 'green', 'in turn', 'orange'],
      ['Internet', 'dark']
    ] as const) {
      await user.click(lamps.getByRole('radio', { name: new RegExp(`^${lamp}`, 'i') }))
      await user.click(lamps.getByRole('radio', { name: colour }))
      if (pattern) await user.click(lamps.getByRole('radio', { name: new RegExp(pattern) }))
      if (second) await user.click(lamps.getByRole('radio', { name: `and ${second}` }))
    }
    await user.click(lamps.getByRole('button', { name: /^Log/ }))
    expect(written('wait.started')).toMatchObject([
      { unit: router, task: `step:${router}:activation:1`, usualMin: 15, mostMin: 30 }
    ])
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
