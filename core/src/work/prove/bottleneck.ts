import { cableMbps, checkCabling } from '../cabling/check'
import { modelKey, type Catalogue } from '../../catalogue/model'
import { upstreamOf } from '../configure/upstream'
import { ARRIVES, joinsOf } from '../plan/hops'
import { placedUnits, planOf } from '../plan/home-plan'
import { linkRate } from '../../radio/link-rate'
import { thingsOf, standing, unitName, type Measurement, type VisitRecord } from '../../record/record'
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
  if (source?.down) links.push({ kind: 'line', name: 'the line', mbps: source.down.median, from: 'measured' })
  const up = upstreamOf(record, catalogue)
  const plan = planOf(record)
  const hops = joinsOf(
    plan,
    placedUnits(record, plan).map((one) => ({ at: one, cabled: one.unit.facts.cabled === true })),
    catalogue,
    HOP_HOLDS_DBM
  )
  const cables = standing(thingsOf(record, 'cable'))
  let halved = 0
  const unknown: string[] = []
  for (let one = unit; one !== undefined && record.units[one]; one = up.get(one)?.through ?? undefined) {
    const through = up.get(one)?.through
    if (!through) {
      // What joins another over the air or by a cable hangs on something, recorded or not.
      if (['node', 'extender', 'access-point', 'powerline-adapter'].includes(record.units[one]!.facts.role ?? ''))
        unknown.push(`how ${unitName(record.units[one]!)} is joined`)
      break
    }
    const joins =
      (id: string) =>
      ({ facts: { a, b } }: (typeof cables)[number]) =>
        [a, b].some((end) => end?.thing === 'unit' && end.id === id)
    const cable = cables.filter(joins(one)).find(joins(through))
    const name = `${unitName(record.units[through]!)} to ${unitName(record.units[one]!)}`
    if (cable) {
      const mbps = cable.facts.linkMbps ?? cableMbps(cable.facts)
      if (mbps === null) unknown.push(`the link of the cable from ${name}`)
      else
        links.push({
          kind: 'cable',
          name: `the cable from ${name}`,
          mbps: mbps * CABLE_SHARE,
          from: cable.facts.linkMbps === undefined ? 'calculated' : 'measured'
        })
    } else {
      const join = hops.get(one)
      // Over the mains, and where the plan does not hold both, nothing tells what the hop carries.
      if (typeof join === 'object' && record.units[one]!.facts.role !== 'powerline-adapter') {
        halved++
        links.push({
          kind: 'backhaul',
          name: `the hop from ${name}`,
          mbps: (ARRIVES * linkRate({ rssiDbm: join.dbm, streams: 2, widthMHz: 80 }).phyMbps) / 2 ** halved,
          from: 'calculated'
        })
      } else unknown.push(`the hop from ${name}`)
    }
  }
  if (unit === undefined) unknown.push('the unit that it was measured on')
  if (dbm === undefined) unknown.push('the signal')
  if (dbm !== undefined && band !== undefined && unit !== undefined) {
    const model = catalogue.get(
      modelKey(record.units[unit]?.facts.model ?? '', record.units[unit]?.facts.modelVersion ?? 1)
    )
    const radios = model?.radios.filter((radio) => radio.band === band) ?? []
    const set = standing(thingsOf(record, 'radio')).find(({ facts }) => facts.unit === unit && facts.band === band)
      ?.facts.widthMHz
    const widest =
      set ??
      (band === '2.4'
        ? 20
        : (([80, 40, 20] as const).find((width) => radios.some(({ widthsMHz }) => widthsMHz.includes(width))) ?? 20))
    links.push({
      kind: 'air',
      name: `the air at ${dbm} dBm`,
      mbps: ARRIVES * linkRate({ rssiDbm: dbm, streams: 2, widthMHz: widest }).phyMbps,
      from: 'calculated'
    })
  }
  if (links.length === 0) return null
  links.sort((a, b) => a.mbps - b.mbps)
  const expectedMbps = links[0]!.mbps
  const leastMbps = expectedMbps * CONFIDENCE
  const slow = unknown.length === 0 && at.down !== null && at.down.median < leastMbps
  const finding = slow
    ? `${Math.round(at.down!.median)} Mbit/s is less than half of the ${Math.round(expectedMbps)} that should arrive by what is known of its way${dbm !== undefined && dbm >= REACHES_DBM ? ': not a matter of reach' : ''}. ${checkCabling(record, catalogue).length ? 'Look at the cables that are called out first.' : links.some(({ kind }) => kind === 'backhaul') ? 'Look at the hop and its channel.' : 'Look at the channel, and at what else is on the air.'}`
    : null
  return { links, expectedMbps, leastMbps, unknown, finding }
}
