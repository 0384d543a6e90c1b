import type { Stage } from '../record/stages'
import type { Finding } from '../rules/finding'
import type { DocketRules } from '../rules/docket-rules'
import { blocks, heaviestFirst } from '../rules/weigh'

/** What is mended together: one thing, or one answer, with everything that stands against it. */
export interface DocketGroup {
  key: string
  /** What it is about: a unit, a network, a room; null where it is the visit. */
  subject: string | null
  stage: Stage
  /** Heaviest first. */
  findings: Finding[]
  /** Minutes that mending it takes, about. */
  minutes: number
  /** Why it had better wait: what has to be done before, in words; null where nothing has. */
  after: string | null
}

/** A finding as one line: what it is about, and what its rule is called. */
export function titleOf({ subject, name }: Pick<Finding, 'subject' | 'name'>): string {
  return subject ? `${subject.name}: ${name.toLowerCase()}` : name
}

/** A finding as it is called inside a sentence. */
const nameInside = (finding: Finding) => (finding.subject ? titleOf(finding) : finding.name.toLowerCase())

const isOpen = (finding: Finding) => blocks(finding)
const keyOf = ({ rule, subject, place }: Finding) => {
  if (place && !['answer', 'pack', 'custody'].includes(place.kind))
    return `${place.kind} ${place.id === 'new' ? rule : place.id}`
  return subject ? `subject ${subject.id}` : rule
}

/** Minutes that mending a finding takes, about: what a unit’s place only has to be looked at for is a look and a press. */
const minutesOf = ({ rule, stage, outcome, place }: Finding, rules: DocketRules): number =>
  outcome === 'unproven' && stage === 'place' && place?.kind === 'answer' ? 1 : (rules[rule]?.minutes ?? 1)

/**
 * What stands between a visit and sign-off, grouped by what mends it together. The heaviest comes first, and before it
 * what it waits for.
 */
export function docketOf(findings: readonly Finding[], rules: DocketRules): { groups: DocketGroup[]; minutes: number } {
  const open = heaviestFirst(findings).filter(isOpen)
  const groups = new Map<string, Finding[]>()
  for (const finding of open) groups.set(keyOf(finding), [...(groups.get(keyOf(finding)) ?? []), finding])
  /** What a finding waits for: the first open one of those that have to stand before it. */
  const waitsFor = (finding: Finding): Finding | undefined => {
    const rule = rules[finding.rule]
    const isBefore = (other: Finding, id: string) => other.rule === id && other !== finding
    for (const id of rule?.after ?? []) {
      const found = open.find((other) => isBefore(other, id) && other.subject?.id === finding.subject?.id)
      if (found) return found
    }
    for (const id of rule?.afterAnywhere ?? []) {
      const found = open.find((other) => isBefore(other, id))
      if (found) return found
    }
    return undefined
  }
  const made = [...groups].map(([key, list]): DocketGroup & { waits: Finding | undefined } => {
    const waiting = list.map(waitsFor)
    // A group waits only where all of it does: else there is something to do in it now.
    const waits = waiting.every((candidate) => candidate !== undefined && keyOf(candidate) !== key)
      ? waiting[0]
      : undefined
    return {
      key,
      subject: list.find(({ subject }) => subject)?.subject?.name ?? null,
      stage: list[0]!.stage,
      findings: list,
      waits,
      minutes: list.reduce((sum, finding) => sum + minutesOf(finding, rules), 0),
      after: waits ? nameInside(waits) : null
    }
  })
  const order = (group: (typeof made)[number]) => open.indexOf(group.findings[0]!)
  const sorted: (typeof made)[number][] = []
  const placed = new Set<string>()
  const put = (group: (typeof made)[number], seen: ReadonlySet<string>) => {
    if (placed.has(group.key) || seen.has(group.key)) return
    const first = group.waits && made.find(({ key }) => key === keyOf(group.waits!))
    if (first) put(first, new Set([...seen, group.key]))
    if (!placed.has(group.key)) {
      placed.add(group.key)
      sorted.push(group)
    }
  }
  for (const group of [...made].sort((a, b) => order(a) - order(b))) put(group, new Set())
  return {
    groups: sorted.map(({ waits: _, ...group }) => group),
    minutes: sorted.reduce((sum, { minutes }) => sum + minutes, 0)
  }
}
