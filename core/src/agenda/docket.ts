import type { Stage } from '../record/stages'
import { blocks, heaviestFirst, type Finding } from '../rules/evaluate'

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

/** Minutes that the mend of a rule takes, about: this project's estimate; the rest are a minute's work. */
const mendMin: Readonly<Record<string, number>> = {
  'kit-complete': 3,
  'kit-label': 2,
  'kit-adapter': 2,
  'kit-reset': 4,
  'place-height': 3,
  'place-clear': 3,
  'place-outlet': 5,
  'place-hops': 8,
  'place-spacing': 8,
  'place-floors': 2,
  'place-outbuilding': 10,
  'place-final': 1,
  'cable-mode': 3,
  'cable-modem-restart': 5,
  'cable-speed': 4,
  'cable-splitter': 3,
  'cable-power': 5,
  'cable-old-kit': 3,
  'start-good-lamp': 4,
  'start-fresh-lamp': 1,
  'start-method-window': 5,
  'start-prompts': 2,
  'addr-one-dhcp': 4,
  'addr-valid': 2,
  'addr-pool': 2,
  'addr-no-overlap': 5,
  'addr-single-nat': 6,
  'addr-ap-mode': 8,
  'addr-reachable': 2,
  'addr-applied': 4,
  'wifi-name': 3,
  'wifi-naming-school': 4,
  'wifi-security': 3,
  'wifi-passphrase': 3,
  'radio-channel': 3,
  'radio-plan': 4,
  'cred-admin': 3,
  'cred-account': 4,
  'cred-no-leak': 5,
  'firm-recorded': 1,
  'firm-minimum': 10,
  'firm-same': 10,
  'prove-source': 4,
  'prove-rooms': 3,
  'prove-path': 2,
  'prove-after-move': 2,
  'prove-wired': 2,
  'prove-voice': 2,
  'prove-rejoined': 2,
  'hand-choices': 3,
  'hand-pack': 3
}

/** What has to stand before a rule can be proven: of the same thing, or, after `*`, of anything here. */
const before: Readonly<Record<string, readonly string[]>> = {
  'start-good-lamp': ['kit-role', 'kit-adapter'],
  'start-fresh-lamp': ['firm-minimum', 'firm-same', 'place-final'],
  'addr-reachable': ['addr-valid', 'addr-pool', 'addr-unique', '*addr-applied'],
  'prove-path': ['place-final', 'start-good-lamp', '*addr-one-dhcp'],
  'prove-after-move': ['place-final', 'start-good-lamp'],
  'prove-wired': ['start-good-lamp'],
  'prove-rooms': ['*place-final', '*prove-source', '*start-good-lamp', '*radio-channel'],
  'prove-names-gone': ['*wifi-name'],
  'prove-rejoined': ['*wifi-name', '*wifi-passphrase'],
  'prove-settle': ['*prove-after-move'],
  'hand-pack': ['*wifi-name', '*wifi-passphrase', '*place-final', '*hand-choices', '*prove-rooms', '*firm-minimum']
}

const isOpen = (finding: Finding) => blocks(finding)
const keyOf = ({ rule, subject, place }: Finding) => {
  if (place && !['answer', 'pack', 'custody'].includes(place.kind))
    return `${place.kind} ${place.id === 'new' ? rule : place.id}`
  return subject ? `subject ${subject.id}` : rule
}

/**
 * What stands between a visit and sign-off, grouped by what mends it together. The heaviest comes first, and before it
 * what it waits for.
 */
export function docketOf(findings: readonly Finding[]): { groups: DocketGroup[]; minutes: number } {
  const open = heaviestFirst(findings).filter(isOpen)
  const groups = new Map<string, Finding[]>()
  for (const finding of open) groups.set(keyOf(finding), [...(groups.get(keyOf(finding)) ?? []), finding])
  /** What a finding waits for: the first open one of those that have to stand before it. */
  const waitsFor = (finding: Finding): Finding | undefined => {
    for (const wanted of before[finding.rule] ?? []) {
      const rule = wanted.replace('*', '')
      const found = open.find(
        (one) =>
          one.rule === rule && one !== finding && (wanted.startsWith('*') || one.subject?.id === finding.subject?.id)
      )
      if (found) return found
    }
    return undefined
  }
  const made = [...groups].map(([key, list]): DocketGroup & { waits: Finding | undefined } => {
    const waiting = list.map(waitsFor)
    // A group waits only where all of it does: else there is something to do in it now.
    const waits = waiting.every((one) => one !== undefined && keyOf(one) !== key) ? waiting[0] : undefined
    return {
      key,
      subject: list.find(({ subject }) => subject)?.subject?.name ?? null,
      stage: list[0]!.stage,
      findings: list,
      waits,
      minutes: list.reduce((sum, { rule }) => sum + (mendMin[rule] ?? 1), 0),
      after: waits ? (waits.subject ? titleOf(waits) : waits.name.toLowerCase()) : null
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
