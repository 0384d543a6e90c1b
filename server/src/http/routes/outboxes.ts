import { outboxesApi } from '@pasado/core/api/outboxes'
import { describeEntry } from '@pasado/core/documents/describe-entry'
import type { Draft } from '@pasado/core/record/entry'
import { linesAfterSeal, type LineAfterSeal } from '../../db/lines-after-seal'
import { noteNothingWaits } from '../../db/taken-along'
import { readVisit } from '../../logbook/read'
import { unheardFrom } from '../../logbook/unheard'
import { authorOf, routesOf } from '../route'

/** What devices may still hold of a visit, and what came from them too late. */
export const outboxesRoutes = routesOf(outboxesApi, {
  tellNothingWaits: async ({ services, person, params, body }) => {
    await noteNothingWaits(services.db, params.id, authorOf(person).id, body.but, new Date())
    return {}
  },
  readUnheard: async ({ services, params, query }) => {
    const { record } = await readVisit(services.logbook, params.id)
    return { json: { outboxes: await unheardFrom(services.db, record, query.outbox, new Date()) } }
  },
  readAfterSeal: async ({ services, params }) => {
    const { record } = await readVisit(services.logbook, params.id)
    const catalogue = await services.logbook.states.catalogueFor(services.db, record)
    const told = ({ person, name, received, line }: LineAfterSeal) => {
      const draft = JSON.parse(line) as Draft
      const by = { id: person, name, role: 'technician' as const }
      const placed = { ...draft, by, seq: record.lastSeq, received: received.toISOString() }
      const says = describeEntry(placed, record, catalogue, (iso) => iso.slice(0, 16).replace('T', ' '))
      return { id: draft.id, by: name, at: draft.at, received, says }
    }
    return { json: { lines: (await linesAfterSeal(services.db, params.id)).map(told) } }
  }
})
