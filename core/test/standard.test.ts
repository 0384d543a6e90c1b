import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { nextDraft, rulesThatCame, standardProblems } from '@pasado/core/rules/check-standard'
import { standardDifferences } from '@pasado/core/rules/difference'
import { figureWords, type FigureName } from '@pasado/core/policy/figures'
import { signedDigest } from '@pasado/core/record/seal'
import { hasHeld } from '@pasado/core/record/record'
import { allRules } from '@pasado/core/rules/all'
import { blocks } from '@pasado/core/rules/weigh'
import { sealHindrances } from '@pasado/core/rules/seal-hindrances'
import { standard, type Standard } from '@pasado/core/policy/standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { complete, idOf, someone } from '@pasado/testing/logbook'

const changed = (part: Partial<Standard>): Standard => ({ ...firstStandard, version: 2, ...part })
const house = {
  id: 'own-van',
  stage: 'handover' as const,
  level: 'must' as const,
  asks: 'Is the van locked?',
  photo: true
}

describe('the standard', () => {
  it('knows every rule, each by one id, and as it comes nothing is wrong with it', () => {
    expect(allRules).toHaveLength(75)
    expect(new Set(allRules.map(({ id }) => id)).size).toBe(75)
    expect(standardProblems(firstStandard)).toEqual([])
    // Its first version is under the seal of every visit of then: what came later is in the next one.
    expect(rulesThatCame(firstStandard).map(({ id }) => id)).toEqual(['brief-scope', 'waits-ended'])
    expect(rulesThatCame(nextDraft(firstStandard))).toEqual([])
    expect(standardDifferences(firstStandard, nextDraft(firstStandard))).toEqual([
      'What was done: not known → must',
      'Waits ended: not known → should'
    ])
  })

  it('a later version, a rule that is not there, a figure out of its range, an id used twice: each is named with its mend', () => {
    const wrong = (value: unknown) => standardProblems(value).map(({ path, message }) => `${path.join('.')} ${message}`)
    expect(wrong({ ...firstStandard, format: 'pasado.standard/2' })[0]).toContain('of a later version')
    expect(wrong(changed({ levels: { 'place-hight': 'must' } }))[0]).toContain(
      'levels.place-hight there is no such rule'
    )
    expect(wrong(changed({ rules: ['no-such-rule'] }))[0]).toContain('rules.0 there is no rule no-such-rule')
    expect(wrong(changed({ policy: { ...firstStandard.policy, roomDbm: -20 } }))[0]).toContain('policy.roomDbm')
    expect(wrong(changed({ policy: { ...firstStandard.policy, leastHeightM: 3 } }))[0]).toContain(
      'must not be above the greatest height'
    )
    expect(wrong(changed({ own: [house, house] }))[0]).toContain('own.1.id is used twice')
    expect(wrong(changed({ own: [{ ...house, asks: '' }] }))[0]).toContain('write the question')
    expect(wrong('nothing')[0]).toBeDefined()
  })

  it('says what changed, and nothing where nothing did, whatever the figures', () => {
    const names = Object.keys(figureWords) as FigureName[]
    fc.assert(
      fc.property(fc.constantFrom(...names), fc.double({ min: 0, max: 1, noNaN: true }), (name, at) => {
        const { least, most } = figureWords[name]
        const value = Math.round(least + at * (most - least))
        const next = changed({ policy: { ...firstStandard.policy, [name]: value } })
        if (!standard.safeParse(next).success) return
        const said = standardDifferences(firstStandard, next)
        expect(said.length).toBe((firstStandard.policy[name] ?? undefined) === value ? 0 : 1)
        if (said.length) expect(said[0]).toContain(figureWords[name].name)
      })
    )
    expect(standardDifferences(firstStandard, changed({ levels: { 'place-height': 'off' }, own: [house] }))).toEqual([
      'Height: should → not in force',
      'New rule of ours: Is the van locked?'
    ])
    expect(standardDifferences(changed({ own: [house] }), changed({ own: [] }))).toEqual([
      'Rule of ours taken out: Is the van locked?'
    ])
  })
})

describe('four eyes', () => {
  it('somebody else has to approve this very record', () => {
    const log = complete()
    const said = () =>
      sealHindrances(log.folded(), [], signedDigest(log.record()), true).filter((candidate) =>
        candidate.includes('approve')
      )
    expect(said()).toEqual(['somebody else has to approve it: ask a lead to look'])
    const approve = (by: typeof someone) =>
      log.write('review.approved', { remark: '', digest: signedDigest(log.record()) }, { by })
    approve(someone)
    expect(said()).toHaveLength(1)
    approve({ ...someone, id: idOf('lead'), role: 'lead' })
    expect(said()).toEqual([])
    log.write('brief.set', { set: { phone: '555-0100' } })
    expect(said()).toEqual(['the record changed after it was approved: ask a lead to look again'])
    expect(sealHindrances(log.folded(), [], signedDigest(log.record())).join()).not.toContain('approve')
  })
})

describe('a rule of the house', () => {
  const own = changed({ own: [house] })
  it('is unproven until answered, breaks on no, wants its photo, and then holds', () => {
    const log = complete()
    const judge = () => log.judge('own-van', own)[0]!
    expect(judge()).toMatchObject({ outcome: 'unproven', name: 'Is the van locked?', stage: 'handover' })
    expect(blocks(judge())).toBe(true)
    log.write('rule.answered', { rule: 'own-van', answer: 'no' })
    expect(judge().outcome).toBe('breaks')
    log.write('rule.answered', { rule: 'own-van', answer: 'yes' })
    expect(judge()).toMatchObject({ outcome: 'unproven', evidence: expect.stringContaining('no photo') })
    log.write('photo.added', {
      ref: idOf('pic'),
      about: { thing: 'rule', id: 'own-van' },
      caption: null,
      label: false,
      width: 10,
      height: 10,
      octets: 100,
      sha256: 'a'.repeat(64)
    })
    expect(judge().outcome).toBe('holds')
    expect(log.judge('own-van')).toEqual([])
  })

  it('a visit that was handed on stands with who goes on, and neither of them approves it', () => {
    const log = complete()
    const first = log.record().visit.technician
    const second = { id: idOf('second'), name: 'Corin Saltway' }
    log.write('visit.handed', { technician: second, reason: 'She is ill.' })
    expect(log.record().visit).toMatchObject({ technician: second, before: [first] })
    expect([first.id, second.id, idOf('third')].map((person) => hasHeld(log.record(), person))).toEqual([
      true,
      true,
      false
    ])
    log.write('visit.handed', { technician: first, reason: 'She is well.' })
    expect(log.record().visit).toMatchObject({ technician: first, before: [second] })
  })

  it('an open visit that is moved is judged by the version it was moved to', () => {
    const record = complete()
      .write('standard.moved', { standard: { id: 'house', version: 2 } })
      .record()
    expect(record.visit.standard).toEqual({ id: 'house', version: 2 })
  })
})
