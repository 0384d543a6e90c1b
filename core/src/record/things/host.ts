import { z } from 'zod'
import { asItIs, thing } from './thing'
import { id, textLine, yes } from '../fields'

/** A fixed address: one of our units', or a device of the customer's. What was typed is kept, and audited. */
export const hostFacts = z.strictObject({
  name: textLine(60),
  unit: id,
  segment: id,
  address: z.string().min(1).max(64),
  reserved: yes
})

export const host = thing({
  kind: 'host',
  table: 'hosts',
  facts: hostFacts,
  later: false,
  refersTo: { unit: 'unit', segment: 'segment' },
  carriesOver: asItIs,
  compared: { byField: 5 }
})
