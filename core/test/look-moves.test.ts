import { describe, expect, it } from 'vitest'
import type { LampLook } from '@pasado/core/catalogue/look'
import { modelOf } from '@pasado/core/catalogue/model'
import { clockOfRestart, movedBy, notYet, passedThrough } from '@pasado/core/work/units/look-moves'
import { stepsDone } from '@pasado/core/work/units/method-steps'
import { catalogue, idOf, opened } from '@pasado/testing/logbook'

const gateway = idOf('gw')
const at = (minute: number, second = 0) => new Date(Date.UTC(2026, 0, 5, 12, minute, second)).toISOString()
const looks = (model: string, name: string): LampLook[] =>
  [...catalogue.values()].find(({ id }) => id === model)!.states.find(({ state }) => state === name)!.lamps
const begun = (model: string, method = 'activation') =>
  opened().write('unit.set', {
    id: gateway,
    set: { name: 'Gateway', model, modelVersion: 1, role: 'gateway', method }
  })
const known = (log: ReturnType<typeof begun>) => {
  const unit = log.record().units[gateway]!
  const model = modelOf(unit, catalogue)!
  return { unit, model, method: model.methods.find(({ id }) => id === unit.facts.method)! }
}

describe('a look', () => {
  it('begins the clock of the step that is under way, by the model’s own times, and not twice', () => {
    const log = begun('brackwater-l2').write('lamp.seen', { unit: gateway, lamps: looks('brackwater-l2', 'seeking') })
    const moves = movedBy(log.record(), catalogue, gateway, looks('brackwater-l2', 'training'), at(1))
    expect(moves).toMatchObject({
      ended: [],
      begins: { task: `step:${gateway}:activation:1`, what: 'until line up, logging in', usualMin: 15, mostMin: 30 }
    })
    log.write('wait.started', { id: idOf('w'), unit: gateway, ...moves.begins! }, { at: at(1) })
    expect(movedBy(log.record(), catalogue, gateway, looks('brackwater-l2', 'seeking'), at(2))).toEqual({
      ended: [],
      begins: null
    })
    // What the step was to show ends its wait, and what it goes through next has a clock of its own.
    expect(movedBy(log.record(), catalogue, gateway, looks('brackwater-l2', 'trained'), at(9))).toMatchObject({
      ended: [idOf('w')]
    })
    expect(movedBy(log.record(), catalogue, gateway, looks('brackwater-l2', 'well'), at(20))).toEqual({
      ended: [idOf('w')],
      begins: null
    })
  })

  it('begins the clock of its state where no step waits, and the next state ends that', () => {
    const log = begun('brackwater-c3')
      .write('method.step', { unit: gateway, method: 'activation', step: 0, seen: true })
      .write('method.step', { unit: gateway, method: 'activation', step: 1, seen: true })
    const { begins } = movedBy(log.record(), catalogue, gateway, looks('brackwater-c3', 'seeking'), at(1))
    expect(begins).toMatchObject({ task: `state:${gateway}:seeking`, usualMin: 3, mostMin: 15 })
    log
      .write('lamp.seen', { unit: gateway, lamps: looks('brackwater-c3', 'seeking') }, { at: at(1) })
      .write('wait.started', { id: idOf('w'), unit: gateway, ...begins! }, { at: at(1) })
    expect(movedBy(log.record(), catalogue, gateway, looks('brackwater-c3', 'seeking'), at(2)).ended).toEqual([])
    expect(movedBy(log.record(), catalogue, gateway, looks('brackwater-c3', 'activating'), at(4)).ended).toEqual([
      idOf('w')
    ])
  })

  it('that shows something further on passes what it goes through on its way, and never a step that may have been left out', () => {
    const log = begun('brackwater-l2').write('lamp.seen', { unit: gateway, lamps: looks('brackwater-l2', 'training') })
    const { unit, model, method } = known(log)
    expect(stepsDone(unit, model, method)).toEqual([false, false, false])
    expect(passedThrough(unit, model, method)).toBe(0)
    const trained = known(log.write('lamp.seen', { unit: gateway, lamps: looks('brackwater-l2', 'trained') }))
    expect(passedThrough(trained.unit, trained.model, trained.method)).toBe(1)
    // Online, the login may have been in it before: whoever entered it says so.
    const well = known(log.write('lamp.seen', { unit: gateway, lamps: looks('brackwater-l2', 'well') }))
    expect(passedThrough(well.unit, well.model, well.method)).toBe(2)
    const extender = opened()
      .write('unit.set', {
        id: gateway,
        set: { name: 'Loft', model: 'quillet-rush', modelVersion: 1, role: 'extender', method: 'app' }
      })
      .write('method.step', { unit: gateway, method: 'app', step: 0, seen: true })
      .write('method.step', { unit: gateway, method: 'app', step: 1, seen: true })
      .write('lamp.seen', { unit: gateway, lamps: looks('quillet-rush', 'well') })
    const carried = known(extender)
    expect(stepsDone(carried.unit, carried.model, carried.method)).toEqual([true, true, false])
    expect(passedThrough(carried.unit, carried.model, carried.method)).toBe(-1)
  })

  it('does a step that somebody did not see before', () => {
    const log = begun('brackwater-l2')
      .write('method.step', { unit: gateway, method: 'activation', step: 0, seen: false })
      .write('lamp.seen', { unit: gateway, lamps: looks('brackwater-l2', 'seeking') })
    const { unit, model, method } = known(log)
    expect(stepsDone(unit, model, method)).toEqual([true, false, false])
    const before = known(
      begun('brackwater-l2')
        .write('lamp.seen', { unit: gateway, lamps: looks('brackwater-l2', 'seeking') })
        .write('method.step', { unit: gateway, method: 'activation', step: 0, seen: false })
    )
    expect(stepsDone(before.unit, before.model, before.method)).toEqual([false, false, false])
  })
})

describe('the clock', () => {
  it('of a restart is the step’s that is next; of what has none, all that its table goes through until it is well', () => {
    const { unit, model } = known(begun('brackwater-l2'))
    expect(clockOfRestart(unit, gateway, model)).toMatchObject({ task: `step:${gateway}:activation:0`, mostMin: 10 })
    expect(clockOfRestart(null, gateway, model)).toEqual({
      what: 'until its lights settle',
      task: `restart:${gateway}`,
      usualMin: 16,
      mostMin: 45
    })
    expect(clockOfRestart(null, gateway, undefined)).toMatchObject({ usualMin: 3, mostMin: 5 })
  })

  it('tells who does not see it to wait, then that it takes long, then that it is late', () => {
    const log = begun('brackwater-l2').write(
      'wait.started',
      { id: idOf('w'), what: 'until trained', unit: gateway, usualMin: 15, mostMin: 30 },
      { at: at(0) }
    )
    const kindAt = (minute: number, second = 0) => {
      const { unit, model } = known(log)
      return notYet(log.record(), unit, model, Date.parse(at(minute, second)))?.kind
    }
    expect([kindAt(0, 4), kindAt(14, 59), kindAt(15), kindAt(29, 59), kindAt(30)]).toEqual([
      'wait',
      'wait',
      'long',
      'long',
      'late'
    ])
    log.write('wait.ended', { id: idOf('w') })
    expect(kindAt(0, 4)).toBeUndefined()
    log.write('lamp.seen', { unit: gateway, lamps: looks('brackwater-l2', 'training') }, { at: at(1) })
    expect([kindAt(2), kindAt(14), kindAt(31)]).toEqual(['wait', 'long', 'late'])
  })
})
