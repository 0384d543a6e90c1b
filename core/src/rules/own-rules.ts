import { photosOf, ruleKey } from '../record/record'
import type { OwnRule } from '../policy/own-rule-schema'
import { breaks, holds, unproven, type Home, type Place, type Rule, type Verdict } from './rule'

/** A rule of the company's own as the others are: it holds where somebody answered yes, with a photo where one is wanted. */
export function asRule({ id, stage, level, asks, photo }: OwnRule): Rule {
  const place: Place = { stage, kind: 'answer', id, field: 'answer' }
  return {
    id,
    name: asks,
    stage,
    level,
    minutes: 1,
    statement: asks,
    asks,
    judge: ({ record }: Home): Verdict[] => {
      const given = record.answers[ruleKey(id)]
      if (!given) return [unproven('Nobody has answered this yet.', 'Look, ask or tell, then answer here.', place)]
      if (given.answer !== 'yes')
        return [breaks(`${given.by.name} answered ${given.answer}.`, 'Put it right, then answer yes.', place)]
      if (photo && !photosOf(record).some(({ about }) => about.thing === 'rule' && about.id === id))
        return [unproven('Answered yes, and no photo proves it.', 'Take a photo of it here.', place)]
      return [holds(`${given.by.name} answered yes${photo ? ', with a photo' : ''}.`)]
    }
  }
}
