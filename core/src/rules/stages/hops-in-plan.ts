import { modelOf } from '../../catalogue/model'
import type { History } from '../../history/history'
import { fieldKey } from '../../record/keys'
import { isCabled } from '../../work/configure/cabled'
import type { HomePlan } from '../../work/plan/home-plan'
import { joinsOf, type Hop, type Join } from '../../work/plan/hops'
import { stayingRoot, type Placed, type PlacedUnit } from '../../work/plan/placed'
import { isMeshMember, type KnownUnit } from '../../work/units/known-unit'
import { aboutUnit, holds, type Home, type Verdict } from '../rule'
import { figure, hangingMembers, inPlan, unplacedMembers, type InPlan } from './in-plan'
import { seenInPlace, type PlaceQuestion } from './seen-in-place'

/** How each mesh member is joined to the router, by the plan. */
export function joinsIn(home: Home, { plan, placed }: InPlan): Map<string, Join> {
  const members = placed
    .filter(({ known }) => isMeshMember(known))
    .map(({ known, at }) => ({ at, cabled: isCabled(home.record, known.unit, home.catalogue) }))
  const added = addedTo(home, plan)
  return joinsOf(
    plan,
    added ? [...members, { at: added, cabled: false }] : members,
    home.catalogue,
    figure(home, 'leastHopDbm')
  )
}

/** What stays and is of the same mesh as all our members; null where it is of another: nothing tells how they hang on it. */
function addedTo({ record, history, catalogue, units }: Home, plan: HomePlan): Placed | null {
  const root = stayingRoot(record, plan)
  if (!root) return null
  const model = modelOf(root.stays, catalogue)
  const isOne = units.filter(isMeshMember).every((known) => model?.mesh && known.model?.family === model.family)
  const drawn = Math.max(...['storey', 'x', 'y'].map((field) => lastSet(history, root.id, field)))
  // Where it was moved after it was drawn, the drawing does not tell where it stands.
  const isMoved = (history.happenings.get(root.id) ?? []).some(({ what, seq }) => what === 'moved' && seq > drawn)
  return isOne && !isMoved ? root : null
}

const lastSet = (history: History, stays: string, field: string): number =>
  history.writes.get(fieldKey('stays', stays, field))?.at(-1)?.seq ?? 0

/** Judges each wireless hop of the plan; of members that it does not show, what somebody saw. */
export function eachHop(
  home: Home,
  rule: PlaceQuestion,
  judge: (hop: Hop, known: KnownUnit, at: PlacedUnit) => Verdict | Verdict[]
): Verdict[] {
  const found = inPlan(home)
  const hops = joinsIn(home, found)
  const hanging = new Set(hangingMembers(home))
  const seen = found.placed.flatMap(({ known, at }) => {
    const hop = hops.get(at.id)
    // The plan does not show what it hangs on, or nothing of it reaches there.
    if (hop === undefined) return hanging.has(known) ? cabledOrSeen(home, rule, known) : []
    if (hop === 'root') return []
    return hop === 'cabled' ? [holds('It is cabled.', aboutUnit(known))] : judge(hop, known, at)
  })
  return [...seen, ...unplacedMembers(home, found).flatMap((known) => cabledOrSeen(home, rule, known))]
}

/** A cable leaves nothing to be asked of a hop. */
export const cabledOrSeen = (home: Home, rule: PlaceQuestion, known: KnownUnit): Verdict[] =>
  isCabled(home.record, known.unit, home.catalogue)
    ? [holds('It is cabled.', aboutUnit(known))]
    : seenInPlace(home, rule, known)
