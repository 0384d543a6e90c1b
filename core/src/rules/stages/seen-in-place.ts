import { hasRole } from '../../record/roles'
import { changesSince } from '../../history/stands'
import { carriedThrough } from '../../history/carried'
import { restsOfHanging, restsOfPlace } from '../../work/prove/rests'
import { ruleKey, type Unit } from '../../record/record'
import type { KnownUnit } from '../../work/units/known-unit'
import { aboutUnit, breaks, holds, noLonger, staleAnswer, unproven, type Home, type Place, type Verdict } from '../rule'

/** What is seen of a unit at its place by whoever stands there, under the rule that it proves: no drawing is needed for it. */
export const placeQuestions = {
  'place-clear': {
    asks: 'In the open: in no cabinet, behind nothing large, away from what disturbs',
    remedy: 'Take it out into the open.'
  },
  'place-outlet': {
    asks: 'A socket or a powered port is within reach, without a lead along the floor',
    remedy: 'Place it nearer to an outlet; no extension leads along the floor.'
  },
  'place-hops': {
    asks: 'It hangs on the router over at most the hops that its model allows',
    remedy: 'Cable it, or place it nearer.'
  },
  'place-spacing': {
    asks: 'The next one is near enough, or its signal at this place is good',
    remedy: 'Place it nearer, or cable it.'
  },
  'place-floors': {
    asks: 'The one that it hangs on is on the same storey',
    remedy: 'Cable it if you can, or record why not.'
  },
  'place-outbuilding': {
    asks: 'It stands in the same building as the router',
    remedy:
      'Use fibre, or a cable with surge protection by a licensed electrician; say that it is cabled, and what protects it.'
  }
} as const
export type PlaceQuestion = keyof typeof placeQuestions

/** What a powerline adapter needs of its outlet. */
const powerlineOutlet = {
  asks: 'Straight in a wall socket, in no strip, on the circuit of its partner',
  remedy: 'Put it straight into a wall socket of its partner’s circuit.'
} as const

/** What is asked of a unit’s place under a rule, and what mends a no. */
export const placeQuestionOf = (rule: PlaceQuestion, unit: Unit): { asks: string; remedy: string } =>
  rule === 'place-outlet' && hasRole(unit, 'powerline-adapter') ? powerlineOutlet : placeQuestions[rule]

/**
 * Judges a unit by what somebody saw who stood there, where no plan shows it, or the plan does not tell; what they say counts until it is
 * moved.
 * @param untold what is not known, where a plan shows the unit; with what would tell it
 */
export function seenInPlace(
  home: Home,
  rule: PlaceQuestion,
  known: KnownUnit,
  untold?: { evidence: string; remedy: string }
): Verdict[] {
  // What stood before was seen then: it is asked anew where this visit moved it.
  if (known.unit.facts.stayed && !wasMoved(home, known)) return []
  const about = aboutUnit(known)
  const { asks, remedy } = placeQuestionOf(rule, known.unit)
  const place: Place = { stage: 'place', kind: 'answer', id: rule, field: known.unit.id }
  const given = home.record.answers[ruleKey(rule, known.unit.id)]
  const statement = `${asks[0]!.toLowerCase()}${asks.slice(1)}`
  if (!given)
    return [
      unproven(
        untold?.evidence ?? `It is in no plan, and nobody has said: ${statement}.`,
        untold?.remedy ?? 'Look, and say so by one press; or draw it into the plan.',
        place,
        about
      )
    ]
  if (given.answer !== 'yes') return [breaks(`Not so, says ${given.by.name}: ${statement}.`, remedy, place, about)]
  const stale = staleSight(home, rule, known)
  return [
    stale
      ? noLonger(unproven(stale, 'Look again where it stands now.', place, about))
      : holds(`Seen by ${given.by.name}: ${statement}.`, about)
  ]
}

/** Questions of a unit's own place; the others are of how it hangs on the rest. */
const ofItsPlace: ReadonlySet<PlaceQuestion> = new Set(['place-clear', 'place-outlet'])

/** Why what was seen at a unit's place does not tell any more how it is; null where it does. */
export const staleSight = (home: Home, rule: PlaceQuestion, { unit }: KnownUnit): string | null =>
  staleAnswer(
    home,
    rule,
    unit.id,
    ofItsPlace.has(rule) ? restsOfPlace(unit) : (line) => restsOfHanging(home, line, unit, home.catalogue)
  )

/** Whether this visit moved a unit that stood before: something of its place changed after it was carried over. */
function wasMoved({ history }: Home, { unit }: KnownUnit): boolean {
  const carried = carriedThrough(history)
  return carried > 0 && changesSince(history, carried, restsOfPlace(unit)).length > 0
}
