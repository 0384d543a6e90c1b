import { describe, expect, it } from 'vitest'
import { inverseOf } from '@pasado/core/record/inverse'
import { complete, idOf, router, type Log } from '@pasado/testing/logbook'
import { channels } from './prove-rule-cases'

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

  it('the source: as much of a faster line is less of what is due, of a slower one more', () => {
    const paidFor = (speedDownMbps: number, downMbps: number) => {
      const log = complete().write('measurement.set', { id: idOf('src'), set: { runs: [{ downMbps, idleMs: 9 }] } })
      waive(log, 'prove-source').write('brief.set', { set: { speedDownMbps } })
      return saidOf(
        log.write('measurement.set', { id: idOf('src'), set: { runs: [{ downMbps: 60, idleMs: 9 }] } }),
        'prove-source'
      )[0]
    }
    expect(paidFor(320, 50)).toBe('waived')
    expect(paidFor(400, 50)).toMatch(/but when it was better: The source gives 50 of 300/)
    expect(paidFor(250, 60)).toBe('waived')
  })

  it('says how much of what was paid for is due', () => {
    const log = complete().write('measurement.set', { id: idOf('src'), set: { runs: [{ downMbps: 50, idleMs: 9 }] } })
    expect(log.judge('prove-source').map(({ evidence }) => evidence)).toEqual([
      expect.stringMatching(/^The source gives 50 of 300 Mbit\/s paid for; at least [1-9]\d % is due\.$/)
    ])
  })
})

describe('what was let pass of one of several things that a rule says of a unit', () => {
  const [low, high] = [idOf('n0a'), idOf('n0b')]
  /** Both radios of the router on channels that are not allowed. */
  const both = () => {
    const log = complete()
    channels([6, 36, 80])(log)
    log.write('radio.set', { id: low, set: { channel: 14 } })
    return log.write('radio.set', { id: high, set: { channel: 14 } })
  }
  const ofRouter = (log: Log) => log.judge('radio-channel').filter(({ subject }) => subject?.id === router)
  const outcomes = (log: Log) => ofRouter(log).map(({ outcome }) => outcome)
  const [first, second] = ofRouter(both()).map(({ subject }) => subject!.name)
  const about = (named: string | undefined) => ({ rule: 'radio-channel', subject: router, named: named! })

  it('leaves the other as it is, and each is withdrawn for itself', () => {
    const log = both()
    expect(outcomes(log)).toEqual(['breaks', 'breaks'])
    log.write('waiver.granted', { ...about(first), reason: 'Their camera wants it.' })
    expect(outcomes(log)).toEqual(['waived', 'breaks'])
    log.write('waiver.granted', { ...about(second), reason: 'Their doorbell wants it.' })
    expect(ofRouter(log).map(({ granted }) => granted?.reason)).toEqual([
      'Their camera wants it.',
      'Their doorbell wants it.'
    ])
    log.write('waiver.withdrawn', about(first))
    expect(outcomes(log)).toEqual(['breaks', 'waived'])
  })

  it('is open again once the unit is called something else', () => {
    const log = both().write('waiver.granted', { ...about(first), reason: 'Their camera wants it.' })
    log.write('unit.set', { id: router, set: { name: 'Front router' } })
    expect(outcomes(log)).toEqual(['breaks', 'breaks'])
  })

  it('is put back by what undoes it', () => {
    const log = both().write('waiver.granted', { ...about(first), reason: 'Their camera wants it.' })
    const { kind, body } = inverseOf('waiver.granted', log.entries.at(-1)!.body, both().record())!
    log.write(kind, body as never)
    expect(log.record().waivers).toEqual({})
  })
})
