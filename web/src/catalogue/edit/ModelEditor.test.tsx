import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import { render, cleanup } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'
import fc from 'fast-check'
import type { Model } from '@pasado/core/catalogue/model'
import { demoModels } from '@pasado/demo/models/all'
import { useSession } from '../../app/session'
import { ModelEditor } from './ModelEditor'
import { faultsOf, valueAt, withChange, withValue } from './draft'
import { answers, asked, json } from '../../../test/stage'
import { clearStores, inStore } from '../../../test/idb'

const user = userEvent.setup()
beforeEach(clearStores)

function edit(id: string, part: string, role: 'lead' | 'technician' = 'lead') {
  cleanup()
  asked.length = 0
  answers.clear()
  answers.set('/catalogue', json({ models: demoModels }))
  useSession.setState({ me: { id: 'x', login: 'wenna', name: 'Wenna Tarrow', role } })
  return render(
    <MemoryRouter initialEntries={[`/catalogue/${id}/edit?part=${part}`]}>
      <Routes>
        <Route path="/catalogue/new/edit" element={<ModelEditor />} />
        <Route path="/catalogue/:id/edit" element={<ModelEditor />} />
        <Route path="/catalogue/:id" element={<p>the model</p>} />
      </Routes>
    </MemoryRouter>
  )
}

const wrong = () => screen.getByRole('complementary', { name: 'What is wrong' }).textContent

describe('editing a model', () => {
  it('a lead adds a release; what is wrong is told at its field and in the list, and gone once mended', async () => {
    edit('ostrel-heron', 'firmware')
    await user.click(await screen.findByRole('button', { name: 'Add: release' }))
    expect(wrong()).toContain('firmware.releases[4].version')
    const row = screen.getByRole('listitem', { name: 'Release 5' })
    await user.type(within(row).getByRole('textbox', { name: 'Version' }), '3.2.0')
    await user.type(within(row).getByRole('textbox', { name: 'Installs from' }), '3.1.5')
    expect(wrong()).toContain('no release leads there')
    expect(screen.getByRole('button', { name: 'Publish …' })).toHaveProperty('disabled', true)
    await user.clear(within(row).getByRole('textbox', { name: 'Installs from' }))
    await user.type(within(row).getByRole('textbox', { name: 'Installs from' }), '3.1.0')
    expect(wrong()).toContain('Nothing is wrong')
  })

  it('before it is published the effect on open visits is shown; then it is sent as the next version', async () => {
    edit('ostrel-heron', 'identity')
    answers.set(
      '/models/effect',
      json({
        visits: [
          {
            visit: 'v',
            customer: 'c',
            street: '3 Toll Steps',
            technician: 'Corin Saltway',
            units: [
              { name: 'Router', version: 1, breaks: ['it is set up by the method app, which the model no longer has'] }
            ]
          }
        ]
      })
    )
    const twin = await screen.findByRole('textbox', { name: 'How it is told from its twin' })
    await user.clear(twin)
    await user.type(twin, 'Blue port.')
    await user.click(screen.getByRole('button', { name: 'Publish …' }))
    const sheet = await screen.findByRole('dialog')
    expect(await within(sheet).findByText(/1 of 1 could not be moved/)).toBeDefined()
    expect(sheet.textContent).toContain('3 Toll Steps')
    expect(sheet.textContent).toContain('Blue port.')
    answers.delete('/models/effect')
    answers.set('/models', json({ id: 'ostrel-heron', version: 2 }, 201))
    await user.click(within(sheet).getByRole('button', { name: 'Publish version 2' }))
    await waitFor(() =>
      expect(asked.at(-1)).toMatchObject({
        path: '/api/models',
        body: { model: { id: 'ostrel-heron', version: 2, twin: 'Blue port.' } }
      })
    )
    expect(await screen.findByText('the model')).toBeDefined()
    expect(inStore().size).toBe(0)
  })

  it('a draft outlives leaving the page, and is undone step by step', async () => {
    edit('ostrel-heron', 'identity')
    await user.type(await screen.findByRole('textbox', { name: 'Maker' }), 's')
    edit('ostrel-heron', 'identity')
    await waitFor(() => expect(screen.getByRole('textbox', { name: 'Maker' })).toHaveProperty('value', 'Ostrels'))
    await user.type(screen.getByRole('textbox', { name: 'Maker' }), '!')
    await user.click(screen.getByRole('button', { name: 'Undo' }))
    expect(screen.getByRole('textbox', { name: 'Maker' })).toHaveProperty('value', 'Ostrels')
    await user.click(screen.getByRole('button', { name: 'Begin again' }))
    expect(screen.getByRole('textbox', { name: 'Maker' })).toHaveProperty('value', 'Ostrel')
  })

  it('what a lamp does is chosen and seen, and moves are ticked', async () => {
    edit('ostrel-heron', 'lamps')
    const state = await screen.findByRole('listitem', { name: 'State 3' })
    await user.selectOptions(within(state).getByLabelText('Pattern of Status'), 'alternate')
    expect(within(state).getByRole('img', { name: 'blue and green, in turn' })).toBeDefined()
    await user.selectOptions(within(state).getByLabelText('Second colour of Status'), 'white')
    expect(within(state).getByRole('img', { name: 'blue and white, in turn' })).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'Moves' }))
    await user.click(screen.getByRole('checkbox', { name: 'from unpowered to starting' }))
    expect(wrong()).toContain('cannot be reached from unpowered')
  })

  it('a row taken out leaves the others’ numbers where they belong', async () => {
    edit('ostrel-heron', 'power')
    const speeds = () =>
      screen.getAllByRole('textbox', { name: 'Speed' }).map((element) => (element as HTMLInputElement).value)
    await screen.findByRole('button', { name: 'Take out: port 1' })
    expect(speeds()).toEqual(['2500', '1000', '1000'])
    await user.click(screen.getByRole('button', { name: 'Take out: port 1' }))
    expect(speeds()).toEqual(['1000', '1000'])
    const volts = screen.getByRole('textbox', { name: 'Volts' })
    await user.clear(volts)
    await user.type(volts, '1.05')
    expect(volts).toHaveProperty('value', '1.05')
    await user.type(volts, 'x')
    expect(screen.getByRole('alert').textContent).toBeTruthy()
  })

  it('every part of every model can be shown', async () => {
    for (const part of [
      'identity',
      'box',
      'power',
      'buttons',
      'lamps',
      'moves',
      'methods',
      'prompts',
      'radios',
      'firmware'
    ]) {
      edit('fenmarrow-lattice-3', part)
      expect((await screen.findByRole('complementary', { name: 'What is wrong' })).textContent).toContain(
        'Nothing is wrong'
      )
    }
  })

  it('a new model wants a name and something to connect before it can be published; others than leads are sent away', async () => {
    edit('new', 'identity')
    expect(await screen.findByRole('textbox', { name: 'Id' })).toBeDefined()
    expect(wrong()).toMatch(/maker.*is missing: who makes it.*name.*is missing.*ports.*is missing/)
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /^Publish/ }).disabled).toBe(true)
    edit('ostrel-heron', 'identity', 'technician')
    expect(await screen.findByText(/Only a lead edits the catalogue/)).toBeDefined()
  })
})

describe('a draft', () => {
  const anyModel = fc.constantFrom(...demoModels)

  it('with a state or lamp renamed has no new fault, whatever names it', () => {
    fc.assert(
      fc.property(anyModel, fc.nat(), (model, number) => {
        const at = number % model.states.length
        const renamed = withChange(model, ['states', at, 'state'], 'renamed-state')
        expect(faultsOf(renamed).faults).toEqual([])
        const lamp = number % model.lamps.length
        expect(faultsOf(withChange(renamed, ['lamps', lamp, 'id'], 'renamed-lamp')).faults).toEqual([])
      })
    )
  })

  it('a name that another has already is not spread: the two would be mixed up for good', () => {
    const model = demoModels.find(({ id }) => id === 'ostrel-heron')!
    const mixed = withChange(model, ['states', 1, 'state'], 'ready') as Model
    expect(mixed.moves).toEqual(model.moves)
    expect(faultsOf(mixed).faults.map(({ message }) => message)).toContain('the state ready is listed twice')
  })

  it('a value put at a path is read there, and nothing else changes', () => {
    fc.assert(
      fc.property(anyModel, fc.string(), (model, value) => {
        const next = withValue(model, ['power', 'plug'], value)
        expect(valueAt(next, ['power', 'plug'])).toBe(value)
        const { power: _a, ...rest } = next as Model
        const { power: _b, ...before } = model
        expect(rest).toEqual(before)
      })
    )
    expect(withValue({ a: { b: 1 } }, ['a', 'b'], undefined)).toEqual({ a: {} })
  })
})
