import { allRules } from './all'

/** What the order of the docket goes by, of a rule: the minutes its mend takes, and which rules have to hold before, of the same thing or anywhere. */
export interface DocketRule {
  minutes: number
  after: readonly string[]
  afterAnywhere: readonly string[]
}

/** By rule; of a rule of a company's own there is nothing. */
export type DocketRules = Readonly<Record<string, DocketRule>>

/** What the docket goes by of every rule: whoever shows it needs the rules themselves no more. */
export const docketRules: DocketRules = Object.fromEntries(
  allRules.map(({ id, minutes, after = [], afterAnywhere = [] }) => [
    id,
    { minutes, after: after.map((rule) => rule.id), afterAnywhere: afterAnywhere.map((rule) => rule.id) }
  ])
)
