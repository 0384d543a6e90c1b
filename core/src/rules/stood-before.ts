import { linesOfKinds } from '../history/history'
import { isCarriedOver } from '../record/carry-over'
import type { Placed } from '../record/entry'
import { Kept } from '../record/kept'
import type { Home, Rule, Subject, Verdict } from './rule'

/** Kinds of lines that tell of something that was done to a unit. A look, a test or an answer does nothing to it. */
const touching = new Set([
  'unit.set',
  'unit.event',
  'method.step',
  'pairing.pressed',
  'button.pressed',
  'unit.transferred',
  'secret.kept',
  'thing.removed',
  'thing.restored'
] as const)
type Touching = Placed<typeof touching extends Set<infer K> ? K : never>

/** The unit that a line did something to; null where it did to none. */
function touchedBy({ kind, body }: Touching): string | null {
  switch (kind) {
    case 'unit.set':
      return body.id
    case 'unit.event':
      return body.what.startsWith('tested-') ? null : body.unit
    case 'secret.kept':
    case 'thing.removed':
    case 'thing.restored':
      return body.thing === 'unit' ? body.id : null
    default:
      return body.unit
  }
}

const kept = new Kept<Home, ReadonlySet<string>>()

/** Units that stood here before, as the last visit left them: taken over with the opening, and nothing was done to them since. */
export const untouched = (home: Home): ReadonlySet<string> => kept.get(home, [], () => reckon(home))

function reckon({ history, units }: Home): ReadonlySet<string> {
  const opened = history.lines.get(1)?.entry
  const isOld = (line: Placed | undefined) => line !== undefined && isCarriedOver(line, opened)
  const lines = linesOfKinds(history, touching)
  const touched = new Set(lines.filter((line) => !isOld(line)).map(touchedBy))
  const stood = units.filter(({ unit }) => isOld(history.lines.get(unit.addedSeq)?.entry) && !touched.has(unit.id))
  return new Set(stood.map(({ unit }) => unit.id))
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
