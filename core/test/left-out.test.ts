import fc from 'fast-check'
import { ofOneRule } from '@pasado/core/rules/because'
import { describe, expect, it } from 'vitest'
import type { Placed } from '@pasado/core/record/entry'
import { fold } from '@pasado/core/history/fold'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { evaluate, type Finding } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { catalogue, complete, type Log } from '@pasado/testing/logbook'
import { allCases } from './all-cases'
import type { RuleCase } from './prove-rule-cases'
import { beside } from './stays-cases'

const standard = nextDraft(firstStandard)
/** Judges lines as a logbook of their own: what is kept of a line's past is kept of its past in one logbook. */
const judge = (entries: readonly Placed[], by = standard) =>
  evaluate(fold(entries.map((entry) => ({ ...entry }))), catalogue, by)
const isOpen = ({ outcome }: Finding) => outcome === 'breaks' || outcome === 'unproven'

interface Omission {
  what: string
  entries: Placed[]
}

/** A logbook without one fact: of each line that sets several fields one of them, and the opening without one fact of the brief. */
function withoutOneFact(entries: readonly Placed[]): Omission[] {
  return entries.flatMap((entry, at) => {
    const name = entry.kind === 'visit.opened' ? 'brief' : 'set'
    const facts = (entry.body as unknown as Record<string, Record<string, unknown> | undefined>)[name]
    if (!facts || Object.keys(facts).length < 2) return []
    // Without a later value an earlier one stands: nothing is left out.
    const first = Object.keys(facts).filter(
      (field) => !entries.slice(0, at).some((earlier) => sets(earlier, entry, field))
    )
    return first.map((field) => {
      const { [field]: _, ...rest } = facts
      const body = { ...entry.body, [name]: rest }
      return {
        what: `${entry.kind} ${field}`,
        entries: entries.map((other, index) => (index === at ? ({ ...entry, body } as Placed) : other))
      }
    })
  })
}

/** Whether an earlier line set the same field of the same thing. */
function sets(earlier: Placed, { kind, body }: Placed, field: string): boolean {
  const { id, set } = earlier.body as { id?: string; set?: object }
  return earlier.kind === kind && id === (body as { id?: string }).id && Object.hasOwn(set ?? {}, field)
}

/** A logbook without one line that says how something was found. */
const withoutOneProof = (entries: readonly Placed[]): Omission[] =>
  entries.flatMap((entry) =>
    proofs.has(entry.kind)
      ? [{ what: `${entry.kind} ${JSON.stringify(entry.body)}`, entries: entries.filter((other) => other !== entry) }]
      : []
  )
const proofs: ReadonlySet<string> = new Set([
  'lamp.seen',
  'path.seen',
  'measurement.set',
  'rule.answered',
  'secret.kept',
  'pairing.pressed',
  'choice.answered',
  'custody.answered'
])

/** Facts that say that something is not ours to ask of, or how the program is to reckon: without them more is asked, or otherwise reckoned. */
const otherwise: ReadonlySet<string> = new Set([
  'brief-scope unit.set stayed',
  // No form makes a radio of nothing.
  'radio-channel radio.set unit',
  'radio-channel radio.set band',
  // What stays need not be known in full.
  'addr-unique stays.set address',
  'addr-valid segment.set cidr',
  // A room of which nobody names another building is of the house.
  'place-outbuilding room.set building',
  // What has no network’s name is in no pack, and wifi-name asks for it.
  'hand-pack network.set ssid',
  // What is said of one of a mesh is said of all.
  'hand-choices unit.set updates',
  // An end that is not recorded, cable-speed asks for.
  'cable-splitter cable.set a',
  'cable-splitter cable.set b',
  // No form makes a fitting of no kind; without this mode a router is one; a range has no tag, and a unit no second role, unless one is given.
  'cable-power fitting.set kind',
  'addr-ap-mode unit.set mode',
  'wifi-segment segment.set vlan',
  'kit-role unit.set alsoRole',
  // What sends nothing of theirs leaves the network ours, and all of it is asked.
  'wifi-name stays.set kind',
  // Then it is one of the router’s own.
  'wifi-naming-school network.set extender',
  // Walls are reckoned as of the usual stuff.
  'place-hops brief.set innerMaterial'
])

/** What is cleared by leaving out, a line each; nothing where the record says less and no more is called proven. */
function cleared(before: readonly Finding[], now: readonly Finding[], what: string): string[] {
  const open = new Set(now.filter(isOpen).map(({ rule }) => rule))
  return before.flatMap((was) => {
    if (open.has(was.rule) || otherwise.has(`${was.rule} ${what}`)) return []
    const is = now.find(({ rule, subject }) => rule === was.rule && subject?.id === was.subject?.id)
    if (isOpen(was)) return [`${was.rule}: ${was.evidence} → ${is?.evidence ?? 'nothing'}, without ${what}`]
    return was.outcome === 'holds' && (!is || is.outcome === 'not-here')
      ? [`${was.rule} is not asked, without ${what}`]
      : []
  })
}

describe('leaving out', () => {
  const whole = [complete, beside].map((from) => ({ name: from.name, from }))

  it.each(whole)('any one fact of $name clears nothing', ({ from }) => {
    const { entries } = from()
    const before = judge(entries)
    const found = withoutOneFact(entries).flatMap(({ what, entries: fewer }) => cleared(before, judge(fewer), what))
    expect([...new Set(found)]).toEqual([])
  })

  it.each(whole)('any one proof of $name leaves unproven what rested on it, and nothing unasked', ({ from }) => {
    const { entries } = from()
    const before = judge(entries)
    const found = withoutOneProof(entries).flatMap(({ what, entries: fewer }) => cleared(before, judge(fewer), what))
    expect([...new Set(found)]).toEqual([])
  })

  // Of what changed after a proof the value before it is left out as well: then it was written up, and nothing changed.
  const cases = allCases.filter(([, what]) => !/changed|stood before/.test(what))

  const clearedIn = ([rule, , from, change]: RuleCase, which?: number): string[] => {
    const log: Log = from()
    change(log)
    const all = withoutOneFact(log.entries)
    const tried = which === undefined ? all : all.slice(which % Math.max(1, all.length)).slice(0, 1)
    const of = (entries: readonly Placed[]) =>
      judge(entries, ofOneRule(rule, standard)).filter((finding) => finding.rule === rule && finding.level === 'must')
    const before = of(log.entries)
    return tried.flatMap(({ entries, what }) => cleared(before, of(entries), what))
  }

  // All of them take a minute and a half: LEFT_OUT_RUNS=all.
  it('one fact of whatever visit clears no must of its rule', () => {
    if (process.env.LEFT_OUT_RUNS === 'all') return expect(cases.flatMap((one) => clearedIn(one))).toEqual([])
    fc.assert(
      fc.property(fc.nat(cases.length - 1), fc.nat(), (which, at) => {
        expect(clearedIn(cases[which]!, at)).toEqual([])
      }),
      { numRuns: Number(process.env.LEFT_OUT_RUNS ?? 300), ...(process.env.LEFT_OUT_RUNS ? {} : { seed: 20261201 }) }
    )
  }, 600_000)
})
