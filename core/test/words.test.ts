import { describe, expect, it } from 'vitest'
import { historyOf } from '@pasado/core/history/history'
import { wordProblem } from '@pasado/core/history/words'
import { emptyRecord } from '@pasado/core/record/reduce'
import { canonicalJson } from '@pasado/core/values/canonical'
import { firstStandard } from '@pasado/core/rules/first-standard'
import type { Author } from '@pasado/core/record/attribution'
import type { Draft } from '@pasado/core/record/entry'
import { complete, idOf, node, someone, type Log } from '@pasado/testing/logbook'

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
