import { z } from 'zod'
import { model } from './model'

/** Several models in one file. */
export const catalogueFile = z.strictObject({
  format: z.literal('pasado.catalogue/1'),
  models: z.array(model).min(1).max(2000)
})
export type CatalogueFile = z.infer<typeof catalogueFile>
