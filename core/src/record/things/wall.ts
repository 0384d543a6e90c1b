import { z } from 'zod'
import { across, id, thickness } from '../fields'
import { asItIs, thing } from './thing'
import { materialNames } from '../../radio/wall-loss'

/** A stretch of wall that is of something else than the others. */
export const wallFacts = z.strictObject({
  storey: id,
  x1: across,
  y1: across,
  x2: across,
  y2: across,
  material: z.enum(materialNames),
  thicknessMm: thickness
})

export const wall = thing({
  kind: 'wall',
  table: 'walls',
  facts: wallFacts,
  later: true,
  refersTo: { storey: 'storey' },
  carriesOver: asItIs,
  compared: { drawn: 'walls' }
})
