import { z } from 'zod'
import { parseCidr, parseIpv4 } from '../values/ipv4'

const name = z.string().min(1, 'must not be empty')
const address = z
  .string()
  .refine((text) => parseIpv4(text) !== null, 'must be an IPv4 address: four numbers 0–255 joined by dots')
const cidr = z.string().superRefine((text, context) => {
  const range = parseCidr(text)
  if ('problem' in range) context.addIssue({ code: 'custom', message: range.problem })
})

/** Input of `address-audit`: segments with their DHCP pools, fixed addresses, and translations between segments. */
export const auditInput = z.strictObject({
  segments: z.array(
    z.strictObject({
      id: name,
      cidr,
      gateway: address.optional(),
      dhcp: z.array(z.strictObject({ device: name, from: address, to: address })).optional()
    })
  ),
  hosts: z.array(
    z.strictObject({ device: name, segment: name, address: z.string(), reserved: z.boolean().optional() })
  ),
  links: z.array(z.strictObject({ outer: name, inner: name, nat: z.literal(true) })).optional(),
  poolSchool: z.enum(['outside', 'inside']).optional()
})

export type AuditInput = z.infer<typeof auditInput>

/** Every code the audit can find, by the name it has in the contract. */
export const findingCodes = [
  'malformed-address',
  'not-private',
  'outside-subnet',
  'network-address',
  'broadcast-address',
  'gateway-clash',
  'duplicate-address',
  'inside-pool',
  'outside-pool',
  'no-dhcp',
  'two-dhcp',
  'pool-outside-subnet',
  'pool-inverted',
  'pool-holds-gateway',
  'subnets-overlap',
  'double-nat'
] as const

export type FindingCode = (typeof findingCodes)[number]

export const auditOutput = z.strictObject({
  findings: z.array(z.strictObject({ code: z.enum(findingCodes), subject: z.string(), detail: z.string() })),
  suggestions: z.array(z.strictObject({ segment: z.string(), address: z.string() }))
})

export type AuditOutput = z.infer<typeof auditOutput>
export type AuditFinding = AuditOutput['findings'][number]
