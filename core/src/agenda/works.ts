import { carriedThrough } from '../history/carried'
import { stages, stageNames, type Stage } from '../record/stages'
import type { DocketRules } from '../rules/docket-rules'
import type { Finding } from '../rules/finding'
import { blocks, heaviestFirst } from '../rules/weigh'
import { APPLIED_RULE, applyOrder, type Change } from '../work/configure/apply-order'
import { farthestFirst } from '../work/configure/upstream'
import type { Span } from '../work/run/span'
import { visitTasks, type VisitTask } from '../work/run/visit-tasks'
import { isBefore } from './docket'
import { taskSettling } from './mends'
import { spoiledBy, type StandingProof, standingProofs } from './standing-proofs'
import { titleOf } from './title'
import type { AgendaOf, Work } from './work'

/**
 * All work that is left of a visit, once each, with what has to be done before: tasks in the order that technicians work, changes in the
 * order in which nobody is cut off, findings that no task settles, and proofs that something of this would make worth nothing.
 */
export function worksOf(of: AgendaOf): Work[] {
  const list = new WorkList(of)
  return list.all()
}

const span = (least: number, usual: number, most: number): Span => ({ least, usual, most })
/** What a mend may take against what its rule reckons with. */
const about = (minutes: number): Span => span(minutes / 2, minutes, minutes * 2)
/** A page is opened, set and applied in about that. */
const CHANGE = span(0.5, 1, 2)
/** So long a unit starts again for. */
const RESTART = span(1, 2, 4)

/** Findings that are mended together: of one thing at one stage, or of one answer. */
function togetherKey({ rule, stage, subject, place }: Finding): string {
  if (place && !['answer', 'pack', 'custody'].includes(place.kind))
    return `${place.kind} ${place.id === 'new' ? rule : place.id} ${stage}`
  return subject ? `subject ${subject.id} ${stage}` : rule
}

/** Minutes that mending a finding takes, about: what a unit’s place only has to be looked at for is a look and a press. */
const minutesOf = ({ rule, stage, outcome, place }: Finding, rules: DocketRules): number =>
  outcome === 'unproven' && stage === 'place' && place?.kind === 'answer' ? 1 : (rules[rule]?.minutes ?? 1)

/** Stages whose work is done on the network itself: what is proven of it comes after them. */
const atTheNetwork: readonly Stage[] = ['kit', 'place', 'connect', 'start', 'configure']

/** What is cabled wrong is put right before anything is switched on: a line that trains over the wrong side of a splitter trains for nothing. */
const beforeSwitchingOn: readonly string[] = ['cable-mode', 'cable-splitter', 'cable-power']

const settingUp: readonly Stage[] = ['connect', 'start', 'configure']

const isOfApplying = ({ id }: Work, settlesApplied: string | undefined) =>
  id.startsWith('apply:') || id === settlesApplied
const isOfSetting = (id: string) =>
  id.startsWith('mend:') || id.startsWith('login:') || ['addresses', 'wifi'].includes(id)

const isAtFirst = ({ id, stage }: Work) => id.startsWith('mend:') && (stage === 'brief' || stage === 'kit')

class WorkList {
  readonly #of: AgendaOf
  readonly #works = new Map<string, Work>()
  /** By work: what has to be done before it. */
  readonly #after = new Map<string, Set<string>>()
  readonly #open: readonly Finding[]
  /** By finding: the work that settles it. */
  readonly #settles = new Map<Finding, string>()

  constructor(of: AgendaOf) {
    this.#of = of
    this.#open = heaviestFirst(of.findings).filter(blocks)
  }

  all(): Work[] {
    const { folded, catalogue, nowMs, durations } = this.#of
    const tasks = visitTasks(folded.record, catalogue, nowMs, durations)
    // An update that nothing asks for is left to whoever has the time: what waits for it waits for what is before it.
    const before = new Map(tasks.filter((task) => !this.#isAsked(task)).map(({ id, after }) => [id, after]))
    const asked = (id: string): readonly string[] => before.get(id)?.flatMap(asked) ?? [id]
    for (const task of tasks) if (!before.has(task.id)) this.#add(task, task.after.flatMap(asked))
    this.#changes()
    this.#mends()
    this.#inTheirOrder()
    this.#again()
    // As technicians work, where the order does not matter for the end.
    const inStages = [...this.#works.values()].sort((a, b) => stages.indexOf(a.stage) - stages.indexOf(b.stage))
    return inStages.map((work) => {
      const after = [...this.#after.get(work.id)!]
      const findings = this.#open.filter((finding) => this.#settles.get(finding) === work.id)
      return { ...work, after, findings, place: work.place ?? findings[0]?.place ?? null }
    })
  }

  /** An update is asked for where a finding asks for it, where it runs already, and where the unit is not recorded yet. */
  #isAsked({ id, unit, running }: VisitTask): boolean {
    if (!id.startsWith('update:') || running || unit === null) return true
    return this.#open.some(({ rule, subject }) => subject?.id === unit && rule.startsWith('firm-'))
  }

  #add(task: Pick<VisitTask, 'id' | 'name' | 'stage' | 'handsOn'> & Partial<Work>, after: readonly string[]): void {
    this.#works.set(task.id, {
      unit: null,
      wait: null,
      from: 'usual',
      past: 0,
      running: false,
      findings: [],
      atHand: [],
      place: null,
      change: null,
      spoils: [],
      ...task,
      where: this.#whereOf(task.unit),
      after: []
    })
    this.#after.set(task.id, new Set())
    for (const before of after) this.#comesAfter(task.id, before)
  }

  /** Puts one work after another, unless that one has to come after it itself. */
  #comesAfter(id: string, before: string): void {
    if (id !== before && this.#after.has(before) && !this.#waitsFor(before, id)) this.#after.get(id)!.add(before)
  }

  #waitsFor(id: string, before: string, seen = new Set<string>()): boolean {
    for (const next of this.#after.get(id) ?? []) {
      if (next === before) return true
      if (seen.has(next)) continue
      seen.add(next)
      if (this.#waitsFor(next, before, seen)) return true
    }
    return false
  }

  #whereOf(unit: string | null | undefined): string | null {
    return this.#of.folded.record.units[unit ?? '']?.facts.place ?? null
  }

  /** What is set in the record and not yet applied on the units, as far as it is asked for. */
  #changes(): void {
    const asked = this.#open.find(({ rule }) => rule === APPLIED_RULE)
    if (!asked) return
    const { record, history } = this.#of.folded
    const changes = applyOrder(record, this.#of.catalogue, carriedThrough(history)).filter(
      ({ kind, applied, unit }) => !applied && !(kind === 'firmware' && this.#works.has(`update:${unit}`))
    )
    const far = farthestFirst(record, this.#of.catalogue)
    const heads = far.filter(({ through }) => through === null).map(({ unit }) => unit.id)
    const behind = (unit: string) => far.filter(({ through }) => through === unit).map((next) => next.unit.id)
    const last = new Map<string, string>()
    for (const change of changes) {
      const { unit, name, label, needsRestart } = change
      const id = `apply:${change.id}`
      // In a range that whoever leads does not have yet nobody would be reached.
      const isFarAddress = change.kind === 'address' && !heads.includes(unit)
      const led = isFarAddress ? heads.flatMap((head) => last.get(head) ?? []) : []
      const reached = behind(unit).flatMap((next) => last.get(next) ?? lastOfUnit(this.#works, next) ?? [])
      this.#add(
        {
          id,
          name: `${name}: ${label}`,
          stage: 'configure',
          unit,
          handsOn: CHANGE,
          wait: needsRestart ? RESTART : null,
          change: change.id
        },
        [...(last.has(unit) ? [last.get(unit)!] : [...beforeSetting(this.#works, change)]), ...reached, ...led]
      )
      last.set(unit, id)
    }
    const settling = changes.at(-1)
    if (settling) this.#settles.set(asked, `apply:${settling.id}`)
  }

  /** What no task settles is work of its own: together where it is of one thing at one stage. */
  #mends(): void {
    const tasks = [...this.#works.keys()]
    const { record } = this.#of.folded
    const groups = new Map<string, Finding[]>()
    for (const finding of this.#open) {
      if (this.#settles.has(finding)) continue
      const task = taskSettling(finding, record, tasks)
      if (task !== null) this.#settles.set(finding, task)
      else groups.set(togetherKey(finding), [...(groups.get(togetherKey(finding)) ?? []), finding])
    }
    for (const [key, findings] of groups) {
      const [first] = findings
      const { stage, place } = first!
      const id = `mend:${key}`
      const unit = findings.find(({ subject }) => subject && record.units[subject.id])?.subject?.id ?? null
      this.#add(
        {
          id,
          name:
            findings.length === 1
              ? titleOf(first!)
              : `${first!.subject?.name ?? stageNames[stage]}: ${restOf(findings)}`,
          stage,
          unit,
          place,
          handsOn: about(findings.reduce((sum, finding) => sum + minutesOf(finding, this.#of.rules), 0))
        },
        []
      )
      for (const finding of findings) this.#settles.set(finding, id)
    }
  }

  /** What has to come before what: by the rules, by the unit, and what is proven after what is done at the network. */
  #inTheirOrder(): void {
    for (const finding of this.#open)
      for (const other of this.#open)
        if (isBefore(other, finding, this.#of.rules))
          this.#comesAfter(this.#settles.get(finding)!, this.#settles.get(other)!)
    const works = [...this.#works.values()]
    for (const work of works) {
      if (work.id.startsWith('mend:') && work.unit !== null) this.#afterItsUnit(work, work.unit)
      if (isAtFirst(work)) this.#beforeSettingUp(work)
      this.#cabledBefore(work)
      if (isOfApplying(work, this.#settlesApplied()))
        for (const { id, stage } of works)
          if (isOfSetting(id) && atTheNetwork.includes(stage)) this.#comesAfter(work.id, id)
    }
    this.#atOnce()
    const network = works.filter(({ id, stage }) => atTheNetwork.includes(stage) && id !== 'source')
    const proofs = works.filter(({ id, stage }) => stage === 'prove' && id !== 'source')
    for (const { id } of proofs) for (const before of network) this.#comesAfter(id, before.id)
    for (const { id, stage } of works) {
      if (id === 'signoff') for (const before of works) this.#comesAfter(id, before.id)
      if (stage === 'handover') for (const before of [...network, ...proofs]) this.#comesAfter(id, before.id)
    }
  }

  /** The work by which it is said that every page was applied. */
  #settlesApplied(): string | undefined {
    const asked = this.#open.find(({ rule }) => rule === APPLIED_RULE)
    return asked && this.#settles.get(asked)
  }

  /** A mend of a unit is made once the unit is that far. */
  #afterItsUnit({ id, stage }: Work, unit: string): void {
    const at = stages.indexOf(stage)
    for (const other of this.#works.values()) {
      const isOfUnit = other.unit === unit && other.id !== id && !other.id.startsWith('mend:')
      const isBefore = stages.indexOf(other.stage) < at && other.stage !== 'prove'
      if (isOfUnit && isBefore) this.#comesAfter(id, other.id)
    }
  }

  /** What the visit is about is known before anything is set up, and what a unit is before that is. */
  #beforeSettingUp({ id, stage, unit }: Work): void {
    for (const other of this.#works.values())
      if (settingUp.includes(other.stage) && (stage === 'brief' || other.unit === unit)) this.#comesAfter(other.id, id)
  }

  #isOfCables({ id }: Work): boolean {
    return (
      id.startsWith('mend:') &&
      this.#open.some((finding) => this.#settles.get(finding) === id && beforeSwitchingOn.includes(finding.rule))
    )
  }

  /** The steps of setting a unit up, or every one where it is of no unit, come after it. */
  #cabledBefore(work: Work): void {
    if (!this.#isOfCables(work)) return
    const { id, unit } = work
    for (const other of this.#works.values())
      if (other.id.startsWith('step:') && !other.running && (unit === null || other.unit === unit))
        this.#comesAfter(other.id, id)
  }

  /** Nothing is begun before what a clock runs for. */
  #atOnce(): void {
    for (const { id, atOnce } of this.#works.values()) {
      if (!atOnce) continue
      this.#after.set(id, new Set())
      for (const other of this.#works.values()) if (!other.running && !other.atOnce) this.#comesAfter(other.id, id)
    }
  }

  /** Proofs that stand, and that some work would leave worth nothing, are given again after it. */
  #again(): void {
    const proofs = standingProofs(this.#of)
    for (const work of [...this.#works.values()]) {
      const spoiled = spoiledBy(work, proofs)
      if (spoiled.length === 0) continue
      this.#works.set(work.id, { ...work, spoils: spoiled.map(({ name }) => name) })
      for (const proof of spoiled) this.#giveAgain(proof, work.id)
    }
  }

  #giveAgain({ id, name, handsOn, place }: StandingProof, after: string): void {
    const again = `again:${id}`
    if (!this.#works.has(again)) {
      this.#add({ id: again, name: `${name} again`, stage: 'prove', handsOn, place }, [])
      for (const { id: work, stage } of this.#works.values())
        if (stage === 'handover' || stage === 'signoff') this.#comesAfter(work, again)
    }
    this.#comesAfter(again, after)
  }
}

const restOf = (findings: readonly Finding[]): string => {
  const [first, ...others] = findings
  return `${first!.name.toLowerCase()} and ${others.length} more`
}

/** The last work of a unit that its way in needs: its update, else the last step of its method. */
function lastOfUnit(works: ReadonlyMap<string, Work>, unit: string): string | undefined {
  if (works.has(`update:${unit}`)) return `update:${unit}`
  return [...works.keys()].findLast((id) => id.startsWith(`step:${unit}:`))
}

/** What is done before the first change of a unit: what it is to be set to is known, and the unit runs. */
function beforeSetting(works: ReadonlyMap<string, Work>, { unit }: Change): string[] {
  const own = lastOfUnit(works, unit)
  return ['addresses', 'wifi', `login:${unit}`, ...(own === undefined ? [] : [own])]
}
