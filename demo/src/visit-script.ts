import type { Body, EntryKind } from '@pasado/core/record/entries/all'
import type { Author } from '@pasado/core/record/attribution'
import type { Facts } from '@pasado/core/record/facts'
import type { SecretPurpose } from '@pasado/core/record/answers'
import { boxesOf } from '@pasado/core/work/units/boxes'
import { allRules } from '@pasado/core/rules/all'
import { labelValues } from './labels/values'
import { demoModels } from './models/all'
import { demoId, demoVisitId } from './ids'

/** One step of a scripted visit, so many minutes after it was opened. */
export type Step =
  | { does: 'entry'; atMin: number; by: Author; kind: EntryKind; body: unknown }
  | {
      does: 'secret'
      atMin: number
      by: Author
      purpose: SecretPurpose
      thing: 'brief' | 'unit' | 'network'
      id: string
      value: string
    }
  /** A booked check, from and to in minutes from midnight of the day of loading. */
  | { does: 'check'; atMin: number; by: Author; id: string; fromMin: number; toMin: number }
  | { does: 'pack' | 'sign' | 'seal'; atMin: number; by: Author }

/** A visit as it is played into an empty database. */
export interface ScriptedVisit {
  id: string
  home: string
  customer: string
  technician: Author
  openedBy: Author
  /** When it was opened and when it is planned, in minutes from midnight of the day of loading. */
  openedAtMin: number
  plannedAtMin: number
  brief: Facts<'brief'>
  steps: Step[]
}

/** Writes a visit's script as a technician would work: every call takes a little time. */
export class VisitScript {
  readonly visit: ScriptedVisit
  #atMin = 0
  readonly #name: string

  constructor(
    name: string,
    home: string,
    technician: Author,
    openedBy: Author,
    dayMin: { opened: number; planned: number },
    brief: Facts<'brief'>
  ) {
    this.#name = name
    this.visit = {
      id: demoVisitId(name),
      home: demoId('home', home),
      customer: demoId('customer', home),
      technician,
      openedBy,
      openedAtMin: dayMin.opened,
      plannedAtMin: dayMin.planned,
      brief: { country: 'XS', ...brief },
      steps: []
    }
  }

  /** An id of this home, the same in each of its visits. */
  id(kind: string, name: string): string {
    return demoId(this.visit.home, kind, name)
  }

  /** The outlet of the line that was drawn; undefined where none was. */
  get lineOutlet(): string | undefined {
    const entry = this.visit.steps.find(
      (step) =>
        step.does === 'entry' &&
        step.kind === 'outlet.set' &&
        (step.body as { set: Facts<'outlet'> }).set.kind === 'line'
    )
    return entry?.does === 'entry' ? (entry.body as { id: string }).id : undefined
  }

  #facts<K extends 'room' | 'unit' | 'brief'>(kind: K): { id: string; set: Facts<K> }[] {
    return this.visit.steps.flatMap((step) =>
      step.does === 'entry' && step.kind === `${kind}.set` ? [step.body as { id: string; set: Facts<K> }] : []
    )
  }

  /** Rooms that are to have signal, in the order they were drawn or named. */
  get rooms(): { id: string; name: string }[] {
    return this.#facts('room')
      .filter(({ set }) => set.listed !== false)
      .map(({ id, set }) => ({ id, name: set.name ?? '' }))
  }

  /** The name a unit came with, as its label told. */
  defaultSsid(name: string): string | undefined {
    return this.#facts('unit').find(({ id, set }) => id === this.id('unit', name) && set.defaultSsid !== undefined)?.set
      .defaultSsid
  }

  /** A room that is named and not drawn. */
  namedRoom(name: string): this {
    return this.write('room.set', { id: this.id('room', name), set: { name, listed: true } })
  }

  measured(name: string, set: Facts<'measurement'>): this {
    return this.write('measurement.set', { id: this.id('measurement', name), set })
  }

  /** A look at the home a day later, in the afternoon. */
  checkBooked(): this {
    this.#atMin += 0.5
    this.visit.steps.push({
      does: 'check',
      atMin: this.#atMin,
      by: this.visit.technician,
      id: this.id('check', this.#name),
      fromMin: this.visit.plannedAtMin + 26 * 60,
      toMin: this.visit.plannedAtMin + 30 * 60
    })
    return this
  }

  /** Lets time pass. */
  after(minutes: number): this {
    this.#atMin += minutes
    return this
  }

  write<K extends EntryKind>(kind: K, body: Body<K>, by: Author = this.visit.technician): this {
    this.#atMin += 0.5
    this.visit.steps.push({ does: 'entry', atMin: this.#atMin, by, kind, body })
    return this
  }

  secret(purpose: SecretPurpose, thing: 'brief' | 'unit' | 'network', id: string, value: string): this {
    this.#atMin += 0.5
    this.visit.steps.push({ does: 'secret', atMin: this.#atMin, by: this.visit.technician, purpose, thing, id, value })
    return this
  }

  brief(set: Facts<'brief'>): this {
    return this.write('brief.set', { set })
  }

  /** A unit with its model's label recorded; a number for serial and MAC address. */
  unit(name: string, model: string, number: number, set: Facts<'unit'>): this {
    const id = this.id('unit', name)
    const known = demoModels.find((demoModel) => demoModel.id === model)!
    const label = labelValues(known, number)
    this.write('unit.set', { id, set: { name, model, modelVersion: 1, ...set } })
    this.write('unit.set', {
      id,
      set: {
        serial: label.serial,
        mac: label.mac,
        ...(label.ssid ? { defaultSsid: label.ssid } : {}),
        ...(label.address ? { pageAddress: label.address } : {})
      },
      origin: 'label'
    })
    if (label.key) this.secret('label-key', 'unit', id, label.key)
    if (label.setupCode) this.secret('setup-code', 'unit', id, label.setupCode)
    if (label.user) this.secret('label-login', 'unit', id, `${label.user} / ${label.password}`)
    return this
  }

  /** A box, unpacked, with everything in it. */
  unpacked(name: string, model: string, kit: string): this {
    const known = demoModels.find((demoModel) => demoModel.id === model)!
    const box = boxesOf(known).find(({ id }) => id === kit)!
    const id = this.id('box', name)
    return this.write('box.set', { id, set: { model, modelVersion: 1, kit } }).write('items.checked', {
      box: id,
      items: box.items.map(({ item }) => item),
      state: 'present'
    })
  }

  setUnit(name: string, set: Facts<'unit'>): this {
    return this.write('unit.set', { id: this.id('unit', name), set })
  }

  event(name: string, what: Body<'unit.event'>['what']): this {
    return this.write('unit.event', { unit: this.id('unit', name), what })
  }

  /** Logs a state of the unit's model as it was seen. */
  seen(name: string, model: string, ...states: string[]): this {
    const known = demoModels.find((demoModel) => demoModel.id === model)!
    for (const state of states) {
      const row = known.states.find((candidate) => candidate.state === state)
      if (!row) throw new Error(`${model} has no state ${state}`)
      this.after(1).write('lamp.seen', { unit: this.id('unit', name), lamps: row.lamps })
    }
    return this
  }

  segment(name: string, set: Facts<'segment'>, pool: { unit: string; from: string; to: string }): this {
    const id = this.id('segment', name)
    this.write('segment.set', { id, set: { name, ...set } })
    return this.write('pool.set', {
      id: this.id('pool', name),
      set: { segment: id, unit: this.id('unit', pool.unit), from: pool.from, to: pool.to }
    })
  }

  host(unit: string, segment: string, address: string, reserved = false): this {
    const id = this.id('host', unit)
    this.write('host.set', {
      id,
      set: { unit: this.id('unit', unit), segment: this.id('segment', segment), address, reserved }
    })
    return this
  }

  network(ssid: string, set: Facts<'network'>, passphrase: string): this {
    const id = this.id('network', ssid)
    return this.write('network.set', { id, set: { ssid, ...set } }).secret('wifi-passphrase', 'network', id, passphrase)
  }

  answer(rule: string, subject?: string): this {
    if (!allRules.some(({ id }) => id === rule)) throw new Error(`there is no rule ${rule}`)
    return this.write('rule.answered', { rule, ...(subject ? { subject } : {}), answer: 'yes' })
  }

  prompts(name: string, model: string): this {
    for (const { id } of demoModels.find((demoModel) => demoModel.id === model)!.prompts)
      this.write('prompt.answered', { unit: this.id('unit', name), prompt: id, answer: 'no', by: 'customer' })
    return this
  }

  /** The five choices, custody and cautions. */
  handOver(guest: 'yes' | 'no', lamp: 'bright' | 'dim' | 'off' = 'bright'): this {
    const answers = { guest, parental: 'no', security: 'no', updates: 'automatic', lamp } as const
    for (const [choice, answer] of Object.entries(answers))
      this.write('choice.answered', { choice: choice as 'guest', answer })
    if (lamp !== 'bright') this.answer('hand-lamp')
    return this.write('custody.answered', { custody: 'erase-after-30-days' }).answer('hand-cautions')
  }

  /** Makes the pack and gives it. */
  pack(): this {
    this.#atMin += 2
    this.visit.steps.push({ does: 'pack', atMin: this.#atMin, by: this.visit.technician })
    return this.write('pack.given', { how: 'printed' })
  }

  /** Both sign, and the visit is sealed. */
  seal(): this {
    this.#atMin += 3
    for (const does of ['sign', 'seal'] as const)
      this.visit.steps.push({ does, atMin: (this.#atMin += 1), by: this.visit.technician })
    return this
  }

  get name(): string {
    return this.#name
  }
}
