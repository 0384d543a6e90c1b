import type { Author } from './attribution'
import { hasHeld, type VisitRecord } from './record'

type Person = Pick<Author, 'id' | 'role'>
type OfVisit = Pick<VisitRecord, 'visit'>

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
