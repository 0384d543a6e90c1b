import { id, metres, vlan } from '../fields'
import { z } from 'zod'
import { asItIs, thing } from './thing'
export const cableKinds = ['network', 'telephone', 'coax', 'fibre'] as const

export const cableCategories = ['cat5', 'cat5e', 'cat6', 'cat6a'] as const

/** One end of a cable: a port of a unit, of an outlet, of something else that stands there or of what stays. */
export const cableEnd = z.strictObject({
  thing: z.enum(['unit', 'outlet', 'fitting', 'stays']),
  id,
  port: z.string().min(1).max(40)
})

export type CableEnd = z.infer<typeof cableEnd>

/** A cable from port to port. */
export const cableFacts = z.strictObject({
  a: cableEnd,
  b: cableEnd,
  /** VLANs that both its ports carry tagged; none where somebody looked and there is none. */
  tagged: z.array(vlan).max(20),
  /** The VLAN that both its ports have untagged, where it has one. */
  untagged: vlan,
  kind: z.enum(cableKinds),
  category: z.enum(cableCategories),
  lengthM: metres(0.1, 300),
  /** The speed the link came up at. */ linkMbps: z
    .number()
    .positive('must be above 0')
    .max(100_000, 'must be at most 100000 Mbit/s')
})

/** The ends are told by what they are at. */
function told({ a, b, ...rest }: Record<string, unknown>, unitName: (id: string) => string): Record<string, unknown> {
  const at = ({ thing, id, port }: CableEnd) =>
    `${thing === 'unit' || thing === 'stays' ? unitName(id) : thing} ${port}`
  return { ...rest, ...(a ? { from: at(a as CableEnd) } : {}), ...(b ? { to: at(b as CableEnd) } : {}) }
}

export const cable = thing({
  kind: 'cable',
  table: 'cables',
  facts: cableFacts,
  later: true,
  refersTo: { a: 'end', b: 'end' },
  carriesOver: asItIs,
  compared: { byField: 7 },
  label: 'Cable',
  told
})
