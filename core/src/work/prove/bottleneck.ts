import { equipmentOf } from '../../record/equipment'
import { checkCabling } from '../cabling/check'
import { cableMbps } from '../cabling/known-cable'
import { modelOf, type Catalogue } from '../../catalogue/model'
import { upstreamOf } from '../configure/upstream'
import { ARRIVES, hopStreams, joinsOf, sharesRadio } from '../plan/hops'
import { planOf } from '../plan/home-plan'
import { placedUnits } from '../plan/placed'
import { linkRate } from '../../radio/link-rate'
import {
  hasEndAt,
  thingsOf,
  standing,
  unitName,
  type Cable,
  type Measurement,
  type Unit,
  type VisitRecord
} from '../../record/record'
import type { Band } from '../../values/band'
import type { Measured } from './rooms'

/** A link on the way from the street to a room, and what it can carry. */
export interface Link {
  kind: 'line' | 'cable' | 'backhaul' | 'air'
  name: string
  mbps: number
  /** Where the figure is from. */
  from: 'measured' | 'calculated'
}

/** What stands between the street and a room, slowest first, and what that says of what was measured. */
export interface Bottleneck {
  links: Link[]
  /** What should arrive: the slowest link. */
  expectedMbps: number
  /** Below this it is not the reach that is at fault: half of what should arrive. */
  leastMbps: number
  /** Parts of the way of which nothing is known: without them nothing is said of what should arrive. */
  unknown: string[]
  finding: string | null
}

/** A measured speed may stay below a calculated one by so much before it is a finding: rates and shares of air vary by about half. */
const CONFIDENCE = 0.5
const HOP_HOLDS_DBM = -75
/** From this signal on it is not the reach that is at fault. */
const REACHES_DBM = -67
/** What a cable carries of its link speed as payload. */
const CABLE_SHARE = 0.94

/** The way to a measured room, link by link, and whether what was measured is what its links carry. */
export function bottleneckOf(
  record: VisitRecord,
  catalogue: Catalogue,
  at: Pick<Measured, 'down'> & { measurement: Measurement },
  source: Measured | null
): Bottleneck | null {
  const { unit, dbm, band } = at.measurement.facts
  const links: Link[] = []
  const unknown: string[] = []
  if (source?.down) links.push({ kind: 'line', name: 'the line', mbps: source.down.median, from: 'measured' })
  if (unit === undefined) unknown.push('the unit that it was measured on')
  else followUp(record, catalogue, unit, links, unknown)
  if (dbm === undefined) unknown.push('the signal')
  else if (band !== undefined && unit !== undefined) links.push(airLink(record, catalogue, unit, band, dbm))
  if (links.length === 0) return null
  links.sort((a, b) => a.mbps - b.mbps)
  const expectedMbps = links[0]!.mbps
  const leastMbps = expectedMbps * CONFIDENCE
  const isSlow = unknown.length === 0 && at.down !== null && at.down.median < leastMbps
  return {
    links,
    expectedMbps,
    leastMbps,
    unknown,
    finding: isSlow ? slowWords(record, catalogue, { links, expectedMbps, measured: at.down.median, dbm }) : null
  }
}

/** Follows what a unit hangs on up to the street: adds the links that carry something, and names those of which nothing is known. */
function followUp(record: VisitRecord, catalogue: Catalogue, unit: string, links: Link[], unknown: string[]): void {
  const up = upstreamOf(record, catalogue)
  const plan = planOf(record)
  const placed = placedUnits(record, plan)
  const hops = joinsOf(
    plan,
    placed.map((at) => ({ at, cabled: at.unit.facts.cabled === true })),
    catalogue,
    HOP_HOLDS_DBM
  )
  const cables = standing(thingsOf(record, 'cable'))
  let halved = 0
  for (let id: string | undefined = unit; id !== undefined; id = up.get(id)?.through ?? undefined) {
    const here: Unit | undefined = record.units[id]
    if (!here) return
    const { role } = here.facts
    const through = up.get(id)?.through
    if (!through) {
      // What joins another over the air or by a cable hangs on something, recorded or not.
      if (role !== undefined && joining.includes(role)) unknown.push(`how ${unitName(here)} is joined`)
      return
    }
    const name = `${unitName(record.units[through]!)} to ${unitName(here)}`
    const cable = cables.find((candidate) => hasEndAt(candidate, here.id) && hasEndAt(candidate, through))
    const join = hops.get(id)
    if (cable) {
      const link = cableLink(cable, name)
      if (link) links.push(link)
      else unknown.push(`the link of the cable from ${name}`)
    } else if (typeof join === 'object' && join.from.id === through && role !== 'powerline-adapter') {
      if (
        sharesRadio(
          placed.find((candidate) => candidate.id === here.id)!,
          catalogue
        )
      )
        halved++
      const streams = hopStreams(here, catalogue)
      links.push({
        kind: 'backhaul',
        name: `the hop from ${name}`,
        mbps: (ARRIVES * linkRate({ rssiDbm: join.dbm, streams, widthMHz: 80 }).phyMbps) / 2 ** halved,
        from: 'calculated'
      })
    }
    // Over the mains, where the plan does not hold both, and where it takes another way, nothing tells what the hop carries.
    else unknown.push(`the hop from ${name}`)
  }
}

const joining: readonly string[] = ['node', 'extender', 'access-point', 'powerline-adapter']

/** What a cable carries, by the speed its link came up at or else by its kind; null where neither is known. */
function cableLink({ facts }: Cable, between: string): Link | null {
  const mbps = facts.linkMbps ?? cableMbps(facts)
  return mbps === null
    ? null
    : {
        kind: 'cable',
        name: `the cable from ${between}`,
        mbps: mbps * CABLE_SHARE,
        from: facts.linkMbps === undefined ? 'calculated' : 'measured'
      }
}

/** What the air of a unit carries at a signal: at the width that is set, else at the widest its radio can. */
function airLink(record: VisitRecord, catalogue: Catalogue, unit: string, band: Band, dbm: number): Link {
  const through = equipmentOf(record, unit)
  const model = through && modelOf(through.thing, catalogue)
  const radios = (model?.radios ?? []).filter((radio) => radio.band === band)
  const set = standing(thingsOf(record, 'radio')).find(({ facts }) => facts.unit === unit && facts.band === band)?.facts
    .widthMHz
  const widths = band === '2.4' ? ([20] as const) : ([80, 40, 20] as const)
  const widest = widths.find((width) => radios.some(({ widthsMHz }) => widthsMHz.includes(width))) ?? 20
  return {
    kind: 'air',
    name: `the air at ${dbm} dBm`,
    mbps: ARRIVES * linkRate({ rssiDbm: dbm, streams: 2, widthMHz: set ?? widest }).phyMbps,
    from: 'calculated'
  }
}

/** That less arrives than should, and where to look. */
function slowWords(
  record: VisitRecord,
  catalogue: Catalogue,
  slow: { links: readonly Link[]; expectedMbps: number; measured: number; dbm: number | undefined }
): string {
  const reaches = slow.dbm !== undefined && slow.dbm >= REACHES_DBM ? ': not a matter of reach' : ''
  const look = () => {
    if (checkCabling(record, catalogue).length) return 'Look at the cables that are called out first.'
    if (slow.links.some(({ kind }) => kind === 'backhaul')) return 'Look at the hop and its channel.'
    return 'Look at the channel, and at what else is on the air.'
  }
  return `${Math.round(slow.measured)} Mbit/s is less than half of the ${Math.round(slow.expectedMbps)} that should arrive by what is known of its way${reaches}. ${look()}`
}
