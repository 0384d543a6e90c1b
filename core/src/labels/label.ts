import { z } from 'zod'
import { labelFields } from './fields'
import { parseLabel } from './parse'

const knownModel = z.object({
  id: z.string(),
  maker: z.string(),
  name: z.string(),
  ssidPrefix: z.string().nullable().optional(),
  masks: z
    .object({
      serial: z.string().optional(),
      mac: z.string().optional(),
      key: z.string().optional(),
      setupCode: z.string().optional(),
      password: z.string().optional()
    })
    .optional()
})

/** The readings of one label, the models that it may be of, and the unit's own where it is known. */
export const labelInput = z.strictObject({
  readings: z
    .array(z.strictObject({ source: z.enum(['qr', 'bars', 'print', 'pasted']), text: z.string().max(2000) }))
    .max(200),
  model: z.string().max(60).optional(),
  models: z.array(knownModel).max(2000).optional()
})
export const labelOutput = z.strictObject({
  fields: z.array(
    z.strictObject({ field: z.enum(labelFields), value: z.string(), trust: z.enum(['certain', 'likely', 'unsure']) })
  )
})

/**
 * What the readings of one label say, each field once. Print is taken as read without a doubt: how sure a reader of
 * text was is for whoever has a picture.
 */
export function label({ readings, model, models = [] }: z.output<typeof labelInput>): z.output<typeof labelOutput> {
  const own = models.find(({ id }) => id === model) ?? null
  const { proposals } = parseLabel(
    readings.map((reading) => ({ ...reading, sureness: 1 })),
    models,
    own
  )
  return { fields: proposals.map(({ field, value, trust }) => ({ field, value, trust })) }
}
