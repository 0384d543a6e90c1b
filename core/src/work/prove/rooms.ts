import { bandsSentBy } from '../units/unit-bands'
import { equipmentOf } from '../../record/equipment'
import { standing, thingsOf, type Measurement, type Room, type VisitRecord } from '../../record/record'
import type { Catalogue } from '../../catalogue/model'
import { laterFigures, type Policy } from '../../policy/standard'
import type { Figure } from '../../values/figure'
import { groupBy } from '../../values/group-by'
import type { Folded } from '../../history/fold'
import { headsOf } from '../../history/history'
import { staleMeasurement } from './stale'
import { summarise, type Summary } from './runs'

/** What a room has to reach, by the standard and by what the source gives. */
export interface RoomFloor {
  dbm: number
  mbps: number
  addedMs: number
  /** Why it is that many Mbit/s. */
  reason: string
}

/** A measurement with its runs drawn together; of one that nobody asks for nothing is reckoned. */
export class Measured {
  #stale: string | null | undefined

  constructor(
    readonly measurement: Measurement,
    private readonly folded: Folded,
    private readonly catalogue: Catalogue
  ) {}

  get down(): Summary | null {
    return this.#summary('downMbps')
  }

  get up(): Summary | null {
    return this.#summary('upMbps')
  }

  get idle(): Summary | null {
    return this.#summary('idleMs')
  }

  get loaded(): Summary | null {
    return this.#summary('loadedMs')
  }

  get loss(): Summary | null {
    return this.#summary('lossPercent')
  }

  /** Why it no longer tells how it is; null where it does. */
  get stale(): string | null {
    if (this.#stale === undefined) this.#stale = staleMeasurement(this.folded, this.measurement, this.catalogue)
    return this.#stale
  }

  #summary(figure: Parameters<typeof summarise>[1]): Summary | null {
    return summarise(this.measurement.facts.runs ?? [], figure)
  }
}

/** A room as it was measured: one band that reaches all floors is enough, as devices choose the better one. */
export interface RoomVerdict {
  room: Room
  outcome: 'holds' | 'breaks' | 'unproven'
  /** By band the newest measurement, best band first. */
  bands: Measured[]
  /** What falls short on the best band, or what is missing. */
  message: string
  /** Latency that was added between source and room on the best band, ms; null where either is not known. */
  addedMs: number | null
  shareOfSource: number | null
  /** That it held once, and something changed since. */
  wasProven?: true
  /** By how much it falls short, of a room that does, and what was not measured there. */
  short?: { figures: readonly Figure[]; missing: readonly string[] }
}

/** The newest measurement of each kind of place. */
export function measured(
  folded: Folded,
  catalogue: Catalogue,
  fits: (facts: Measurement['facts']) => boolean
): Measured[] {
  return standing(thingsOf(folded.record, 'measurement'))
    .filter(({ facts }) => fits(facts) && facts.runs !== undefined)
    .map((measurement) => new Measured(measurement, folded, catalogue))
    .sort((a, b) => takenAt(b) - takenAt(a))
}

/** What the source gives by cable, measured last; null where it was not. */
export const sourceOf = (folded: Folded, catalogue: Catalogue): Measured | null =>
  measured(folded, catalogue, ({ at }) => at === 'source')[0] ?? null

/** The floor of a room: the standard's figure, or its share of the source if that is less. */
export function roomFloor(policy: Policy, source: Measured | null): RoomFloor {
  const figure = <K extends 'roomDbm' | 'roomMbps' | 'roomShare' | 'addedMs'>(name: K) =>
    policy[name] ?? laterFigures[name]
  const [most, share] = [figure('roomMbps'), figure('roomShare')]
  const ofSource = source?.down ? source.down.median * share : null
  const mbps = ofSource !== null && ofSource < most ? ofSource : most
  return {
    dbm: figure('roomDbm'),
    mbps,
    addedMs: figure('addedMs'),
    reason:
      ofSource !== null && ofSource < most
        ? `${Math.round(share * 100)} % of the ${Math.round(source!.down!.median)} Mbit/s that the source gives`
        : 'what the standard wants'
  }
}

/** Rooms that are to have signal: those of the list, drawn or only named. */
export const listedRooms = (record: VisitRecord): Room[] =>
  standing(thingsOf(record, 'room')).filter(({ facts }) => facts.listed !== false)

/** Each room of the list against its floor. */
export function judgeRooms(folded: Folded, catalogue: Catalogue, policy: Policy): RoomVerdict[] {
  const { record } = folded
  const source = sourceOf(folded, catalogue)
  const floor = roomFloor(policy, source)
  return listedRooms(record).map((room): RoomVerdict => {
    const all = measured(folded, catalogue, ({ at, room: of }) => at === 'room' && of === room.id)
    const judged = [...groupBy(all, ({ measurement }) => measurement.facts.band ?? '').values()]
      .map((ofBand) => {
        const last = headsOf(
          folded.history,
          ofBand.map((result) => ({ result, seq: takenAt(result) }))
        )
        // Of two who measured without knowing of each other the worse is believed.
        return last
          .map(({ result }) => ({ band: result, ...shortfalls(result, floor, source) }))
          .sort(bestFirst)
          .at(-1)!
      })
      .sort(bestFirst)
    const best = judged[0]
    const bands = judged.map(({ band }) => band)
    if (!best)
      return { room, outcome: 'unproven', bands, message: 'It was not measured.', addedMs: null, shareOfSource: null }
    const shareOfSource =
      source?.down && best.band.down && source.down.median > 0 ? best.band.down.median / source.down.median : null
    const { addedMs } = best
    const said = { room, bands, addedMs, shareOfSource }
    if (best.band.stale)
      return { ...said, outcome: 'unproven', message: `${best.band.stale} Measure it again.`, wasProven: true }
    const { band, unit } = best.band.measurement.facts
    const through = equipmentOf(record, unit)
    if (band !== undefined && !bandsSentBy(through?.thing, catalogue).includes(band))
      return {
        ...said,
        outcome: 'unproven',
        message: `It was measured at ${band} GHz, where ${through!.name} does not send. Look what the phone was on, and measure it again.`
      }
    if (best.broken.length) {
      const { figures, missing } = best
      return { ...said, outcome: 'breaks', message: `${best.broken.join('; ')}.`, short: { figures, missing } }
    }
    if (best.missing.length)
      return { ...said, outcome: 'unproven', message: `Not measured: ${best.missing.join(', ')}.` }
    return {
      ...said,
      outcome: 'holds',
      message: `${Math.round(best.band.measurement.facts.dbm!)} dBm, ${Math.round(best.band.down!.median)} Mbit/s down, ${Math.round(addedMs!)} ms added.`
    }
  })
}

type Judged = { band: Measured } & ReturnType<typeof shortfalls>

/** What one band proves now is not undone by what another proved before something changed. */
const bestFirst = (a: Judged, b: Judged) =>
  Number(a.band.stale !== null) - Number(b.band.stale !== null) ||
  a.broken.length - b.broken.length ||
  a.missing.length - b.missing.length ||
  (b.band.down?.median ?? 0) - (a.band.down?.median ?? 0)

/** The line at which runs were measured last. */
const takenAt = ({ measurement: { meta, addedSeq } }: Measured) => meta.runs?.seq ?? addedSeq

function shortfalls(
  result: Measured,
  floor: RoomFloor,
  source: Measured | null
): { broken: string[]; figures: Figure[]; missing: string[]; addedMs: number | null } {
  const { dbm } = result.measurement.facts
  const broken: string[] = []
  const figures: Figure[] = []
  const missing: string[] = []
  if (dbm === undefined) missing.push('signal')
  else if (dbm < floor.dbm) {
    broken.push(`${dbm} dBm is below ${floor.dbm} dBm`)
    figures.push({ name: 'signal above the floor, dB', value: dbm - floor.dbm, better: 'more' })
  }
  if (!result.down) missing.push('speed down')
  else if (result.down.median < floor.mbps) {
    broken.push(`${round(result.down.median)} Mbit/s down is below ${round(floor.mbps)}, ${floor.reason}`)
    // Where the source gives less its share is less: neither the speed nor how near it comes may be worse.
    figures.push(
      { name: 'Mbit/s down', value: result.down.median, better: 'more' },
      { name: 'share of the floor', value: result.down.median / floor.mbps, better: 'more' }
    )
  }
  const addedMs = result.idle && source?.idle ? Math.max(0, result.idle.median - source.idle.median) : null
  if (addedMs === null) missing.push(result.idle ? 'latency at the source' : 'latency')
  else if (addedMs > floor.addedMs) {
    broken.push(`${round(addedMs)} ms are added to the source’s latency; at most ${floor.addedMs} ms may be`)
    figures.push({ name: 'ms added above the most', value: addedMs - floor.addedMs, better: 'less' })
  }
  return { broken, figures, missing, addedMs }
}

const round = (value: number) => (value < 10 ? Math.round(value * 10) / 10 : Math.round(value))
