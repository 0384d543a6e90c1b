import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { planOf, planWorks } from '@pasado/core/agenda/agenda'
import { planIf } from '@pasado/core/agenda/what-if'
import { nextOf } from '@pasado/core/agenda/planned'
import { docketOf, isBefore } from '@pasado/core/agenda/docket'
import { changesInOrder, updatesInOrder } from '@pasado/core/agenda/in-order'
import { worksOf } from '@pasado/core/agenda/works'
import { docketRules } from '@pasado/core/rules/docket-rules'
import { evaluate } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { blocks, weightOfFinding } from '@pasado/core/rules/weigh'
import { applyOrder } from '@pasado/core/work/configure/apply-order'
import { updateOrder } from '@pasado/core/work/configure/firmware-order'
import { upstreamOf } from '@pasado/core/work/configure/upstream'
import { catalogue, complete, idOf, node, opened, router } from '@pasado/testing/logbook'
import { cases } from './rule-cases'

const now = Date.UTC(2026, 0, 5, 12)
type Log = ReturnType<typeof complete>

const agendaOf = (log: Log) => {
  const folded = log.folded()
  const findings = evaluate(folded, catalogue, firstStandard)
  const works = worksOf({ folded, catalogue, findings, rules: docketRules, nowMs: now })
  return { folded, findings, works, agenda: planWorks(works) }
}

const fresh = () =>
  opened()
    .write('unit.set', {
      id: router,
      set: { name: 'Router', model: 'ostrel-heron', modelVersion: 1, role: 'router' }
    })
    .write('unit.set', { id: node, set: { name: 'Node', model: 'ostrel-tern', modelVersion: 1, role: 'node' } })

/** Things that happen at any visit, whatever stands in it. */
const happenings: ((log: Log) => Log)[] = [
  (log) => log.write('unit.set', { id: router, set: { firmwareBefore: '3.0.0', firmwareAfter: null } }),
  (log) => log.write('unit.set', { id: node, set: { firmwareBefore: '2.9.0', firmwareAfter: null } }),
  (log) => log.write('unit.event', { unit: node, what: 'moved' }),
  (log) => log.write('unit.event', { unit: router, what: 'reset' }),
  (log) => log.write('unit.set', { id: idOf('second'), set: { name: 'Second', model: 'ostrel-tern', role: 'node' } }),
  (log) => log.write('wait.started', { id: idOf('w'), what: 'pairing window', unit: node, usualMin: 2, mostMin: 2 }),
  (log) =>
    log.write('wait.started', {
      id: idOf('v'),
      what: 'until its lights settle',
      unit: router,
      usualMin: 3,
      mostMin: 5
    }),
  (log) => log.write('box.set', { id: idOf('kits'), set: { model: 'ostrel-heron', modelVersion: 1, kit: 'trio' } }),
  (log) => log.write('room.set', { id: idOf('attic'), set: { name: 'Attic', listed: true } }),
  (log) => log.write('rule.answered', { rule: 'addr-applied', answer: 'no' })
]

const anyVisit = fc
  .record({
    from: fc.constantFrom(fresh, complete),
    cases: fc.array(fc.constantFrom(...cases.filter(([, , start]) => start === complete)), { maxLength: 4 }),
    happenings: fc.array(fc.constantFrom(...happenings), { maxLength: 4 })
  })
  .map(({ from, cases: list, happenings: more }) => () => {
    const log = from()
    if (from === complete) for (const [, , , change] of list) change(log)
    for (const happen of new Set(more)) happen(log)
    return log
  })

describe('the one list of work', () => {
  it('whatever the visit: all views are of the same work, name the same figures and begin alike', () => {
    fc.assert(
      fc.property(anyVisit, (visit) => {
        const { folded, findings, works, agenda } = agendaOf(visit())
        const { record } = folded
        const ids = new Set(works.map(({ id }) => id))
        expect(ids.size).toBe(works.length)
        for (const { after } of works) for (const id of after) expect(ids).toContain(id)
        // Everything that stands in the way is settled by one work, and only that.
        const open = findings.filter(blocks)
        const settled = works.flatMap((work) => work.findings)
        expect(settled).toHaveLength(open.length)
        expect(new Set(settled)).toEqual(new Set(open))
        const groups = docketOf(works, docketRules, agenda.start)
        expect(groups.flatMap((group) => group.findings)).toHaveLength(open.length)
        // The docket and the plan are of the same minutes; what settles nothing that is asked is the plan's alone.
        const settling = works.filter(({ findings: of }) => of.length > 0)
        expect(groups.map(({ key }) => key).sort()).toEqual(settling.map(({ id }) => id).sort())
        expect(agenda.handsOnMin).toBeCloseTo(works.reduce((sum, { handsOn }) => sum + handsOn.usual, 0))
        expect(agenda.makespanMin).toBeGreaterThanOrEqual(agenda.handsOnMin - 1e-9)
        // What is next is the first of the plan that hands can begin, and of a list in order its first.
        const next = nextOf(agenda)
        const ready = agenda.works.filter(({ after, handsOn }) => after.length === 0 && handsOn.usual > 0)
        expect(next?.id).toBe(ready[0]?.id)
        const change = changesInOrder(applyOrder(record, catalogue), agenda.start).find(
          ({ id, kind, unit, applied }) =>
            !applied && (ids.has(`apply:${id}`) || (kind === 'firmware' && ids.has(`update:${unit}`)))
        )
        const planned = agenda.works.find(({ id }) => id.startsWith('apply:') || id.startsWith('update:'))
        if (change && planned && ids.has(`apply:${change.id}`) && planned.id.startsWith('apply:'))
          expect(planned.change).toBe(change.id)
        const [update] = updatesInOrder(updateOrder(record, catalogue).steps, agenda.start)
        if (update && next?.id.startsWith('update:') && works.some(({ id }) => id === `update:${update.unit.id}`))
          expect(next.id).toBe(`update:${update.unit.id}`)
      }),
      { numRuns: 80 }
    )
  })

  it('whatever the visit: nothing begins before what it waits for, and signing comes last', () => {
    fc.assert(
      fc.property(anyVisit, (visit) => {
        const { works, agenda } = agendaOf(visit())
        const begins = (id: string) => agenda.start[id]!
        for (const work of works) {
          for (const id of work.after) {
            const before = works.find((other) => other.id === id)!
            expect(begins(work.id)).toBeGreaterThanOrEqual(
              begins(id) + before.handsOn.usual + (before.wait?.usual ?? 0) - 1e-9
            )
          }
        }
        const last = works.find(({ id }) => id === 'signoff')!
        for (const { id } of works) expect(begins(id)).toBeLessThanOrEqual(begins(last.id))
      }),
      { numRuns: 80 }
    )
  })

  it('whatever the visit: nothing is planned that makes a later proof stale, nothing starts again in a window, what others hang on comes last', () => {
    fc.assert(
      fc.property(anyVisit, (visit) => {
        const { folded, works, agenda } = agendaOf(visit())
        const begins = (id: string) => agenda.start[id]!
        const proofs = works.filter(({ stage, id }) => stage === 'prove' && id !== 'source')
        const spoils = works.filter(({ id, stage }) => id.startsWith('update:') || stage === 'place')
        for (const proof of proofs)
          for (const work of spoils)
            if (!proof.id.startsWith('again:')) expect(begins(work.id)).toBeLessThanOrEqual(begins(proof.id))
        for (const work of works)
          for (const name of work.spoils)
            expect(begins(works.find((other) => other.name === `${name} again`)!.id)).toBeGreaterThan(begins(work.id))
        const windows = works.filter(({ name, running }) => running && name.includes('pairing window'))
        for (const window of windows)
          for (const work of works) if (work.id.startsWith('update:')) expect(work.after).toContain(window.id)
        const up = upstreamOf(folded.record, catalogue)
        for (const { id, unit } of works) {
          const through = unit === null ? null : (up.get(unit)?.through ?? null)
          if (id.startsWith('update:') && through !== null && works.some((other) => other.id === `update:${through}`))
            expect(begins(`update:${through}`)).toBeGreaterThan(begins(id))
        }
      }),
      { numRuns: 80 }
    )
  })

  it('the docket keeps weight first, lifts what the heavy waits for, and follows the plan inside each weight', () => {
    fc.assert(
      fc.property(anyVisit, (visit) => {
        const { works, agenda } = agendaOf(visit())
        const groups = docketOf(works, docketRules, agenda.start)
        const waitsOn = (group: number, other: number, seen: number[] = []): boolean =>
          groups.some(
            ({ findings }, at) =>
              at !== group &&
              !seen.includes(at) &&
              findings.some((before) =>
                groups[group]!.findings.some((finding) => isBefore(before, finding, docketRules))
              ) &&
              (at === other || waitsOn(at, other, [...seen, group]))
          )
        const own = groups.map(({ findings }) => Math.min(...findings.map(weightOfFinding)))
        const lifted = own.map((weight, at) =>
          Math.min(weight, ...own.filter((_, other) => other !== at && waitsOn(other, at)))
        )
        for (const [at, here] of groups.entries()) {
          if (at > 0) {
            expect(lifted[at - 1]).toBeLessThanOrEqual(lifted[at]!)
            if (lifted[at - 1] === lifted[at])
              expect(agenda.start[here.key]!).toBeGreaterThanOrEqual(agenda.start[groups[at - 1]!.key]!)
          }
          if (here.after === null) continue
          const named = groups.findIndex(({ findings }) =>
            findings.some(
              (finding) =>
                `${finding.subject ? `${finding.subject.name}: ` : ''}${finding.name.toLowerCase()}` === here.after
            )
          )
          expect(named).toBeGreaterThanOrEqual(0)
          expect(named).toBeLessThan(at)
        }
      }),
      { numRuns: 80 }
    )
  })

  it('an update is planned from the farthest in, and what it spoils is measured again after it', () => {
    const log = complete().write('unit.set', { id: node, set: { firmwareBefore: '2.9.0', firmwareAfter: null } })
    const { agenda } = agendaOf(log)
    const order = agenda.works.map(({ id }) => id)
    expect(nextOf(agenda)!.id).toBe(`update:${node}`)
    expect(order.indexOf(`update:${node}`)).toBeLessThan(order.findIndex((id) => id.includes('prove')))
    expect(agenda.works.at(-1)!.id).toBe('signoff')
  })

  it('a unit that has to be moved makes what was measured through it worth nothing: it is measured again after that', () => {
    const { works, agenda } = agendaOf(complete().write('unit.set', { id: node, set: { heightM: 0.1 } }))
    const moving = works.find(({ findings }) => findings.some(({ rule }) => rule === 'place-height'))!
    expect(moving.spoils).toEqual(['Measure Study'])
    const again = works.find(({ name }) => name === 'Measure Study again')!
    expect(again.after).toContain(moving.id)
    expect(works.find(({ id }) => id === 'handover')!.after).toContain(again.id)
    expect(agenda.handsOnMin).toBe(agendaOf(complete()).agenda.handsOnMin + moving.handsOn.usual + again.handsOn.usual)
  })

  it('in a pairing window the second press is next, and no update', () => {
    const log = fresh()
    for (const [unit, steps] of [
      [router, 3],
      [node, 1]
    ] as const) {
      const method = unit === router ? 'app' : 'push-button'
      log.write('unit.set', { id: unit, set: { method, serial: unit === router ? 'HE11' : 'TE12', place: 'Study' } })
      for (let step = 0; step < steps; step++) log.write('method.step', { unit, method, step, seen: true })
    }
    log.write(
      'wait.started',
      { id: idOf('w'), what: 'pairing window', unit: node, usualMin: 2, mostMin: 2 },
      { at: new Date(now - 30_000).toISOString() }
    )
    // Not even what a must asks of the unit's kit comes between the two presses.
    log.write('unit.set', { id: router, set: { mac: '00:00:5e:00:53:02' } })
    log.write('unit.set', { id: node, set: { mac: '00:00:5e:00:53:02' } })
    const { works, agenda } = agendaOf(log)
    const press = works.find(({ id }) => id.startsWith(`step:${node}:`))!
    expect(works.some(({ id, unit }) => id.startsWith('mend:') && unit === node)).toBe(true)
    expect([press.after, nextOf(agenda)!.id, agenda.start[press.id]]).toEqual([[], press.id, 0])
    for (const { id } of works) if (agenda.start[id] === 0 && id !== press.id) expect(id).toBe(`wait:${idOf('w')}`)
    for (const work of works) if (work.id.startsWith('update:')) expect(work.after).toContain(`wait:${idOf('w')}`)
  })

  it('a splitter is put right before the line is switched on and trains', () => {
    const log = opened({ accessLine: 'telephone-line', telephone: true })
      .write('unit.set', {
        id: router,
        set: { name: 'Gateway', model: 'brackwater-l2', modelVersion: 1, role: 'gateway', method: 'activation' }
      })
      .write('fitting.set', { id: idOf('split'), set: { kind: 'splitter' } })
      .write('cable.set', {
        id: idOf('line'),
        set: {
          a: { thing: 'unit', id: router, port: 'line' },
          b: { thing: 'fitting', id: idOf('split'), port: 'phone' },
          kind: 'telephone',
          lengthM: 2
        }
      })
    const { works, agenda, findings } = agendaOf(log)
    expect(findings.some(({ rule, outcome }) => rule === 'cable-splitter' && outcome !== 'holds')).toBe(true)
    const sides = works.find((work) => work.findings.some(({ rule }) => rule === 'cable-splitter'))!
    const first = works.find(({ id }) => id.startsWith(`step:${router}:`))!
    expect(agenda.start[first.id]).toBeGreaterThan(agenda.start[sides.id]!)
  })

  it('a box that nobody opened is reckoned with: its units are unboxed, placed, started, updated', () => {
    const without = agendaOf(opened()).agenda
    const withBox = agendaOf(
      opened().write('box.set', { id: idOf('kits'), set: { model: 'ostrel-heron', modelVersion: 1, kit: 'trio' } })
    ).agenda
    const added = withBox.works.filter(({ id }) => id.includes(idOf('kits')))
    expect(added.filter(({ id }) => id.startsWith('kit:'))).toHaveLength(3)
    expect(added.filter(({ id }) => id.startsWith('update:'))).toHaveLength(3)
    expect(withBox.handsOnMin).toBeGreaterThan(without.handsOnMin + 20)
  })

  it('what stood here and was not touched is not set up again', () => {
    const log = complete().write('unit.set', {
      id: idOf('theirs'),
      set: { name: 'Theirs', model: 'oldmere-weir', modelVersion: 1, role: 'access-point', stayed: true }
    })
    const { works } = agendaOf(log)
    expect(works.filter(({ id, unit }) => unit === idOf('theirs') && /^(kit|connect|step):/.test(id))).toEqual([])
  })

  it('changes are applied as the plan has them, those applied first', () => {
    const log = complete().write('rule.answered', { rule: 'addr-applied', answer: 'no' })
    const { agenda, folded } = agendaOf(log)
    const changes = changesInOrder(applyOrder(folded.record, catalogue), agenda.start)
    expect(changes.length).toBeGreaterThan(1)
    expect(agenda.works.flatMap(({ change }) => change ?? [])).toEqual(changes.map(({ id }) => id))
    expect(nextOf(agenda)!.change).toBe(changes[0]!.id)
    log.write('rule.answered', { rule: 'addr-applied', subject: changes[0]!.id, answer: 'yes' })
    const then = agendaOf(log)
    const after = changesInOrder(applyOrder(then.folded.record, catalogue), then.agenda.start)
    expect(after[0]).toMatchObject({ id: changes[0]!.id, applied: true })
    expect(nextOf(then.agenda)!.change).toBe(after[1]!.id)
  })

  it('what if: a helper who comes is never worse than none, work that is left out takes no time, and the ferry is caught or not', () => {
    fc.assert(
      fc.property(anyVisit, fc.integer({ min: 0, max: 90 }), fc.integer({ min: 0, max: 240 }), (visit, helper, by) => {
        const { works, agenda } = agendaOf(visit())
        const as = (what: Partial<Parameters<typeof planIf>[1]>) =>
          planIf(works, { without: [], helperMin: null, byMin: null, ...what })
        expect(as({}).plan).toEqual(planOf(works))
        const helped = as({ helperMin: helper }).plan
        expect(helped.makespanMin).toBeLessThanOrEqual(agenda.makespanMin + 1e-9)
        expect(helped.makespanMin).toBeGreaterThanOrEqual(agenda.handsOnMin / 2 - 1e-9)
        expect(helped.offMin).toBeGreaterThanOrEqual(0)
        // Nothing begins before what it waits for, whoever does it.
        for (const { id, after } of works)
          for (const before of after) {
            const { handsOn, wait } = works.find((work) => work.id === before)!
            expect(helped.start[id]!).toBeGreaterThanOrEqual(
              helped.start[before]! + handsOn.usual + (wait?.usual ?? 0) - 1e-9
            )
          }
        // No more than two hands at once, and only one before the second is there.
        for (const { id, handsOn } of works) {
          if (handsOn.usual === 0) continue
          const at = helped.start[id]!
          const busy = works.filter(
            (other) =>
              other.handsOn.usual > 0 &&
              helped.start[other.id]! <= at + 1e-9 &&
              helped.start[other.id]! + other.handsOn.usual > at + 1e-9
          )
          expect(busy.length).toBeLessThanOrEqual(at < helper - 1e-9 ? 1 : 2)
        }
        const [first] = works
        const without = as({ without: [first!.id], byMin: by })
        expect(without.plan.handsOnMin).toBeCloseTo(agenda.handsOnMin - first!.handsOn.usual)
        expect(without.plan.start[first!.id]).toBeUndefined()
        const { likelyMin, cautiousMin } = without.plan
        const fits = { yes: cautiousMin <= by, perhaps: likelyMin <= by && cautiousMin > by, no: likelyMin > by }
        expect(Object.entries(fits).find(([, so]) => so)![0]).toBe(without.fits)
        expect(without.overMin).toBeCloseTo(Math.max(0, likelyMin - by))
      }),
      { numRuns: 25 }
    )
  })
})
