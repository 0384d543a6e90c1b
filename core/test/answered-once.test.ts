import { describe, expect, it } from 'vitest'
import { carriedEntries } from '@pasado/core/record/carry-over'
import { blocks } from '@pasado/core/rules/weigh'
import { idOf, opened, type Log } from '@pasado/testing/logbook'

const [hall, loft, attic] = [idOf('hall point'), idOf('loft point'), idOf('attic point')]
const rules = [
  'cred-admin',
  'cred-local-admin',
  'cred-account',
  'wifi-pushbutton-off',
  'firm-updates',
  'start-prompts'
] as const

/** Three points of one mesh, on none of which anything was answered. */
const mesh = (log: Log = opened()): Log => {
  for (const [id, name] of [
    [hall, 'Hall point'],
    [loft, 'Loft point'],
    [attic, 'Attic point']
  ] as const)
    log.write('unit.set', {
      id,
      set: { name, model: 'fenmarrow-lattice-3', modelVersion: 1, role: id === hall ? 'router' : 'node' }
    })
  return log
}
const inTheWay = (log: Log, rule: string) =>
  log
    .judge(rule)
    .filter(blocks)
    .map(({ subject }) => subject?.name)

describe.each(rules)('%s, of a mesh', (rule) => {
  it('stands in the way once, at the point that leads', () => {
    expect(inTheWay(mesh(), rule)).toEqual(['Hall point'])
    expect(
      mesh()
        .judge(rule)
        .map(({ outcome }) => outcome)
    ).toEqual(['unproven', 'unproven', 'unproven'])
  })

  it('stands in the way of each where none leads or the one that leads is of no mesh', () => {
    const log = mesh()
    for (const id of [hall, loft, attic]) log.write('unit.set', { id, set: { role: 'access-point' } })
    expect(inTheWay(log, rule)).toHaveLength(3)
  })

  it('stands in the way of a new point where the one that leads stood there before and is not asked', () => {
    const before = mesh()
    for (const id of [loft, attic]) before.write('thing.removed', { thing: 'unit', id })
    const log = opened({ reason: 'add-node' })
    for (const { kind, body } of carriedEntries(before.record(), log.record().brief.facts))
      log.write(kind, body as never)
    for (const entry of log.entries) Object.assign(entry, { received: log.entries[0]!.received })
    log.write('unit.set', {
      id: loft,
      set: { name: 'Loft point', model: 'fenmarrow-lattice-3', modelVersion: 1, role: 'node' }
    })
    expect(inTheWay(log, rule)).toEqual(['Loft point'])
  })
})

describe('what differs on a member', () => {
  it('stands in the way by itself, beside what is open on the one that leads', () => {
    const log = mesh().write('unit.set', { id: loft, set: { remoteAdmin: 'on' } })
    expect(inTheWay(log, 'cred-local-admin')).toEqual(['Hall point', 'Loft point'])
  })

  it('tells whose answer holds for it', () => {
    const log = mesh().write('unit.set', { id: hall, set: { updates: 'automatic' } })
    expect(log.judge('firm-updates').map(({ evidence }) => evidence)).toEqual([
      'Updates automatic.',
      'Updates automatic, as for Hall point: they are run as one.',
      'Updates automatic, as for Hall point: they are run as one.'
    ])
  })
})
