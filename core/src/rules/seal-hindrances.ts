import { conflictsOf } from '../history/conflicts'
import type { Folded } from '../history/fold'
import { nothingDone } from '../record/installs'
import { hasHeld } from '../record/record'
import type { Finding } from './finding'
import { blocks } from './weigh'

/**
 * What stands between a record and its seal, in words; empty where it can be sealed.
 * Signatures must be under the very record that is sealed.
 */
export function sealHindrances(
  { record, history }: Folded,
  findings: readonly Finding[],
  digest: string,
  fourEyes = false
): string[] {
  const unsettled = conflictsOf(history).length
  const hindrances: string[] = []
  if (record.visit.cancelled) hindrances.push('it is cancelled: reopen it first')
  const nothing = nothingDone(record)
  if (nothing) hindrances.push(nothing)
  const open = findings.filter(blocks)
  if (open.length)
    hindrances.push(
      `${open.length} ${open.length === 1 ? 'finding stands' : 'findings stand'} between this visit and sign-off`
    )
  if (unsettled) hindrances.push(`${unsettled} ${unsettled === 1 ? 'conflict is' : 'conflicts are'} not settled`)
  if (fourEyes) {
    const { review } = record
    if (review?.state !== 'approved' || hasHeld(record, review.by.id))
      hindrances.push('somebody else has to approve it: ask a lead to look')
    else if (review.digest !== digest)
      hindrances.push('the record changed after it was approved: ask a lead to look again')
  }
  for (const who of ['customer', 'technician'] as const) {
    const signature = record.signatures[who]
    if (!signature) hindrances.push(`the ${who} has not signed`)
    else if (signature.digest !== digest) hindrances.push(`the record changed after the ${who} signed: sign again`)
  }
  return hindrances
}
