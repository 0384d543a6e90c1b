import { z } from 'zod'
import { bands } from '../values/band'

/** A network of somebody else, as it is heard in this home. */
export const neighbourNetwork = z.strictObject({
  ssid: z.string().max(32).optional(),
  band: z.enum(bands),
  channel: z.int().min(1).max(233),
  widthMHz: z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160)]),
  dbm: z.number().min(-110).max(-10),
  /** Share of the air that it takes. */ busy: z.number().min(0).max(1)
})

export type NeighbourNetwork = z.infer<typeof neighbourNetwork>
