import type { Rule } from './rule'
import { addressRules } from './stages/addresses'
import { briefRules } from './stages/brief'
import { credentialRules } from './stages/credentials'
import { firmwareRules } from './stages/firmware'
import { handoverRules } from './stages/handover'
import { kitRules } from './stages/kit'
import { placeRules } from './stages/place'
import { connectRules } from './stages/connect'
import { planRules } from './stages/plan'
import { radioRules } from './stages/radio'
import { proveRules } from './stages/prove'
import { signOffRules } from './stages/sign-off'
import { startRules } from './stages/start'
import { wifiRules } from './stages/wifi'

/** Every rule, in the order of the stages. */
export const allRules: readonly Rule[] = [
  ...briefRules,
  ...kitRules,
  ...placeRules,
  ...planRules,
  ...connectRules,
  ...startRules,
  ...addressRules,
  ...wifiRules,
  ...radioRules,
  ...credentialRules,
  ...firmwareRules,
  ...proveRules,
  ...handoverRules,
  ...signOffRules
]

const byId = new Map(allRules.map((rule) => [rule.id, rule]))

/** A rule by its id; none for a rule of a company's own. */
export const ruleOf = (id: string): Rule | undefined => byId.get(id)

/** What a rule is called: its id where this program does not know it. */
export const ruleName = (id: string): string => byId.get(id)?.name ?? id
