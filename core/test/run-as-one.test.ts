import { describe, expect, it } from 'vitest'
import type { Model, ModelState } from '@pasado/core/catalogue/model'
import { standing, unitName } from '@pasado/core/record/record'
import { dependsOnRole, isGoodFor, methodsFor } from '@pasado/core/work/units/good-look'
import type { KnownUnit } from '@pasado/core/work/units/known-unit'
import { canPair, factOf, runAsOne } from '@pasado/core/work/units/run-as-one'
import { demoModels } from '@pasado/demo/models/all'
import { idOf, opened, type Log } from '@pasado/testing/logbook'

const model = (id: string): Model => demoModels.find((candidate) => candidate.id === id)!
const add = (log: Log, name: string, of: string, facts: Record<string, unknown>) =>
  log.write('unit.set', { id: idOf(name), set: { name, model: of, modelVersion: 1, ...facts } })
const known = (log: Log): KnownUnit[] =>
  standing(log.record().units).map((unit) => ({ unit, model: model(unit.facts.model!), name: unitName(unit) }))
/** Whom each unit is run with, whoever leads first. */
const groups = (log: Log) => {
  const units = known(log)
  return Object.fromEntries(units.map((unit) => [unit.name, runAsOne(units, unit).map(({ name }) => name)]))
}

describe('what is run as one', () => {
  it('is a mesh of one family: its router first, whenever it was recorded; others by themselves', () => {
    const log = opened()
    add(log, 'loft', 'fenmarrow-lattice-3', { role: 'node' })
    add(log, 'hall', 'fenmarrow-lattice-3', { role: 'router' })
    add(log, 'study', 'ostrel-tern', { role: 'node' })
    add(log, 'landing', 'quillet-reed', { role: 'extender' })
    expect(groups(log)).toEqual({
      loft: ['hall', 'loft'],
      hall: ['hall', 'loft'],
      study: ['study'],
      landing: ['landing']
    })
  })

  it('is a controller with what it adopted; not what was set up otherwise, and nothing where there are two', () => {
    const log = opened()
    add(log, 'ceiling', 'tolvane-spindle', { role: 'access-point', method: 'adoption' })
    add(log, 'box', 'tolvane-distaff', { role: 'controller' })
    add(log, 'switch', 'tolvane-bobbin-8', { role: 'switch', method: 'adoption' })
    add(log, 'old', 'oldmere-weir', { role: 'access-point', method: 'own-page' })
    const all = ['box', 'ceiling', 'switch']
    expect(groups(log)).toEqual({ ceiling: all, box: all, switch: all, old: ['old'] })
    add(log, 'second', 'tolvane-distaff', { role: 'controller' })
    expect(groups(log)).toMatchObject({ ceiling: ['ceiling'], box: ['box'], second: ['second'] })
  })

  it('takes its own answer before that of whoever leads, and tells whose it is', () => {
    const log = opened()
    add(log, 'hall', 'fenmarrow-lattice-3', { role: 'router', updates: 'automatic', remoteAdmin: 'off' })
    add(log, 'loft', 'fenmarrow-lattice-3', { role: 'node', updates: 'managed' })
    const units = known(log)
    const [, loft] = units
    expect(factOf(units, loft!, 'updates')).toEqual({ value: 'managed', with: '' })
    expect(factOf(units, loft!, 'remoteAdmin')).toEqual({ value: 'off', with: ', as for hall: they are run as one' })
    expect(factOf(units, loft!, 'pushButton')).toEqual({ value: undefined, with: '' })
  })
})

it('pairing begins by a method, by a button that says so, or by one whose lamp shows it; by no other press', () => {
  const paired = demoModels.filter(canPair).map(({ id }) => id)
  expect(paired).toEqual(expect.arrayContaining(['ostrel-heron', 'brackwater-l2', 'oldmere-sluice', 'quillet-reed']))
  expect(['oldmere-weir', 'karstine-lintel', 'tolvane-spindle'].filter((id) => paired.includes(id))).toEqual([])
})

describe('a good state', () => {
  const state = (more: Partial<ModelState>) => ({
    state: 's',
    lamps: [],
    meaning: 'm',
    action: 'a',
    good: true,
    ...more
  })
  const as = (facts: object) => ({ facts }) as Parameters<typeof isGoodFor>[1]

  it('is good in every role, but where the model or what it works as says otherwise', () => {
    expect(isGoodFor(state({}), as({ role: 'node' }))).toBe(true)
    expect(isGoodFor(state({ good: false }), as({ role: 'node' }))).toBe(false)
    const leads = state({ goodAs: ['router'] })
    expect([isGoodFor(leads, as({ role: 'router' })), isGoodFor(leads, as({ role: 'node' }))]).toEqual([true, false])
    const asRouter = state({ is: 'as-router' })
    expect(isGoodFor(asRouter, as({ role: 'router' }))).toBe(true)
    expect(isGoodFor(asRouter, as({ role: 'access-point' }))).toBe(false)
    expect(isGoodFor(asRouter, as({ role: 'router', mode: 'access-point' }))).toBe(false)
    expect(isGoodFor(state({ is: 'as-access-point' }), as({ role: 'access-point' }))).toBe(true)
  })

  it('depends on a role where one of these is so', () => {
    const depending = [state({}), state({ is: 'good' }), state({ goodAs: ['node'] }), state({ is: 'as-access-point' })]
    expect(depending.map(dependsOnRole)).toEqual([false, false, true, true])
  })

  it('a point that leads is set up by the app alone, one that joins by either; where no role is recorded, by any', () => {
    const ways = (facts: object) => methodsFor(model('fenmarrow-lattice-3'), as(facts)).map(({ id }) => id)
    expect(ways({ role: 'router' })).toEqual(['app'])
    expect(ways({ role: 'node' })).toEqual(['push-button', 'app'])
    expect(ways({})).toEqual(['push-button', 'app'])
  })
})
