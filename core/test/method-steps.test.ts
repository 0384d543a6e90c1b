import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { runningWaits, waitsEndedBy } from '@pasado/core/work/units/ended-waits'
import { pairingStep, stepsDone } from '@pasado/core/work/units/method-steps'
import type { Facts } from '@pasado/core/record/facts'
import { readLampsAt } from '@pasado/core/work/units/unit-lamps'
import { demoModels } from '@pasado/demo/models/all'
import { catalogue, idOf, opened, type Log } from '@pasado/testing/logbook'

const unit = idOf('unit')
const modelOf = (id: string) => demoModels.find((demoModel) => demoModel.id === id)!
const begin = (model: string, role: Facts<'unit'>['role']) =>
  opened().write('unit.set', { id: unit, set: { name: 'Unit', model, modelVersion: 1, role: role } })
const done = (log: Log, model: string, method: string) =>
  stepsDone(
    log.record().units[unit]!,
    modelOf(model),
    modelOf(model).methods.find(({ id }) => id === method)!
  )
const seeing = (log: Log, model: string, state: string) =>
  log.write('lamp.seen', { unit, lamps: modelOf(model).states.find((candidate) => candidate.state === state)!.lamps })
const press = (log: Log, model: string, method: string, step: number) => {
  const { expect: state } = modelOf(model).methods.find(({ id }) => id === method)!.steps[step]!
  log.write('method.step', { unit, method, step, seen: true })
  return state === undefined ? log : seeing(log, model, state)
}

describe('the steps of a method', () => {
  it('are done one by one: what is pressed at one marks no other, in whatever model and method', () => {
    const ways = demoModels.flatMap((model) =>
      model.methods.map(({ id, steps }) => [model.id, id, steps.length] as const)
    )
    for (const [model, method, count] of ways) {
      for (let at = 0; at < count; at++) {
        const marked = done(press(begin(model, 'router'), model, method, at), model, method)
        expect([model, method, at, marked]).toEqual([model, method, at, marked.map((_, step) => step === at)])
      }
    }
  })

  it('a bare reset and the lamps after it do no conversion', () => {
    const model = 'oldmere-weir'
    const log = begin(model, 'access-point').write('unit.event', { unit, what: 'reset' })
    for (const { state } of modelOf(model).states.filter(({ good }) => good)) seeing(log, model, state)
    expect(done(log, model, 'access-point').slice(1)).not.toContain(true)
  })

  it('a look that comes in its turn does the step, one that came before it does not', () => {
    const model = 'ostrel-tern'
    const { steps } = modelOf(model).methods.find(({ id }) => id === 'push-button')!
    const last = steps.length - 1
    expect(done(seeing(begin(model, 'node'), model, steps[last]!.expect!), model, 'push-button')).not.toContain(true)
    const log = seeing(begin(model, 'node'), model, steps[0]!.expect!)
    expect(done(log, model, 'push-button')[0]).toBe(true)
    expect(done(log.write('unit.event', { unit, what: 'reset' }), model, 'push-button')[0]).toBe(false)
  })

  it('lamps that alternate are the same in either order, and dark is dark in every colour', () => {
    const tern = modelOf('ostrel-tern')
    const model = {
      ...tern,
      states: tern.states.map((state) =>
        state.state === 'ready'
          ? { ...state, lamps: [{ lamp: 'status', colour: 'white/blue', pattern: 'alternate' as const }] }
          : state
      )
    }
    const method = { ...tern.methods[0]!, steps: [{ do: 'Wait', expect: 'ready' }] }
    const record = begin('ostrel-tern', 'node')
      .write('lamp.seen', { unit, lamps: [{ lamp: 'status', colour: 'blue/white', pattern: 'alternate' }] })
      .record()
    expect(stepsDone(record.units[unit]!, model, method)).toEqual([true])
  })

  it('the presses stand at the step that speaks of them', () => {
    const at = demoModels.flatMap((model) =>
      model.methods
        .filter(({ kind }) => kind === 'push-button')
        .map((method) => [model.id, method.steps[pairingStep(model, method)]!.do])
    )
    expect(at.length).toBeGreaterThan(2)
    for (const [, words] of at) expect(words).toMatch(/press/i)
    expect(
      pairingStep(
        modelOf('ostrel-heron'),
        modelOf('ostrel-heron').methods.find(({ kind }) => kind !== 'push-button')!
      )
    ).toBe(-1)
  })
})

describe('what was seen so far', () => {
  it('stays what it was, whatever happens to the unit afterwards', () => {
    const model = modelOf('ostrel-heron')
    const log = begin('ostrel-heron', 'router')
    const states = model.states.filter(({ lamps }) => lamps.length > 0).map(({ state }) => state)
    fc.assert(
      fc.property(
        fc.array(fc.oneof(fc.constantFrom(...states), fc.constantFrom('restarted', 'reset', 'updated', 'moved')), {
          maxLength: 12
        }),
        fc.constantFrom('restarted', 'reset', 'updated', 'powered'),
        (steps, after) => {
          const log = begin('ostrel-heron', 'router')
          for (const step of steps) {
            if (states.includes(step)) seeing(log, model.id, step)
            else log.write('unit.event', { unit, what: step as 'moved' })
          }
          const readings = () => {
            const held = log.record().units[unit]!
            return held.sightings.map((_, at) => readLampsAt(held, model, at).state?.state ?? null)
          }
          const before = readings()
          log.write('unit.event', { unit, what: after })
          expect(readings()).toEqual(before)
        }
      ),
      { numRuns: 100 }
    )
    expect(log.record().units[unit]!.sightings).toEqual([])
  })
})

describe('waits', () => {
  const wait = (log: Log, task?: string, what = 'until starting') =>
    log.write('wait.started', { id: idOf('w'), what, unit, usualMin: 2, mostMin: 5, ...(task ? { task } : {}) })
  const over = (log: Log, state: string) =>
    waitsEndedBy(
      log.record(),
      catalogue,
      unit,
      modelOf('ostrel-tern').states.find((candidate) => candidate.state === state)!.lamps,
      '2026-01-05T12:00:00Z'
    )
  const good = modelOf('ostrel-tern').states.find((state) => state.good)!.state

  it('end with the lamp that they were for, or with one that says all is well', () => {
    const { steps } = modelOf('ostrel-tern').methods.find(({ id }) => id === 'push-button')!
    expect(over(wait(begin('ostrel-tern', 'node'), `step:${unit}:push-button:0`), steps[0]!.expect!)).toEqual([
      idOf('w')
    ])
    expect(over(wait(begin('ostrel-tern', 'node')), good)).toEqual([idOf('w')])
    expect(over(wait(begin('ostrel-tern', 'node')), steps[0]!.expect!)).toEqual([])
  })

  it('of a press to come, of an install and of another unit go on', () => {
    expect(over(wait(begin('ostrel-tern', 'node'), undefined, 'pairing window'), good)).toEqual([])
    expect(over(wait(begin('ostrel-tern', 'node'), `update:${unit}`), good)).toEqual([])
    expect(
      over(
        begin('ostrel-tern', 'node').write('wait.started', {
          id: idOf('w'),
          what: 'until starting',
          usualMin: 1,
          mostMin: 2
        }),
        good
      )
    ).toEqual([])
  })

  it('run no more once the visit is sealed', () => {
    const record = wait(begin('ostrel-tern', 'node')).record()
    expect([
      runningWaits(record).length,
      runningWaits({ ...record, seal: {} as NonNullable<typeof record.seal> }).length
    ]).toEqual([1, 0])
  })
})
