import type { Catalogue } from '../../catalogue/model'
import {
  standing,
  unitName,
  type Cable,
  type Network,
  type Segment,
  type Unit,
  type VisitRecord
} from '../../record/record'
import { hasRole } from '../../record/roles'
import { cablesOf, where, type KnownCable } from '../cabling/known-cable'
import { upstreamOf } from './upstream'

/** That a network's VLAN does not come to a unit that sends it, or that nobody knows whether it does. */
export interface VlanProblem {
  outcome: 'breaks' | 'unproven'
  message: string
  remedy: string
  /** The unit that sends it; null where none is recorded. */
  unit: string | null
  /** The cable that it is about; null where none is recorded. */
  cable: string | null
}

/** What a cable says of a VLAN: that it carries it, that it does not, or nothing. */
function carries({ facts: { tagged, untagged } }: Cable, vlan: number): boolean | null {
  if (untagged === vlan || tagged?.includes(vlan)) return true
  return tagged === undefined ? null : false
}

/** A way between two things: a cable, or over the air from a unit that joins by itself. */
interface Way {
  to: string
  known: KnownCable | null
}

function waysOf(record: VisitRecord, catalogue: Catalogue): Map<string, Way[]> {
  const ways = new Map<string, Way[]>()
  const add = (from: string, to: string, known: KnownCable | null) =>
    ways.set(from, [...(ways.get(from) ?? []), { to, known }])
  for (const known of cablesOf(record, catalogue)) {
    const { a, b, kind } = known.cable.facts
    if ((kind ?? 'network') !== 'network' || !a || !b) continue
    add(a.id, b.id, known)
    add(b.id, a.id, known)
  }
  const onCable = new Set(ways.keys())
  // What joins over the air or the mains carries what its maker's units carry; what hangs on a cable goes by that alone.
  for (const { unit, through } of upstreamOf(record, catalogue).values())
    if (
      through !== null &&
      hasRole(unit, 'node', 'extender', 'powerline-adapter') &&
      !unit.facts.cabled &&
      !onCable.has(unit.id)
    ) {
      add(unit.id, through, null)
      add(through, unit.id, null)
    }
  return ways
}

/** The ways from one thing to any of others, over those that are let through; null where there is none. */
function wayTo(
  ways: ReadonlyMap<string, readonly Way[]>,
  from: string,
  to: ReadonlySet<string>,
  lets: (way: Way) => boolean
): Way[] | null {
  const came = new Map<string, { from: string; way: Way } | null>([[from, null]])
  for (const at of came.keys()) {
    if (to.has(at)) {
      const back: Way[] = []
      for (let step = came.get(at); step; step = came.get(step.from)) back.push(step.way)
      return back
    }
    for (const way of ways.get(at) ?? []) if (lets(way) && !came.has(way.to)) came.set(way.to, { from: at, way })
  }
  return null
}

/** Who gives addresses in a segment; where nobody is recorded, whatever stands nearest to the line. */
function serversOf(record: VisitRecord, catalogue: Catalogue, segment: Segment): Set<string> {
  const pools = standing(record.pools).flatMap(({ facts }) =>
    facts.segment === segment.id && facts.unit !== undefined ? [facts.unit] : []
  )
  const staying = standing(record.stays ?? {}).flatMap(({ id, facts }) =>
    facts.givesAddresses === 'yes' && facts.segment === segment.id ? [id] : []
  )
  const heads = [...upstreamOf(record, catalogue).values()].flatMap(({ unit, through }) =>
    through === null ? [unit.id] : []
  )
  return new Set(pools.length + staying.length > 0 ? [...pools, ...staying] : heads)
}

/** The units that send a network. */
const sendersOf = (units: readonly { unit: Unit; sends: boolean }[], { facts }: Network): Unit[] =>
  units
    .filter(({ unit, sends }) => (facts.extender === undefined ? sends : unit.id === facts.extender))
    .map(({ unit }) => unit)

/**
 * What is wrong with the way of a network's VLAN: from each unit that sends it to whoever gives addresses in its segment every cable has to
 * carry it, tagged (IEEE 802.1Q) or as the one VLAN that it has untagged.
 * @param units all of the visit, and whether each sends names
 * @returns the first thing that is wrong, or not known; null where it comes everywhere, or the segment has no VLAN of its own
 */
export function vlanProblem(
  record: VisitRecord,
  catalogue: Catalogue,
  units: readonly { unit: Unit; sends: boolean }[],
  network: Network,
  segment: Segment
): VlanProblem | null {
  const { vlan } = segment.facts
  if (vlan === undefined) return null
  const ways = waysOf(record, catalogue)
  const servers = serversOf(record, catalogue, segment)
  const sending = sendersOf(units, network)
  if (sending.length === 0)
    return {
      outcome: 'unproven',
      message: `Nothing that sends it is recorded: whether VLAN ${vlan} comes there is not known.`,
      remedy: 'Record the unit that sends it under Kit.',
      unit: null,
      cable: null
    }
  const problems = sending.flatMap((unit) => {
    const over = (lets: (says: boolean | null) => boolean) =>
      wayTo(ways, unit.id, servers, ({ known }) => known === null || lets(carries(known.cable, vlan)))
    if (over((says) => says === true)) return []
    const unsaid = over((says) => says !== false)
    const without = unsaid ?? over(() => true)
    return [problemOn(unit, vlan, without, unsaid !== null)]
  })
  return problems.find(({ outcome }) => outcome === 'breaks') ?? problems[0] ?? null
}

function problemOn(unit: Unit, vlan: number, way: readonly Way[] | null, isUnsaid: boolean): VlanProblem {
  const name = unitName(unit)
  const bad = way?.find(
    ({ known }) => known !== null && carries(known.cable, vlan) === (isUnsaid ? null : false)
  )?.known
  if (!bad)
    return {
      outcome: 'unproven',
      message: `How ${name} hangs on the rest is not recorded: whether VLAN ${vlan} comes there is not known.`,
      remedy: 'Record its cables under Connect, with the VLANs that they carry.',
      unit: unit.id,
      cable: null
    }
  const ends = [bad.a, bad.b].map((port) => (port ? where(port) : 'a port that is gone')).join(' and ')
  return isUnsaid
    ? {
        outcome: 'unproven',
        message: `Whether the cable between ${ends} carries VLAN ${vlan} to ${name} is not recorded.`,
        remedy: 'Look at the ports on their pages, and record which VLANs they have.',
        unit: unit.id,
        cable: bad.cable.id
      }
    : {
        outcome: 'breaks',
        message: `VLAN ${vlan} does not come to ${name}: the cable between ${ends} does not carry it.`,
        remedy: 'Let both of its ports carry it, then record that.',
        unit: unit.id,
        cable: bad.cable.id
      }
}
