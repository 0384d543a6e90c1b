import { z } from 'zod'
import { attributed } from '../attribution'
import { itemStates } from '../answers'
import { thing } from './thing'

/** A box that goes out: a kit of a model. */
export const boxFacts = z.strictObject({
  model: z.string().max(60),
  modelVersion: z.int().min(1),
  kit: z.string().max(60)
})

const items = z.record(
  z.string(),
  z.strictObject({ ...attributed, state: z.enum(itemStates), done: z.string().optional() })
)

export const box = thing({
  kind: 'box',
  table: 'boxes',
  facts: boxFacts,
  besides: { items },
  begins: { items: {} },
  later: true,
  label: 'Box',
  refersTo: {},
  carriesOver: null,
  compared: 'not'
})
