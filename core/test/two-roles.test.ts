import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { catalogueOf, roles, type Model } from '@pasado/core/catalogue/model'
import { standing } from '@pasado/core/record/record'
import { alsoRoles } from '@pasado/core/record/roles'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { cautionsOf } from '@pasado/core/rules/cautions'
import { evaluate, type Finding } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { runAsOne } from '@pasado/core/work/units/run-as-one'
import { catalogue as known, idOf, opened, router, type Log } from '@pasado/testing/logbook'
import { outcomeCases } from './outcome-cases'
import { cases as visitCases } from './rule-cases'

/** The same models, each of which can be anything. */
const catalogue = catalogueOf([...known.values()].map((model): Model => ({ ...model, roles: [...roles] })))
const standard = nextDraft(firstStandard)
const adapter = idOf('adapter')
const judge = (log: Log) => evaluate(log.folded(), catalogue, standard)
const said = (log: Log, rule: string, subject: string) =>
  judge(log).find((finding) => finding.rule === rule && finding.subject?.id === subject)

/** A rule may speak of one unit twice: of each of its bands. */
const keyOf = ({ rule, subject }: Finding) => `${rule} ${subject?.id} ${subject?.name}`

/** A powerline adapter that sends Wi-Fi: an extender by its radios, as its model says. */
const adapterAs = (facts: Record<string, unknown>) =>
  opened().write('unit.set', {
    id: adapter,
    set: { name: 'Barn adapter', model: 'quillet-reed', modelVersion: 1, role: 'powerline-adapter', ...facts }
  })

describe('a unit with two roles', () => {
  it('has the duties of both: somebody is seen on it, and its outlet is looked at', () => {
    const alone = adapterAs({})
    expect(said(alone, 'prove-path', adapter)).toBeUndefined()
    const both = adapterAs({ alsoRole: 'access-point' })
    expect(said(both, 'prove-path', adapter)?.outcome).toBe('unproven')
    expect(said(both, 'place-outlet', adapter)?.outcome).toBe('unproven')
    expect(cautionsOf(both.record(), catalogue).map(({ id }) => id)).toContain('powerline')
  })

  it('leads what it runs, where it is the controller as well', () => {
    const log = opened()
      .write('unit.set', { id: router, set: { model: 'ostrel-heron', modelVersion: 1, role: 'gateway' } })
      .write('unit.set', {
        id: adapter,
        set: { model: 'tolvane-spindle', modelVersion: 1, role: 'access-point', method: 'adoption' }
      })
    const groups = () => {
      const units = standing(log.record().units).map((unit) => ({
        unit,
        name: unit.id,
        model: known.get(`${unit.facts.model}@1`)!
      }))
      return runAsOne(units, units[1]!).map(({ name }) => name)
    }
    expect(groups()).toEqual([adapter])
    log.write('unit.set', { id: router, set: { alsoRole: 'controller' } })
    expect(groups()).toEqual([router, adapter])
  })

  it('can be both only where its model can, and where both go together', () => {
    expect(said(adapterAs({ alsoRole: 'access-point' }), 'kit-role', adapter)).toMatchObject({ outcome: 'holds' })
    expect(said(adapterAs({ alsoRole: 'modem' }), 'kit-role', adapter)).toMatchObject({
      outcome: 'breaks',
      place: { field: 'alsoRole' }
    })
    const cannot = evaluate(adapterAs({ role: 'extender', alsoRole: 'router' }).folded(), known, standard)
    expect(cannot.find(({ rule }) => rule === 'kit-role')).toMatchObject({
      outcome: 'breaks',
      evidence: 'Reed cannot be a router.'
    })
  })

  it('proves nothing that was not proven without the second', () => {
    const cases = [...visitCases, ...outcomeCases]
    const pairs = Object.entries(alsoRoles).flatMap(([role, others]) => others.map((other) => [role, other] as const))
    fc.assert(
      fc.property(fc.nat(cases.length - 1), fc.nat(), fc.constantFrom(...pairs), (which, at, [, also]) => {
        const [, , from, change] = cases[which]!
        const log = from()
        change(log)
        const units = standing(log.record().units)
        const unit = units[at % Math.max(1, units.length)]
        if (!unit) return
        const before = new Map(judge(log).map((finding) => [keyOf(finding), finding]))
        log.write('unit.set', { id: unit.id, set: { alsoRole: also } })
        const better = judge(log).filter((finding) => {
          const was = before.get(keyOf(finding))
          // What a controller runs is answered once: that was proven, and is.
          const isBorrowed = finding.evidence.includes('they are run as one')
          return (
            !isBorrowed &&
            finding.outcome === 'holds' &&
            was &&
            (was.outcome === 'unproven' || was.outcome === 'breaks')
          )
        })
        expect(better.map(({ rule, evidence }) => `${rule}: ${evidence}`)).toEqual([])
      }),
      { numRuns: Number(process.env.NEVER_BETTER_RUNS ?? 60) }
    )
  }, 600_000)
})
