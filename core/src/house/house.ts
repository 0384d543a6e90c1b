import { modelKey, type Catalogue, type Condition, type Model } from '../catalogue/model'
import { updateWork } from '../catalogue/firmware-work'
import { pressKind, pressOf } from '../catalogue/presses'
import { seededRandom } from '../values/random'
import { drawnFrom } from '../work/run/visit-plan'
import { HouseAir } from './air'
import { lasts, LEAST_DBM, stateShowing } from './conditions'
import { conditionWhenSettled, lineCondition } from './settled'
import type { HouseAction, HouseDefinition, Where } from './definition'
import type { CableNow, HouseEvent, HouseNetwork, HouseNow, UnitNow } from './moment'
import { networkOf } from './network'
import { firstSettings } from './pages'

interface Due {
  at: number
  order: number
  unit: string
  then: () => void
  token: number
}

const WINDOW_S = 120

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
  now = 0
  readonly #due: Due[] = []
  #order = 0
  readonly #random: Map<string, () => number> = new Map()
  readonly #tokens = new Map<string, number>()
  readonly #air: HouseAir
  #network: HouseNetwork | null = null

  constructor(
    readonly definition: HouseDefinition,
    catalogue: Catalogue
  ) {
    this.#air = new HouseAir(definition)
    definition.units.forEach((unit, index) => {
      const model = catalogue.get(modelKey(unit.model, unit.modelVersion))
      if (!model) throw new Error(`the catalogue holds no ${unit.model} version ${unit.modelVersion}`)
      this.#random.set(unit.id, seededRandom(definition.seed * 977 + index * 131 + 7))
      const withdrawn = this.fault('withdrawn-firmware', unit.id)
      const settings = {
        ...firstSettings(unit, model),
        ...unit.settings,
        ...(this.fault('radio-off', unit.id) ? { 'wifi.radio': 'off' as const } : {})
      }
      this.units.set(unit.id, {
        definition: unit,
        model,
        powered: false,
        condition: 'off',
        configured: unit.running === true,
        firmware:
          withdrawn?.kind === 'withdrawn-firmware'
            ? withdrawn.version
            : (unit.firmware ?? model.firmware.releases[0]?.version ?? ''),
        at: unit.at ?? null,
        uplink: null,
        partner: null,
        stored: settings,
        running: settings,
        drafts: {},
        windowUntil: 0,
        rightAdapter: !this.fault('wrong-adapter', unit.id),
        stuck: unit.running === true && this.fault('stuck-modem', unit.id) !== undefined,
        tries: 0
      })
    })
    for (const cable of definition.cables) {
      this.cables.set(cable.id, {
        id: cable.id,
        kind: cable.kind,
        category: cable.category,
        lengthM: cable.lengthM,
        bad: definition.faults.some((one) => one.kind === 'bad-cable' && one.cable === cable.id),
        a: cable.a ?? null,
        b: cable.b ?? null
      })
    }
    // What runs when the practice begins has run for long: it is as it would be after its waits.
    const running = [...this.units].filter(([, unit]) => unit.definition.running)
    for (const [, unit] of running) {
      unit.powered = true
      unit.condition = 'good'
    }
    for (const [id, unit] of running)
      if (unit.definition.role === 'node' || unit.definition.role === 'extender') unit.uplink = this.#leader(id)
    for (let round = 0; round < 3; round++)
      for (const [id] of running) {
        this.#network = null
        this.units.get(id)!.condition = conditionWhenSettled(this, id)
      }
    this.#network = null
    this.events.length = 0
  }

  /** A fault of this kind that was planted, about this unit where it is about one. */
  fault(kind: HouseDefinition['faults'][number]['kind'], unit?: string) {
    return this.definition.faults.find(
      (one) => one.kind === kind && (unit === undefined || ('unit' in one && one.unit === unit))
    )
  }

  #say(unit: string | null, says: string) {
    this.events.push({ at: this.now, unit, says })
  }

  #draw(id: string, condition: Condition): number {
    return drawnFrom(lasts(this.units.get(id)!.model, condition), this.#random.get(id)!()) * 60
  }

  /** Something that comes by itself, unless the unit is interrupted before. */
  #after(id: string, seconds: number, then: () => void) {
    const token = (this.#tokens.get(id) ?? 0) + 1
    this.#tokens.set(id, token)
    this.#due.push({ at: this.now + seconds, order: ++this.#order, unit: id, then, token })
    this.#due.sort((a, b) => a.at - b.at || a.order - b.order)
  }

  #interrupt(id: string) {
    this.#tokens.set(id, (this.#tokens.get(id) ?? 0) + 1)
  }

  /** When the next thing happens by itself, in seconds of the house; null where nothing does. */
  get nextAt(): number | null {
    return this.#due.find((one) => one.token === this.#tokens.get(one.unit))?.at ?? null
  }

  /** Lets time pass up to a second, all that happens meanwhile included. */
  advanceTo(second: number): void {
    for (let next = this.#due[0]; next && next.at <= second; next = this.#due[0]) {
      this.#due.shift()
      if (next.token !== this.#tokens.get(next.unit)) continue
      this.now = next.at
      this.#network = null
      next.then()
    }
    this.now = Math.max(this.now, second)
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

  /** Who leads a unit of a mesh or an extender: the router of its family, or any other that sends. */
  #leader(id: string): string | null {
    const { model, definition } = this.units.get(id)!
    const others = [...this.units.values()].filter(
      (one) => one.definition.id !== id && one.powered && one.configured && one.model.radios.length > 0
    )
    const found =
      definition.role === 'extender'
        ? others.find(({ definition: { role } }) => role === 'router' || role === 'gateway')
        : others.find(
            (one) => one.model.family !== null && one.model.family === model.family && one.definition.role === 'router'
          )
    return found?.definition.id ?? null
  }

  #busy(id: string): boolean {
    return this.#due.some((one) => one.unit === id && one.token === this.#tokens.get(id))
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
          this.#seekLine(id)
        else this.#turn(id, target)
        changed ||= unit.condition !== before
      }
      if (!changed) return
    }
  }

  #boot(id: string): void {
    const unit = this.units.get(id)!
    unit.running = { ...unit.stored }
    unit.drafts = {}
    unit.stuck = false
    this.#turn(id, 'booting')
    this.#after(id, this.#draw(id, 'booting'), () => {
      const { role } = unit.definition
      if (role === 'modem' || role === 'gateway') this.#seekLine(id)
      else {
        this.#turn(id, conditionWhenSettled(this, id))
        this.#ripple()
      }
    })
  }

  #seekLine(id: string): void {
    const unit = this.units.get(id)!
    const has = (condition: Condition) => unit.model.states.some(({ is }) => is === condition)
    const end = () => {
      this.#turn(id, lineCondition(this, id))
      this.#ripple()
    }
    const wait = (condition: Condition, then: () => void) => {
      if (has(condition)) {
        this.#turn(id, condition)
        this.#after(id, this.#draw(id, condition), then)
      } else then()
    }
    wait('line-seeking', () => {
      const found = lineCondition(this, id)
      if (found === 'no-line') {
        end()
        return
      }
      wait('line-training', () => {
        if (has('line-login') && unit.configured) wait('line-login', end)
        else end()
      })
    })
  }

  #power(id: string): void {
    const unit = this.units.get(id)!
    unit.powered = true
    if (unit.rightAdapter && !this.fault('broken-unit', id)) this.#boot(id)
    else {
      // The wrong adapter, or a broken unit: it starts, and falls over again.
      this.#turn(id, 'booting')
      this.#after(id, 8, () => {
        this.#turn(id, 'off')
        this.#after(id, 5, () => {
          if (unit.powered) this.#power(id)
        })
      })
    }
  }

  #reset(id: string): void {
    const unit = this.units.get(id)!
    unit.configured = false
    unit.uplink = null
    unit.partner = null
    unit.stored = firstSettings(unit.definition, unit.model)
    this.#turn(id, 'resetting')
    this.#after(id, this.#draw(id, 'resetting'), () => this.#boot(id))
  }

  #press(id: string, button: string, seconds: number): void {
    const unit = this.units.get(id)!
    const on = unit.model.buttons.find((one) => one.id === button)
    const press = on && pressOf(on, seconds)
    this.#say(id, `${on?.name ?? button} held ${seconds} s${press ? `: ${press.does}` : ': nothing'}`)
    if (!press || !unit.powered || unit.condition === 'off') return
    const kind = pressKind(press)
    if (kind === 'reset') this.#reset(id)
    else if (kind === 'restart') this.#boot(id)
    else if (kind === 'pairing' || unit.model.states.find(({ state }) => state === press.confirms)?.is === 'pairing')
      this.#openWindow(id)
  }

  #openWindow(id: string): void {
    const unit = this.units.get(id)!
    unit.windowUntil = this.now + WINDOW_S
    const fits = (other: UnitNow) => {
      if (unit.model.family !== null) return other.model.family === unit.model.family
      return unit.definition.role === 'powerline-adapter'
        ? other.model.id === unit.model.id
        : (['router', 'gateway', 'extender'].includes(other.definition.role) && other.model.family === null) ||
            other.definition.role === 'gateway'
    }
    const other = [...this.units.values()].find(
      (one) => one.definition.id !== id && one.windowUntil >= this.now && one.powered && fits(one)
    )
    if (!other) {
      if (unit.condition !== 'good') this.#turn(id, 'pairing')
      this.#after(id, WINDOW_S, () => {
        if (unit.windowUntil <= this.now) {
          this.#turn(
            id,
            unit.configured
              ? conditionWhenSettled(this, id)
              : unit.tries++ >= 0 &&
                  unit.model.states.some(({ is }) => is === 'failed') &&
                  unit.definition.role === 'node'
                ? 'failed'
                : conditionWhenSettled(this, id)
          )
          this.#ripple()
        }
      })
      return
    }
    // The one that is not set up joins the one that is; of two adapters both join.
    const [leads, joins] = unit.configured && !other.configured ? [unit, other] : [other, unit]
    leads.windowUntil = joins.windowUntil = 0
    this.#turn(joins.definition.id, 'pairing')
    const stuck = this.fault('stuck-pairing', joins.definition.id) && joins.tries === 0
    const wrongKey = this.fault('wrong-key', joins.definition.id) && joins.tries === 0
    joins.tries++
    this.#interrupt(leads.definition.id)
    this.#after(joins.definition.id, this.#draw(joins.definition.id, 'pairing'), () => {
      const far =
        joins.definition.role !== 'powerline-adapter' &&
        this.signal(leads.definition.id, joins.definition.id) < LEAST_DBM
      if (stuck || wrongKey || far) {
        this.#turn(
          joins.definition.id,
          joins.model.states.some(({ is }) => is === 'failed') ? 'failed' : far ? 'no-link' : 'ready'
        )
        this.#turn(leads.definition.id, conditionWhenSettled(this, leads.definition.id))
        this.#ripple()
        return
      }
      if (joins.definition.role === 'powerline-adapter') {
        joins.partner = leads.definition.id
        leads.partner = joins.definition.id
        joins.configured = leads.configured = true
      } else {
        joins.configured = true
        joins.uplink = leads.definition.id
        joins.stored = joins.running = {
          ...joins.running,
          ...(leads.running['wifi.ssid'] === undefined ? {} : { 'wifi.ssid': leads.running['wifi.ssid'] })
        }
      }
      this.#turn(joins.definition.id, conditionWhenSettled(this, joins.definition.id))
      this.#turn(leads.definition.id, conditionWhenSettled(this, leads.definition.id))
      this.#ripple()
    })
  }

  /** The maker's app or the controller sets a unit up. */
  #setUp(id: string, how: 'app' | 'adopt'): void {
    const unit = this.units.get(id)!
    if (!unit.powered || unit.condition === 'off' || unit.condition === 'booting') {
      this.#say(id, 'nothing answers: it is not ready')
      return
    }
    const wrongKey = how === 'app' && this.fault('wrong-key', id) && unit.tries === 0
    unit.tries++
    this.#turn(id, 'pairing')
    this.#after(id, this.#draw(id, 'pairing'), () => {
      const needsLink = unit.definition.role === 'node' || unit.definition.role === 'extender'
      const leader = needsLink ? this.#leader(id) : null
      if (wrongKey || (needsLink && (leader === null || this.signal(leader, id) < LEAST_DBM))) {
        this.#turn(
          id,
          unit.model.states.some(({ is }) => is === 'failed')
            ? 'failed'
            : leader === null || wrongKey
              ? 'ready'
              : 'no-link'
        )
        return
      }
      unit.configured = true
      unit.uplink = leader
      const newest = updateWork(unit.model, unit.firmware).path.at(-1)
      // Set up by its app, a unit brings itself up to date where it does so by itself.
      if (
        how === 'app' &&
        unit.model.updates === 'automatic' &&
        newest !== undefined &&
        this.network.online.has(leader ?? id)
      ) {
        this.#update(id, newest)
        return
      }
      this.#turn(id, conditionWhenSettled(this, id))
      this.#ripple()
    })
  }

  #update(id: string, version: string): void {
    const unit = this.units.get(id)!
    const { path } = updateWork(unit.model, unit.firmware)
    if (!path.includes(version)) {
      this.#say(id, `${version} does not install from ${unit.firmware}`)
      return
    }
    const steps = path.slice(0, path.indexOf(version) + 1)
    this.#turn(id, 'updating')
    const { installMin } = unit.model.firmware
    const usual = installMin?.usual ?? 5
    this.#after(
      id,
      steps.length *
        60 *
        drawnFrom(
          { least: usual * 0.7, usual, most: Math.max(usual, (installMin?.most ?? 8) * 0.9) },
          this.#random.get(id)!()
        ),
      () => {
        unit.firmware = version
        this.#say(id, `runs ${version}`)
        this.#boot(id)
      }
    )
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
        if (!unit.powered && unit.model.ports.every(({ powerInClass }) => powerInClass === undefined)) this.#power(id)
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
          this.#power(id)
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
          this.#power(id)
        }
        this.#say(id, 'carried to another place')
        break
      case 'app':
        this.#setUp(id, 'app')
        break
      case 'adopt':
        this.#setUp(id, 'adopt')
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
        if (unit.powered && !this.#busy(id)) this.#update(id, action.version)
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
        (one) =>
          one.id !== cable.id &&
          [one.a, one.b].some(
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
      if (fed && !unit.powered) this.#power(id)
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
