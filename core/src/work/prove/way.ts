import { equipmentOf } from '../../record/equipment'
import { cableMbps, cablesOf, type KnownCable } from '../cabling/known-cable'
import { hopReading, type HopReading } from './hop-reading'
import { modelOf, type Catalogue } from '../../catalogue/model'
import { upstreamOf } from '../configure/upstream'
import { ARRIVES, BACKHAUL_BAND, HOP_HOLDS_DBM, hopWidths, joinsOf, sharesRadio, type Join } from '../plan/hops'
import { planOf } from '../plan/home-plan'
import { placedUnits } from '../plan/placed'
import { linkRate } from '../../radio/link-rate'
import type { WidthMHz } from '../../radio/channels'
import { hasRole } from '../../record/roles'
import { hasEndAt, standing, thingsOf, unitName, type Cable, type Unit } from '../../record/record'
import type { Folded } from '../../history/fold'
import type { Band } from '../../values/band'

/** A link on the way from the street to a room, and what it can carry. */
export interface Link {
  kind: 'line' | 'cable' | 'backhaul' | 'mains' | 'air'
  name: string
  mbps: number
  /** Where the figure is from. */
  from: 'measured' | 'calculated'
  /** What it is reckoned from, in words. */
  because: string
}

/** A part of the way of which it is not known what it carries, and the one reading that would tell. */
export interface UnknownLink {
  name: string
  /** What is to be read, in words. */
  read: string
  /** The field it is written in, where there is one. */
  field?: { unit: string; field: HopReading }
}

/** The way from the street to a room: what its links carry, from the room to the street, and what is not known of it. */
export interface Way {
  links: Link[]
  unknown: UnknownLink[]
}

/** What of a cable's link speed arrives as payload. */
const CABLE_SHARE = 0.94
/** What of the rate that a powerline adapter tells arrives: its two directions and its overhead share it. */
const MAINS_SHARE = 0.4
/** Two streams, and at most 80 MHz: what the devices that people hold can do. */
const HELD = { streams: 2, widthMHz: 80 } as const
const joining = ['node', 'extender', 'access-point', 'powerline-adapter'] as const

/** The way from the street to where somebody is on a unit's air, at a band and a signal as far as they are known. */
export function wayTo(
  folded: Folded,
  catalogue: Catalogue,
  at: { unit?: string | undefined; band?: Band | undefined; dbm?: number | undefined }
): Way {
  const way = new WayUp(folded, catalogue, at.band)
  if (at.unit === undefined)
    return {
      links: [],
      unknown: [{ name: 'the unit that it was measured on', read: 'Note which unit the device was on.' }]
    }
  way.air(at.unit, at.dbm)
  way.follow(at.unit)
  return { links: way.links, unknown: way.unknown }
}

/** What could arrive at most over a way as far as it is known, Mbit/s: twice its slowest calculated link, as rates vary; null where its air is not known. */
export function couldArrive({ links }: Way): number | null {
  if (!links.some(({ kind }) => kind === 'air')) return null
  return Math.min(...links.map(({ mbps, from }) => (from === 'calculated' ? mbps * 2 : mbps)))
}

class WayUp {
  readonly links: Link[] = []
  readonly unknown: UnknownLink[] = []
  readonly #up
  readonly #cables: readonly KnownCable[]
  #hops: Map<string, Join> | null = null

  constructor(
    private readonly folded: Folded,
    private readonly catalogue: Catalogue,
    private readonly band: Band | undefined
  ) {
    this.#up = upstreamOf(folded.record, catalogue)
    this.#cables = cablesOf(folded.record, catalogue)
  }

  /** What the air of a unit carries at a signal: at the width that is set, else at the widest, as far as a device that is held can do. */
  air(unit: string, dbm: number | undefined): void {
    const through = equipmentOf(this.folded.record, unit)
    if (dbm === undefined || this.band === undefined) {
      const missing = dbm === undefined ? 'the signal' : 'the band'
      this.unknown.push({ name: missing, read: `Read ${missing} on the device that measures.` })
      return
    }
    const { band } = this
    const radios = (through && modelOf(through.thing, this.catalogue))?.radios.filter((radio) => radio.band === band)
    const widest = Math.max(20, ...(radios ?? []).flatMap(({ widthsMHz }) => widthsMHz))
    const widthMHz = this.#widthSet(unit, band) ?? (band === '2.4' ? 20 : Math.min(widest, HELD.widthMHz))
    const streams = Math.min(HELD.streams, ...(radios?.length ? [Math.max(...radios.map((r) => r.streams))] : []))
    const shared = band === BACKHAUL_BAND && this.#hopOnItsRadio(unit)
    const held = Math.min(widthMHz, HELD.widthMHz) as WidthMHz
    this.links.push({
      kind: 'air',
      name: `the air at ${dbm} dBm`,
      mbps: (ARRIVES * linkRate({ rssiDbm: dbm, streams, widthMHz: held }).phyMbps) / (shared ? 2 : 1),
      from: 'calculated',
      because: `${inStreams(streams)}, ${held} MHz at ${band} GHz${shared ? `; half, as the hop of ${through!.name} is on the same radio` : ''}`
    })
  }

  /** Follows what a unit hangs on up to the street: adds the links that carry something, and names those of which nothing is known. */
  follow(unit: string): void {
    const { record } = this.folded
    for (let id: string | undefined = unit; id !== undefined; id = this.#up.get(id)?.through ?? undefined) {
      const here: Unit | undefined = record.units[id]
      if (!here) return
      const through = this.#up.get(id)?.through
      if (!through) {
        // What joins another over the air or by a cable hangs on something, recorded or not.
        if (hasRole(here, ...joining))
          this.unknown.push({
            name: `how ${unitName(here)} is joined`,
            read: 'Record what it hangs on, under Kit and Connect.'
          })
        return
      }
      this.#hop(here, record.units[through]!, id === unit)
    }
  }

  #hop(here: Unit, above: Unit, isFirst: boolean): void {
    const between = `${unitName(above)} to ${unitName(here)}`
    const cable = this.#cables.find(({ cable: of }) => hasEndAt(of, here.id) && hasEndAt(of, above.id))
    if (cable) this.#cable(cable, between)
    else if (here.facts.cabled === true)
      this.unknown.push({
        name: `the cable from ${between}`,
        read: 'Draw it under Connect, with the speed its link came up at.'
      })
    else if (hasRole(here, 'powerline-adapter')) this.#mains(here)
    else this.#wireless(here, above, between, isFirst)
  }

  #cable({ cable, a, b }: KnownCable, between: string): void {
    const { facts }: Cable = cable
    const ports = [a?.mbps, b?.mbps].filter((mbps) => mbps !== null && mbps !== undefined)
    const category = cableMbps(facts)
    const name = `the cable from ${between}`
    const mbps = facts.linkMbps ?? (category === null || ports.length < 2 ? null : Math.min(category, ...ports))
    if (mbps === null) {
      this.unknown.push({ name: `the link of ${name}`, read: 'Read the speed its link came up at, under Connect.' })
      return
    }
    this.links.push({
      kind: 'cable',
      name,
      mbps: mbps * CABLE_SHARE,
      from: facts.linkMbps === undefined ? 'calculated' : 'measured',
      because:
        facts.linkMbps === undefined
          ? `its ports and its kind allow ${mbps} Mbit/s; whether its link came up at that was not read`
          : `its link came up at ${mbps} Mbit/s`
    })
  }

  #mains(here: Unit): void {
    const name = `the mains to ${unitName(here)}`
    const rate = hopReading(this.folded, here, 'mainsMbps', this.catalogue)
    if (rate === null)
      this.unknown.push({
        name,
        read: `Read the rate between the adapters on the page or in the app of ${unitName(here)}.`,
        field: { unit: here.id, field: 'mainsMbps' }
      })
    else
      this.links.push({
        kind: 'mains',
        name,
        mbps: rate * MAINS_SHARE,
        from: 'measured',
        because: `the adapters tell ${rate} Mbit/s, and about ${MAINS_SHARE * 100} % of that arrives`
      })
  }

  #wireless(here: Unit, above: Unit, between: string, isFirst: boolean): void {
    const name = `the hop from ${between}`
    const read = hopReading(this.folded, here, 'hopDbm', this.catalogue)
    const join = read === null ? this.#planned(here, above) : null
    const dbm = read ?? join
    if (dbm === null) {
      this.unknown.push({
        name,
        read: `Read the signal of its hop on the page or in the app of ${unitName(here)}.`,
        field: { unit: here.id, field: 'hopDbm' }
      })
      return
    }
    const set = this.#widthSet(here.id, BACKHAUL_BAND)
    const { streams, widthMHz } = hopWidths(here, above, this.catalogue)
    const width = Math.min(set ?? widthMHz, widthMHz) as WidthMHz
    // A radio that carries two parts of the way gives each of them half.
    const sharing = [
      ...(isFirst && this.band === BACKHAUL_BAND && this.#hopOnItsRadio(here.id) ? [unitName(here)] : []),
      ...(isFirst || !this.#sharesRadio(here) ? [] : [unitName(here)]),
      ...(this.#hopOnItsRadio(above.id) ? [unitName(above)] : [])
    ]
    this.links.push({
      kind: 'backhaul',
      name,
      mbps: (ARRIVES * linkRate({ rssiDbm: dbm, streams, widthMHz: width }).phyMbps) / 2 ** sharing.length,
      from: 'calculated',
      because: `${Math.round(dbm)} dBm ${read === null ? 'by the plan' : 'as its page tells'}, ${inStreams(streams)}, ${width} MHz${
        sharing.length ? `; half for each radio that also carries the next part of the way (${sharing.join(', ')})` : ''
      }`
    })
  }

  /** The signal of a hop by the plan, where the plan has it go the same way. */
  #planned(here: Unit, above: Unit): number | null {
    const { record } = this.folded
    const plan = planOf(record)
    this.#hops ??= joinsOf(
      plan,
      placedUnits(record, plan).map((at) => ({ at, cabled: at.unit.facts.cabled === true })),
      this.catalogue,
      HOP_HOLDS_DBM
    )
    const join = this.#hops.get(here.id)
    return typeof join === 'object' && join.from.id === above.id ? join.dbm : null
  }

  /** Whether a unit has a wireless hop, and that on the radio of its clients. */
  #hopOnItsRadio(id: string): boolean {
    const unit = this.folded.record.units[id]
    const through = this.#up.get(id)?.through
    if (!unit || !through || unit.facts.cabled === true || hasRole(unit, 'powerline-adapter')) return false
    const isCabled = this.#cables.some(({ cable }) => hasEndAt(cable, id) && hasEndAt(cable, through))
    return !isCabled && this.#sharesRadio(unit)
  }

  #sharesRadio(unit: Unit): boolean {
    return sharesRadio(unit, this.catalogue)
  }

  #widthSet(unit: string, band: Band): number | undefined {
    const radios = standing(thingsOf(this.folded.record, 'radio'))
    return radios.find(({ facts }) => facts.unit === unit && facts.band === band)?.facts.widthMHz
  }
}

const inStreams = (streams: number) => (streams === 1 ? 'one stream' : `${streams} streams`)
