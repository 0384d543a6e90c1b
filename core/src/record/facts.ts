import { bands } from '../values/band'
import { z } from 'zod'
import { readDnsServers } from '../values/dns'
import { parseCidr, parseIpv4 } from '../values/ipv4'
import { roles } from '../catalogue/model'
import { versionProblem } from '../values/version'
import { readMac, unitMacProblem } from '../values/mac'
import { materialNames } from '../radio/wall-loss'
import { isWellFormed } from '../values/unicode'
import { ssidProblem } from '../values/ssid'

/** A check of Zod's from a function that tells what is wrong in words. */
function checked(problem: (text: string) => string | null, most = 200) {
  return z
    .string()
    .max(most)
    .superRefine((text, context) => {
      const message = problem(text)
      if (message) context.addIssue({ code: 'custom', message })
    })
}

/** A line of text a person types: well formed, without control characters, of limited length. */
export function textLine(most: number) {
  return checked((text) => {
    if (!isWellFormed(text)) return 'is not well-formed text; type it again'
    if (/[\u0000-\u001f\u007f]/.test(text)) return 'holds a line end or control character; write it on one line'
    return text.trim() === '' ? 'must not be blank' : null
  }, most)
}

export const id = z.uuid()
const yes = z.boolean()

const metres = (least: number, most: number) =>
  z.number().min(least, `must be ${least} m or more`).max(most, `must be at most ${most} m`)
const thickness = z.number().positive('must be above 0').max(3000, 'must be at most 3000 mm: enter millimetres')
/** A place in the plan: metres from its upper left corner. A home with its outbuildings fits into 300 m. */
const across = metres(-300, 300)

export const accessLines = ['coax', 'telephone-line', 'fibre', 'fixed-wireless', 'existing-router'] as const
export const reasons = ['new', 'extend', 'convert', 'add-node', 'swap', 'fault'] as const

/** What is known before and about the visit as a whole. */
export const briefFacts = z.strictObject({
  customerName: textLine(120),
  /** The customer's name in letters that paper can show, where it is in others. */
  nameOnPaper: textLine(120),
  /** The language that the customer's pack is made in. */
  language: z.enum(['en', 'es']),
  street: textLine(120),
  town: textLine(80),
  phone: textLine(40),
  secondContact: textLine(120),
  plannedAt: z.iso.datetime({ offset: true }),
  reason: z.enum(reasons),
  accessLine: z.enum(accessLines),
  speedDownMbps: z.number().positive('must be above 0').max(100_000),
  speedUpMbps: z.number().positive('must be above 0').max(100_000),
  providerSettings: z.enum(['automatic', 'login', 'fixed']),
  /** Whether a telephone goes through the modem or gateway. */
  telephone: yes,
  /** What walls are of, where nothing is said of one by itself. */
  outerMaterial: z.enum(materialNames),
  outerMm: thickness,
  innerMaterial: z.enum(materialNames),
  innerMm: thickness,
  bandNames: z.enum(['one-name', 'one-a-band']),
  /** The network name the home had before, and whether it stays, so that everything rejoins by itself. */
  oldSsid: checked(ssidProblem, 64),
  keepName: yes,
  doubleNatReason: textLine(300),
  /** Why nothing was installed, where the visit ended without a unit: a survey, a customer who was not there. */
  noUnitReason: textLine(300),
  /** What the provider gave as its reference when it was told that the line gives too little. */
  providerReference: textLine(80),
  country: z.string().regex(/^[A-Z]{2}$/, 'must be a country of two capital letters')
})

/** A device of ours at this home. */
export const unitFacts = z.strictObject({
  name: textLine(60),
  model: z.string().max(60),
  modelVersion: z.int().min(1),
  role: z.enum(roles),
  serial: checked(
    (text) =>
      /^[A-Za-z0-9][A-Za-z0-9./ -]{1,39}$/.test(text)
        ? null
        : 'must be 2 to 40 letters, digits, dots, slashes or hyphens, as on the label',
    40
  ),
  mac: checked(unitMacProblem, 40).transform((text) => readMac({ text }).mac),
  defaultSsid: checked(ssidProblem, 64),
  /** The address of its own page, as the label tells it. */
  pageAddress: textLine(100),
  /** The box it came out of. */
  box: id,
  /** True where it stood here before this visit. */
  stayed: yes,
  used: yes,
  wasReset: yes,
  /** What is printed on the power adapter that came with it. */
  adapterPlug: textLine(60),
  adapterVolts: z.number().positive('must be above 0').max(400, 'must be at most 400 V'),
  adapterAmps: z.number().positive('must be above 0').max(100, 'must be at most 100 A: milliamperes are thousandths'),
  method: z.string().max(60),
  needsReady: z.array(z.string().max(40)).max(20),
  setUpPlace: textLine(80),
  place: textLine(80),
  moveRecorded: yes,
  heightM: z.number().min(0, 'must be 0 or more').max(30, 'must be at most 30 m: enter metres'),
  /** Where it stands in the plan. */
  storey: id,
  x: across,
  y: across,
  /** Whether a cable leads to it from the router's side. */
  cabled: yes,
  cabinet: yes,
  surgeNote: textLine(300),
  floorsReason: textLine(300),
  mode: z.enum(['router', 'access-point', 'bridge']),
  dhcpServer: z.enum(['on', 'off']),
  dhcpRelay: z.enum(['on', 'off']),
  secondaryAddress: z.enum(['on', 'off']),
  firmwareBefore: checked(versionProblem, 40),
  firmwareAfter: checked(versionProblem, 40),
  updates: z.enum(['automatic', 'managed']),
  localAdminOnly: yes,
  remoteAdmin: z.enum(['off', 'agreed', 'on']),
  accountOwner: z.enum(['customer', 'technician', 'none']),
  technicianRemoved: yes,
  /** The local administrator's login name, and how the recovery questions of its page were answered. */
  adminName: textLine(40),
  recovery: z.enum(['made-up', 'real', 'not-asked']),
  pushButton: z.enum(['off', 'asked-for', 'on'])
})

/** A box that goes out: a kit of a model. */
export const boxFacts = z.strictObject({
  model: z.string().max(60),
  modelVersion: z.int().min(1),
  kit: z.string().max(60)
})

/** A storey: its floor's height above the ground floor's, and the ceiling over it. */
export const storeyFacts = z.strictObject({
  name: textLine(40),
  floorM: metres(-20, 60),
  heightM: metres(1.5, 12),
  ceilingMaterial: z.enum(materialNames),
  ceilingMm: thickness,
  /** A photo of a paper plan that lies under the drawing, where its upper left corner lies and how wide it is. */
  paper: id,
  paperX: across,
  paperY: across,
  paperWidthM: metres(1, 300)
})

/** A room: a rectangle of a storey. Its walls are where its edges are. */
export const roomFacts = z.strictObject({
  name: textLine(60),
  storey: id,
  x: across,
  y: across,
  widthM: metres(0.5, 60),
  depthM: metres(0.5, 60),
  /** The building it is in, where it is not the main one. */
  building: textLine(60),
  /** Whether it is to have signal, and whether the customer complained about it. */
  listed: yes,
  complained: yes
})

/** A stretch of wall that is of something else than the others. */
export const wallFacts = z.strictObject({
  storey: id,
  x1: across,
  y1: across,
  x2: across,
  y2: across,
  material: z.enum(materialNames),
  thicknessMm: thickness
})

export const openingKinds = ['door', 'window', 'open', 'stairs'] as const
/** A door, a window or a gap in a wall; stairs lie between two corners of a room, and are a way for a cable. */
export const openingFacts = z.strictObject({
  storey: id,
  kind: z.enum(openingKinds),
  x1: across,
  y1: across,
  x2: across,
  y2: across
})

export const outletKinds = ['mains', 'line', 'network'] as const
/** A mains outlet, the outlet of the line, or a network socket. */
export const outletFacts = z.strictObject({
  storey: id,
  kind: z.enum(outletKinds),
  x: across,
  y: across,
  circuit: textLine(20),
  strip: yes,
  cabinet: yes,
  /** The network socket at the other end of its cable. */
  cableTo: id
})

export const troubleKinds = [
  'fish-tank',
  'metal-appliance',
  'microwave-oven',
  'cordless-phone',
  'mirror',
  'boiler',
  'large-furniture'
] as const
/** Something that a unit had better keep away from. */
export const troubleFacts = z.strictObject({ storey: id, kind: z.enum(troubleKinds), x: across, y: across })

/** A signal as it was read in a room, or at a point of it, from one unit. */
export const readingFacts = z.strictObject({
  room: id,
  unit: id,
  x: across,
  y: across,
  band: z.enum(bands),
  dbm: z.number().min(-110, 'must be -110 dBm or more').max(-10, 'must be at most -10 dBm: signals are below zero')
})

export const cableKinds = ['network', 'telephone', 'coax', 'fibre'] as const
export const cableCategories = ['cat5', 'cat5e', 'cat6', 'cat6a'] as const
/** One end of a cable: a port of a unit, of an outlet or of something else that stands there. */
export const cableEnd = z.strictObject({
  thing: z.enum(['unit', 'outlet', 'fitting']),
  id,
  port: z.string().min(1).max(40)
})
export type CableEnd = z.infer<typeof cableEnd>
/** A cable from port to port. */
export const cableFacts = z.strictObject({
  a: cableEnd,
  b: cableEnd,
  kind: z.enum(cableKinds),
  category: z.enum(cableCategories),
  lengthM: metres(0.1, 300),
  /** The speed the link came up at. */ linkMbps: z
    .number()
    .positive('must be above 0')
    .max(100_000, 'must be at most 100000 Mbit/s')
})

export const fittingKinds = [
  'splitter',
  'telephone',
  'alarm',
  'provider-box',
  'computer',
  'television',
  'old-modem',
  'old-router',
  'old-other'
] as const
/** Something a cable leads to that is no unit of ours: a splitter, a telephone, the customer's computer, old equipment. */
export const fittingFacts = z.strictObject({
  kind: z.enum(fittingKinds),
  name: textLine(60),
  disconnected: yes,
  returns: z.enum(['provider', 'customer', 'recycled'])
})

/** An IPv4 network of the home. */
export const segmentFacts = z.strictObject({
  name: textLine(40),
  use: z.enum(['home', 'guests', 'office', 'equipment', 'provider']),
  cidr: z
    .string()
    .max(40)
    .superRefine((text, context) => {
      const range = parseCidr(text)
      if ('problem' in range) context.addIssue({ code: 'custom', message: range.problem })
    }),
  gateway: checked(
    (text) => (parseIpv4(text) === null ? 'must be an IPv4 address: four numbers 0–255 joined by dots' : null),
    40
  ),
  /** The segment on the outer side of this one's translation, if it has one. */
  behind: id,
  /** How long an address is lent. */
  leaseHours: z.number().min(0.1, 'must be 0.1 h or more').max(8760, 'must be at most 8760 h, a year'),
  dns: z.enum(['provider', 'by-hand']),
  dnsServers: checked((text) => {
    const read = readDnsServers(text)
    return 'problem' in read ? read.problem : null
  }, 80)
})

const poolEnd = checked(
  (text) => (parseIpv4(text) === null ? 'must be an IPv4 address: four numbers 0–255 joined by dots' : null),
  40
)

/** A DHCP pool: who serves which stretch of a segment. */
export const poolFacts = z.strictObject({ segment: id, unit: id, from: poolEnd, to: poolEnd })

/** A fixed address: one of our units', or a device of the customer's. What was typed is kept, and audited. */
export const hostFacts = z.strictObject({
  name: textLine(60),
  unit: id,
  segment: id,
  address: z.string().min(1).max(64),
  reserved: yes
})

const mbps = z.number().min(0, 'must be 0 or more').max(100_000, 'must be at most 100000 Mbit/s')
const milliseconds = z
  .number()
  .min(0, 'must be 0 or more: a latency is never negative')
  .max(60_000, 'must be at most 60000 ms')
/** One run of a measurement; latency when nothing else runs, and while it is loaded. */
export const measuredRun = z.strictObject({
  downMbps: mbps.optional(),
  upMbps: mbps.optional(),
  idleMs: milliseconds.optional(),
  loadedMs: milliseconds.optional(),
  lossPercent: z.number().min(0, 'must be 0 or more').max(100, 'must be at most 100 %').optional()
})
export type MeasuredRun = z.infer<typeof measuredRun>

export const measuredAt = ['source', 'room', 'port'] as const
/** A measurement: at the source by cable, in a room over the air, or at a wired port of a unit. */
export const measurementFacts = z.strictObject({
  at: z.enum(measuredAt),
  room: id,
  unit: id,
  band: z.enum(bands),
  dbm: z.number().min(-110, 'must be -110 dBm or more').max(-10, 'must be at most -10 dBm: signals are below zero'),
  runs: z.array(measuredRun).min(1, 'must hold at least one run').max(20, 'must hold at most 20 runs'),
  by: z.enum(['phone', 'tablet', 'laptop']),
  how: z.enum(['typed', 'list', 'result-file', 'stand-in', 'simulated-house']),
  /** The first octets of the SHA-256 of the file it came from: the same file is taken once. */
  file: z.string().regex(/^[0-9a-f]{16}$/),
  /** A figure that looked wrong was asked about, and is so. */
  sure: yes
})

/** What a device can do at best, weakest first. */
export const deviceSecurities = ['wep', 'wpa-tkip', 'wpa2-aes', 'wpa3'] as const

/** A device of the customer's that is to join: what it can do at best, and whether it has rejoined. */
export const deviceFacts = z.strictObject({
  name: textLine(60),
  security: z.enum(deviceSecurities),
  bands: z.array(z.enum(bands)).min(1).max(3),
  rejoined: yes
})

export const securities = ['open', 'wep', 'wpa-tkip', 'wpa2-aes', 'wpa2-wpa3', 'wpa3'] as const

/** A network on the air. */
export const networkFacts = z.strictObject({
  ssid: checked(ssidProblem, 64),
  /** How the name is said, in letters that paper can show, where it is in others. */
  transcription: textLine(64),
  use: z.enum(['main', 'guest', 'office', 'equipment']),
  bands: z.array(z.enum(bands)).min(1).max(3),
  security: z.enum(securities),
  segment: id,
  isolated: yes,
  hidden: yes,
  /** The extender that sends this name, where it is not the router's. */
  extender: id
})

/** A radio of one of our units, and the channel it is set to. */
export const radioFacts = z.strictObject({
  unit: id,
  band: z.enum(bands),
  channel: z.int().min(1).max(233),
  widthMHz: z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160)], 'must be 20, 40, 80 or 160 MHz'),
  /** Whether members of the mesh talk to each other on it. */
  backhaul: yes
})

/** A network of somebody else, as it is heard in this home. */
export const neighbourNetwork = z.strictObject({
  ssid: z.string().max(32).optional(),
  band: z.enum(bands),
  channel: z.int().min(1).max(233),
  widthMHz: z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160)]),
  dbm: z.number().min(-110).max(-10),
  /** Share of the air that it takes. */ busy: z.number().min(0).max(1)
})
export type NeighbourNetwork = z.infer<typeof neighbourNetwork>

/** The things of a record whose facts are set one by one, with the schema of each. */
export const things = {
  brief: briefFacts,
  box: boxFacts,
  unit: unitFacts,
  storey: storeyFacts,
  room: roomFacts,
  wall: wallFacts,
  opening: openingFacts,
  outlet: outletFacts,
  trouble: troubleFacts,
  reading: readingFacts,
  cable: cableFacts,
  fitting: fittingFacts,
  segment: segmentFacts,
  pool: poolFacts,
  host: hostFacts,
  network: networkFacts,
  radio: radioFacts,
  device: deviceFacts,
  measurement: measurementFacts
} as const
export type ThingKind = keyof typeof things
export type Facts<K extends ThingKind> = Partial<z.infer<(typeof things)[K]>>

/** How a value came to be known. */
export const origins = ['typed', 'label', 'catalogue', 'calculated', 'measured'] as const
export type Origin = (typeof origins)[number]

/**
 * Checks one value of one field as the server will.
 * @returns the value as it is kept, or what is wrong with it
 */
export function checkField<K extends ThingKind>(
  kind: K,
  field: string,
  value: unknown
): { value: unknown } | { problem: string } {
  const shape = things[kind].shape as Record<string, z.ZodType>
  const schema = shape[field]
  if (!schema) return { problem: 'is not a field that is known here' }
  const result = schema.safeParse(value)
  if (result.success) return { value: result.data }
  const issue = result.error.issues[0]!
  return {
    problem:
      issue.code === 'too_big' && /^Too/.test(issue.message)
        ? `is too long; at most ${issue.maximum} characters`
        : issue.message.replace(/^Invalid .*/, 'is not acceptable here; choose or type it again')
  }
}
