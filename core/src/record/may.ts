import type { Author } from './attribution'
import type { Placed } from './entry'
import { hasHeld, type VisitRecord } from './record'

type Person = Pick<Author, 'id' | 'role'>
type OfVisit = Pick<VisitRecord, 'visit'>

/** Whether somebody works on a visit: whoever has it, whoever joined it, and leads. */
export const worksOn = ({ visit: { technician, joined } }: OfVisit, person: Person): boolean =>
  person.role === 'lead' || person.id === technician.id || (joined ?? []).some(({ id }) => id === person.id)

/** Who has a visit from a line on, and when that line came. */
interface Holder {
  seq: number
  person: string
  received: string
}

function holdersOf(lines: readonly Placed[]): Holder[] {
  return lines.flatMap(({ seq, kind, body, received }) =>
    kind === 'visit.opened' || kind === 'visit.handed' ? [{ seq, person: body.technician.id, received }] : []
  )
}

/** Since when a visit is no longer with somebody who had it as far as a line's author knew; null where it still is, undefined where they had it not. */
function gaveUp(holders: readonly Holder[], person: string, base: number): Holder | null | undefined {
  if (holders.findLast(({ seq }) => seq <= base)?.person !== person) return undefined
  return holders.find((holder) => holder.seq > base && holder.person !== person) ?? null
}

/**
 * Why this person does not write a line in a visit, in words; null where they do: who works on it, and who had it when the line was
 * written, until it is too long ago that it was handed on. What the office writes is told elsewhere.
 * @param lines gives the logbook, in its order; it is asked for only where it matters
 * @param base the last line that the author had seen
 * @param now the server's clock, ISO
 * @param lateH for how many hours after it was handed on they do
 */
export function whyNotWrite(
  record: OfVisit,
  lines: () => readonly Placed[],
  base: number,
  person: Person,
  now: string,
  lateH: number
): string | null {
  if (person.role === 'office' || worksOn(record, person)) return null
  const has = record.visit.technician.name
  const since = gaveUp(holdersOf(lines()), person.id, base)
  if (since === undefined) return `${has} has this visit. Join it first, and say why.`
  return since !== null && Date.parse(now) - Date.parse(since.received) > lateH * 3_600_000
    ? `This visit was handed on more than ${lateH} hours ago: ${has} has it. Join it, and write it again.`
    : null
}

/** Lines that came from somebody who had the visit when they wrote them, after it was handed on; by their numbers. */
export function lateLines(lines: readonly Placed[]): Set<number> {
  const holders = holdersOf(lines)
  const late = lines.filter(({ seq, base, by }) => {
    const since = gaveUp(holders, by.id, base)
    return since && since.seq < seq && holders.findLast((holder) => holder.seq < seq)?.person !== by.id
  })
  return new Set(late.map(({ seq }) => seq))
}

/** Why this person does not cancel a visit or reopen it, in words; null where they do: office and leads, and whoever has it. */
export function whyNotCancel({ visit: { technician } }: OfVisit, person: Person): string | null {
  return person.role !== 'technician' || person.id === technician.id
    ? null
    : `${technician.name} has this visit: they cancel or reopen it, or a lead or the office does.`
}

/** Why this person does not sign, in words; null where they do. Both sign on the device of whoever has the visit. */
export function whyNotSign({ visit: { technician } }: OfVisit, person: Person): string | null {
  return person.id === technician.id
    ? null
    : `${technician.name} has this visit: both sign on the device of whoever has it. Take the visit over first.`
}

/** Why this person does not seal, in words; null where they do: whoever has the visit, and leads. */
export function whyNotSeal({ visit: { technician } }: OfVisit, person: Person): string | null {
  return person.role === 'lead' || person.id === technician.id
    ? null
    : `${technician.name} has this visit and seals it, or a lead does. Take the visit over first.`
}

/** Why this person does not have the visit checked by that version of the standard, in words; null where they do. An older one is a lead's to choose. */
export function whyNotMoveStandard(
  { visit: { technician, standard } }: OfVisit,
  version: number,
  person: Person
): string | null {
  if (person.role !== 'lead' && person.id !== technician.id)
    return `${technician.name} has this visit and moves it to a newer version, or a lead does.`
  return version < standard.version && person.role !== 'lead'
    ? 'Only a lead has a visit checked by an older version of the standard.'
    : null
}

/** Why nobody, or not this person, approves the visit yet, in words; null where nothing that the record tells stands against it. */
export function whyNotApprove(
  record: VisitRecord,
  left: { mustsOpen: number; unsettled: number },
  person: Person
): string | null {
  if (hasHeld(record, person.id)) return 'Whoever has or had the visit does not approve it; ask another lead.'
  const open = left.mustsOpen + left.unsettled
  return open === 0
    ? null
    : `It cannot be approved yet: ${open} ${open === 1 ? 'must is' : 'musts are'} neither proven nor waived. Approving means that it can be signed.`
}

/** Why this person does not grant or end a waiver, in words; null where they do: a lead, and with four eyes of a must in no visit of their own. */
export function whyNotWaive(record: VisitRecord, isMust: boolean, fourEyes: boolean, person: Person): string | null {
  if (person.role !== 'lead') return 'Only a lead grants or withdraws waivers and sends visits back.'
  return fourEyes && isMust && hasHeld(record, person.id)
    ? 'Somebody else looks at this: a lead does not waive in a visit of their own.'
    : null
}
