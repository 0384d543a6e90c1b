import { catalogueOf, type Model } from '@pasado/core/catalogue/model'
import type { Entry } from '@pasado/core/record/entry'
import type { Revision } from '@pasado/core/documents/change'
import { recordAt, type Moment } from '@pasado/core/record/moments'
import type { Standard } from '@pasado/core/policy/standard'
import { ask } from '../app/api'

/** A visit as the server holds it, to look at at any moment. */
export interface WholeVisit {
  entries: Entry[]
  standard: Standard
  models: Model[]
}

/** Loads a visit whole. */
export const loadWhole = (visit: string): Promise<WholeVisit> => ask<WholeVisit>('GET', `/visits/${visit}`)

/** A visit at a moment, with what it is judged by. */
export function revisionAt({ entries, standard, models }: WholeVisit, moment: Moment): Revision {
  return { record: recordAt(entries, moment), standard, catalogue: catalogueOf(models) }
}
