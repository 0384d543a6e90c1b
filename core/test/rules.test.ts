import { describe, expect, it } from 'vitest'
import { signedDigest } from '@pasado/core/record/seal'
import { allRules } from '@pasado/core/rules/all'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { evaluate } from '@pasado/core/rules/evaluate'
import { blocks, heaviestFirst } from '@pasado/core/rules/weigh'
import { sealHindrances } from '@pasado/core/rules/seal-hindrances'
import type { Outcome } from '@pasado/core/rules/rule'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { catalogue, complete, home, idOf, node, opened, router, mixed, type Log } from '@pasado/testing/logbook'
import { allCases as cases } from './all-cases'
import { never } from './outcome-cases'
import { staleCases } from './stale-cases'

/** All that this program knows, with the figures of the first standard. */
const standardOfToday = nextDraft(firstStandard)

/** The heaviest outcome among a rule's findings. */
function heaviest(outcomes: Outcome[]): Outcome {
  return (['breaks', 'unproven', 'waived', 'holds', 'not-here'] as const).find((candidate) =>
    outcomes.includes(candidate)
  )!
}

describe('every rule', () => {
  it.each(cases)('%s: %s', (rule, _, from, change, outcome) => {
    const log = from()
    change(log)
    const all = evaluate(log.folded(), catalogue, standardOfToday)
    const findings = all.filter((finding) => finding.rule === rule)
    // No rule, this one or another, says in any visit of the cases what it never says.
    expect(all.filter(({ rule: judged, outcome: said }) => said !== 'waived' && never[said].includes(judged))).toEqual(
      []
    )
    expect(
      heaviest(findings.map((finding) => finding.outcome)),
      JSON.stringify(findings.map(({ evidence }) => evidence))
    ).toBe(outcome)
    for (const finding of findings) {
      expect(finding.evidence).toMatch(/\S.*[.!?]$/)
      if (finding.outcome === 'breaks' || finding.outcome === 'unproven')
        expect([finding.mend !== '', finding.place !== null]).toEqual([true, true])
    }
  })

  it.each(staleCases.filter(([, what]) => what.startsWith('proven, then changed')))(
    '%s: %s, which is told apart from what nobody proved',
    (rule, _, from, change) => {
      const log = from()
      expect(log.judge(rule, standardOfToday).some(({ wasProven }) => wasProven)).toBe(false)
      change(log)
      expect(log.judge(rule, standardOfToday).some(({ wasProven }) => wasProven)).toBe(true)
    }
  )

  it('is tried above, has a name, and its own id', () => {
    expect(new Set(allRules.map(({ id }) => id)).size).toBe(allRules.length)
    expect(allRules.length).toBeGreaterThanOrEqual(25)
    for (const { id, name, minutes } of allRules)
      expect([id, name !== '', minutes > 0, cases.some(([rule]) => rule === id)]).toEqual([id, true, true, true])
  })
})

it('a model that says between which heights it is put goes by that', () => {
  const said = (heightM: number | null, mount: { on: 'wall'; leastM?: number; mostM?: number }) => {
    const log = complete().write('unit.set', { id: node, set: { heightM } })
    const tern = { ...catalogue.get('ostrel-tern@1')!, mount }
    const findings = evaluate(log.folded(), new Map([...catalogue, ['ostrel-tern@1', tern]]), standardOfToday)
    return findings.find(({ rule, subject }) => rule === 'place-height' && subject?.id === node)?.outcome
  }
  expect(said(2.4, { on: 'wall', leastM: 2.2, mostM: 2.6 })).toBe('holds')
  expect(said(1.2, { on: 'wall', leastM: 2.2, mostM: 2.6 })).toBe('breaks')
  expect(said(2.7, { on: 'wall', mostM: 2.6 })).toBe('breaks')
  expect(said(0.1, { on: 'wall', mostM: 2.6 })).toBe('holds')
  expect(said(null, { on: 'wall', mostM: 2.6 })).toBe('unproven')
  expect(said(0.1, { on: 'wall' })).toBeUndefined()
})

describe('every outcome of every rule', () => {
  const sayable = ['holds', 'breaks', 'unproven', 'not-here'] as const

  it.each(allRules.map(({ id }) => id))('%s: each is met in some case, or is one that this rule never has', (id) => {
    const met = new Set(cases.filter(([rule]) => rule === id).map(([, , , , outcome]) => outcome))
    expect(sayable.filter((outcome) => !met.has(outcome))).toEqual(
      sayable.filter((outcome) => never[outcome].includes(id))
    )
  })

  it('what breaks or is unproven is waived by a waiver, with who and why, and comes back when it is withdrawn', () => {
    const tried = new Set<string>()
    for (const [rule, , from, change, outcome] of cases) {
      if ((outcome !== 'breaks' && outcome !== 'unproven') || tried.has(rule)) continue
      tried.add(rule)
      const log = from()
      change(log)
      log.write('waiver.granted', { rule, reason: 'Agreed with the customer.' })
      const waived = log.judge(rule, standardOfToday)
      expect([
        rule,
        waived.filter((finding) => finding.outcome === 'breaks' || finding.outcome === 'unproven')
      ]).toEqual([rule, []])
      expect(waived.find((finding) => finding.outcome === 'waived')!.granted).toMatchObject({
        kind: 'waived',
        reason: 'Agreed with the customer.'
      })
      log.write('waiver.withdrawn', { rule })
      expect(heaviest(log.judge(rule, standardOfToday).map((finding) => finding.outcome))).toBe(outcome)
    }
    expect(tried.size).toBe(
      allRules.filter(({ id }) => !never.breaks.includes(id) || !never.unproven.includes(id)).length
    )
  })
})

describe('a visit that did nothing', () => {
  const standard = { ...firstStandard, levels: Object.fromEntries(allRules.map(({ id }) => [id, 'off' as const])) }
  const told = (log: ReturnType<typeof opened>) =>
    sealHindrances(log.folded(), evaluate(log.folded(), catalogue, standard), '').filter(
      (candidate) => !candidate.includes('signed')
    )

  it('is not sealed, whatever a company switched off, until it says why', () => {
    expect(told(opened({ reason: 'new' }))).toEqual([expect.stringContaining('no unit is recorded')])
    expect(told(opened())).toEqual([expect.stringContaining('no unit is recorded')])
    expect(told(opened({ reason: 'new', noUnitReason: 'Nobody was at home.' }))).toEqual([])
    expect(told(complete())).toEqual([])
    expect(
      told(
        complete()
          .write('thing.removed', { thing: 'unit', id: router })
          .write('thing.removed', { thing: 'unit', id: node })
      )
    ).toHaveLength(1)
  })

  it('of a fault wants something found or measured', () => {
    const fault = () => opened({ reason: 'fault' })
    expect(told(fault())).toEqual([expect.stringContaining('nothing was found')])
    expect(
      told(fault().write('measurement.set', { id: idOf('src'), set: { at: 'source', runs: [{ downMbps: 90 }] } }))
    ).toEqual([])
  })
})

it('a unit that chooses its channel by itself and is made for no country in particular holds only where it is known what is permitted', () => {
  const forAnywhere = new Map(
    [...catalogue].map(([id, model]) => [
      id,
      { ...model, radios: model.radios.map((radio) => ({ ...radio, countries: [] })) }
    ])
  )
  const outcomes = (country: string | null) =>
    evaluate(complete().write('brief.set', { set: { country } }).folded(), forAnywhere, standardOfToday)
      .filter(({ rule }) => rule === 'radio-channel')
      .map(({ outcome }) => outcome)
  expect([...new Set(outcomes('GB'))]).toEqual(['holds'])
  for (const country of [null, 'ZZ', 'CN']) expect([...new Set(outcomes(country))]).toEqual(['unproven'])
})

describe('levels, waivers and acknowledgements', () => {
  /** A router whose one band is too wide. */
  const wide = (): Log => {
    const [, , from, change] = cases.find(([rule, what]) => rule === 'radio-channel' && what.startsWith('160 MHz'))!
    const log = from()
    change(log)
    return log
  }
  const ofRouter = (log: Log) =>
    log.judge('radio-channel').flatMap(({ subject, outcome }) => (subject?.id === router ? [outcome] : []))

  it('mixed models of one family are at should, and an acknowledgement lets them pass', () => {
    const log = mixed()
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

  it('a waiver covers the band that it was granted on, whichever of a unit’s it is, and leaves the others', () => {
    const log = wide()
    expect(ofRouter(log)).toEqual(['holds', 'breaks'])
    log.write('waiver.granted', { rule: 'radio-channel', subject: router, reason: 'Their camera wants it.' })
    expect(ofRouter(log)).toEqual(['holds', 'waived'])
    log.write('radio.set', { id: idOf('n0a'), set: { channel: 14 } })
    expect(ofRouter(log)).toEqual(['breaks', 'waived'])
  })

  it('a waiver of what is not recorded of one band does not cover the other, though both read alike', () => {
    const log = wide()
    log.write('radio.set', { id: idOf('n0b'), set: { channel: null } })
    log.write('waiver.granted', { rule: 'radio-channel', subject: router, reason: 'Their camera wants it.' })
    expect(ofRouter(log)).toEqual(['holds', 'waived'])
    log.write('radio.set', { id: idOf('n0a'), set: { channel: null } })
    expect(ofRouter(log)).toEqual(['unproven', 'waived'])
  })

  it('a rule that is off says nothing', () => {
    expect(complete().judge('hand-choices', { ...firstStandard, levels: { 'hand-choices': 'off' } })).toEqual([])
  })

  it('the docket is heaviest first: breaks, then what is unproven, then what does not block', () => {
    const log = complete()
    log.write('host.set', { id: idOf('hx'), set: { name: 'Printer', segment: home, address: '192.168.1.20' } })
    const order = heaviestFirst(evaluate(log.folded(), catalogue, standardOfToday))
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
    expect(sealHindrances(log.folded(), [], signedDigest(log.record()))).toContain(
      'the record changed after the customer signed: sign again'
    )
  })
})
