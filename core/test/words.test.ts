import { describe, expect, it } from 'vitest'
import { historyOf } from '@pasado/core/history/history'
import { wordProblem } from '@pasado/core/history/words'
import { emptyRecord } from '@pasado/core/record/reduce'
import { canonicalJson } from '@pasado/core/values/canonical'
import { firstStandard } from '@pasado/core/rules/first-standard'
import type { Author } from '@pasado/core/record/attribution'
import type { Draft } from '@pasado/core/record/entry'
import { complete, idOf, node, router, someone, type Log } from '@pasado/testing/logbook'

const corin: Author = { id: idOf('corin'), name: 'Corin Saltway', role: 'technician' }
const third: Author = { id: idOf('third'), name: 'Petroc Lunn', role: 'technician' }
const lead: Author = { id: idOf('wenna'), name: 'Wenna Tarrow', role: 'lead' }
const theirs = { from: idOf('theirs'), by: corin }

/** Corin moves the node while Isolde tests its link; neither knows of the other. */
function apart(change: (log: Log, more: object) => void = moved): { log: Log; change: string; proof: string } {
  const log = complete()
  const base = log.entries.length
  change(log, { ...theirs, base })
  log.write('unit.event', { unit: node, what: 'tested-good' }, { base, own: base })
  return { log, change: log.entries[base]!.id, proof: log.entries.at(-1)!.id }
}
const theirsFrom = (base: number) => ({ ...theirs, base })
const moved = (log: Log, more: object) => log.write('unit.event', { unit: node, what: 'moved' }, more)
const say = ({ log, change, proof }: ReturnType<typeof apart>, came: 'before' | 'after', by: Author = corin): Log =>
  log.write('order.said', { change, proof, came }, { by, from: idOf(by.name) })
const test = (log: Log, standard = firstStandard) =>
  log.judge('prove-after-move', standard).find(({ subject }) => subject?.id === node)!

describe('a change and a proof that did not know of each other', () => {
  it('leave it unproven, and say which lines they are', () => {
    const { log, change, proof } = apart()
    expect(test(log)).toMatchObject({ outcome: 'unproven', unordered: [{ change, proof }] })
    expect(test(log).evidence).toContain('which came first is not known')
    expect(test(complete())).not.toHaveProperty('unordered')
  })

  it.each([corin, someone])('%o, who was there, says that the change came before: it holds, by their word', (by) => {
    const finding = test(say(apart(), 'before', by))
    expect(finding).toMatchObject({ outcome: 'holds', byWordOf: [by.name] })
    expect(finding.evidence).toMatch(new RegExp(`By word of ${by.name}\\.$`))
    expect(finding).not.toHaveProperty('unordered')
  })

  it('says after: it was tested before, and has to be again', () => {
    const finding = test(say(apart(), 'after'))
    expect(finding.outcome).toBe('unproven')
    expect(finding.evidence).toBe('Study node was moved since, by the word of who was there.')
    expect(finding).not.toHaveProperty('unordered')
  })

  it('stays unproven where both speak and differ, until one says otherwise', () => {
    const pair = apart()
    say(pair, 'before', corin)
    say(pair, 'after', someone)
    expect(test(pair.log).outcome).toBe('unproven')
    expect(test(pair.log).evidence).toContain('those who were there differ')
    say(pair, 'before', someone)
    expect(test(pair.log)).toMatchObject({ outcome: 'holds', byWordOf: [corin.name, someone.name] })
  })

  it('is not moved by the word of who wrote neither', () => {
    for (const by of [third, lead]) expect(test(say(apart(), 'before', by)).outcome).toBe('unproven')
  })

  it('says nothing of any other proof, nor of what changes later', () => {
    const pair = apart()
    say(pair, 'before')
    const base = pair.log.entries.length
    moved(pair.log, { ...theirs, base })
    expect(test(pair.log).outcome).toBe('unproven')
    const other = apart()
    moved(other.log, { ...theirs, base: other.log.entries.length - 2 })
    expect(test(say(other, 'before')).outcome).toBe('unproven')
  })

  it('counts of a value as it does of a press, and the proof rests on that value from then on', () => {
    const pair = apart((log, more) => log.write('unit.set', { id: node, set: { place: 'garage' } }, more))
    expect(test(pair.log).outcome).toBe('unproven')
    say(pair, 'before')
    expect(test(pair.log)).toMatchObject({ outcome: 'holds', byWordOf: [corin.name] })
    pair.log.write('unit.set', { id: node, set: { place: 'study' } })
    expect(test(pair.log).outcome).toBe('unproven')
  })

  it('names nobody where it holds without their word', () => {
    const pair = apart()
    say(pair, 'before')
    pair.log.write('unit.event', { unit: node, what: 'tested-good' })
    expect(test(pair.log).outcome).toBe('holds')
    expect(test(pair.log)).not.toHaveProperty('byWordOf')
  })

  it('wants a lead to say the same, where the company does', () => {
    const strict = { ...firstStandard, policy: { ...firstStandard.policy, wordNeedsLead: true } }
    const pair = apart()
    say(pair, 'before')
    expect(test(pair.log, strict).outcome).toBe('unproven')
    expect(test(pair.log, strict).evidence).toContain('Corin Saltway says before, which a lead has to confirm')
    say(pair, 'after', lead)
    expect(test(pair.log, strict).outcome).toBe('unproven')
    say(pair, 'before', lead)
    expect(test(pair.log, strict)).toMatchObject({ outcome: 'holds' })
    // A lead by themselves was not there.
    const alone = apart()
    say(alone, 'before', lead)
    expect(test(alone.log, strict).outcome).toBe('unproven')
  })

  it('stands in the record from the first word on, and not before', () => {
    expect(canonicalJson(emptyRecord)).not.toContain('words')
    expect(complete().record()).not.toHaveProperty('words')
    const pair = apart()
    expect(say(pair, 'before').record().words).toMatchObject([
      { change: pair.change, proof: pair.proof, came: 'before' }
    ])
  })
})

describe('what was recorded after something was found', () => {
  const [shed, theirs] = [idOf('shed'), idOf('theirs router')]
  /** A node that was tested and measured on before anybody recorded the router that it hangs on. */
  const early = () => {
    const log = complete()
    // Nothing was updated.
    for (const { kind, body } of log.entries)
      if (kind === 'unit.set' && body.id === router) body.set.firmwareBefore = body.set.firmwareAfter!
    const late = log.entries.filter(({ body }) => (body as { id?: string }).id === router)
    log.entries.splice(0, log.entries.length, ...log.entries.filter((entry) => !late.includes(entry)), ...late)
    log.entries.forEach((entry, at) => Object.assign(entry, { seq: at + 1, base: at }))
    return log
  }
  const outcomes = (log: Log) =>
    Object.fromEntries(
      ['prove-after-move', 'prove-rooms', 'prove-source'].map((rule) => {
        const findings = log.judge(rule).filter(({ subject }) => rule !== 'prove-after-move' || subject?.id === node)
        return [rule, findings.map(({ outcome }) => outcome)]
      })
    )
  const all = (outcome: string) => ({
    'prove-after-move': [outcome],
    'prove-rooms': [outcome],
    'prove-source': [outcome]
  })

  it('may not have stood there: unproven, until somebody says that it did, once for all', () => {
    const log = early()
    expect(outcomes(log)).toEqual(all('unproven'))
    expect(test(log)).toMatchObject({
      evidence: 'Hall router was recorded since: whether it stood there then is not known.',
      recordedSince: [{ thing: 'unit', id: router }]
    })
    log.write('thing.stood', { thing: 'unit', id: router })
    expect(outcomes(log)).toEqual(all('holds'))
    expect(test(log)).not.toHaveProperty('recordedSince')
    expect(test(log)).toMatchObject({ byWordOf: [someone.name] })
    expect(test(log).evidence).toMatch(/By word of Isolde Marram\.$/)
    expect(log.record().stood).toMatchObject([{ thing: 'unit', id: router }])
  })

  it('is said of what was found before only', () => {
    const log = early().write('thing.stood', { thing: 'unit', id: router })
    const base = log.entries.length - 1
    // Tested by somebody who knew of neither.
    log.write('unit.event', { unit: node, what: 'tested-good' }, { ...theirsFrom(0), own: 0 })
    expect(test(log).outcome).toBe('holds')
    expect(base).toBeGreaterThan(0)
    log.write('unit.event', { unit: router, what: 'moved' })
    expect(test(log).outcome).toBe('unproven')
  })

  it('is not asked of a used unit that is called what stays later: it stood there as that', () => {
    const old = idOf('old router')
    const turned = complete()
    const used = turned.entries.splice(1)
    turned.write('unit.set', {
      id: old,
      set: { name: 'Old router', model: 'oldmere-weir', modelVersion: 1, used: true }
    })
    for (const { kind, body } of used) turned.write(kind, body)
    turned
      .write('thing.removed', { thing: 'unit', id: old })
      .write('stays.set', { id: old, set: { kind: 'router', name: 'Old router' } })
    expect(test(turned).evidence).not.toContain('recorded since')
  })

  it('counts of what stays as well, and not of what nothing goes through', () => {
    const log = complete().write('stays.set', { id: theirs, set: { kind: 'router', name: 'Their router' } })
    expect(outcomes(log)['prove-after-move']).toEqual(['unproven'])
    log.write('thing.stood', { thing: 'stays', id: theirs })
    expect(outcomes(log)['prove-after-move']).toEqual(['holds'])
    expect(outcomes(complete().write('stays.set', { id: theirs, set: { kind: 'printer', name: 'Printer' } }))).toEqual(
      all('holds')
    )
    const beside = complete().write('unit.set', {
      id: shed,
      set: { name: 'Shed node', model: 'ostrel-tern', modelVersion: 1, role: 'node' }
    })
    expect(outcomes(beside)['prove-after-move']).toEqual(['holds'])
  })
})

describe('a word is taken', () => {
  const problemOf = (pair: { log: Log; change: string; proof: string }, by: Author) =>
    wordProblem(
      historyOf(pair.log.entries),
      { body: { change: pair.change, proof: pair.proof, came: 'before' } } as Draft<'order.said'>,
      by
    )

  it('from who wrote one of the two, and from a lead who confirms it', () => {
    const pair = apart()
    expect([corin, someone].map((by) => problemOf(pair, by))).toEqual([null, null])
    expect(problemOf(pair, third)?.message).toContain('only who was there')
    expect(problemOf(pair, lead)?.message).toContain('only who was there')
    say(pair, 'before')
    expect(problemOf(pair, lead)).toBeNull()
  })

  it('of lines that are there, and did not know of each other', () => {
    const pair = apart()
    expect(problemOf({ ...pair, change: idOf('none') }, corin)?.field).toEqual(['change'])
    expect(problemOf({ ...pair, proof: idOf('none') }, corin)?.field).toEqual(['proof'])
    const [first, second] = pair.log.entries
    expect(problemOf({ ...pair, change: first!.id, proof: second!.id }, someone)?.message).toContain('is known')
  })
})
