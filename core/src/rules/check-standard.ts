import { allRules } from './all'
import { firstRules } from './first-rules'
import type { Rule } from './rule'
import { standard, type Standard } from '../policy/standard'

/** What is wrong with a standard, with where: by the schema, and what a schema cannot see. Empty where it can be published. */
export function standardProblems(value: unknown): { path: (string | number)[]; message: string }[] {
  const format = (value as { format?: unknown } | null)?.format
  if (typeof format === 'string' && /^pasado\.standard\/\d+$/.test(format) && format !== 'pasado.standard/1')
    return [{ path: ['format'], message: `is ${format}, of a later version: this program reads pasado.standard/1` }]
  const result = standard.safeParse(value)
  if (!result.success)
    return result.error.issues.map(({ path, message }) => ({
      path: path.map((part) => (typeof part === 'symbol' ? String(part) : part)),
      message
    }))
  const found: { path: (string | number)[]; message: string }[] = []
  const { levels, rules = [], own = [], policy } = result.data
  const known = new Set([...allRules.map(({ id }) => id), ...own.map(({ id }) => id)])
  for (const id of Object.keys(levels))
    if (!known.has(id))
      found.push({ path: ['levels', id], message: 'there is no such rule: mend its name, or take it out' })
  rules.forEach((id, at) => {
    if (!known.has(id))
      found.push({ path: ['rules', at], message: `there is no rule ${id}: mend its name, or take it out` })
  })
  own.forEach(({ id }, at) => {
    if (own.findIndex((candidate) => candidate.id === id) !== at)
      found.push({ path: ['own', at, 'id'], message: 'is used twice: give each rule a name of its own' })
  })
  if (policy.leastHeightM > policy.mostHeightM)
    found.push({ path: ['policy', 'leastHeightM'], message: 'must not be above the greatest height' })
  return found
}

/** Rules that this program knows and a standard was made without: they came with a newer program. */
export function rulesThatCame({ rules }: Standard): Rule[] {
  const known: readonly string[] = rules ?? firstRules
  return allRules.filter(({ id }) => !known.includes(id))
}

/** The next version to be made of one: all that this program knows, with the figures and levels of before. */
export function nextDraft(current: Standard): Standard {
  return { ...current, version: current.version + 1, rules: allRules.map(({ id }) => id) }
}
