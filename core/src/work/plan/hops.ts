import { hasRole } from '../../record/roles'
import { modelOf, type Catalogue, type Model } from '../../catalogue/model'
import type { WidthMHz } from '../../radio/channels'
import { laterFigures } from '../../policy/standard'
import { linkRate } from '../../radio/link-rate'
import { pathLoss } from '../../radio/path-loss'
import { obstaclesOf, type HomePlan } from './home-plan'
import { isOurs, senderOf, type Placed } from './placed'
import type { Stays, Unit } from '../../record/record'
import type { Band } from '../../values/band'

/** A wireless hop: from which unit, how far, and with what signal by the plan. */
export interface Hop {
  from: Placed
  metres: number
  dbm: number
  /** Wireless hops from the router, this one included. */
  hops: number
}

/** How a unit is joined to the rest: it is the root itself, by a cable, or by a wireless hop. */
export type Join = Hop | 'cabled' | 'root'

/** The band of the wireless hops of a home. */
export const BACKHAUL_BAND: Band = '5'
/** The signal from which on a hop is taken to hold, where it is told what hangs on what: the first standard's. A company's own figure says what is good enough. */
export const HOP_HOLDS_DBM = laterFigures.leastHopDbm
/** What of the rate on the air arrives, as everybody's experience has it. */
export const ARRIVES = 0.6
/** Two streams, and at most 80 MHz: what the devices that people hold can do. */
const HELD = { streams: 2, widthMHz: 80 } as const

/**
 * The best way of each unit from the router, by the plan: hop by hop, fewest hops over links that hold; where none holds a unit
 * takes the strongest. A unit that nothing reaches is left out.
 * @param units those that serve the home together; the first router among them, or else the first gateway, or else what stays, is the root
 * @param leastDbm the signal at which a link holds
 */
export function joinsOf(
  plan: HomePlan,
  units: readonly { at: Placed; cabled: boolean }[],
  catalogue: Catalogue,
  leastDbm: number,
  calibration: { exponent?: number; wallFactor?: number } = {}
): Map<string, Join> {
  const ofRole = (role: 'router' | 'gateway') => units.find(({ at }) => isOurs(at) && hasRole(at.unit, role))
  const root = ofRole('router') ?? ofRole('gateway') ?? units.find(({ at }) => !isOurs(at))
  const found = new Map<string, Join>()
  if (!root) return found
  found.set(root.at.id, 'root')
  for (const { cabled, at } of units) if (cabled && at.id !== root.at.id) found.set(at.id, 'cabled')
  const { walls, floors } = obstaclesOf(plan, BACKHAUL_BAND, calibration.wallFactor)
  const hopsAt = (id: string) => {
    const join = found.get(id)
    if (join === undefined) return Infinity
    return typeof join === 'string' ? 0 : join.hops
  }
  for (
    let left = units.filter(({ at }) => !found.has(at.id));
    left.length > 0;
    left = left.filter(({ at }) => !found.has(at.id))
  ) {
    const links = left.flatMap(({ at }) =>
      units
        .filter((unit) => found.has(unit.at.id))
        .flatMap((unit): { to: Placed; hop: Hop }[] => {
          const sender = senderOf(unit.at, catalogue, BACKHAUL_BAND)
          if (!sender) return []
          const loss = pathLoss({
            frequencyMHz: sender.frequencyMHz,
            from: unit.at,
            to: at,
            walls,
            floors,
            ...(calibration.exponent === undefined ? {} : { exponent: calibration.exponent })
          })
          return [
            {
              to: at,
              hop: {
                from: unit.at,
                metres: loss.distanceM,
                dbm: sender.powerDbm - loss.totalDb,
                hops: hopsAt(unit.at.id) + 1
              }
            }
          ]
        })
    )
    const holding = links.filter(({ hop }) => hop.dbm >= leastDbm)
    const best = holding.length
      ? holding.sort((a, b) => a.hop.hops - b.hop.hops || b.hop.dbm - a.hop.dbm)[0]
      : links.sort((a, b) => b.hop.dbm - a.hop.dbm)[0]
    if (!best) break
    found.set(best.to.id, best.hop)
  }
  return found
}

/** Whether a unit's wireless hop takes air time from its clients: it does unless the model has a second radio on the band. */
export function sharesRadio(unit: Unit | Stays, catalogue: Catalogue): boolean {
  const model = modelOf(unit, catalogue)
  return model === undefined || hopSharesRadio(model)
}

/** The same of a model. */
export const hopSharesRadio = ({ radios }: Pick<Model, 'radios'>): boolean =>
  radios.filter(({ band }) => band === BACKHAUL_BAND).length < 2

/** What a wireless hop can do at most: the streams and the width that both of its ends have on the band; of an end that is not known, two and 80 MHz. */
export function hopWidths(
  unit: Unit | Stays,
  above: Unit | Stays,
  catalogue: Catalogue
): { streams: number; widthMHz: number } {
  const ends = [unit, above].map((end) => {
    const radios = modelOf(end, catalogue)?.radios.filter(({ band }) => band === BACKHAUL_BAND) ?? []
    return radios.length === 0
      ? HELD
      : {
          streams: Math.max(...radios.map(({ streams }) => streams)),
          widthMHz: Math.max(...radios.flatMap(({ widthsMHz }) => widthsMHz))
        }
  })
  return {
    streams: Math.min(...ends.map(({ streams }) => streams)),
    widthMHz: Math.min(...ends.map(({ widthMHz }) => widthMHz))
  }
}

/** What arrives of a signal, with what it comes from. */
export interface ExpectedRate {
  mbps: number
  /** Wireless hops behind the unit that serves, and how many of them share its radio: each of those halves. */
  hops: number
  halved: number
}

/**
 * The rate to expect of a signal from a unit, in Mbit/s: 60 % of the slowest rate on its way, halved by each hop that shares
 * its radio with clients. A cable, or a radio of the hop's own, halves nothing.
 */
export function expectedRate(
  dbm: number,
  by: Placed,
  joins: ReadonlyMap<string, Join>,
  catalogue: Catalogue,
  band: Band
): ExpectedRate {
  const widest = Math.max(
    20,
    ...(modelOf(by.thing, catalogue)
      ?.radios.filter((radio) => radio.band === band)
      .flatMap(({ widthsMHz }) => widthsMHz) ?? [])
  )
  const widthMHz = ([20, 40, 80] as const).findLast((candidate) => candidate <= Math.min(widest, HELD.widthMHz))!
  let slowest = linkRate({ rssiDbm: dbm, streams: HELD.streams, widthMHz: band === '2.4' ? 20 : widthMHz }).phyMbps
  let [hops, halved] = [0, 0]
  for (
    let at = by, join = joins.get(by.id);
    typeof join === 'object' && hops < joins.size;
    at = join.from, join = joins.get(join.from.id)
  ) {
    hops++
    // Whoever is on another band than the hop leaves the hop its radio; what is passed on further up shares it again.
    if (sharesRadio(at.thing, catalogue) && (hops > 1 || band === BACKHAUL_BAND)) halved++
    const { streams, widthMHz: widest } = hopWidths(at.thing, join.from.thing, catalogue)
    const rate = { rssiDbm: join.dbm, streams, widthMHz: widest as WidthMHz }
    slowest = Math.min(slowest, linkRate(rate).phyMbps)
  }
  return { mbps: (ARRIVES * slowest) / 2 ** halved, hops, halved }
}
