import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fold, nothingFolded } from '@pasado/core/history/fold'
import type { Placed } from '@pasado/core/record/entry'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { evaluate } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { judge, type Judged } from '@pasado/core/rules/judged'
import { demoVisits } from '@pasado/demo/all'
import type { ScriptedVisit } from '@pasado/demo/visit-script'
import { catalogue, complete, idOf, node, opened, router, type Log } from '@pasado/testing/logbook'
import { allCases } from './all-cases'

const standard = nextDraft(firstStandard)
const logs = allCases.map(([, , from, change]) => () => {
  const log = from()
  change(log)
  return log.entries
})
const now = '2026-01-05T12:00:00Z'

/** Judges a logbook as it grows, stretch by stretch, and tells of the first stretch after which another is said than by judging it whole. */
function otherwise(entries: readonly Placed[], stretches: readonly number[]): string | null {
  let before: Judged | null = null
  let folded = nothingFolded
  let at = 0
  for (const stretch of stretches) {
    const news = entries.slice(at, at + stretch)
    if (news.length === 0) return null
    at += stretch
    folded = fold(news, folded)
    before = judge(folded, catalogue, standard, { now }, before)
    // A fold of its own: nothing that was kept of the other is there.
    const whole = evaluate(fold(entries.slice(0, at).map((entry) => ({ ...entry }))), catalogue, standard, { now })
    const [said, right] = [before.findings, whole].map((findings) => findings.map((finding) => JSON.stringify(finding)))
    const wrong = right!.findIndex((finding, index) => said![index] !== finding)
    if (wrong >= 0) return `after line ${at}, ${news.at(-1)!.kind}: ${said![wrong]} instead of ${right![wrong]}`
  }
  return null
}

/** A logbook after another: with its lines numbered on, and some of them by somebody who had not seen the last ones. */
function behind(first: readonly Placed[], then: readonly Placed[], unseen: readonly number[]): Placed[] {
  const more = then.slice(1).map((entry, at) => {
    const seq = first.length + 1 + at
    const lag = unseen[at % unseen.length] ?? 0
    return { ...entry, seq, base: Math.max(1, seq - 1 - lag), ...(lag > 0 ? { from: idOf('tablet') } : {}) }
  })
  return [...first, ...more]
}

/** What a demo visit’s script writes, secrets as they are assessed. */
function linesOf({ brief, steps }: ScriptedVisit): Placed[] {
  const log = opened(brief)
  for (const step of steps)
    if (step.does === 'entry') log.write(step.kind, step.body as never)
    else if (step.does === 'secret' && step.thing !== 'brief') log.secret(step.purpose, step.thing, step.id)
  return log.entries
}

describe('after more lines', () => {
  it('says what judging the whole logbook says, line by line', () => {
    const entries = complete().entries
    expect(
      otherwise(
        entries,
        entries.map(() => 1)
      )
    ).toBeNull()
  })

  it.each(demoVisits().map((visit) => [visit.brief.street, linesOf(visit)] as const))(
    'says what judging the whole logbook says of the demo visit %s',
    (_, entries) => {
      expect(
        otherwise(
          entries,
          Array.from({ length: entries.length }, (_, at) => 5 + ((at * 7) % 11))
        )
      ).toBeNull()
    }
  )

  it('says what judging the whole logbook says, whatever comes after whatever', () => {
    const which = fc.nat(logs.length - 1)
    const lag = fc.oneof({ weight: 8, arbitrary: fc.constant(0) }, fc.nat(6))
    fc.assert(
      fc.property(
        which,
        which,
        fc.array(lag, { minLength: 1, maxLength: 5 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 12, maxLength: 12 }),
        (a, b, unseen, stretches) => {
          const first = logs[a]!()
          expect(otherwise(behind(first, logs[b]!(), unseen), [first.length, ...stretches])).toBeNull()
        }
      ),
      { numRuns: Number(process.env.JUDGED_RUNS ?? 40) }
    )
  }, 600_000)

  it('asks only what looked at what changed', () => {
    const from = complete()
    const folded = from.folded()
    const before = judge(folded, catalogue, standard)
    const after = (write: (more: Log) => unknown) => {
      const more = complete()
      write(more)
      const news = more.entries.slice(from.entries.length)
      const judged = judge(fold(news, folded), catalogue, standard, {}, before)
      return [...judged.asked!].filter(([id, asked]) => before.asked!.get(id) !== asked).map(([id]) => id)
    }
    const all = before.asked!.size
    const byAnswer = after((more) =>
      more.write('rule.answered', { rule: 'prove-names-gone', subject: router, answer: 'no' })
    )
    expect(byAnswer).toContain('prove-names-gone')
    expect(byAnswer.length).toBeLessThan(all / 4)
    const bySerial = after((more) => more.write('unit.set', { id: node, set: { serial: 'TE1-9' } }))
    expect(bySerial).toContain('kit-identity')
    expect(bySerial.length).toBeLessThan(all / 4)
    const byLamps = after((more) =>
      more.write('lamp.seen', { unit: router, lamps: [{ lamp: 'status', colour: 'red', pattern: 'solid' }] })
    )
    expect(byLamps).toContain('start-good-lamp')
    expect(byLamps.length).toBeLessThan(all / 4)
    expect(after((more) => more.write('note.written', { text: 'The dog is called Bosun.' })).length).toBeLessThan(4)
  })

  it('gives what was said before where it says the same', () => {
    const log = complete()
    const folded = log.folded()
    const before = judge(folded, catalogue, standard)
    log.write('note.written', { text: 'The dog is called Bosun.' })
    const same = judge(fold(log.entries.slice(-1), folded), catalogue, standard, {}, before)
    expect(same.findings).toBe(before.findings)
    log.write('unit.set', { id: node, set: { heightM: 9 } })
    const other = judge(fold(log.entries.slice(-2), folded), catalogue, standard, {}, before)
    const changed = other.findings.filter((finding, at) => finding !== before.findings[at])
    expect(changed.map(({ rule }) => rule)).toContain('place-height')
    expect(changed.length).toBeLessThan(before.findings.length / 4)
  })

  it('asks everything where something was taken back, or by another catalogue or standard', () => {
    const log = complete()
    const before = judge(log.folded(), catalogue, standard)
    const other = judge(log.folded(), new Map(catalogue), standard, {}, before)
    expect([...other.asked!].every(([id, asked]) => before.asked!.get(id) !== asked)).toBe(true)
    log.write('unit.event', { unit: router, what: 'reset' })
    const { id, kind, at } = log.entries.at(-1)!
    log.write('slip.undone', { undoes: id, kind, at })
    const judged = judge(log.folded(), catalogue, standard, {}, before)
    expect(judged.asked).toBeNull()
    expect(judged.findings).toEqual(evaluate(log.folded(), catalogue, standard))
  })

  it('asks a rule that failed again, whatever changed', () => {
    const log = opened()
    const faults: string[] = []
    const broken = { ...standard, own: [] }
    const onFault = (rule: string) => void faults.push(rule)
    const folded = log.folded()
    const wrong = { ...folded, record: { ...folded.record, networks: null as never } }
    const before = judge(wrong, catalogue, broken, { onFault })
    const failed = new Set(faults)
    expect(failed.size).toBeGreaterThan(0)
    const healed = judge(folded, catalogue, broken, { onFault }, before)
    expect(healed.findings).toEqual(evaluate(folded, catalogue, broken))
  })
})
