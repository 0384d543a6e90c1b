import { causes, type CauseId } from './causes'
import { mendedId, observationOf, observations, type ObservationId } from './observations'
import { waysOf } from './table'

/** What may be wrong: one cause, or two at once, each in one of the ways in which it shows itself. */
export interface Hypothesis {
  causes: readonly CauseId[]
  /** How likely it is before anything was looked at, up to a factor that all share. */
  prior: number
}

/** How often a cause is met, where a company counts its own: instead of the table's estimate. */
export type Rates = Partial<Record<CauseId, number>>

/** Of a hundred faults so many are two at once. */
const TWO_AT_ONCE = 6
/** With two faults, one of them mended by trying seldom makes it all work. */
const WORKS_ALL_THE_SAME = 0.05

type Way = ReturnType<typeof waysOf>[number] & { cause: CauseId }

/** Every way of every cause by itself, then every two of different causes; made once, when the first search asks. */
interface Possible {
  ways: readonly (readonly Way[])[]
  of: readonly (readonly CauseId[])[]
}
let all: Possible | null = null
function everything(): Possible {
  if (all) return all
  const single = causes.flatMap(({ id: cause }) => waysOf(cause).map((way): Way => ({ ...way, cause })))
  const two = single.flatMap((one, at) =>
    single
      .slice(at + 1)
      .filter(({ cause }) => cause !== one.cause)
      .map((other) => [one, other])
  )
  const ways = [...single.map((way) => [way]), ...two]
  all = { ways, of: ways.map((list) => list.map(({ cause }) => cause)) }
  return all
}

/**
 * All hypotheses in their order, with their priors by the rates that are given; 0 where a cause of them cannot be.
 * @param possible whether a cause can be at this home
 */
export function hypothesesOf(possible: (cause: CauseId) => boolean, rates: Rates = {}): Hypothesis[] {
  const rate = new Map(causes.map(({ id, baseRate }) => [id, possible(id) ? (rates[id] ?? baseRate) : 0]))
  const total = [...rate.values()].reduce((sum, value) => sum + value, 0)
  const { ways, of } = everything()
  return ways.map((list, at) => ({
    causes: of[at]!,
    prior: list.reduce(
      (product, { cause, share }) => product * rate.get(cause)! * share,
      list.length === 1 ? 1 : (2 * TWO_AT_ONCE) / (100 * total)
    )
  }))
}

/** Two faults at once: a look tells of the one that changes it; of both, where both do, it is sound only where neither spoils it. */
function ofBoth(one: Way, other: Way, look: ObservationId): Record<string, number> {
  const [a, b] = [one.chances(look), other.chances(look)]
  const answers = Object.keys(a)
  if (answers.includes('helped')) {
    const helps = Math.min(WORKS_ALL_THE_SAME, Math.max(a.helped!, b.helped!))
    return { not: 1 - helps, helped: helps }
  }
  const changing = [one, other].filter(({ changes }) => changes(look))
  if (changing.length < 2) return changing[0] === other ? b : a
  const [first] = answers
  const sound = a[first!]! * b[first!]!
  const rest = answers.slice(1).map((answer) => a[answer]! + b[answer]!)
  const sum = rest.reduce((total, value) => total + value, 0)
  return Object.fromEntries(
    answers.map((answer, at) => [answer, at === 0 ? sound : ((1 - sound) * rest[at - 1]!) / sum])
  )
}

/** A mend that helped was the cause's, nearly always; of two causes it seldom makes all work; and it is as good as never another's. */
const mendChance = {
  single: { not: 0.05, partly: 0.03, helped: 0.92 },
  pair: { not: 0.35, partly: 0.6, helped: 0.05 },
  others: { not: 0.96, partly: 0.02, helped: 0.02 }
} as const

const reckoned = new Map<string, Record<string, Float64Array>>()

/** How likely each answer of an observation is under each hypothesis, in their order: an answer of a look, or what a mend did. */
export function chancesUnder(id: string): Record<string, Float64Array> {
  const known = reckoned.get(id)
  if (known) return known
  const { ways, of } = everything()
  const answers = observationOf(id)!.answers.map((answer) => answer.id)
  const isLook = observations.some((look) => look.id === id)
  const chances = Object.fromEntries(answers.map((answer) => [answer, new Float64Array(ways.length)]))
  for (const [at, list] of ways.entries()) {
    const [one, other] = list
    const by = isLook ? lookUnder(one!, other, id as ObservationId) : mendUnder(of[at]!, id)
    for (const answer of answers) chances[answer]![at] = by[answer]!
  }
  reckoned.set(id, chances)
  return chances
}

const lookUnder = (one: Way, other: Way | undefined, look: ObservationId): Record<string, number> =>
  other ? ofBoth(one, other, look) : one.chances(look)

function mendUnder(wrong: readonly CauseId[], id: string): Record<string, number> {
  if (!wrong.some((cause) => mendedId(cause) === id)) return mendChance.others
  return mendChance[wrong.length === 1 ? 'single' : 'pair']
}

/** Whether an observation, and this answer of it, is one that is known. */
export const isKnown = (id: string, answer: string): boolean =>
  observationOf(id)?.answers.some((known) => known.id === answer) ?? false
