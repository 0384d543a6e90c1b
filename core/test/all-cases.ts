import { outcomeCases } from './outcome-cases'
import { cases as visitCases } from './rule-cases'
import { scopeCases } from './scope-cases'
import { sentenceCases } from './sentence-cases'
import { staleCases } from './stale-cases'
import { stayCases } from './stays-cases'
import { unsaidCases } from './unsaid-cases'

/** Every visit that rules are tried on: rule, what was done, the visit, the change, what the rule then says. */
export const allCases = [
  ...visitCases,
  ...outcomeCases,
  ...staleCases,
  ...stayCases,
  ...scopeCases,
  ...unsaidCases,
  ...sentenceCases
]
