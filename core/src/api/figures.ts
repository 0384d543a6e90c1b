import { z } from 'zod'
import { contract, everyRole, moment } from './contract'

const query = z.strictObject({
  months: z.coerce.number().int().min(1, 'must be 1 or more').max(60, 'must be at most 60').default(12)
})
const outcomes = { breaks: z.int(), waived: z.int(), unproven: z.int() }

/**
 * How a rule came out in the visits that were sealed in a month: visits in which it applied, and those in which it broke, was waived or
 * stayed unproven somewhere.
 */
export const ruleMonth = z.object({ rule: z.string(), month: z.string(), visits: z.int(), ...outcomes })
export type RuleMonth = z.output<typeof ruleMonth>

/** The same of one rule, by the model of the unit it spoke of. */
export const ruleModel = z.object({ model: z.string(), units: z.int(), ...outcomes })
export type RuleModel = z.output<typeof ruleModel>

/** How rules came out in sealed visits, so that the standard can learn. */
export const figuresApi = {
  readFigures: contract({
    method: 'get',
    path: '/figures',
    does: 'How each rule came out in the visits sealed in the last months, by rule and month',
    roles: everyRole,
    query,
    answer: z.object({ since: moment, rules: z.array(ruleMonth) })
  }),
  readFiguresOfRule: contract({
    method: 'get',
    path: '/figures/:rule',
    does: 'How a rule came out by the model of the unit it spoke of, in the visits sealed in the last months',
    roles: everyRole,
    query,
    params: z.strictObject({ rule: z.string().regex(/^[a-z0-9-]{3,60}$/) }),
    answer: z.object({ models: z.array(ruleModel) })
  })
}
