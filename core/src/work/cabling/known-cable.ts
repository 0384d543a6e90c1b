import { onceOf } from '../../record/once'
import { standing, thingsOf, type Cable, type VisitRecord } from '../../record/record'
import { endKey, portOwners, type Port, type PortOwner } from './ports'

/** What is wrong with a cable, or with what hangs on one. */
export interface CableProblem {
  code:
    | 'end-missing'
    | 'port-taken'
    | 'port-gone'
    | 'wrong-kind'
    | 'same-port'
    | 'splitter-side'
    | 'slow'
    | 'slower-than-paid'
    | 'speed-missing'
    | 'too-long'
    | 'over-budget'
    | 'over-port-limit'
    | 'no-poe'
    | 'loop'
    | 'two-dhcp'
    | 'internet-port'
    | 'modem-to-lan'
    | 'wrong-end'
  /** The cable it is shown at. */
  cable: string
  /** The unit that it is about, where it is about one. */
  unit: string | null
  message: string
  remedy: string
  /** Unproven where a figure is missing only. */
  outcome: 'breaks' | 'unproven'
}

/** A cable with the ports it leads between; null where the model or the thing is no longer there. */
export interface KnownCable {
  cable: Cable
  a: Port | null
  b: Port | null
}

/** Least speed that a category carries over its length, in Mbit/s: TIA-568 and IEEE 802.3 (2.5 and 5GBASE-T, 10GBASE-T). */
const carries = {
  cat5: [{ toM: 100, mbps: 100 }],
  cat5e: [{ toM: 100, mbps: 2500 }],
  cat6: [
    { toM: 55, mbps: 10_000 },
    { toM: 100, mbps: 5000 }
  ],
  cat6a: [{ toM: 100, mbps: 10_000 }]
} as const
/** How long a cable of a kind may be, metres. */
export const longestM = { network: 100, telephone: 100, coax: 90, fibre: 300 } as const

/** What a network cable can carry over its length, in Mbit/s; null where its category is not known, 0 where it is too long. */
export function cableMbps({ category, lengthM = 1 }: Cable['facts']): number | null {
  if (category === undefined) return null
  return carries[category].find(({ toM }) => lengthM <= toM)?.mbps ?? 0
}

/** The cables of a record with their ports. */
export function knownCables(record: VisitRecord, owners: readonly PortOwner[]): KnownCable[] {
  const ports = new Map(owners.flatMap((owner) => owner.ports.map((port) => [endKey(port.end), port])))
  return standing(thingsOf(record, 'cable'))
    .filter(({ facts }) => facts.a !== undefined && facts.b !== undefined)
    .map((cable) => ({
      cable,
      a: ports.get(endKey(cable.facts.a!)) ?? null,
      b: ports.get(endKey(cable.facts.b!)) ?? null
    }))
}

/** The cables of a record with their ports, as a catalogue knows those. */
export const cablesOf = onceOf((record, catalogue) => knownCables(record, portOwners(record, catalogue)))

/** A port as people speak of it. */
export const where = (port: Port) => `${port.owner}, ${port.name}`
