import { hops, type CableNow, type HouseEvent, type HouseNetwork, type HouseNow, type UnitNow } from './moment'
import type { Catalogue, Condition, Model } from '../catalogue/model'
import { pressKind, pressOf } from '../catalogue/presses'
import { seededRandom } from '../values/random'
import { drawnFrom } from '../work/run/visit-plan'
import { HouseAir } from './air'
import { lasts, stateShowing } from './conditions'
import { conditionWhenSettled, lineCondition } from './settled'
import type { HouseAction, HouseDefinition, Where } from './definition'
import { networkOf } from './network'
import { faultOf, firstCables, firstUnit } from './first-units'
import { leaderOf, openWindow, setUp, type HouseWorks } from './joining'
import { boot, powerUp, resetUnit, seekLine, updateFirmware } from './starting'
import { Timers } from './timers'

/**
 * A house with real behaviour: units boot, pair, train and blink as their models' tables say. Discrete events; the same
 * definition and actions give the same events to the last one. It has no clock of its own: time is what it is told.
 */
export class House implements HouseNow {
  readonly units = new Map<string, UnitNow>()
  readonly cables = new Map<string, CableNow>()
  readonly events: HouseEvent[] = []
  /** The unit whose air the technician's phone is on. */
  phone: string | null = null
  readonly #timers = new Timers()
  readonly #random: Map<string, () => number> = new Map()
  readonly #air: HouseAir
  #network: HouseNetwork | null = null

  constructor(
    readonly definition: HouseDefinition,
    catalogue: Catalogue
  ) {
    this.#air = new HouseAir(definition)
    definition.units.forEach((unit, index) => {
      this.units.set(unit.id, firstUnit(definition, unit, catalogue))
      this.#random.set(unit.id, seededRandom(definition.seed * 977 + index * 131 + 7))
    })
    for (const cable of firstCables(definition)) this.cables.set(cable.id, cable)
    // What runs when the practice begins has run for long: it is as it would be after its waits.
    const running = [...this.units].filter(([, unit]) => unit.definition.running)
    for (const [, unit] of running) {
      unit.powered = true
      unit.condition = 'good'
    }
    for (const [id, unit] of running) if (hops(unit)) unit.uplink = leaderOf(this, id)
    for (let round = 0; round < 3; round++)
      for (const [id] of running) {
        this.#network = null
        this.units.get(id)!.condition = conditionWhenSettled(this, id)
      }
    this.#network = null
    this.events.length = 0
  }

  /** What its parts do in it. */
  readonly #works: HouseWorks = {
    house: this,
    say: (unit, message) => this.#say(unit, message),
    turn: (unit, condition) => this.#turn(unit, condition),
    draw: (unit, condition) => this.#draw(unit, condition),
    after: (unit, seconds, then) => this.#after(unit, seconds, then),
    interrupt: (unit) => this.#interrupt(unit),
    ripple: () => this.#ripple(),
    update: (unit, version) => updateFirmware(this.#works, unit, version),
    random: (unit) => this.#random.get(unit)!()
  }

  /** A fault of this kind that was planted, about this unit where it is about one. */
  fault(kind: HouseDefinition['faults'][number]['kind'], unit?: string) {
    return faultOf(this.definition, kind, unit)
  }

  #say(unit: string | null, message: string) {
    this.events.push({ at: this.now, unit, message })
  }

  #draw(id: string, condition: Condition): number {
    return drawnFrom(lasts(this.units.get(id)!.model, condition), this.#random.get(id)!()) * 60
  }

  #after(id: string, seconds: number, then: () => void) {
    this.#timers.after(id, seconds, then)
  }

  #interrupt(id: string) {
    this.#timers.interrupt(id)
  }

  /** The seconds that have passed in the house. */
  get now(): number {
    return this.#timers.now
  }

  /** When the next thing happens by itself, in seconds of the house; null where nothing does. */
  get nextAt(): number | null {
    return this.#timers.nextAt
  }

  /** Lets time pass up to a second, all that happens meanwhile included. */
  advanceTo(second: number): void {
    this.#timers.advanceTo(second, () => {
      this.#network = null
    })
  }

  /** The network as it is now: who is joined to whom, who serves whom, who reaches the internet. */
  get network(): HouseNetwork {
    this.#network ??= networkOf(this)
    return this.#network
  }

  /** The state of a unit's table that it shows now. */
  shows(id: string): Model['states'][number] {
    const { model, condition } = this.units.get(id)!
    return stateShowing(model, condition)
  }

  #turn(id: string, condition: Condition) {
    const unit = this.units.get(id)!
    if (unit.condition === condition) return
    const before = this.shows(id)
    unit.condition = condition
    this.#network = null
    const after = this.shows(id)
    if (before.state !== after.state) this.#say(id, after.meaning)
  }

  /** The signal of a unit at a place, on its better band for a device that is held there, dBm; null where it sends nothing. */
  signalAt(id: string, where: Where) {
    return this.#air.at(this.units.get(id)!, where)
  }

  /** The signal between two units by the plan, or as if they stood in one room where nothing is drawn, dBm. */
  signal(a: string, b: string): number {
    return this.#air.between(this.units.get(a)!, this.units.get(b)!)
  }

  #busy(id: string): boolean {
    return this.#timers.isBusy(id)
  }

  /** Everybody looks again at how things are: a link came, a server went. */
  #ripple(): void {
    this.#network = null
    for (let round = 0; round < 4; round++) {
      let changed = false
      for (const [id, unit] of this.units) {
        if (!unit.powered || this.#busy(id) || unit.condition === 'off' || unit.condition === 'failed') continue
        const before = unit.condition
        // A gateway whose line comes or goes looks for it anew.
        const target = conditionWhenSettled(this, id)
        if (
          (unit.definition.role === 'modem' || unit.definition.role === 'gateway') &&
          before === 'no-line' &&
          target !== 'no-line'
        )
          seekLine(this.#works, id)
        else this.#turn(id, target)
        changed ||= unit.condition !== before
      }
      if (!changed) return
    }
  }

  #press(id: string, button: string, seconds: number): void {
    const unit = this.units.get(id)!
    const on = unit.model.buttons.find((candidate) => candidate.id === button)
    const press = on && pressOf(on, seconds)
    this.#say(id, `${on?.name ?? button} held ${seconds} s${press ? `: ${press.does}` : ': nothing'}`)
    if (!press || !unit.powered || unit.condition === 'off') return
    const kind = pressKind(press)
    if (kind === 'reset') resetUnit(this.#works, id)
    else if (kind === 'restart') boot(this.#works, id)
    else if (kind === 'pairing' || unit.model.states.find(({ state }) => state === press.confirms)?.is === 'pairing')
      openWindow(this.#works, id)
  }

  /** Does what a person does, at its second; time passes up to it first. An action that cannot be done says so as an event. */
  act(action: HouseAction): void {
    this.advanceTo(Math.max(this.now, action.at))
    this.#network = null
    if (action.do === 'wait') return
    if (action.do === 'phone') {
      this.phone = action.unit !== null && this.units.has(action.unit) ? action.unit : null
      return
    }
    if (action.do === 'cable' || action.do === 'uncable') {
      this.#cable(action)
      return
    }
    const unit = this.units.get(action.unit)
    if (!unit) {
      this.#say(null, `there is no ${action.unit} in this house`)
      return
    }
    const { unit: id } = action
    switch (action.do) {
      case 'plug':
        if (!unit.powered && unit.model.ports.every(({ powerInClass }) => powerInClass === undefined))
          powerUp(this.#works, id)
        else if (!unit.powered) this.#say(id, 'it takes its power from its network cable')
        break
      case 'unplug':
        unit.powered = false
        unit.windowUntil = 0
        this.#interrupt(id)
        this.#turn(id, 'off')
        this.#ripple()
        break
      case 'swap-adapter':
        unit.rightAdapter = true
        if (unit.powered) {
          this.#interrupt(id)
          this.#turn(id, 'off')
          powerUp(this.#works, id)
        }
        break
      case 'press':
        this.#press(id, action.button, action.seconds)
        break
      case 'carry':
        unit.at = action.to
        // Carried means unplugged: it starts anew where it stands now.
        if (unit.powered) {
          this.#interrupt(id)
          this.#turn(id, 'off')
          powerUp(this.#works, id)
        }
        this.#say(id, 'carried to another place')
        break
      case 'app':
        setUp(this.#works, id, 'app')
        break
      case 'adopt':
        setUp(this.#works, id, 'adopt')
        break
      case 'activate':
        unit.configured = true
        if (
          unit.powered &&
          ['line-seeking', 'line-login', 'login-refused'].includes(unit.condition) &&
          !this.#busy(id)
        ) {
          this.#turn(id, 'line-login')
          this.#after(id, this.#draw(id, 'line-login'), () => {
            this.#turn(id, lineCondition(this, id))
            this.#ripple()
          })
        }
        break
      case 'update':
        if (unit.powered && !this.#busy(id)) updateFirmware(this.#works, id, action.version)
        break
      case 'set':
        unit.drafts[action.page] = { ...unit.drafts[action.page], ...action.values }
        break
      case 'leave':
        if (Object.keys(unit.drafts).length) this.#say(id, 'its page was left: what was not applied is lost')
        unit.drafts = {}
        break
      case 'apply':
        this.#apply(id, action.page)
        break
    }
  }

  #apply(id: string, page: 'mode' | 'lan' | 'wifi'): void {
    const unit = this.units.get(id)!
    const draft = unit.drafts[page]
    delete unit.drafts[page]
    if (!draft) return
    unit.stored = {
      ...unit.stored,
      ...draft,
      ...(draft.mode === 'access-point' && unit.model.modeStopsDhcp ? { 'dhcp.server': 'off' as const } : {})
    }
    this.#say(id, `${page} applied`)
    // Names and radios take effect at once; mode and addresses after a restart.
    if (page === 'wifi') {
      unit.running = {
        ...unit.running,
        ...Object.fromEntries(Object.entries(unit.stored).filter(([name]) => name.startsWith('wifi.')))
      }
      this.#ripple()
    }
  }

  #cable(action: Extract<HouseAction, { do: 'cable' | 'uncable' }>): void {
    const cable = this.cables.get(action.cable)
    if (!cable) {
      this.#say(null, `there is no cable ${action.cable}`)
      return
    }
    if (action.do === 'uncable') {
      cable.a = cable.b = null
    } else {
      const taken = [...this.cables.values()].some(
        (candidate) =>
          candidate.id !== cable.id &&
          [candidate.a, candidate.b].some(
            (end) => end && [action.a, action.b].some((mine) => mine.unit === end.unit && mine.port === end.port)
          )
      )
      if (taken) {
        this.#say(null, 'that port holds a cable already')
        return
      }
      cable.a = action.a
      cable.b = action.b
    }
    this.#network = null
    // What takes its power over the cable starts or falls with it.
    for (const [id, unit] of this.units) {
      if (unit.model.power !== null || unit.model.ports.every(({ powerInClass }) => powerInClass === undefined))
        continue
      const fed = this.network.fed.has(id)
      if (fed && !unit.powered) powerUp(this.#works, id)
      else if (!fed && unit.powered) {
        unit.powered = false
        this.#interrupt(id)
        this.#turn(id, 'off')
      }
    }
    this.#ripple()
  }
}

/** A house after all that was done in it. */
export function playHouse(definition: HouseDefinition, actions: readonly HouseAction[], catalogue: Catalogue): House {
  const house = new House(definition, catalogue)
  for (const action of actions) house.act(action)
  return house
}
