import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import { demoModels } from '@pasado/demo/models/all'
import { Catalogue } from './Catalogue'
import { modelsInText } from './ImportModel'
import { ModelView } from './ModelView'
import { answers, json } from '../../test/stage'
import { view } from '../../test/view'

const user = userEvent.setup()
beforeEach(() => answers.clear())

describe('Catalogue', () => {
  const heron = demoModels.find(({ id }) => id === 'ostrel-heron')!
  const two = [...demoModels, { ...heron, version: 2 }]

  it('shows each model once, in its newest version, by maker and by role', async () => {
    answers.set('/catalogue', json({ models: two }))
    view(<Catalogue />, '/catalogue', '/catalogue')
    const models = await screen.findByRole('list', { name: 'Models' })
    await waitFor(() => expect(within(models).getAllByRole('link')).toHaveLength(demoModels.length))
    expect(within(models).getByRole('link', { name: /Ostrel Heron/ }).textContent).toContain('version 2')
    await user.type(screen.getByLabelText('Find a model'), 'quillet')
    await user.selectOptions(screen.getByLabelText('Can be'), 'extender')
    expect(
      within(models)
        .getAllByRole('link')
        .map((link) => link.getAttribute('href'))
    ).toEqual(['/catalogue/quillet-reed', '/catalogue/quillet-rush'])
    expect(screen.queryByRole('button', { name: 'Take in models' })).toBeNull()
  })

  it('a model acts out every one of its states', async () => {
    answers.set('/catalogue', json({ models: two }))
    view(<ModelView />, '/catalogue/:id', '/catalogue/quillet-reed')
    const front = await screen.findByRole('group', { name: 'Front of Reed' })
    const reed = demoModels.find(({ id }) => id === 'quillet-reed')!
    for (const state of reed.states) {
      await user.click(
        within(screen.getByRole('group', { name: 'States and moves' })).getByRole('button', {
          name: new RegExp(`^${state.meaning}`)
        })
      )
      expect(within(front).queryAllByRole('img', { name: 'may do anything' })).toHaveLength(
        reed.lamps.length - state.lamps.length
      )
      expect(document.body.textContent).toContain(`${state.action}.`)
    }
  })

  it('an older version can be looked at', async () => {
    answers.set('/catalogue', json({ models: two }))
    view(<ModelView />, '/catalogue/:id', '/catalogue/ostrel-heron')
    await user.selectOptions(await screen.findByLabelText('Version'), '1')
    expect(screen.getByLabelText('Version')).toHaveProperty('value', '1')
    view(<ModelView />, '/catalogue/:id', '/catalogue/none')
    expect(await screen.findByText(/The catalogue has no such model/)).toBeDefined()
  })

  it('a text that is no model, or one with faults, is told line by line', () => {
    expect(modelsInText('{').faults).toEqual([expect.stringContaining('not well-formed')])
    expect(modelsInText('{}').faults.length).toBeGreaterThan(5)
    expect(modelsInText(JSON.stringify({ ...heron, start: 'asleep' })).faults).toContain(
      'start: no state of this model is called asleep'
    )
    expect(modelsInText(JSON.stringify(heron))).toMatchObject({ faults: [], models: [{ id: 'ostrel-heron' }] })
  })
})
