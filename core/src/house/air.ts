import { homePlanOf } from '../work/plan/file'
import { obstaclesOf, plannedBands } from '../work/plan/home-plan'
import type { Band } from '../values/band'
import { pathLoss } from '../radio/path-loss'
import type { HouseDefinition, Where } from './definition'
import type { UnitNow } from './moment'

/** From this signal on a device stays on 5 GHz, dBm. */
const STAYS_DBM = -72
/** What a link loses where nothing is drawn: between units of one room, and to a device beside its unit, dB. */
const [UNDRAWN_LINK_DB, UNDRAWN_HELD_DB] = [70, 60]

/** The air of a house: what arrives between its units, and at a place, by its plan. */
export class HouseAir {
  readonly #drawn

  constructor(definition: HouseDefinition) {
    const plan = definition.plan && homePlanOf(definition.plan)
    this.#drawn = plan
      ? { plan, '2.4': obstaclesOf(plan, '2.4'), '5': obstaclesOf(plan, '5'), '6': obstaclesOf(plan, '6') }
      : null
  }

  /** What a band loses between two places, dB; null where nothing is drawn or one of them is nowhere. */
  #loss(band: Band, from: Where | null, to: Where | null): number | null {
    const drawn = this.#drawn
    if (!drawn || !from || !to) return null
    const point = (where: Where) => ({
      x: where.x,
      y: where.y,
      z: (drawn.plan.storeys.find(({ id }) => id === where.storey)?.floorM ?? 0) + (where.heightM ?? 1)
    })
    return pathLoss({ frequencyMHz: plannedBands[band].middleMHz, from: point(from), to: point(to), ...drawn[band] })
      .totalDb
  }

  /** The signal of a unit at a place, on its better band for a device that is held there, dBm; null where it has no radio. */
  at(unit: UnitNow, where: Where): { band: Band; dbm: number } | null {
    const found = (['5', '2.4', '6'] as const).flatMap((band) => {
      const power = powerOf(unit, band)
      return power === null ? [] : [{ band, dbm: power - (this.#loss(band, unit.at, where) ?? UNDRAWN_HELD_DB) }]
    })
    return (
      found.find(({ band, dbm }) => band === '5' && dbm >= STAYS_DBM) ?? found.sort((a, b) => b.dbm - a.dbm)[0] ?? null
    )
  }

  /** The signal between two units on the best band both have, dBm. */
  between(from: UnitNow, to: UnitNow): number {
    const band = (['5', '2.4', '6'] as const).find(
      (candidate) => powerOf(from, candidate) !== null && powerOf(to, candidate) !== null
    )
    return band === undefined ? -Infinity : powerOf(from, band)! - (this.#loss(band, from.at, to.at) ?? UNDRAWN_LINK_DB)
  }
}

/** The strongest power that a unit sends with on a band, dBm; null where it has no radio for it. */
function powerOf({ model }: UnitNow, band: Band): number | null {
  const powers = model.radios.filter((radio) => radio.band === band).map(({ powerDbm }) => powerDbm)
  return powers.length ? Math.max(...powers) : null
}
