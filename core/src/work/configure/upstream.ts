import { modelOf, type Catalogue } from '../../catalogue/model'
import { planOf } from '../plan/home-plan'
import { placedUnits } from '../plan/placed'
import { HOP_HOLDS_DBM, joinsOf } from '../plan/hops'
import { onceOf } from '../../record/once'
import { standing, thingsOf, type Unit, type VisitRecord } from '../../record/record'

/** How near to the line a role is, where no cable and no plan tells: what stands behind is reached through what stands before. */
const roleDepth = ({ facts }: Unit): number =>
  ({ modem: 0, gateway: 0, router: 1, controller: 1, switch: 2, 'access-point': 3, 'powerline-adapter': 3 })[
    facts.role as 'modem'
  ] ?? 4

/** A unit with the one it is reached through. */
export interface Upstream {
  unit: Unit
  /** Null for the first behind the line. */
  through: string | null
  /** How many units lie between it and the line. */
  depth: number
}

/**
 * Through which unit each is reached: by the cables that are recorded, else by the plan's wireless hops, else by role. A unit is never
 * reached through one that is farther from the line.
 */
export const upstreamOf = onceOf(reckon)

function reckon(record: VisitRecord, catalogue: Catalogue): ReadonlyMap<string, Upstream> {
  const units = standing(record.units).sort((a, b) => roleDepth(a) - roleDepth(b) || a.addedSeq - b.addedSeq)
  const beside = new Map<string, string[]>()
  for (const {
    facts: { a, b }
  } of standing(thingsOf(record, 'cable'))) {
    if (a?.thing !== 'unit' || b?.thing !== 'unit') continue
    beside.set(a.id, [...(beside.get(a.id) ?? []), b.id])
    beside.set(b.id, [...(beside.get(b.id) ?? []), a.id])
  }
  const found = new Map<string, Upstream>()
  const [root] = units
  if (!root) return found
  const reach = (unit: Unit, through: string | null) => {
    found.set(unit.id, { unit, through, depth: through === null ? 0 : found.get(through)!.depth + 1 })
    const queue = [unit.id]
    for (let at = queue.shift(); at !== undefined; at = queue.shift()) {
      for (const id of beside.get(at) ?? []) {
        const next = units.find((candidate) => candidate.id === id)
        if (!next || found.has(id)) continue
        found.set(id, { unit: next, through: at, depth: found.get(at)!.depth + 1 })
        queue.push(id)
      }
    }
  }
  reach(root, null)
  let drawn: ReturnType<typeof joinsOf> | null = null
  /** The plan's hops: reckoned only where cables do not tell all. */
  const hops = () => {
    const plan = planOf(record)
    drawn ??= joinsOf(
      plan,
      placedUnits(record, plan).map((at) => ({ at, cabled: at.unit.facts.cabled === true })),
      catalogue,
      HOP_HOLDS_DBM
    )
    return drawn
  }
  // Of units on one cable that leads nowhere else, the one that joins by air or by the mains is where the others are reached.
  const byItself = ({ facts }: Unit) => ['node', 'extender', 'powerline-adapter'].includes(facts.role ?? '')
  for (const unit of [...units.filter(byItself), ...units]) {
    if (found.has(unit.id)) continue
    const hop = hops().get(unit.id)
    const before = typeof hop === 'object' ? found.get(hop.from.id) : undefined
    const family = modelOf(unit, catalogue)?.family
    const nearer = [...found.values()].filter((upstream) => roleDepth(upstream.unit) < roleDepth(unit))
    const kin = nearer.find((upstream) => family && modelOf(upstream.unit, catalogue)?.family === family)
    const through =
      before ??
      kin ??
      nearer
        .sort((a, b) => roleDepth(b.unit) - roleDepth(a.unit))
        .find((upstream) => ['router', 'gateway', 'modem'].includes(upstream.unit.facts.role ?? '')) ??
      found.get(root.id)!
    reach(unit, through.unit.id)
  }
  return found
}

/** Units in the order in which nobody is cut off: the farthest from the line first, what others are reached through after them. */
export function farthestFirst(record: VisitRecord, catalogue: Catalogue): Upstream[] {
  return [...upstreamOf(record, catalogue).values()].sort(
    (a, b) => b.depth - a.depth || roleDepth(b.unit) - roleDepth(a.unit) || a.unit.addedSeq - b.unit.addedSeq
  )
}
