import { z } from 'zod'
import { across, id } from '../fields'
import { asItIs, thing } from './thing'
export const openingKinds = ['door', 'window', 'open', 'stairs'] as const

/** A door, a window or a gap in a wall; stairs lie between two corners of a room, and are a way for a cable. */
export const openingFacts = z.strictObject({
  storey: id,
  kind: z.enum(openingKinds),
  x1: across,
  y1: across,
  x2: across,
  y2: across
})

export const opening = thing({
  kind: 'opening',
  table: 'openings',
  facts: openingFacts,
  later: true,
  refersTo: { storey: 'storey' },
  carriesOver: asItIs,
  compared: { drawn: 'doors, windows and openings' }
})
