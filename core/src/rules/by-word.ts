import { withoutWord } from '../history/words'
import type { History } from '../history/history'
import { listed } from '../values/list'
import type { Finding } from './finding'
import type { Verdict } from './rule'

/** A history that collects what is not known of changes and proofs while a rule judges by it. */
export type Collecting = History & Required<Pick<History, 'unordered' | 'recordedSince'>>

/** The changes and proofs of which a verdict says that nobody knows which came first, and what was recorded too late to be known of. */
export function unorderedOf(
  { outcome, evidence }: Verdict,
  { unordered, recordedSince }: Collecting
): Pick<Finding, 'unordered' | 'recordedSince'> {
  if (outcome === 'holds' || unordered.length + recordedSince.length === 0) return {}
  const told = unordered.filter(({ message }) => evidence.includes(message))
  const pairs = new Map(told.map(({ change, proof }) => [`${change} ${proof}`, { change, proof }]))
  const since = recordedSince.filter(({ message }) => evidence.includes(message))
  const things = new Map(since.map(({ thing, id }) => [id, { thing, id }]))
  return {
    ...(pairs.size > 0 ? { unordered: [...pairs.values()] } : {}),
    ...(things.size > 0 ? { recordedSince: [...things.values()] } : {})
  }
}

/** A history without one thing that somebody said, and who said it. */
interface Unsaid {
  names: readonly string[]
  history: History
}

/** Everything that was said of which came first and of what stood there, each left out by itself. */
function unsaidEach(history: History): Unsaid[] {
  const words = [...history.words].map(([key, said]): Unsaid => ({
    names: said.map(({ by }) => by.name),
    history: withoutWord(history, key)
  }))
  const stood = [...history.stood].map(([id, lines]): Unsaid => ({
    names: lines.flatMap((line) => history.lines.get(line)?.entry.by.name ?? []),
    history: { ...history, stood: new Map([...history.stood].filter(([other]) => other !== id)) }
  }))
  return [...words, ...stood]
}

/**
 * Tells of what holds only because somebody who was there said which came first, or what stood there, by whose word that is.
 * @param judge what the rule says by another history of the same record
 */
export function byWordOf(
  verdicts: readonly Verdict[],
  history: History,
  judge: (history: History) => readonly Verdict[]
): (verdict: Verdict) => Partial<Pick<Finding, 'byWordOf' | 'evidence'>> {
  if (history.words.size + history.stood.size === 0 || verdicts.every(({ outcome }) => outcome !== 'holds'))
    return () => ({})
  const each = unsaidEach(history).map(({ names, history: less }) => ({ names, without: judge(less) }))
  const withoutAny = judge({ ...history, words: new Map(), stood: new Map() })
  return ({ outcome, subject, evidence }) => {
    const holdsIn = (others: readonly Verdict[]) =>
      others.some(
        (other) =>
          other.outcome === 'holds' && other.subject?.id === subject?.id && other.subject?.name === subject?.name
      )
    if (outcome !== 'holds' || holdsIn(withoutAny)) return {}
    const needed = each.filter(({ without }) => !holdsIn(without))
    const names = [...new Set((needed.length > 0 ? needed : each).flatMap((word) => word.names))]
    return { byWordOf: names, evidence: `${evidence} By word of ${listed(names)}.` }
  }
}
