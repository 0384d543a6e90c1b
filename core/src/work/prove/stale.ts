import { upstreamOf } from '../configure/upstream'
import type { Catalogue } from '../../catalogue/model'
import { standing, thingsOf, unitName, type VisitRecord } from '../../record/record'

const eventWords: Record<string, string> = {
  moved: 'was moved',
  reset: 'was reset',
  updated: 'was updated',
  'settings-changed': 'had its settings changed'
}

/** Why something that was seen at a place of the logbook through a unit no longer tells how it is; null where it still does. */
export function staleReason(
  record: VisitRecord,
  seq: number,
  unit: string | undefined,
  catalogue: Catalogue
): string | null {
  const up = upstreamOf(record, catalogue)
  // Where no unit is named, any of them may have carried it.
  const way: string[] = unit === undefined ? standing(record.units).map(({ id }) => id) : []
  for (let at = unit; at !== undefined; at = up.get(at)?.through ?? undefined) way.push(at)
  for (const id of way) {
    const held = record.units[id]
    if (!held) continue
    if (held.removedSeq !== null) return `${unitName(held)} was taken out of the visit.`
    const event = held.events.findLast(({ what, seq: at }) => at > seq && what in eventWords)
    if (event) return `${unitName(held)} ${eventWords[event.what]!} since.`
    const radio = standing(thingsOf(record, 'radio')).find(
      ({ facts, meta }) =>
        facts.unit === id && Math.max(0, ...['channel', 'widthMHz'].map((field) => meta[field]?.seq ?? 0)) > seq
    )
    if (radio) return `The ${radio.facts.band} GHz channel of ${unitName(held)} was changed since.`
  }
  return null
}
