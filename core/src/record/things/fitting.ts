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
  'old-other',
  'network-telephone'
] as const

/** Something a cable leads to that is no unit of ours: a splitter, a telephone, the customer's computer, old equipment. */
export const fittingFacts = z.strictObject({
  kind: z.enum(fittingKinds),
  name: textLine(60),
  /** The class of the power that it asks of its port (IEEE 802.3), and whether it has an adapter of its own beside. */
  powerClass: z.int().min(1, 'must be 1 to 8: enter 3 for class 0').max(8, 'must be 1 to 8'),
  ownPower: yes,
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
