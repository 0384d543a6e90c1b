import { schoolWords, type FigureName, type SchoolName, figureOf, figureWords } from '../policy/figures'
import { sameJson } from '../values/canonical'
import { allRules } from './all'
import { type Standard } from '../policy/standard'

/** What changes from one standard to another, a sentence each, in the order of the stages. */
export function standardDifferences(before: Standard, after: Standard): string[] {
  return [
    ...levelChanges(before, after),
    ...figureChanges(before, after),
    ...schoolChanges(before, after),
    ...fourEyesChange(before, after),
    ...wordChange(before, after),
    ...ownRuleChanges(before, after),
    ...(sameJson(before.policy.dnsChoices ?? [], after.policy.dnsChoices ?? [])
      ? []
      : ['Name servers to choose from changed'])
  ]
}

function levelChanges(before: Standard, after: Standard): string[] {
  const level = (standard: Standard, id: string, own: string) =>
    standard.rules && !standard.rules.includes(id) ? 'not known' : (standard.levels[id] ?? own)
  const words = (is: string) => (is === 'off' ? 'not in force' : is)
  return allRules.flatMap((rule) => {
    const [was, is] = [level(before, rule.id, rule.level), level(after, rule.id, rule.level)]
    return was === is ? [] : [`${rule.name}: ${words(was)} → ${words(is)}`]
  })
}

function figureChanges(before: Standard, after: Standard): string[] {
  return (Object.keys(figureWords) as FigureName[]).flatMap((name) => {
    const [was, is] = [figureOf(before.policy, name), figureOf(after.policy, name)]
    return was === is ? [] : [`${figureWords[name].name}: ${was} → ${is} ${figureWords[name].unit}`.trim()]
  })
}

function schoolChanges(before: Standard, after: Standard): string[] {
  return (Object.keys(schoolWords) as SchoolName[]).flatMap((name) => {
    const options = schoolWords[name].options as Record<string, string>
    const words = (option: string | undefined) => (option === undefined ? 'not set' : options[option])
    const [was, is] = [before.policy[name], after.policy[name]]
    return was === is ? [] : [`${schoolWords[name].name}: ${words(was)} → ${words(is)}`]
  })
}

function fourEyesChange(before: Standard, after: Standard): string[] {
  if ((before.policy.fourEyes ?? false) === (after.policy.fourEyes ?? false)) return []
  return [
    after.policy.fourEyes
      ? 'A lead has to approve each visit before it is sealed'
      : 'Visits are sealed without a lead’s approval'
  ]
}

function wordChange(before: Standard, after: Standard): string[] {
  if ((before.policy.wordNeedsLead ?? false) === (after.policy.wordNeedsLead ?? false)) return []
  return [
    after.policy.wordNeedsLead
      ? 'What somebody says of which came first counts once a lead has confirmed it'
      : 'What somebody who was there says of which came first counts'
  ]
}

function ownRuleChanges(before: Standard, after: Standard): string[] {
  const said: string[] = []
  const own = new Map((before.own ?? []).map((rule) => [rule.id, rule]))
  for (const rule of after.own ?? []) {
    const was = own.get(rule.id)
    if (!was) said.push(`New rule of ours: ${rule.asks}`)
    else if (!sameJson(was, rule))
      said.push(`Rule of ours changed: ${rule.asks} (${rule.level}${rule.photo ? ', with a photo' : ''})`)
    own.delete(rule.id)
  }
  for (const rule of own.values()) said.push(`Rule of ours taken out: ${rule.asks}`)
  return said
}
