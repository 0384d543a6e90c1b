import { entriesOf } from '../history/history'
import { isCarriedOver } from '../record/carry-over'
import type { Placed } from '../record/entry'
import type { Home, Rule, Subject, Verdict } from './rule'

/** What was done to a unit, of which a line tells; null where it tells of none. A look, a test or an answer does nothing to it. */
function touchedBy({ kind, body }: Placed): string | null {
  switch (kind) {
    case 'unit.set':
      return body.id
    case 'unit.event':
      return body.what.startsWith('tested-') ? null : body.unit
    case 'method.step':
    case 'pairing.pressed':
    case 'button.pressed':
    case 'unit.transferred':
      return body.unit
    case 'secret.kept':
    case 'thing.removed':
    case 'thing.restored':
      return body.thing === 'unit' ? body.id : null
    default:
      return null
  }
}

/** Nineteen rules ask the same of one home: it is reckoned once. */
const reckoned = new WeakMap<Home, ReadonlySet<string>>()

/** Units that stood here before, as the last visit left them: taken over with the opening, and nothing was done to them since. */
export function untouched(home: Home): ReadonlySet<string> {
  const known = reckoned.get(home)
  if (known) return known
  const { history, units } = home
  const lines = entriesOf(history)
  const isOld = (line: Placed | undefined) => line !== undefined && isCarriedOver(line, lines[0])
  const touched = new Set(lines.filter((line) => !isOld(line)).map(touchedBy))
  const stood = units.filter(({ unit }) => isOld(history.lines.get(unit.addedSeq)?.entry) && !touched.has(unit.id))
  const found = new Set(stood.map(({ unit }) => unit.id))
  reckoned.set(home, found)
  return found
}

/**
 * What a rule says of units that stood here before and were not touched: nothing is asked of them, where the rule spares such units. That
 * somebody calls a unit of this visit one that stayed spares nothing.
 */
export function withoutWhatStood(rule: Rule, home: Home, verdicts: Verdict[]): Verdict[] {
  const isOpen = ({ outcome, subject }: Verdict) => subject !== null && (outcome === 'unproven' || outcome === 'breaks')
  if (!rule.sparesUntouched || !verdicts.some(isOpen)) return verdicts
  const stood = untouched(home)
  return verdicts.map((verdict) =>
    isOpen(verdict) && stood.has(verdict.subject!.id) ? ofWhatStood(verdict.subject) : verdict
  )
}

/** What is said of a unit that stood here before, and of which nothing is asked. */
export const ofWhatStood = (subject: Subject | null): Verdict => ({
  outcome: 'not-here',
  subject,
  evidence: 'It stood here before, as the last visit left it, and nothing was done to it.',
  remedy: '',
  place: null
})
