import { describe, expect, it } from 'vitest'
import { complete, idOf, type Log } from '@pasado/testing/logbook'

const study = (log: Log, dbm: number, downMbps: number, idleMs: number | null = 14) =>
  log.write('measurement.set', {
    id: idOf('mst'),
    set: { dbm, runs: [{ downMbps, ...(idleMs === null ? {} : { idleMs }) }] }
  })
const waive = (log: Log, rule: string) => log.write('waiver.granted', { rule, reason: 'Agreed with the customer.' })
const saidOf = (log: Log, rule: string) => log.judge(rule).map(({ outcome, lapsed }) => lapsed ?? outcome)

describe('what was let pass by its figures', () => {
  it.each<[string, [number, number, number | null], RegExp]>([
    ['as it was', [-72, 60, 14], /^waived$/],
    ['both better, and short still', [-70, 80, 14], /^waived$/],
    ['one is enough now', [-60, 80, 14], /^waived$/],
    ['weaker', [-73, 60, 14], /^Waived by .*, but when it was better: /],
    ['slower', [-72, 59, 14], /^Waived by .*, but when it was better: /],
    ['the latency falls short as well', [-70, 80, 40], /^Waived by .*, but when it was better: /],
    ['the latency was not measured', [-70, 80, null], /^Waived by .*, but of something else: /],
    ['all is enough', [-58, 210, 14], /^holds$/]
  ])('a room: %s', (_, [dbm, down, idle], said) => {
    const log = study(complete(), -72, 60)
    expect(saidOf(log, 'prove-rooms')[0]).toBe('breaks')
    waive(log, 'prove-rooms')
    expect(saidOf(study(log, dbm, down, idle), 'prove-rooms')[0]).toMatch(said)
  })

  it('where the source gives less as well, a slower room is not let pass though it is nearer to its floor', () => {
    const log = waive(study(complete(), -58, 60), 'prove-rooms')
    log.write('measurement.set', { id: idOf('src'), set: { runs: [{ downMbps: 70, idleMs: 9 }] } })
    expect(saidOf(study(log, -58, 55), 'prove-rooms')[0]).toMatch(/but when it was better/)
  })

  it('the source: as much or more is let pass, less is not', () => {
    const source = (log: Log, downMbps: number) =>
      log.write('measurement.set', { id: idOf('src'), set: { runs: [{ downMbps, idleMs: 9 }] } })
    const log = waive(source(complete(), 50), 'prove-source')
    expect(saidOf(log, 'prove-source')).toEqual(['waived'])
    expect(saidOf(source(log, 60), 'prove-source')).toEqual(['waived'])
    expect(saidOf(source(log, 49), 'prove-source')[0]).toMatch(/but when it was better: The source gives 50 of/)
  })
})
