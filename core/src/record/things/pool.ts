import { z } from 'zod'
import { asItIs, thing } from './thing'
import { checked, id } from '../fields'
import { parseIpv4 } from '../../values/ipv4'
const poolEnd = checked(
  (text) => (parseIpv4(text) === null ? 'must be an IPv4 address: four numbers 0–255 joined by dots' : null),
  40
)

/** A DHCP pool: who serves which stretch of a segment. */
export const poolFacts = z.strictObject({ segment: id, unit: id, from: poolEnd, to: poolEnd })

export const pool = thing({
  kind: 'pool',
  table: 'pools',
  facts: poolFacts,
  later: false,
  refersTo: { segment: 'segment', unit: 'equipment' },
  carriesOver: asItIs,
  compared: { byField: 4 }
})
