import { z } from 'zod'
import { accessLines } from '../record/brief'
import { cableCategories, cableKinds } from '../record/things/cable'
import { neighbourNetwork } from '../record/neighbour-network'
import { unitFacts } from '../record/things/unit'
import { roles } from '../catalogue/model'
import { planFile } from '../work/plan/file'

const slug = z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/, 'must be lower-case letters, digits and hyphens')
const where = z.strictObject({
  storey: z.string().min(1).max(40),
  x: z.number().min(-300).max(300),
  y: z.number().min(-300).max(300),
  heightM: z.number().min(0).max(30).optional()
})
export type Where = z.infer<typeof where>

/** One end of a cable in the house: a port of a unit; the line's outlet is the unit `line`, its port `wall`. */
export const housePort = z.strictObject({ unit: z.string().min(1).max(60), port: z.string().min(1).max(40) })
export type HousePort = z.infer<typeof housePort>

/** What can be wrong in a house, unknown to who practises on it. */
export const houseFault = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('bad-cable'), cable: slug }),
  z.strictObject({ kind: z.literal('dead-line') }),
  z.strictObject({ kind: z.literal('login-refused') }),
  z.strictObject({ kind: z.literal('wrong-adapter'), unit: slug }),
  z.strictObject({ kind: z.literal('stuck-pairing'), unit: slug }),
  z.strictObject({ kind: z.literal('wrong-key'), unit: slug }),
  z.strictObject({ kind: z.literal('radio-off'), unit: slug }),
  z.strictObject({ kind: z.literal('stuck-modem'), unit: slug }),
  z.strictObject({ kind: z.literal('broken-unit'), unit: slug }),
  z.strictObject({ kind: z.literal('names-not-found') }),
  z.strictObject({ kind: z.literal('withdrawn-firmware'), unit: slug, version: z.string().min(1).max(40) })
])
export type HouseFault = z.infer<typeof houseFault>

const channel = z
  .string()
  .regex(/^\d{1,3}$/, 'must be a channel, in digits')
  .optional()
/** What a unit's own pages hold, by dotted names; what is secret is only ever written. */
export const houseSettings = z.strictObject({
  mode: z.enum(['router', 'access-point']).optional(),
  'lan.address': z.string().max(40).optional(),
  'lan.secondary': z.enum(['on', 'off']).optional(),
  'dhcp.server': z.enum(['on', 'off']).optional(),
  'dhcp.from': z.string().max(40).optional(),
  'dhcp.to': z.string().max(40).optional(),
  'dhcp.relay': z.enum(['on', 'off']).optional(),
  'lan.dns': z.enum(['provider', 'by-hand']).optional(),
  'wifi.ssid': z.string().max(32).optional(),
  'wifi.radio': z.enum(['on', 'off']).optional(),
  'wifi.2.4.channel': channel,
  'wifi.5.channel': channel,
  'wifi.6.channel': channel
})
export type HouseSettings = z.infer<typeof houseSettings>

const houseUnit = z.strictObject({
  id: slug,
  name: z.string().min(1).max(60),
  model: z.string().max(60),
  modelVersion: z.int().min(1),
  role: z.enum(roles),
  serial: unitFacts.shape.serial,
  mac: unitFacts.shape.mac,
  firmware: z.string().max(40).optional(),
  at: where.optional(),
  circuit: z.string().max(20).optional(),
  /** Set up and switched on when the practice begins. */
  running: z.boolean().optional(),
  /** The login of its own page, as its label tells it. Practice only: obviously made up. */
  login: z.strictObject({ user: z.string().min(1).max(40), password: z.string().min(1).max(80) }).optional(),
  settings: houseSettings.optional()
})
export type HouseUnit = z.infer<typeof houseUnit>

/** A simulated house: what stands in it, what lies ready, and what is wrong with it. */
export const houseDefinition = z.strictObject({
  format: z.literal('pasado.house/1'),
  name: z.string().min(1).max(80),
  says: z.string().max(400),
  seed: z
    .int()
    .min(0)
    .max(2 ** 31),
  line: z.strictObject({ kind: z.enum(accessLines), speedDownMbps: z.number().positive() }),
  plan: planFile.optional(),
  /** The networks of others that are heard in the house. */
  air: z.array(neighbourNetwork).max(300).optional(),
  units: z.array(houseUnit).min(1).max(40),
  cables: z
    .array(
      z.strictObject({
        id: slug,
        kind: z.enum(cableKinds),
        category: z.enum(cableCategories).optional(),
        lengthM: z.number().positive().max(300),
        a: housePort.optional(),
        b: housePort.optional()
      })
    )
    .max(80),
  faults: z.array(houseFault).max(10)
})
export type HouseDefinition = z.infer<typeof houseDefinition>

const unit = slug
/** What a person does in the house, at a second of its time. */
export const houseAction = z.discriminatedUnion('do', [
  z.strictObject({ at: z.number().min(0), do: z.literal('wait') }),
  z.strictObject({
    at: z.number().min(0),
    do: z.enum(['plug', 'unplug', 'app', 'activate', 'adopt', 'swap-adapter', 'leave']),
    unit
  }),
  z.strictObject({
    at: z.number().min(0),
    do: z.literal('press'),
    unit,
    button: z.string().max(60),
    seconds: z.number().min(0, 'must be 0 or more').max(120, 'must be at most 120 s')
  }),
  z.strictObject({ at: z.number().min(0), do: z.literal('cable'), cable: slug, a: housePort, b: housePort }),
  z.strictObject({ at: z.number().min(0), do: z.literal('uncable'), cable: slug }),
  z.strictObject({ at: z.number().min(0), do: z.literal('carry'), unit, to: where }),
  z.strictObject({ at: z.number().min(0), do: z.literal('update'), unit, version: z.string().max(40) }),
  z.strictObject({
    at: z.number().min(0),
    do: z.literal('set'),
    unit,
    page: z.enum(['mode', 'lan', 'wifi']),
    values: houseSettings
  }),
  z.strictObject({ at: z.number().min(0), do: z.literal('apply'), unit, page: z.enum(['mode', 'lan', 'wifi']) }),
  z.strictObject({ at: z.number().min(0), do: z.literal('phone'), unit: unit.nullable() })
])
export type HouseAction = z.infer<typeof houseAction>

/** A house with all that was done in it: the same file, the same house to the last event. */
export const houseFile = z.strictObject({
  format: z.literal('pasado.house-run/1'),
  definition: houseDefinition,
  actions: z.array(houseAction).max(5000)
})
export type HouseFile = z.infer<typeof houseFile>

/** What is wrong with a file of a house, in words; null where it is whole. */
export function houseFileProblem(value: unknown): string | null {
  const format = (value as { format?: unknown } | null)?.format
  if (typeof format === 'string' && /^pasado\.house(?:-run)?\/\d+$/.test(format) && !format.endsWith('/1'))
    return `is of another version, ${format}: export it again as version 1`
  const result = (format === 'pasado.house/1' ? houseDefinition : houseFile).safeParse(value)
  if (result.success) return null
  const [issue] = result.error.issues
  return `${issue!.path.map((part) => (typeof part === 'number' ? part + 1 : String(part))).join(' › ') || 'the file'}: ${issue!.message}`
}
