import { z } from 'zod'
import { bands } from '../../values/band'
import { textLine, yes } from '../fields'
import { thing, without } from './thing'

/** What a device can do at best, weakest first. */
export const deviceSecurities = ['wep', 'wpa-tkip', 'wpa2-aes', 'wpa3'] as const

/** A device of the customer's that is to join: what it can do at best, and whether it has rejoined. */
export const deviceFacts = z.strictObject({
  name: textLine(60),
  security: z.enum(deviceSecurities),
  bands: z.array(z.enum(bands)).min(1).max(3),
  rejoined: yes
})

export const device = thing({
  kind: 'device',
  table: 'devices',
  facts: deviceFacts,
  later: true,
  refersTo: {},
  carriesOver: without('rejoined'),
  compared: { byField: 9 }
})
