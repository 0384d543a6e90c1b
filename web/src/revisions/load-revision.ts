import type { WholeVisit } from '@pasado/core/api/visits'
import { catalogueOf } from '@pasado/core/catalogue/model'
import type { Revision } from '@pasado/core/documents/change'
import { entriesUpTo, type Moment } from '@pasado/core/record/moments'
import { fold } from '@pasado/core/history/fold'
import { ask } from '../app/api'

/** Loads a visit whole. */
export const loadWhole = (visit: string): Promise<WholeVisit> => ask('GET /visits/:id', { params: { id: visit } })

/** A visit at a moment, with what it is judged by. */
export function revisionAt({ entries, standard, models }: WholeVisit, moment: Moment): Revision {
  return { ...fold(entriesUpTo(entries, moment)), standard, catalogue: catalogueOf(models) }
}
