import { z } from 'zod'
import { across, id } from '../fields'
import { asItIs, thing } from './thing'
export const troubleKinds = [
  'fish-tank',
  'metal-appliance',
  'microwave-oven',
  'cordless-phone',
  'mirror',
  'boiler',
  'large-furniture'
] as const

/** Something that a unit had better keep away from. */
export const troubleFacts = z.strictObject({ storey: id, kind: z.enum(troubleKinds), x: across, y: across })

export const trouble = thing({
  kind: 'trouble',
  table: 'troubles',
  facts: troubleFacts,
  later: true,
  refersTo: { storey: 'storey' },
  carriesOver: asItIs,
  compared: { drawn: 'sources of trouble' }
})
