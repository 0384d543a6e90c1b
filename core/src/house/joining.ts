import type { Condition, Model } from '../catalogue/model'
import { updateWork } from '../catalogue/firmware-work'
import { LEAST_DBM } from './conditions'
import { hops, type HouseNow, type UnitNow } from './moment'
import { conditionWhenSettled } from './settled'

const WINDOW_S = 120

/** What the parts of a house do in it. */
export interface HouseWorks {
  house: HouseNow & { readonly now: number }
  say: (unit: string | null, message: string) => void
  turn: (unit: string, condition: Condition) => void
  /** How long a condition of a unit lasts this time, seconds. */
  draw: (unit: string, condition: Condition) => number
  after: (unit: string, seconds: number, then: () => void) => void
  interrupt: (unit: string) => void
  /** Everybody looks again at how things are. */
  ripple: () => void
  update: (unit: string, version: string) => void
  /** The next random number of a unit. */
  random: (unit: string) => number
}

/** Who leads a unit of a mesh or an extender: the router of its family, or any other that sends. */
export function leaderOf(house: HouseNow, id: string): string | null {
  const { model, definition } = house.units.get(id)!
  const others = [...house.units.values()].filter(
    (unit) => unit.definition.id !== id && unit.powered && unit.configured && unit.model.radios.length > 0
  )
  const found =
    definition.role === 'extender'
      ? others.find(({ definition: { role } }) => role === 'router' || role === 'gateway')
      : others.find(
          (other) =>
            other.model.family !== null && other.model.family === model.family && other.definition.role === 'router'
        )
  return found?.definition.id ?? null
}

/** Whether one unit pairs with another by their buttons. */
function pairs(unit: UnitNow, other: UnitNow): boolean {
  if (unit.model.family !== null) return other.model.family === unit.model.family
  if (unit.definition.role === 'powerline-adapter') return other.model.id === unit.model.id
  const { role } = other.definition
  return role === 'gateway' || ((role === 'router' || role === 'extender') && other.model.family === null)
}

/** A unit's pairing button was pressed: its window opens, and it joins or leads whoever has one open. */
export function openWindow(works: HouseWorks, id: string): void {
  const { house } = works
  const unit = house.units.get(id)!
  unit.windowUntil = house.now + WINDOW_S
  const other = [...house.units.values()].find(
    (candidate) =>
      candidate.definition.id !== id &&
      candidate.windowUntil >= house.now &&
      candidate.powered &&
      pairs(unit, candidate)
  )
  if (!other) {
    waitForOther(works, id, unit)
    return
  }
  // The one that is not set up joins the one that is; of two adapters both join.
  if (unit.configured && !other.configured) join(works, unit, other)
  else join(works, other, unit)
}

function waitForOther({ house, turn, after, ripple }: HouseWorks, id: string, unit: UnitNow): void {
  if (unit.condition !== 'good') turn(id, 'pairing')
  after(id, WINDOW_S, () => {
    if (unit.windowUntil > house.now) return
    const tellsFailure = unit.definition.role === 'node' && unit.model.states.some(({ is }) => is === 'failed')
    turn(id, !unit.configured && tellsFailure ? 'failed' : conditionWhenSettled(house, id))
    if (!unit.configured) unit.tries++
    ripple()
  })
}

function join({ house, turn, draw, after, interrupt, ripple }: HouseWorks, leads: UnitNow, joins: UnitNow): void {
  const [leader, joiner] = [leads.definition.id, joins.definition.id]
  const overMains = joins.definition.role === 'powerline-adapter'
  leads.windowUntil = joins.windowUntil = 0
  turn(joiner, 'pairing')
  const fails = joins.tries === 0 && (house.fault('stuck-pairing', joiner) ?? house.fault('wrong-key', joiner))
  joins.tries++
  interrupt(leader)
  after(joiner, draw(joiner, 'pairing'), () => {
    const isFar = !overMains && house.signal(leader, joiner) < LEAST_DBM
    if (fails || isFar) turn(joiner, failedLook(joins.model, isFar ? 'no-link' : 'ready'))
    else {
      joins.configured = true
      if (overMains) {
        joins.partner = leader
        leads.partner = joiner
        leads.configured = true
      } else {
        joins.uplink = leader
        const ssid = leads.running['wifi.ssid']
        joins.stored = joins.running = { ...joins.running, ...(ssid === undefined ? {} : { 'wifi.ssid': ssid }) }
      }
      turn(joiner, conditionWhenSettled(house, joiner))
    }
    turn(leader, conditionWhenSettled(house, leader))
    ripple()
  })
}

/** The maker's app or the controller sets a unit up. */
export function setUp(works: HouseWorks, id: string, how: 'app' | 'adopt'): void {
  const { house, say, turn, draw, after } = works
  const unit = house.units.get(id)!
  if (!unit.powered || unit.condition === 'off' || unit.condition === 'booting') {
    say(id, 'nothing answers: it is not ready')
    return
  }
  const wrongKey = how === 'app' && unit.tries === 0 && house.fault('wrong-key', id) !== undefined
  unit.tries++
  turn(id, 'pairing')
  after(id, draw(id, 'pairing'), () => {
    const needsLink = hops(unit)
    const leader = needsLink ? leaderOf(house, id) : null
    if (wrongKey || (needsLink && (leader === null || house.signal(leader, id) < LEAST_DBM))) {
      turn(id, failedLook(unit.model, leader === null || wrongKey ? 'ready' : 'no-link'))
      return
    }
    unit.configured = true
    unit.uplink = leader
    const newest = updateWork(unit.model, unit.firmware).path.at(-1)
    // Set up by its app, a unit brings itself up to date where it does so by itself.
    const bringsItself = how === 'app' && unit.model.updates === 'automatic' && house.network.online.has(leader ?? id)
    if (bringsItself && newest !== undefined) {
      works.update(id, newest)
      return
    }
    turn(id, conditionWhenSettled(house, id))
    works.ripple()
  })
}

/** What a unit shows that could not join: that it failed where its model has a look for it. */
const failedLook = (model: Model, otherwise: 'no-link' | 'ready'): Condition =>
  model.states.some(({ is }) => is === 'failed') ? 'failed' : otherwise
