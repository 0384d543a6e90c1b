import type { Catalogue } from '@pasado/core/catalogue/model'
import type { Placed } from '@pasado/core/record/entry'
import type { Standard } from '@pasado/core/policy/standard'
import { becauseOf } from '@pasado/core/rules/because'
import type { Finding } from '@pasado/core/rules/finding'
import { answering } from './answering'

/** What is asked: which lines of a logbook a finding rests on. */
export interface BecauseAsk {
  entries: readonly Placed[]
  finding: Finding
  catalogue: Catalogue
  standard: Standard
  now: string
}

answering(({ entries, finding, catalogue, standard, now }: BecauseAsk) =>
  becauseOf(entries, finding, catalogue, standard, now)
)
