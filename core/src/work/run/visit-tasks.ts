import { methodsFor } from '../units/good-look'
import { methodNeeds, type Catalogue, type Model } from '../../catalogue/model'
import { updateWork } from '../../catalogue/firmware-work'
import { farthestFirst } from '../configure/upstream'
import { runningWaits } from '../units/ended-waits'
import { pairingStep, stepsDone } from '../units/method-steps'
import { hasEndAt, standing, thingsOf, type VisitRecord, type Wait } from '../../record/record'
import { equipmentOf } from '../../record/equipment'
import type { Stage } from '../../record/stages'
import { durationKey, type Durations } from './duration-keys'
import { hands, leftOf, type Span } from './span'
import { handsOn, times } from './hands-on'
import { isOfUnit, isWindow } from './kinds-of-wait'
import { isGood, isUntouched, plannedUnits, rank, wantsCable, type PlannedUnit } from './planned-units'

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
  /** How many past waits they are from; 0 where from none. */
  past: number
  /** A task that was begun and only waits. */
  running: boolean
  atOnce?: true // The second press, within the window that the first one opened: nothing else is begun before it.
  /** What is to be at hand for it. */
  atHand: readonly string[]
}

/** So many past waits are more worth than the catalogue. */
const ENOUGH = 5

/** A task as it is put on the list: nothing waits and the figures are usual ones unless it says so. */
type NewTask = Pick<VisitTask, 'id' | 'name' | 'stage' | 'handsOn' | 'after'> &
  Partial<Pick<VisitTask, 'unit' | 'wait' | 'from' | 'past' | 'atHand'>>

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
  readonly #catalogue: Catalogue
  readonly #nowMs: number
  readonly #durations: Durations
  readonly #units: readonly PlannedUnit[]
  readonly #waits: readonly Wait[]
  readonly #tasks: VisitTask[] = []
  /** The last task of each unit so far: what comes after it waits for that. */
  readonly #last = new Map<string, string>()

  constructor(record: VisitRecord, catalogue: Catalogue, nowMs: number, durations: Durations) {
    this.#record = record
    this.#catalogue = catalogue
    this.#nowMs = nowMs
    this.#durations = durations
    this.#waits = runningWaits(record)
    this.#units = plannedUnits(record, catalogue)
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
      const joined = this.#connect(known, [`kit:${known.id}`, 'place', ...before, ...this.#itsWait(known)])
      this.#start(known, joined)
    }
    const lead = inOrder.filter((known) => rank(known) <= 1).flatMap((known) => this.#lastOf(known))
    const configured = this.#configure(lead)
    this.#update()
    const ready = this.#units.flatMap((known) => [...this.#lastOf(known), ...this.#itsWait(known)])
    // An update of what carries the line would end a measurement, or leave it worth nothing.
    const head = inOrder.filter((known) => rank(known) <= 1).flatMap((known) => this.#lastOf(known))
    const waited = this.#waits
      .filter((wait) => !this.#tasks.some(({ id }) => id === wait.task))
      .map((wait) => this.#addWait(wait))
    this.#proveAndHandOver([...ready, ...configured], head, waited)
    const open = new Set(this.#tasks.map(({ id }) => id))
    return this.#tasks.map((task) => ({
      ...task,
      after: [...new Set(task.after)].filter((id) => open.has(id) && id !== task.id)
    }))
  }

  #add(task: NewTask): string {
    const wait = this.#waits.find((running) => running.task === task.id)
    this.#tasks.push({
      unit: null,
      wait: null,
      from: task.wait ? 'catalogue' : 'usual',
      past: 0,
      atHand: [],
      ...task,
      ...(wait ? { handsOn: hands(0, 0, 0), wait: leftOf(wait, this.#nowMs) } : {}),
      running: wait !== undefined
    })
    return task.id
  }

  #lastOf({ id }: PlannedUnit): string[] {
    const last = this.#last.get(id)
    return last === undefined ? [] : [last]
  }

  /** A task of a unit that its next one waits for. */
  #addOf({ id: unitId, unit }: PlannedUnit, task: NewTask): string[] {
    const id = this.#add({ unit: unit ? unitId : null, ...task })
    this.#last.set(unitId, id)
    return [id]
  }

  /** The waits of a unit that no task of it began, as those it has to come through before anything is done on it; not those that want a hand. */
  #itsWait({ id }: PlannedUnit): string[] {
    return this.#waits
      .filter((wait) => wait.unit === id && !isWindow(wait) && isOfUnit(wait))
      .map((wait) => this.#addWait(wait))
  }

  #addWait(wait: Wait): string {
    const id = `wait:${wait.id}`
    if (!this.#tasks.some((task) => task.id === id))
      this.#tasks.push({
        id,
        name: `${equipmentOf(this.#record, wait.unit ?? undefined)?.name ?? 'Visit'}: ${wait.what}`,
        stage: 'start',
        unit: wait.unit,
        handsOn: hands(0, 0, 0),
        wait: leftOf(wait, this.#nowMs),
        after: [],
        from: 'usual',
        past: 0,
        atHand: [],
        running: true
      })
    return id
  }

  /** How long a wait took so far, where there were enough of them; else as the catalogue says. */
  #learned(model: Model, id: string, catalogued: Span): Pick<VisitTask, 'wait' | 'from' | 'past'> {
    const past = this.#durations.get(durationKey(model.id, id))
    return past && past.count >= ENOUGH
      ? { wait: hands(past.least, past.usual, past.most), from: 'past visits', past: past.count }
      : { wait: catalogued, from: 'catalogue', past: 0 }
  }

  #unbox(): void {
    for (const { id, unit, name } of this.#units)
      if (!unit?.facts.stayed && unit?.facts.serial === undefined)
        this.#add({
          id: `kit:${id}`,
          name: `Unbox ${name}, read its label`,
          stage: 'kit',
          unit: unit ? id : null,
          handsOn: handsOn.kit,
          after: []
        })
  }

  #place(): void {
    const unplaced = this.#units.filter(({ unit }) => unit?.facts.place === undefined)
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
      after: unplaced.map(({ id }) => `kit:${id}`)
    })
  }

  /** @returns what the unit's next task waits for */
  #connect(known: PlannedUnit, after: string[]): string[] {
    const { id, unit, name } = known
    const isCabled = standing(thingsOf(this.#record, 'cable')).some((cable) => hasEndAt(cable, id))
    if (!wantsCable(known) || isCabled || isUntouched(unit)) return after
    return this.#addOf(known, {
      id: `connect:${id}`,
      name: `Cable ${name}`,
      stage: 'connect',
      handsOn: handsOn.connect,
      after
    })
  }

  /** The steps of the unit's method that are not done. @returns what the unit's next task waits for */
  #start(known: PlannedUnit, after: string[]): string[] {
    const { id: unitId, unit, model, name, role } = known
    if (!model || isUntouched(unit)) return after
    const ways = methodsFor(model, { facts: role === undefined ? {} : { role: role as 'router' } })
    const method = model.methods.find(({ id }) => id === unit?.facts.method) ?? ways[0]
    if (!method || isGood(known)) return after
    const done = unit ? stepsDone(unit, model, method) : []
    let next = after
    method.steps.forEach((step, index) => {
      if (done[index]) return
      const id = `step:${unitId}:${method.id}:${index}`
      const wait = step.wait && hands(step.wait.leastMin, step.wait.usualMin, step.wait.mostMin)
      next = this.#addOf(known, {
        id,
        name: `${name}: ${step.do}`,
        stage: 'start',
        handsOn: handsOn.step,
        atHand: method.needs.map((need) => methodNeeds[need]),
        ...(wait ? this.#learned(model, id, wait) : {}),
        after: next,
        ...(this.#window(unitId) && pairingStep(model, method) === index && { after: [], atOnce: true })
      })
    })
    return next
  }

  /** The pairing window of a unit, where one is open. */
  #window(unit: string): Wait | undefined {
    return this.#waits.find((wait) => wait.unit === unit && isWindow(wait))
  }

  /**
   * Updates come when everybody has joined, the farthest from the line first: what others are reached through starts again only when those
   * are done, and nothing starts again while a pairing window is open.
   */
  #update(): void {
    const windows = this.#waits.filter(isWindow).map((wait) => this.#addWait(wait))
    const far = farthestFirst(this.#record, this.#catalogue)
    const behind = (id: string): string[] =>
      far.filter(({ through }) => through === id).flatMap(({ unit }) => [unit.id, ...behind(unit.id)])
    const planned = new Map(this.#units.map((known) => [known.id, known]))
    const recorded = far.flatMap(({ unit }) => planned.get(unit.id) ?? [])
    const boxed = this.#units.filter(({ unit }) => unit === null).sort((a, b) => rank(b) - rank(a))
    for (const known of [...boxed, ...recorded]) {
      // Whatever is still in its box may be reached through any that leads.
      const hangs = [
        ...behind(known.id).flatMap((id) => planned.get(id) ?? []),
        ...boxed.filter((other) => rank(known) < rank(other))
      ]
      this.#updateOf(known, [...windows, ...hangs.flatMap((other) => this.#lastOf(other))])
    }
  }

  #updateOf(known: PlannedUnit, before: string[]): void {
    const { id: unitId, unit, model, name } = known
    const { firmwareBefore, firmwareAfter } = unit?.facts ?? {}
    if (!model?.firmware.installMin || model.firmware.releases.length === 0) return
    const runs = firmwareAfter ?? firmwareBefore
    if (isUntouched(unit) && runs === undefined) return
    const { usual, most } = model.firmware.installMin
    const path = runs === undefined ? null : updateWork(model, runs).path
    // Of an unknown version one install is reckoned with.
    const installs = path?.length ?? 1
    if (installs === 0) return
    const id = `update:${unitId}`
    this.#addOf(known, {
      id,
      name: `Update ${name}${path ? ` to ${path.at(-1)}` : ''}`,
      stage: 'configure',
      handsOn: handsOn.update,
      ...this.#learned(model, id, times(hands(usual * 0.6, usual, most), installs)),
      after: [...this.#lastOf(known), ...this.#itsWait(known), ...before]
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
      const { id, unit, name, model } = known
      const has = Object.values(record.secrets).some(
        (secret) => secret.thing === 'unit' && secret.id === id && secret.purpose === 'admin-password'
      )
      if (!has && model?.label.includes('login'))
        settings(`login:${id}`, `Admin password of ${name}`, handsOn.login, {
          unit: unit ? id : null,
          after: [...lead, ...this.#lastOf(known)]
        })
    }
    return added
  }

  #proveAndHandOver(proven: string[], lead: string[], waited: string[]): void {
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
        atHand: ['a computer with a network port, and a cable'],
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
        atHand: ['a device that is joined to the home’s network'],
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
      after: ['source', 'rooms', 'handover', ...proven, ...waited]
    })
  }
}
