import { checkCabling } from '../cabling/check'
import type { Catalogue } from '../../catalogue/model'
import type { Folded } from '../../history/fold'
import type { Measurement, VisitRecord } from '../../record/record'
import type { Measured } from './rooms'
import { wayTo, type Link, type UnknownLink } from './way'

/** What stands between the street and a room, slowest first, and what that says of what was measured. */
export interface Bottleneck {
  links: Link[]
  /** The same from the street to the room. */
  way: Link[]
  /** What should arrive: the slowest link. */
  expectedMbps: number
  /** Below this it is not the reach that is at fault: half of what should arrive. */
  leastMbps: number
  /** Parts of the way of which nothing is known: without them nothing is said of what should arrive. */
  unknown: UnknownLink[]
  finding: string | null
}

/** A measured speed may stay below a calculated one by so much before it is a finding: rates and shares of air vary by about half. */
const CONFIDENCE = 0.5
/** What a link that came up at 100 Mbit/s carries: hardly anything else gives just this. */
const [HUNDRED_LEAST, HUNDRED_MOST] = [89, 96]

/**
 * The way to a measured room, link by link, and whether what was measured is what its links carry.
 * @param reachesDbm from this signal on it is not the reach that is at fault: the company's figure of a room
 */
export function bottleneckOf(
  folded: Folded,
  catalogue: Catalogue,
  at: Pick<Measured, 'down'> & { measurement: Measurement },
  source: Measured | null,
  reachesDbm: number
): Bottleneck | null {
  const { dbm } = at.measurement.facts
  const way = wayTo(folded, catalogue, at.measurement.facts)
  const unknown = [...way.unknown]
  const links = [...way.links]
  if (source?.down)
    links.push({
      kind: 'line',
      name: 'the line',
      mbps: source.down.median,
      from: 'measured',
      because: 'at the source, by cable'
    })
  else unknown.push({ name: 'what the line gives', read: 'Measure at the source by cable.' })
  if (links.length === 0) return null
  const slowestFirst = [...links].sort((a, b) => a.mbps - b.mbps)
  const expectedMbps = slowestFirst[0]!.mbps
  const leastMbps = expectedMbps * CONFIDENCE
  const isSlow = unknown.length === 0 && at.down !== null && at.down.median < leastMbps
  const slow = { links, expectedMbps, measured: at.down?.median ?? 0, reaches: dbm !== undefined && dbm >= reachesDbm }
  return {
    links: slowestFirst,
    way: links.toReversed(),
    expectedMbps,
    leastMbps,
    unknown,
    finding: fallenWords(slow) ?? (isSlow ? slowWords(folded.record, catalogue, slow) : null)
  }
}

/** That just what a link of 100 carries arrives, where a cable on the way was not read and should carry more; null otherwise. */
function fallenWords({ links, expectedMbps, measured }: Slow): string | null {
  const unread = links.find(({ kind, from }) => kind === 'cable' && from === 'calculated')
  return unread && measured >= HUNDRED_LEAST && measured <= HUNDRED_MOST && expectedMbps > measured * 1.2
    ? `${Math.round(measured)} Mbit/s is just what a link of 100 carries: read the speed that the link of ${unread.name} came up at.`
    : null
}

interface Slow {
  links: readonly Link[]
  expectedMbps: number
  measured: number
  reaches: boolean
}

/** That less arrives than should, and where to look. */
function slowWords(record: VisitRecord, catalogue: Catalogue, slow: Slow): string {
  const reaches = slow.reaches ? ': not a matter of reach' : ''
  const look = () => {
    if (checkCabling(record, catalogue).length) return 'Look at the cables that are called out first.'
    if (slow.links.some(({ kind }) => kind === 'backhaul')) return 'Look at the hop and its channel.'
    if (slow.links.some(({ kind }) => kind === 'mains'))
      return 'Look at the outlets of the adapters and at what shares their circuit.'
    return 'Look at the channel, and at what else is on the air.'
  }
  return `${Math.round(slow.measured)} Mbit/s is less than half of the ${Math.round(slow.expectedMbps)} that should arrive by what is known of its way${reaches}. ${look()}`
}
