import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { docketOf } from '@pasado/core/agenda/docket'
import { docketRules } from '@pasado/core/rules/docket-rules'
import { evaluate } from '@pasado/core/rules/evaluate'
import { blocks } from '@pasado/core/rules/weigh'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { cases } from './rule-cases'
import { catalogue, complete, node, opened } from '@pasado/testing/logbook'

const docket = (log: ReturnType<typeof complete>) => {
  const findings = evaluate(log.folded(), catalogue, firstStandard)
  return { findings, ...docketOf(findings, docketRules) }
}

describe('the docket', () => {
  it('holds each thing that blocks once, whatever the visit, and what waits stands after what it waits for', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...cases.filter(([, , from]) => from === complete)), { maxLength: 5 }),
        (list) => {
          const log = complete()
          for (const [, , , change] of list) change(log)
          const { findings, groups, minutes } = docket(log)
          expect(groups.flatMap((group) => group.findings)).toHaveLength(findings.filter(blocks).length)
          expect(new Set(groups.flatMap((group) => group.findings)).size).toBe(findings.filter(blocks).length)
          expect(minutes).toBeGreaterThanOrEqual(groups.length)
          for (const [at, { after }] of groups.entries()) {
            if (after === null) continue
            const named = groups.findIndex(({ findings: held }) =>
              held.some(
                (finding) =>
                  `${finding.subject ? `${finding.subject.name}: ` : ''}${finding.name.toLowerCase()}` === after
              )
            )
            expect(named).toBeGreaterThanOrEqual(0)
            // In a circle somebody has to come first; there is none in the table as it stands.
            expect(named).toBeLessThan(at)
          }
        }
      ),
      { numRuns: 120 }
    )
  })

  it('what mends a unit stands together; a room is not proven before its unit stands where it stays', () => {
    const log = complete()
      .write('unit.set', { id: node, set: { place: null, heightM: 0.2 } })
      .write('unit.event', { unit: node, what: 'moved' })
    const { groups } = docket(log)
    const unit = groups.find(({ key }) => key === `unit ${node}`)!
    expect(unit.findings.map(({ rule }) => rule)).toEqual(expect.arrayContaining(['place-final', 'place-height']))
    const room = groups.find(({ findings }) => findings.some(({ rule }) => rule === 'prove-rooms'))!
    expect(room.after).toBe('Study node: final place')
    expect(groups.indexOf(unit)).toBeLessThan(groups.indexOf(room))
  })

  it('of a fresh visit it says about how long all of it takes', () => {
    expect(docket(opened()).minutes).toBeGreaterThan(5)
    expect(docketOf([], docketRules)).toEqual({ groups: [], minutes: 0 })
  })
})
