import { z } from 'zod'
import { asItIs, thing } from './thing'
import { checked, id, textLine, vlan } from '../fields'
import { parseCidr, parseIpv4 } from '../../values/ipv4'
import { readDnsServers } from '../../values/dns'

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
  /** The VLAN that carries it beside others on one cable (IEEE 802.1Q). */
  vlan,
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

export const segment = thing({
  kind: 'segment',
  table: 'segments',
  facts: segmentFacts,
  later: false,
  refersTo: { behind: 'segment' },
  carriesOver: asItIs,
  compared: { byField: 3 }
})
