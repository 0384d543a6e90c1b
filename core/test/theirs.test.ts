import { describe, expect, it } from 'vitest'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { evaluate } from '@pasado/core/rules/evaluate'
import { catalogue, idOf, type Log } from '@pasado/testing/logbook'
import { beside, hallRouter, reed } from './stays-cases'

const main = idOf('main')
const copy = idOf('copy')
const standard = nextDraft(firstStandard)
const rules = ['wifi-name', 'wifi-security', 'wifi-passphrase', 'wifi-segment']
const said = (log: Log, subject = main) =>
  Object.fromEntries(
    evaluate(log.folded(), catalogue, standard)
      .filter((finding) => finding.rule.startsWith('wifi-') && finding.subject?.id === subject)
      .map(({ rule, outcome }) => [rule, outcome])
  )
const theirs = () => beside().write('network.set', { id: main, set: { stays: hallRouter } })

describe('a network that what stays sends', () => {
  it('has none of the duties of one of ours', () => {
    const ours = said(beside())
    expect(rules.map((rule) => ours[rule])).toEqual(['holds', 'holds', 'unproven', 'holds'])
    const now = said(theirs())
    expect(rules.map((rule) => now[rule])).toEqual(rules.map(() => 'not-here'))
  })

  it.each([
    ['its name', (log: Log) => log.write('network.set', { id: main, set: { ssid: 'Kittiwake' } })],
    ['its security', (log: Log) => log.write('network.set', { id: main, set: { security: 'wpa3' } })],
    [
      'its passphrase',
      (log: Log) =>
        log
          .secret('wifi-passphrase', 'network', main, { print: 'a' })
          .secret('wifi-passphrase', 'network', main, { print: 'b' })
    ]
  ])('is ours to answer for once this visit set %s', (_, set) => {
    const log = theirs()
    set(log)
    expect(Object.values(said(log))).not.toContain('not-here')
  })

  it('was not set anew where that was never so', () => {
    const log = theirs().write('network.set', { id: main, set: { ssid: 'Kittiwake' } })
    const slip = log.entries.at(-1)!
    log.write('network.set', { id: main, set: { ssid: 'Razorbill' } })
    log.write('slip.undone', { undoes: slip.id, kind: slip.kind, at: slip.at })
    expect(said(log)['wifi-name']).toBe('not-here')
  })

  it('is ours where what is said to send it was taken out, or sends nothing', () => {
    expect(said(theirs().write('thing.removed', { thing: 'stays', id: hallRouter }))['wifi-passphrase']).toBe(
      'unproven'
    )
    expect(said(theirs().write('stays.set', { id: hallRouter, set: { kind: 'printer' } }))['wifi-passphrase']).toBe(
      'unproven'
    )
  })

  it('lends its passphrase to what an extender of ours sends; its name is asked of us', () => {
    const log = theirs().write('network.set', {
      id: copy,
      set: { ssid: 'Razorbill', use: 'main', security: 'wpa2-aes', extender: reed }
    })
    expect(said(log, copy)).toMatchObject({ 'wifi-name': 'holds', 'wifi-passphrase': 'not-here' })
    log.secret('wifi-passphrase', 'network', copy, { score: 1 })
    expect(said(log, copy)['wifi-passphrase']).toBe('breaks')
  })

  it('does not stand for what a unit of ours sends: that is to be recorded as well', () => {
    const open = (log: Log) =>
      evaluate(log.folded(), catalogue, standard)
        .filter(({ rule, subject, outcome }) => rules.includes(rule) && subject === null && outcome === 'unproven')
        .map(({ evidence }) => evidence)
    expect(new Set(open(theirs()))).toEqual(
      new Set(['What Landing extender sends is not recorded: all that is recorded is theirs.'])
    )
    const copied = theirs().write('network.set', {
      id: copy,
      set: { ssid: 'Razorbill', use: 'main', security: 'wpa2-aes', extender: reed }
    })
    expect(open(copied)).toEqual([])
    expect(open(theirs().write('unit.set', { id: reed, set: { stayed: true } }))).toEqual([])
  })

  it('proves nothing of path or rooms: those are asked as before', () => {
    const judge = (log: Log) =>
      evaluate(log.folded(), catalogue, standard).flatMap(({ rule, subject, outcome }) =>
        rule.startsWith('wifi-') ? [] : [`${rule} ${subject?.id}: ${outcome}`]
      )
    expect(judge(theirs())).toEqual(judge(beside()))
  })
})
