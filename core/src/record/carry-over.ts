import type { Placed } from './entry'
import type { EntryKind } from './entries/all'
import type { Facts } from './facts'
import { anyThingsOf, standing, type VisitRecord } from './record'
import { storedKinds, things } from './things/all'
import { without } from './things/thing'

/** Whether a line stands since the visit was opened: the opening, and what it took over from the visit before. */
export const isCarriedOver = (line: Received, opened: Received | undefined): boolean =>
  line.received === opened?.received && line.from === opened.from

/** When the server took a line, and from which outbox: what it takes over itself comes from its own. */
type Received = Pick<Placed, 'received' | 'from'>

/** What is the visit's own: the next one is told it anew. */
const ofTheVisit = without(
  'customerName',
  'plannedAt',
  'reason',
  'street',
  'town',
  'noUnitReason',
  'lineCarries',
  'lineTold',
  // What the provider was told then says nothing of what its line gives now.
  'providerReference'
)

/**
 * What a new visit at a home begins with, as entries: all that stands there by its last sealed visit.
 * @param known what the brief of the new visit holds already
 */
export function carriedEntries(
  from: VisitRecord,
  known: Facts<'brief'>
): { kind: EntryKind; body: Record<string, unknown> }[] {
  const brief = Object.fromEntries(Object.entries(ofTheVisit(from.brief.facts)).filter(([field]) => !(field in known)))
  const carried = storedKinds.flatMap((kind) => {
    const { carriesOver } = things[kind]
    if (!carriesOver) return []
    return standing(anyThingsOf(from, kind)).flatMap(({ id, facts }) => {
      const set = carriesOver(facts)
      return Object.keys(set).length ? [{ kind: `${kind}.set` as const, body: { id, set } }] : []
    })
  })
  return Object.keys(brief).length ? [{ kind: 'brief.set', body: { set: brief } }, ...carried] : carried
}
