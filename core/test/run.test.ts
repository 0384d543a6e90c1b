import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { drawnFrom, planVisit } from '@pasado/core/work/run/visit-plan'
import { durationKey } from '@pasado/core/work/run/duration-keys'
import { visitTasks, type VisitTask } from '@pasado/core/work/run/visit-tasks'
import { catalogue, complete, idOf, node, opened, router, study } from '@pasado/testing/logbook'

const now = Date.UTC(2026, 0, 5, 12)
const span = fc
  .tuple(fc.integer({ min: 0, max: 10 }), fc.integer({ min: 0, max: 10 }), fc.integer({ min: 0, max: 10 }))
  .map(([a, b, c]) => {
    const [least, usual, most] = [a, b, c].sort((x, y) => x - y) as [number, number, number]
    return { least, usual, most }
  })
const tasks = fc
  .array(
    fc.record({ handsOn: span, wait: fc.option(span, { nil: null }), after: fc.array(fc.nat(20), { maxLength: 3 }) }),
    { maxLength: 9 }
  )
  .map((list) =>
    list.map(({ after, ...rest }, at): VisitTask => ({
      id: `t${at}`,
      name: `Task ${at}`,
      stage: 'start',
      unit: null,
      from: 'usual',
      running: false,
      past: 0,
      atHand: [],
      ...rest,
      after: [...new Set(after.filter((value) => value < at))].map((value) => `t${value}`)
    }))
  )

describe('the plan of a visit', () => {
  it('half of all visits end by the likely end, nine in ten by the cautious one; both lie between the quickest and the slowest', () => {
    fc.assert(
      fc.property(tasks, (list) => {
        const plan = planVisit(list)
        const all = (pick: 'least' | 'most') =>
          list.reduce((sum, task) => sum + task.handsOn[pick] + (task.wait?.[pick] ?? 0), 0)
        expect(plan.likelyMin).toBeLessThanOrEqual(plan.cautiousMin)
        expect(plan.cautiousMin).toBeLessThanOrEqual(all('most') + 1e-9)
        expect(Object.keys(plan.start)).toHaveLength(list.length)
        // What is best done next is something that nothing stands before.
        const next = list.find(({ id }) => id === plan.next)
        if (next) expect([next.after, next.handsOn.usual > 0]).toEqual([[], true])
        expect(planVisit(list)).toEqual(plan)
      }),
      { numRuns: 40 }
    )
  })

  it('a duration is drawn between its least and its most, and more chance gives more', () => {
    fc.assert(
      fc.property(
        span,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (item, a, b) => {
          const [low, high] = [drawnFrom(item, Math.min(a, b)), drawnFrom(item, Math.max(a, b))]
          expect(low).toBeGreaterThanOrEqual(item.least - 1e-9)
          expect(high).toBeLessThanOrEqual(item.most + 1e-9)
          expect(low).toBeLessThanOrEqual(high + 1e-9)
        }
      )
    )
  })
})

describe('the tasks of a visit', () => {
  const ids = (record: ReturnType<ReturnType<typeof opened>['record']>, durations?: Parameters<typeof visitTasks>[3]) =>
    visitTasks(record, catalogue, now, durations)
  const fresh = () =>
    opened()
      .write('unit.set', {
        id: router,
        set: { name: 'Router', model: 'ostrel-heron', modelVersion: 1, role: 'router' }
      })
      .write('unit.set', { id: node, set: { name: 'Node', model: 'ostrel-tern', modelVersion: 1, role: 'node' } })

  it('run from unboxing to sign-off; a node starts after the router, and nothing comes after what is not there', () => {
    const found = ids(fresh().record())
    const at = (prefix: string) => found.findIndex(({ id }) => id.startsWith(prefix))
    expect(found.map(({ stage }) => stage)).toContain('prove')
    expect(at(`kit:${router}`)).toBe(0)
    const nodeFirst = found.find(({ id }) => id.startsWith(`step:${node}`))!
    expect(nodeFirst.after.some((id) => id.includes(router))).toBe(true)
    const known = new Set(found.map(({ id }) => id))
    for (const { after } of found) for (const id of after) expect(known.has(id)).toBe(true)
    expect(() => planVisit(found)).not.toThrow()
  })

  it('what is done is left out; a visit that is complete only has to be handed over and signed, and measured where it was not', () => {
    expect(ids(complete().record()).map(({ id }) => id)).toEqual(['handover', 'signoff'])
    expect(
      ids(
        complete()
          .write('room.set', { id: idOf('attic'), set: { name: 'Attic', listed: true } })
          .write('thing.removed', { thing: 'measurement', id: idOf('src') })
          .record()
      )
        .map(({ id, name }) => `${id} ${name}`)
        .slice(0, 2)
    ).toEqual(['source Measure at the source, by cable', 'rooms Measure one room'])
    expect(
      ids(complete().write('thing.removed', { thing: 'room', id: study }).record()).map(({ name }) => name)
    ).toContain('Measure every room')
  })

  it('a step that was seen is done, and no other with it', () => {
    const before = ids(fresh().record()).filter(({ id }) => id.startsWith(`step:${router}`)).length
    const after = ids(
      fresh()
        .write('unit.set', { id: router, set: { method: 'app' } })
        .write('method.step', { unit: router, method: 'app', step: 1, seen: true })
        .record()
    ).filter(({ id }) => id.startsWith(`step:${router}`)).length
    expect(after).toBe(before - 1)
  })

  it('a wait that runs takes no hands, and only what is left of it', () => {
    const task = `step:${router}:app:0`
    const log = fresh()
      .write('unit.set', { id: router, set: { method: 'app' } })
      .write(
        'wait.started',
        { id: idOf('w'), what: 'until starting', unit: router, task, usualMin: 10, mostMin: 30 },
        { at: new Date(now - 4 * 60_000).toISOString() }
      )
    expect(ids(log.record()).find(({ id }) => id === task)).toMatchObject({
      running: true,
      handsOn: { usual: 0 },
      wait: { usual: 6, most: 26 }
    })
    // A clock set back by a day does not make it longer.
    const back = fresh()
      .write('unit.set', { id: router, set: { method: 'app' } })
      .write(
        'wait.started',
        { id: idOf('w'), what: 'until starting', unit: router, task, usualMin: 10, mostMin: 30 },
        { at: new Date(now + 24 * 3600_000).toISOString() }
      )
    expect(ids(back.record()).find(({ id }) => id === task)).toMatchObject({ wait: { usual: 10, most: 30 } })
  })

  it('five past visits are more worth than the catalogue; four are not', () => {
    const key = durationKey('ostrel-heron', `step:${router}:app:0`)
    const wait = (count: number) =>
      ids(
        fresh()
          .write('unit.set', { id: router, set: { method: 'app' } })
          .record(),
        new Map([[key, { count, least: 2, usual: 3, most: 9 }]])
      ).find(({ id }) => id === `step:${router}:app:0`)
    expect(wait(5)).toMatchObject({ from: 'past visits', wait: { usual: 3 } })
    expect(wait(4)).toMatchObject({ from: 'catalogue' })
    expect(key).toBe('ostrel-heron step:app:0')
  })
})
