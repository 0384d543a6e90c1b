import { schoolWords, type FigureName, type SchoolName, figureOf, figureWords } from '../policy/figures'
import { sameJson } from '../values/canonical'
import { allRules } from './all'
import { type Standard } from '../policy/standard'

/** What changes from one standard to another, a sentence each, in the order of the stages. */
export function standardDifferences(before: Standard, after: Standard): string[] {
  const said: string[] = []
  const level = (standard: Standard, id: string, own: string) =>
    standard.rules && !standard.rules.includes(id) ? 'not known' : (standard.levels[id] ?? own)
  for (const rule of allRules) {
    const [was, is] = [level(before, rule.id, rule.level), level(after, rule.id, rule.level)]
    if (was !== is)
      said.push(`${rule.name}: ${was === 'off' ? 'not in force' : was} → ${is === 'off' ? 'not in force' : is}`)
  }
  for (const name of Object.keys(figureWords) as FigureName[]) {
    const [was, is] = [figureOf(before.policy, name), figureOf(after.policy, name)]
    if (was !== is) said.push(`${figureWords[name].name}: ${was} → ${is} ${figureWords[name].unit}`.trim())
  }
  for (const name of Object.keys(schoolWords) as SchoolName[]) {
    const options = schoolWords[name].options as Record<string, string>
    const [was, is] = [before.policy[name], after.policy[name]]
    if (was !== is)
      said.push(
        `${schoolWords[name].name}: ${was === undefined ? 'not set' : options[was]} → ${is === undefined ? 'not set' : options[is]}`
      )
  }
  if ((before.policy.fourEyes ?? false) !== (after.policy.fourEyes ?? false))
    said.push(
      after.policy.fourEyes
        ? 'A lead has to approve each visit before it is sealed'
        : 'Visits are sealed without a lead’s approval'
    )
  const own = new Map((before.own ?? []).map((one) => [one.id, one]))
  for (const one of after.own ?? []) {
    const was = own.get(one.id)
    if (!was) said.push(`New rule of ours: ${one.asks}`)
    else if (!sameJson(was, one))
      said.push(`Rule of ours changed: ${one.asks} (${one.level}${one.photo ? ', with a photo' : ''})`)
    own.delete(one.id)
  }
  for (const one of own.values()) said.push(`Rule of ours taken out: ${one.asks}`)
  if (!sameJson(before.policy.dnsChoices ?? [], after.policy.dnsChoices ?? []))
    said.push('Name servers to choose from changed')
  return said
}
