import { describe, expect, it } from 'vitest'
import { fold } from '@pasado/core/history/fold'
import type { Placed } from '@pasado/core/record/entry'
import { becauseOf, heldAgainstLines, ofOneRule } from '@pasado/core/rules/because'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { evaluate, type Finding } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { catalogue, complete, idOf, mixed, network, node, opened, router, type Log } from '@pasado/testing/logbook'

const standard = nextDraft(firstStandard)
const findingsOf = (log: Log) => evaluate(log.folded(), catalogue, standard)
const found = (log: Log, rule: string, subject?: string): Finding =>
  findingsOf(log).find((finding) => finding.rule === rule && (!subject || finding.subject?.id === subject))!
const because = (log: Log, finding: Finding) => becauseOf(log.entries, finding, catalogue, standard)
const kindsOf = (log: Log, finding: Finding) => because(log, finding)!.map((seq) => log.entries[seq - 1]!.kind)

/** The lines of a logbook that are kept, with others that say nothing in the place of those that are not. */
const only = (entries: readonly Placed[], kept: readonly number[]): Placed[] =>
  entries.map((entry) =>
    entry.seq === 1 || kept.includes(entry.seq)
      ? { ...entry }
      : { ...entry, kind: 'secret.shown', body: { ref: idOf('none'), why: 'checking it' } }
  )
const saysOf = (entries: Placed[], { rule, subject }: Finding) => {
  const said = evaluate(fold(entries), catalogue, ofOneRule(rule, standard)).find(
    (finding) => finding.rule === rule && finding.subject?.id === subject?.id
  )
  return said && [said.outcome, said.evidence]
}

describe('the lines that a finding rests on', () => {
  it('are enough for it, and each is needed, whatever it says', () => {
    for (const log of [complete(), mixed(), opened({ reason: 'new' })])
      for (const finding of findingsOf(log)) {
        const lines = because(log, finding)!
        const said = [finding.outcome, finding.evidence]
        expect([finding.rule, saysOf(only(log.entries, lines), finding)]).toEqual([finding.rule, said])
        if (lines[0] === 1) continue
        for (const line of lines)
          expect([
            finding.rule,
            line,
            saysOf(
              only(
                log.entries,
                lines.filter((other) => other !== line)
              ),
              finding
            )
          ]).not.toEqual([finding.rule, line, said])
      }
  })

  it('are the look, the test, the answer that proves it, with what it is about', () => {
    const log = complete()
    expect(kindsOf(log, found(log, 'start-good-lamp', router))).toEqual(['unit.set', 'lamp.seen'])
    expect(kindsOf(log, found(log, 'wifi-passphrase', network))).toEqual(['network.set', 'secret.kept'])
    expect(kindsOf(log, found(log, 'start-method-window', node))).toEqual([
      'unit.set',
      'pairing.pressed',
      'pairing.pressed'
    ])
  })

  it('of two that would do are the newer', () => {
    const log = complete()
    const [, look] = because(log, found(log, 'start-good-lamp', router))!
    const { kind, body } = log.entries[look! - 1]!
    log.write(kind, body)
    expect(because(log, found(log, 'start-good-lamp', router))!.at(-1)).toBe(log.entries.length)
  })

  it('that are named for verdicts are held against them; what another program says is told apart', () => {
    const log = complete()
    const verdicts = findingsOf(log)
    const lines = verdicts.map((finding) => because(log, finding))
    const hold = (named: typeof lines, said = verdicts) =>
      heldAgainstLines(log.entries, said, named, catalogue, standard)
    expect(hold(lines)).toEqual({ borne: lines.filter((some) => some !== null).length, wrong: [], saidOtherwise: 0 })
    const at = verdicts.findIndex(({ rule }) => rule === 'prove-path')
    expect(hold(lines.with(at, [2])).wrong).toEqual([at])
    expect(hold(lines.with(at, null)).wrong).toEqual([])
    expect(hold(lines, verdicts.with(at, { ...verdicts[at]!, evidence: 'As it was said then.' }))).toMatchObject({
      wrong: [],
      saidOtherwise: 1
    })
  })

  it('of what was proven once are the proof and the change after it', () => {
    const log = complete().write('unit.event', { unit: router, what: 'reset' })
    const finding = found(log, 'start-good-lamp', router)
    expect([finding.outcome, finding.wasProven]).toEqual(['unproven', true])
    expect(kindsOf(log, finding)).toEqual(['unit.set', 'lamp.seen', 'unit.event'])
  })

  it('of what is waived are the waiver as well', () => {
    const log = mixed().write('waiver.granted', { rule: 'kit-family', reason: 'Agreed with the customer.' })
    const finding = found(log, 'kit-family')
    expect(finding.outcome).toBe('waived')
    expect(kindsOf(log, finding)).toEqual(['unit.set', 'unit.set', 'unit.set', 'waiver.granted'])
    // What was looked at by the way has no say in what this program holds of the whole logbook.
    expect(found(log, 'kit-family')).toEqual(finding)
  })

  it('are the opening where nothing else is, and nothing of what the logbook does not say', () => {
    const log = opened({ customerName: 'Cressa Oakum', street: '6 Trawl Street', phone: '555-0101' })
    expect(because(log, found(log, 'brief-contact'))).toEqual([1])
    expect(because(log, { ...found(log, 'brief-contact'), evidence: 'Otherwise.' })).toBeNull()
    expect(becauseOf([], found(log, 'brief-contact'), catalogue, standard)).toBeNull()
  })
})
