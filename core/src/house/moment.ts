import type { Condition, Model } from '../catalogue/model'
import type { HouseDefinition, HousePort, HouseSettings, HouseUnit, Where } from './definition'

/** A unit as it is at a moment. */
export interface UnitNow {
  definition: HouseUnit
  model: Model
  powered: boolean
  condition: Condition
  /** Set up: it has joined, was adopted or was activated. */
  configured: boolean
  firmware: string
  at: Where | null
  uplink: string | null
  partner: string | null
  stored: HouseSettings
  running: HouseSettings
  drafts: Partial<Record<'mode' | 'lan' | 'wifi', HouseSettings>>
  /** Until when its pairing window is open, in seconds of the house. */
  windowUntil: number
  rightAdapter: boolean
  /** Nothing goes through it until it is started anew. */
  stuck: boolean
  tries: number
}

/** Something that happened, for people to read. */
export interface HouseEvent {
  at: number
  unit: string | null
  message: string
}

/** A cable of the house, and where its ends are. */
export interface CableNow {
  id: string
  kind: 'network' | 'telephone' | 'coax' | 'fibre'
  category?: string | undefined
  lengthM: number
  bad: boolean
  a: HousePort | null
  b: HousePort | null
}

/** Who is joined to whom at a moment. */
export interface HouseNetwork {
  /** Units that reach the internet. */
  online: ReadonlySet<string>
  /** Modems and gateways whose line port is cabled to the line. */
  lineAt: ReadonlySet<string>
  /** Units that get their power over a cable. */
  fed: ReadonlySet<string>
  internetPortUsed: ReadonlySet<string>
  /** For each unit the units that serve addresses on its network. */
  serversOf(unit: string): string[]
  /** The address of a unit: its own where it is fixed, else what it was given. */
  addressOf(unit: string): string | null
  /** Whether a cable joins a unit to another's network. */
  wired(unit: string): boolean
  /** The link speed that a cable comes up at, in Mbit/s; 0 where nothing comes up. */
  linkMbps(cable: string): number
}

/** A house as it is at a moment: what its parts read of it. */
export interface HouseNow {
  readonly definition: HouseDefinition
  readonly units: ReadonlyMap<string, UnitNow>
  readonly cables: ReadonlyMap<string, CableNow>
  readonly network: HouseNetwork
  /** The unit whose air the technician's phone is on. */
  readonly phone: string | null
  /** The signal between two units, dBm. */
  signal(a: string, b: string): number
  /** A fault that was planted, about this unit where it is about one. */
  fault(kind: HouseDefinition['faults'][number]['kind'], unit?: string): HouseDefinition['faults'][number] | undefined
}

/** Whether a unit is one that joins another over the air. */
export const hops = ({ definition: { role } }: UnitNow): boolean => role === 'node' || role === 'extender'

/** Whether the internet comes into the house by a unit. */
export const hangsOnLine = ({ definition: { role } }: UnitNow): boolean => role === 'modem' || role === 'gateway'

/** The first three numbers of an address: its range of /24. */
export const rangeOf = (address: string | null | undefined): string | null =>
  address?.split('.').slice(0, 3).join('.') ?? null
