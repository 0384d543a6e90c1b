import { isGoodFor } from '../units/good-look'
import { modelOf, type Catalogue, type Model } from '../../catalogue/model'
import { updateWork } from '../../catalogue/firmware-work'
import { runningWaits } from '../units/ended-waits'
import { readLamps } from '../units/unit-lamps'
import { stepsDone } from '../units/method-steps'
import { hasEndAt, standing, thingsOf, unitName, type Unit, type VisitRecord, type Wait } from '../../record/record'
import type { Stage } from '../../record/stages'

/** How long something takes, in minutes: at least, usually, at most. */
export interface Span {
  least: number
  usual: number
  most: number
}

/** One task of a visit: hands on, then a wait that runs by itself. */
export interface VisitTask {
  id: string
  name: string
  stage: Stage
  unit: string | null
  handsOn: Span
  wait: Span | null
  after: string[]
  /** Where the figures of the wait are from. */
  from: 'catalogue' | 'past visits' | 'usual'
  /** A task that was begun and only waits. */
  running: boolean
}

/** What past visits took for the same wait of the same model, by `durationKey`. */
export type Durations = ReadonlyMap<string, { count: number } & Span>

/** Under which key past waits of a task are kept: the model's, and what of its work it is. */
export const durationKey = (model: string, task: string): string =>
  `${model} ${task.replace(/^(step|update|restart):[^:]+/, '$1')}`

const hands = (least: number, usual: number, most: number): Span => ({ least, usual, most })
/** What hands need, in minutes: seen over and over, and refined by nobody yet. */
const handsOn = {
  kit: hands(2, 4, 8),
  place: hands(2, 3, 6),
  connect: hands(2, 4, 10),
  step: hands(1, 2, 5),
  update: hands(0.5, 1, 3),
  restart: hands(1, 2, 4),
  addresses: hands(3, 6, 15),
  wifi: hands(3, 5, 12),
  login: hands(1, 2, 5),
  source: hands(2, 3, 6),
  room: hands(1, 2, 4),
  handover: hands(5, 8, 15),
  signoff: hands(3, 5, 10),
  plan: hands(2, 4, 10)
} as const
const times = ({ least, usual, most }: Span, count: number): Span => hands(least * count, usual * count, most * count)
/** So many past waits are more worth than the catalogue. */
const ENOUGH = 5

interface KnownUnit {
  unit: Unit
  model: Model | undefined
  name: string
}

/** A task as it is put on the list: nothing waits and the figures are usual ones unless it says so. */
type NewTask = Pick<VisitTask, 'id' | 'name' | 'stage' | 'handsOn' | 'after'> &
  Partial<Pick<VisitTask, 'unit' | 'wait' | 'from'>>

/** The tasks of a visit that are still to do, in the order that technicians work; what is done is left out. */
export function visitTasks(
  record: VisitRecord,
  catalogue: Catalogue,
  nowMs: number,
  durations: Durations = new Map()
): VisitTask[] {
  return new TaskList(record, catalogue, nowMs, durations).all()
}

/** The list as it grows from stage to stage. */
class TaskList {
  readonly #record: VisitRecord
  readonly #nowMs: number
  readonly #durations: Durations
  readonly #units: readonly KnownUnit[]
  readonly #waits: ReturnType<typeof runningWaits>
  readonly #tasks: VisitTask[] = []
  /** The last task of each unit so far: what comes after it waits for that. */
  readonly #last = new Map<string, string>()

  constructor(record: VisitRecord, catalogue: Catalogue, nowMs: number, durations: Durations) {
    this.#record = record
    this.#nowMs = nowMs
    this.#durations = durations
    this.#waits = runningWaits(record)
    this.#units = standing(record.units).map((unit) => ({
      unit,
      name: unitName(unit),
      model: modelOf(unit, catalogue)
    }))
  }

  all(): VisitTask[] {
    this.#unbox()
    this.#place()
    // What others start from comes first: the line, then the router, then all that joins it.
    const inOrder = [...this.#units].sort((a, b) => rank(a) - rank(b))
    for (const known of inOrder) {
      const before = inOrder
        .filter((candidate) => rank(candidate) < rank(known))
        .flatMap((earlier) => this.#lastOf(earlier))
      const joined = this.#connect(known, [`kit:${known.unit.id}`, 'place', ...before])
      this.#update(known, this.#start(known, joined))
    }
    const started = this.#units.flatMap((known) => this.#lastOf(known))
    const lead = inOrder.filter((known) => rank(known) <= 1).flatMap((known) => this.#lastOf(known))
    this.#proveAndHandOver([...started, ...this.#configure(lead)], lead)
    const open = new Set(this.#tasks.map(({ id }) => id))
    return this.#tasks.map((task) => ({ ...task, after: [...new Set(task.after)].filter((id) => open.has(id)) }))
  }

  #add(task: NewTask): string {
    const wait = this.#waits.find((running) => running.task === task.id)
    this.#tasks.push({
      unit: null,
      wait: null,
      from: task.wait ? 'catalogue' : 'usual',
      ...task,
      ...(wait ? { handsOn: hands(0, 0, 0), wait: left(wait, this.#nowMs) } : {}),
      running: wait !== undefined
    })
    return task.id
  }

  #lastOf({ unit }: KnownUnit): string[] {
    const last = this.#last.get(unit.id)
    return last === undefined ? [] : [last]
  }

  /** A task of a unit that its next one waits for. */
  #addOf({ unit }: KnownUnit, task: NewTask): string[] {
    const id = this.#add({ unit: unit.id, ...task })
    this.#last.set(unit.id, id)
    return [id]
  }

  /** How long a wait took so far, where there were enough of them; else as the catalogue says. */
  #learned(model: Model, id: string, catalogued: Span): { wait: Span; from: VisitTask['from'] } {
    const past = this.#durations.get(durationKey(model.id, id))
    return past && past.count >= ENOUGH
      ? { wait: hands(past.least, past.usual, past.most), from: 'past visits' }
      : { wait: catalogued, from: 'catalogue' }
  }

  #unbox(): void {
    for (const { unit, name } of this.#units)
      if (!unit.facts.stayed && unit.facts.serial === undefined)
        this.#add({
          id: `kit:${unit.id}`,
          name: `Unbox ${name}, read its label`,
          stage: 'kit',
          unit: unit.id,
          handsOn: handsOn.kit,
          after: []
        })
  }

  #place(): void {
    const unplaced = this.#units.filter(({ unit }) => unit.facts.place === undefined)
    if (unplaced.length === 0) return
    this.#add({
      id: 'place',
      name: 'Settle where each unit stays',
      stage: 'place',
      handsOn: hands(
        handsOn.plan.least + unplaced.length,
        handsOn.plan.usual + handsOn.place.usual * unplaced.length,
        handsOn.plan.most + handsOn.place.most * unplaced.length
      ),
      after: unplaced.map(({ unit }) => `kit:${unit.id}`)
    })
  }

  /** @returns what the unit's next task waits for */
  #connect(known: KnownUnit, after: string[]): string[] {
    const { unit, model, name } = known
    const wantsCable =
      model?.ports.some(({ kind }) => uplinkPorts.includes(kind)) || cabledRoles.includes(unit.facts.role ?? '')
    const isCabled = standing(thingsOf(this.#record, 'cable')).some((cable) => hasEndAt(cable, unit.id))
    if (!wantsCable || isCabled) return after
    return this.#addOf(known, {
      id: `connect:${unit.id}`,
      name: `Cable ${name}`,
      stage: 'connect',
      handsOn: handsOn.connect,
      after
    })
  }

  /** The steps of the unit's method that are not done. @returns what the unit's next task waits for */
  #start(known: KnownUnit, after: string[]): string[] {
    const { unit, model, name } = known
    const method = model?.methods.find(({ id }) => id === unit.facts.method) ?? model?.methods[0]
    if (!model || !method || isGood(known)) return after
    const done = stepsDone(unit, model, method)
    let next = after
    method.steps.forEach((step, index) => {
      if (done[index]) return
      const id = `step:${unit.id}:${method.id}:${index}`
      const wait = step.wait && hands(step.wait.leastMin, step.wait.usualMin, step.wait.mostMin)
      next = this.#addOf(known, {
        id,
        name: `${name}: ${step.do}`,
        stage: 'start',
        handsOn: handsOn.step,
        ...(wait ? this.#learned(model, id, wait) : {}),
        after: next
      })
    })
    return next
  }

  #update(known: KnownUnit, after: string[]): void {
    const { unit, model, name } = known
    const { firmwareBefore, firmwareAfter } = unit.facts
    if (!model?.firmware.installMin || firmwareAfter !== undefined || model.firmware.releases.length === 0) return
    const { usual, most } = model.firmware.installMin
    const path = firmwareBefore === undefined ? null : updateWork(model, firmwareBefore).path
    // Of an unknown version one install is reckoned with.
    const installs = path?.length ?? 1
    if (installs === 0) return
    const id = `update:${unit.id}`
    this.#addOf(known, {
      id,
      name: `Update ${name}${path ? ` to ${path.at(-1)}` : ''}`,
      stage: 'configure',
      handsOn: handsOn.update,
      ...this.#learned(model, id, times(hands(usual * 0.6, usual, most), installs)),
      after
    })
  }

  /** @returns the tasks that settings still need */
  #configure(lead: string[]): string[] {
    const record = this.#record
    const added: string[] = []
    const settings = (id: string, name: string, handsOn: Span, more: Partial<NewTask> = {}) =>
      added.push(this.#add({ id, name, stage: 'configure', handsOn, after: lead, ...more }))
    if (standing(record.segments).length === 0) settings('addresses', 'Addresses and ranges', handsOn.addresses)
    if (standing(record.networks).length === 0) settings('wifi', 'Names and passphrases', handsOn.wifi)
    for (const known of this.#units) {
      const { unit, name, model } = known
      const has = Object.values(record.secrets).some(
        (secret) => secret.thing === 'unit' && secret.id === unit.id && secret.purpose === 'admin-password'
      )
      if (!has && model?.label.includes('login'))
        settings(`login:${unit.id}`, `Admin password of ${name}`, handsOn.login, {
          unit: unit.id,
          after: [...lead, ...this.#lastOf(known)]
        })
    }
    return added
  }

  #proveAndHandOver(proven: string[], lead: string[]): void {
    const record = this.#record
    const measurements = standing(thingsOf(record, 'measurement')).filter(({ facts }) => facts.runs !== undefined)
    const listed = standing(thingsOf(record, 'room')).filter(({ facts }) => facts.listed !== false)
    const rooms = listed.filter(
      ({ id }) => !measurements.some(({ facts }) => facts.at === 'room' && facts.room === id)
    ).length
    if (!measurements.some(({ facts }) => facts.at === 'source'))
      this.#add({
        id: 'source',
        name: 'Measure at the source, by cable',
        stage: 'prove',
        handsOn: handsOn.source,
        after: lead
      })
    const ofRooms = rooms === 1 ? 'one room' : `${rooms} rooms`
    // Of a home whose rooms nobody named three are reckoned with.
    if (listed.length === 0 || rooms > 0)
      this.#add({
        id: 'rooms',
        name: `Measure ${listed.length === 0 ? 'every room' : ofRooms}`,
        stage: 'prove',
        handsOn: times(handsOn.room, listed.length === 0 ? 3 : rooms),
        after: ['source', ...proven]
      })
    if (record.pack.givenAt === null)
      this.#add({
        id: 'handover',
        name: 'Hand over',
        stage: 'handover',
        handsOn: handsOn.handover,
        after: ['source', 'rooms', ...proven]
      })
    this.#add({
      id: 'signoff',
      name: 'Sign off',
      stage: 'signoff',
      handsOn: handsOn.signoff,
      after: ['source', 'rooms', 'handover', ...proven]
    })
  }
}

const rank = ({ unit }: KnownUnit): number =>
  ({ modem: 0, gateway: 0, router: 1, switch: 1, controller: 2 })[unit.facts.role as 'modem'] ?? 3
const uplinkPorts: readonly string[] = ['internet', 'coax', 'telephone-line', 'fibre']
const cabledRoles: readonly string[] = ['access-point', 'switch', 'controller']
function isGood({ unit, model }: KnownUnit): boolean {
  const state = model && unit.sightings.length > 0 ? readLamps(unit, model).state : null
  return state !== null && isGoodFor(state, unit)
}

/** What is left of a wait that runs. A clock that was set back makes it no longer than it is. */
function left({ at, usualMin, mostMin }: Wait, nowMs: number): Span {
  const gone = Math.max(0, (nowMs - Date.parse(at)) / 60_000)
  const usual = Math.max(0, usualMin - gone)
  return hands(0, usual, Math.max(usual, mostMin - gone))
}
