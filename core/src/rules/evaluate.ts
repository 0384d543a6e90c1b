import type { Catalogue } from '../catalogue/model'
import type { Finding } from './finding'
import { Judging, rulesInForce, type JudgeOptions } from './judging'
import type { Folded } from '../history/fold'
import type { Standard } from '../policy/standard'

export type { Finding } from './finding'
export type { JudgeOptions, OnFault } from './judging'

/**
 * Judges a logbook by a standard. A rule that fails on it is unproven and named: it never stops a visit.
 * @param catalogue holds the models, in the versions that the record's units name
 * @param options `onFault` is told where a rule failed; `now`, ISO, is what waivers until a day are held against
 * @returns one finding for each rule in force and subject, in the order of the rules; a rule with nothing to say is not here
 */
export function evaluate(
  folded: Folded,
  catalogue: Catalogue,
  standard: Standard,
  options: JudgeOptions = {}
): Finding[] {
  const judging = new Judging(folded, catalogue, standard, options)
  return rulesInForce(standard).flatMap((inForce) => judging.withGrants(inForce.rule, judging.findingsOf(inForce)))
}
