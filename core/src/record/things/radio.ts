import { z } from 'zod'
import { asItIs, thing } from './thing'
import { bands } from '../../values/band'
import { id, yes } from '../fields'

/** A radio of one of our units, and the channel it is set to. */
export const radioFacts = z.strictObject({
  unit: id,
  band: z.enum(bands),
  channel: z.int().min(1).max(233),
  widthMHz: z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160)], 'must be 20, 40, 80 or 160 MHz'),
  /** Whether members of the mesh talk to each other on it. */
  backhaul: yes
})

export const radio = thing({
  kind: 'radio',
  table: 'radios',
  facts: radioFacts,
  later: true,
  refersTo: { unit: 'equipment' },
  carriesOver: asItIs,
  compared: { byField: 6 }
})
