import { z } from 'zod'
import { id, textLine } from '../record/fields'
import { contract, everyRole, moment } from './contract'

const visit = z.strictObject({ id })

/** An outbox that holds a visit and has not said since that nothing waits there. */
export const unheardOutbox = z.object({
  outbox: z.string(),
  /** Whose it is. */
  person: z.string(),
  /** When it was last heard from. */
  since: moment
})
export type UnheardOutbox = z.output<typeof unheardOutbox>

/** A line that came when its visit was sealed already. */
export const lineAfterSeal = z.object({
  id: z.string(),
  by: z.string(),
  /** When it was written, by the clock of its author's device. */
  at: moment,
  /** When it came. */
  received: moment,
  /** What it says, in words. */
  says: z.string()
})
export type LineAfterSeal = z.output<typeof lineAfterSeal>

/** What devices may still hold of a visit, and what came from them too late. */
export const outboxesApi = {
  tellNothingWaits: contract({
    method: 'post',
    path: '/outboxes/:id/nothing-waits',
    does: 'Say that nothing written in one’s own outbox waits to be sent, but for the visits named',
    roles: everyRole,
    params: visit,
    body: z.strictObject({ but: z.array(id).max(1000) }),
    answer: 'nothing'
  }),
  readUnheard: contract({
    method: 'get',
    path: '/visits/:id/not-heard-from',
    does: 'Outboxes of whoever works on a visit that took it along and have not said since that nothing waits; the asking one apart',
    roles: everyRole,
    params: visit,
    query: z.strictObject({ outbox: id.optional() }),
    answer: z.object({ outboxes: z.array(unheardOutbox) })
  }),
  readAfterSeal: contract({
    method: 'get',
    path: '/visits/:id/after-seal',
    does: 'Lines that came when the visit was sealed already: kept beside it, no part of the record',
    roles: everyRole,
    params: visit,
    answer: z.object({ lines: z.array(lineAfterSeal) })
  })
}

/** Why a visit is sealed without what devices that were not heard from may hold. */
export const withoutThem = textLine(300)
