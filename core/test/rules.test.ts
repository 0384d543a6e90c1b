import { describe, expect, it } from 'vitest'
import { signedDigest } from '@pasado/core/record/seal'
import { ruleNames } from '@pasado/core/standard/rule-names'
import { allRules, blocks, evaluate, heaviestFirst, sealHindrances } from '@pasado/core/standard/evaluate'
import type { Outcome } from '@pasado/core/standard/rule'
import { firstStandard } from '@pasado/core/standard/standard'
import { catalogue, complete, home, idOf, node, router } from './fixture'
import { cases } from './rule-cases'

/** The heaviest outcome among a rule's findings. */
function heaviest(outcomes: Outcome[]): Outcome {
  return (['breaks', 'unproven', 'waived', 'holds', 'not-here'] as const).find((one) => outcomes.includes(one))!
}

describe('every rule', () => {
  it.each(cases)('%s: %s', (rule, _, from, change, outcome) => {
    const log = from()
    change(log)
    const findings = log.judge(rule)
    expect(heaviest(findings.map((one) => one.outcome)), JSON.stringify(findings.map(({ evidence }) => evidence))).toBe(outcome)
    for (const one of findings) {
      expect(one.evidence).toMatch(/\S.*[.!?]$/)
      if (one.outcome === 'breaks' || one.outcome === 'unproven') expect([one.mend !== '', one.place !== null]).toEqual([true, true])
    }
  })

  it('is tried above, has a name, and its own id', () => {
    expect(new Set(allRules.map(({ id }) => id)).size).toBe(allRules.length)
    expect(allRules.length).toBeGreaterThanOrEqual(25)
    for (const { id } of allRules) expect([id, ruleNames[id] !== undefined, cases.some(([rule]) => rule === id)]).toEqual([id, true, true])
  })
})

describe('levels, waivers and acknowledgements', () => {
  it('mixed models of one family are at should, and an acknowledgement lets them pass', () => {
    const log = complete()
    const [finding] = log.judge('kit-family')
    expect([finding!.level, blocks(finding!)]).toEqual(['should', true])
    log.write('rule.acknowledged', { rule: 'kit-family', reason: 'On purpose.' })
    expect(blocks(log.judge('kit-family')[0]!)).toBe(false)
  })

  it('a waiver for one subject leaves the others as they are', () => {
    const log = complete()
    for (const id of [router, node]) log.write('unit.set', { id, set: { firmwareAfter: '2.8.1' } })
    log.write('waiver.granted', { rule: 'firm-minimum', subject: node, reason: 'Later.' })
    expect(log.judge('firm-minimum').map(({ outcome }) => outcome)).toEqual(['breaks', 'waived'])
    log.write('waiver.withdrawn', { rule: 'firm-minimum', subject: node })
    expect(log.judge('firm-minimum').map(({ outcome }) => outcome)).toEqual(['breaks', 'breaks'])
  })

  it('a rule that is off says nothing', () => {
    expect(complete().judge('hand-choices', { ...firstStandard, levels: { 'hand-choices': 'off' } })).toEqual([])
  })

  it('the docket is heaviest first: breaks, then what is unproven, then what does not block', () => {
    const log = complete()
    log.write('host.set', { id: idOf('hx'), set: { name: 'Printer', segment: home, address: '192.168.1.20' } })
    const order = heaviestFirst(evaluate(log.record(), catalogue, firstStandard))
    expect(order[0]!.rule).toBe('addr-unique')
    const blocking = order.map(blocks)
    expect(blocking.lastIndexOf(true)).toBe(blocking.indexOf(false) - 1)
  })

  it('a signature goes stale with any later change, but not with the other signature', () => {
    const log = complete()
    const digest = signedDigest(log.record())
    log.write('signature.given', { who: 'customer', name: 'Cressa Oakum', strokes: 'M1 1 L2 2', digest })
    expect(signedDigest(log.record())).toBe(digest)
    log.write('unit.set', { id: node, set: { place: 'attic' } })
    expect(sealHindrances(log.record(), [], signedDigest(log.record()))).toContain('the record changed after the customer signed: sign again')
  })
})
