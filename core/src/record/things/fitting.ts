import { z } from 'zod'
import { asItIs, thing } from './thing'
import { textLine, yes } from '../fields'
export const fittingKinds = [
  'splitter',
  'telephone',
  'alarm',
  'provider-box',
  'injector',
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

export const fitting = thing({
  kind: 'fitting',
  table: 'fittings',
  facts: fittingFacts,
  later: true,
  refersTo: {},
  carriesOver: asItIs,
  compared: { byField: 8 }
})
