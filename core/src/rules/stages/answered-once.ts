import type { Unit } from '../../record/record'
import type { KnownUnit } from '../../work/units/known-unit'
import { runAsOne } from '../../work/units/run-as-one'
import { untouched } from '../stood-before'
import type { Home, Verdict } from '../rule'

/**
 * Judges units by what may be answered once for all that are run as one. What is open of a unit on which nothing was answered is asked of
 * whoever leads them, once: it stands in the way by itself only where it is not asked there.
 */
export function eachOnce(
  home: Home,
  judged: readonly KnownUnit[],
  hasOwn: (known: KnownUnit) => boolean,
  judge: (known: KnownUnit) => Verdict
): Verdict[] {
  const verdicts = new Map(judged.map((known) => [known, judge(known)]))
  const isAsked = (known: KnownUnit | undefined) =>
    known !== undefined && isOpen(verdicts.get(known)) && !untouched(home).has(known.unit.id)
  return [...verdicts].map(([known, verdict]) => {
    if (!isOpen(verdict) || hasOwn(known)) return verdict
    const [leader] = runAsOne(home.units, known)
    return leader === known || !isAsked(leader) ? verdict : { ...verdict, level: 'note' }
  })
}

const isOpen = (verdict: Verdict | undefined) => verdict?.outcome === 'unproven' || verdict?.outcome === 'breaks'

/** Whether one of these facts was recorded on a unit itself. */
export const hasOwnFact =
  (...fields: (keyof Unit['facts'])[]) =>
  ({ unit }: KnownUnit): boolean =>
    fields.some((field) => unit.facts[field] !== undefined)
