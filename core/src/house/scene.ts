import { lampAnswer } from '../work/diagnose/lamp-answer'
import { GOOD_DBM, LEAST_DBM } from './conditions'
import type { Where } from './definition'
import type { House } from './house'
import { measureAir, measureCable, sendsNow } from './measure'
import { hangsOnLine, type CableNow, type UnitNow } from './moment'

/** What a search in a house is about: a unit, and the place where it does not work. */
export interface HouseComplaint {
  unit: string
  where: Where
}

/** From this share of what is fair on it is no longer slow. */
const SLOW_SHARE = 0.45
const FAIR_MBPS = 100

/** A house as somebody sees it who looks into a complaint: the unit, what it hangs on, and the cables between them. */
export class Scene {
  readonly house: House
  readonly id: string
  readonly unit: UnitNow
  readonly where: Where
  readonly all: readonly UnitNow[]
  /** The modem or gateway. */
  readonly line: UnitNow | undefined
  /** A router behind it, where there is one. */
  readonly router: UnitNow | undefined
  /** What the home's network comes from. */
  readonly head: UnitNow | undefined
  readonly phone: UnitNow | undefined
  /** The phone is on a network that is not the home's. */
  readonly astray: boolean
  /** The cable from the line's unit to the router. */
  readonly wan: CableNow | undefined
  /** The cable that the unit hangs on. */
  readonly hangs: CableNow | undefined
  readonly namesFound: boolean
  readonly #sourceMbps: number

  constructor(house: House, { unit: id, where }: HouseComplaint) {
    this.house = house
    this.id = id
    this.unit = house.units.get(id)!
    this.where = where
    this.all = [...house.units.values()]
    this.line = this.all.find(hangsOnLine)
    this.router = this.all.find(
      (unit) =>
        unit.definition.role === 'router' &&
        (unit.running.mode ?? 'router') === 'router' &&
        !this.#isOne(unit, this.line)
    )
    this.head = this.router ?? this.line
    this.phone = house.phone === null ? undefined : house.units.get(house.phone)
    this.astray = this.#isAstray()
    const cables = [...house.cables.values()]
    this.wan = cables.find((cable) => touches(cable, this.line) && touches(cable, this.router))
    this.hangs = this.#isOne(this.unit, this.head)
      ? undefined
      : cables.find((cable) => cable.kind === 'network' && touches(cable, this.unit) && !leadsOut(cable))
    this.namesFound = house.fault('names-not-found') === undefined || this.head?.running['lan.dns'] === 'by-hand'
    this.#sourceMbps = this.line ? (measureCable(house, this.line.definition.id).downMbps ?? 0) : 0
  }

  #isOne(a: UnitNow, b: UnitNow | undefined): boolean {
    return a.definition.id === b?.definition.id
  }

  #isAstray(): boolean {
    if (!this.phone || this.#isOne(this.phone, this.unit)) return false
    return (
      !this.house.network.online.has(this.phone.definition.id) &&
      this.phone.running['wifi.ssid'] !== this.head?.running['wifi.ssid']
    )
  }

  /** The cable that the unit hangs on, where it is not the one between line and router. */
  get own(): CableNow | undefined {
    return this.hangs === this.wan ? undefined : this.hangs
  }

  atSpeed(mbps: number): 'yes' | 'slow' {
    return mbps >= Math.min(FAIR_MBPS, this.#sourceMbps) * SLOW_SHARE ? 'yes' : 'slow'
  }

  /** Whether the internet arrives at a unit, and names are found. */
  works(unit: UnitNow | undefined): boolean {
    return unit !== undefined && this.house.network.online.has(unit.definition.id) && this.namesFound
  }

  /** Why a unit's lamps tell nothing of its work; null where they do. */
  outOf({ definition, powered, rightAdapter }: UnitNow): 'dark' | 'starts-over' | null {
    if (!powered) return 'dark'
    return this.house.fault('broken-unit', definition.id) || !rightAdapter ? 'starts-over' : null
  }

  lamp(unit: UnitNow): string {
    return this.outOf(unit) ?? lampAnswer[unit.condition] ?? 'good'
  }

  /** What comes over the air of a unit at a place: at speed, slowly, nothing, or its network is not there. */
  air(unit: UnitNow | undefined, at: Where): string {
    if (!unit || !sendsNow(unit)) return 'no-network'
    const { run } = measureAir(this.house, at, unit.definition.id)
    if (!run) return 'no-network'
    return this.works(unit) ? this.atSpeed(run.downMbps ?? 0) : 'no'
  }

  /** The link of a cable against what is full speed there. */
  link(cable: CableNow, isSlow: (mbps: number) => boolean): string {
    const mbps = this.house.network.linkMbps(cable.id)
    if (mbps === 0) return 'none'
    return isSlow(mbps) ? 'slow' : 'full'
  }

  /** How strong the unit hears the head of the network. */
  hopSignal(head: UnitNow): string {
    const dbm = this.house.signal(head.definition.id, this.id)
    if (dbm < LEAST_DBM) return 'none'
    return dbm < GOOD_DBM ? 'weak' : 'good'
  }
}

const touches = ({ a, b }: CableNow, unit: UnitNow | undefined): boolean =>
  unit !== undefined && [a?.unit, b?.unit].includes(unit.definition.id)
const leadsOut = ({ a, b }: CableNow): boolean => [a?.unit, b?.unit].includes('line')
