import type { Band } from '../values/band'
import { ARRIVES } from '../work/plan/hops'
import { linkRate } from '../radio/link-rate'
import { channelOverlap } from '../radio/channels'
import { weightOf } from '../radio/channel-plan'
import { seededRandom } from '../values/random'
import type { MeasuredRun } from '../record/things/measurement'
import type { Where } from './definition'
import type { House } from './house'
import { channelField } from './pages'
import type { UnitNow } from './moment'

/** What a device measures at a place of the house: on whose air, how strong, how fast. */
export interface HouseMeasurement {
  /** The unit whose air it is on; null where nothing is heard. */
  unit: string | null
  band: Band | null
  dbm: number | null
  run: MeasuredRun | null
}

/** Whether a unit sends the home's network now. */
export function sendsNow(unit: UnitNow): boolean {
  return (
    unit.powered &&
    unit.model.radios.length > 0 &&
    unit.running['wifi.radio'] !== 'off' &&
    !['off', 'booting', 'resetting', 'updating', 'ready', 'failed', 'pairing'].includes(unit.condition)
  )
}

/** The share of the air of a unit's channel that others take. */
export function busyShare(house: House, unit: UnitNow, band: Band): number {
  const channel = Number(unit.running[channelField[band]] ?? (band === '2.4' ? 6 : 36))
  const widthMHz = band === '2.4' ? 20 : 80
  const busy = (house.definition.air ?? [])
    .filter((candidate) => candidate.band === band)
    .reduce((sum, value) => {
      try {
        return (
          sum +
          value.busy *
            weightOf(value.dbm) *
            Math.min(
              1,
              channelOverlap({
                band,
                a: { channel, widthMHz },
                b: { channel: value.channel, widthMHz: value.widthMHz }
              }).shareOfA * 2
            )
        )
      } catch {
        return sum
      }
    }, 0)
  return Math.min(0.95, busy)
}

/** What arrives at a unit over its hops and cables, Mbit/s, and how many hops it is away; 0 where it is not online. */
export function arrivesAt(house: House, id: string): { mbps: number; hops: number } {
  let mbps = house.network.online.has(id) ? house.definition.line.speedDownMbps : 0
  let hops = 0
  let at: UnitNow | undefined = house.units.get(id)
  for (let turn = 0; at && turn < 8; turn++) {
    const here: UnitNow = at
    const cable = [...house.cables.values()].find(
      (candidate) =>
        candidate.a &&
        candidate.b &&
        [candidate.a.unit, candidate.b.unit].includes(here.definition.id) &&
        house.network.linkMbps(candidate.id) > 0
    )
    if (cable) mbps = Math.min(mbps, house.network.linkMbps(cable.id) * 0.94)
    if (
      here.uplink === null ||
      (here.definition.role !== 'node' && here.definition.role !== 'extender') ||
      house.network.wired(here.definition.id)
    )
      break
    hops++
    mbps = Math.min(
      mbps,
      (ARRIVES *
        linkRate({ rssiDbm: house.signal(here.uplink, here.definition.id), streams: 2, widthMHz: 80 }).phyMbps) /
        2 ** (here.model.radios.filter(({ band }) => band === '5').length > 1 ? 0 : 1)
    )
    at = house.units.get(here.uplink)
  }
  return { mbps, hops }
}

const LINE_MS = 9
const HOP_MS = 3

/** Measures at a place, on the strongest unit's air or on that of a given one. Two measurements at one second are the same. */
export function measureAir(house: House, where: Where, on?: string): HouseMeasurement {
  const heard = [...house.units.values()]
    .filter((unit) => sendsNow(unit) && (on === undefined || unit.definition.id === on))
    .flatMap((unit) => {
      const signal = house.signalAt(unit.definition.id, where)
      return signal && signal.dbm >= -90 ? [{ unit, ...signal }] : []
    })
    .sort((a, b) => b.dbm - a.dbm)
  const [best] = heard
  if (!best) return { unit: null, band: null, dbm: null, run: null }
  const { unit, band, dbm } = best
  const busy = busyShare(house, unit, band)
  const { mbps, hops } = arrivesAt(house, unit.definition.id)
  const radios = unit.model.radios.filter((radio) => radio.band === band)
  const widthMHz =
    band === '2.4'
      ? 20
      : (([80, 40, 20] as const).find((candidate) => radios.some(({ widthsMHz }) => widthsMHz.includes(candidate))) ??
        20)
  const air = ARRIVES * linkRate({ rssiDbm: dbm, streams: 2, widthMHz }).phyMbps * (1 - busy)
  // A withdrawn version is one that loses what it sends.
  const holed = unit.model.firmware.releases.some(({ version, withdrawn }) => withdrawn && version === unit.firmware)
    ? 0.3
    : 1
  const random = seededRandom(
    Math.round(house.now) * 31 +
      [...unit.definition.id].reduce((sum, value) => sum + value.charCodeAt(0), house.definition.seed)
  )
  const down = Math.min(mbps, air) * holed * (0.94 + random() * 0.06)
  return {
    unit: unit.definition.id,
    band,
    dbm: Math.round(dbm),
    run: {
      downMbps: tenth(down),
      upMbps: tenth(Math.min(down, down * 0.3 + 5)),
      idleMs: tenth(LINE_MS + HOP_MS * hops + busy * 6 + random()),
      loadedMs: tenth(LINE_MS + HOP_MS * hops + 8 + busy * 40 + random() * 4),
      lossPercent: dbm < -80 ? 4 : 0
    }
  }
}

/** Measures by cable at a unit. */
export function measureCable(house: House, id: string): MeasuredRun {
  const unit = house.units.get(id)!
  const { mbps, hops } = arrivesAt(house, id)
  const port = Math.max(0, ...unit.model.ports.filter(({ kind }) => kind === 'lan').map((port) => port.mbps ?? 0))
  const down = Math.min(mbps, port > 0 ? port * 0.94 : mbps)
  return {
    downMbps: tenth(down * 0.99),
    upMbps: tenth(down * 0.1),
    idleMs: LINE_MS + HOP_MS * hops,
    loadedMs: LINE_MS + HOP_MS * hops + 6,
    lossPercent: 0
  }
}

const tenth = (value: number) => Math.round(value * 10) / 10
