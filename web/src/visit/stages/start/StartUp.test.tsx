import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { Waits } from '../../frame/Waits'
import { PlaceStage } from '../place/PlaceStage'
import { StartUp } from './StartUp'
import { complete, idOf, node, opened, router } from '@pasado/testing/logbook'
import { chip, show, written } from '../../../../test/stage'

const user = userEvent.setup()

describe('Place and Start up', () => {
  it('a unit set up elsewhere asks for its move', async () => {
    show(complete().write('unit.set', { id: node, set: { setUpPlace: 'hall' } }), <PlaceStage />)
    await user.click(screen.getByRole('button', { name: 'It stands at study now' }))
    expect(written('unit.event')).toEqual([{ unit: node, what: 'moved' }])
    expect(screen.getByText('The move is recorded.')).toBeDefined()
  })

  it('a look is read through the model’s table before it is logged', async () => {
    show(complete(), <StartUp />, { at: `/visit/x/start?unit=${node}` })
    await user.click(chip('Colour', 'amber'))
    await user.click(chip('Pattern', 'steady'))
    expect(screen.getByText('Joined, but too far.')).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'Log it' }))
    expect(written('lamp.seen')).toEqual([
      { unit: node, lamps: [{ lamp: 'status', colour: 'amber', pattern: 'solid' }] }
    ])
  })

  it('dark needs no pattern, and two colours need a second', async () => {
    show(complete(), <StartUp />)
    await user.click(chip('Colour', 'dark'))
    expect(screen.queryByRole('radiogroup', { name: 'Pattern' })).toBeNull()
    expect(screen.getByRole('button', { name: 'Log it' })).toHaveProperty('disabled', false)
    await user.click(chip('Colour', 'white'))
    await user.click(chip('Pattern', 'two colours in turn'))
    expect(screen.getByRole('button', { name: 'Log it' })).toHaveProperty('disabled', true)
    await user.click(chip('Second colour', 'and blue'))
    expect(screen.getByText(/No state of this model explains that/)).toBeDefined()
  })

  it('the same look on another model is told beside it', async () => {
    const log = complete().write('unit.set', {
      id: idOf('point'),
      set: { name: 'Point', model: 'fenmarrow-lattice-3', modelVersion: 1 }
    })
    show(log, <StartUp />, { at: `/visit/x/start?unit=${node}` })
    await user.click(chip('Colour', 'white'))
    await user.click(chip('Pattern', 'steady'))
    expect(screen.getByText('powered, not yet connected')).toBeDefined()
  })

  it('all prompts are answered no in one', async () => {
    show(
      opened().write('unit.set', { id: router, set: { name: 'R', model: 'ostrel-heron', modelVersion: 1 } }),
      <StartUp />
    )
    await user.click(screen.getByRole('button', { name: 'All no' }))
    expect(written('prompt.answered').map(({ prompt, answer }) => [prompt, answer])).toEqual(
      ['usage', 'crash', 'cloud', 'location', 'mail'].map((prompt) => [prompt, 'no'])
    )
  })

  it('a step’s wait runs at the foot and is ended', async () => {
    show(
      opened().write('unit.set', {
        id: node,
        set: { name: 'Study node', model: 'ostrel-tern', modelVersion: 1, role: 'node', method: 'push-button' }
      }),
      <>
        <StartUp />
        <Waits found={null} onDocket={() => undefined} onPlan={() => undefined} />
      </>
    )
    await user.click(screen.getByRole('button', { name: 'I see it' }))
    expect(written('method.step')).toEqual([{ unit: node, method: 'push-button', step: 0, seen: true }])
    expect(written('lamp.seen')).toEqual([
      { unit: node, lamps: [{ lamp: 'status', colour: 'blue', pattern: 'blink' }] }
    ])
    await user.click(screen.getByRole('button', { name: 'Done: start its clock' }))
    expect(within(screen.getByRole('list', { name: 'Waits' })).getByText(/usually 1 min, at most 2 min/)).toBeDefined()
    await user.click(screen.getByRole('button', { name: /^End the wait/ }))
    expect(screen.queryByRole('list', { name: 'Waits' })).toBeNull()
  })
})
