import { z } from 'zod'
import { across, id } from '../fields'
import { bands } from '../../values/band'
import { thing } from './thing'

/** A signal as it was read in a room, or at a point of it, from one unit. */
export const readingFacts = z.strictObject({
  room: id,
  unit: id,
  x: across,
  y: across,
  band: z.enum(bands),
  dbm: z.number().min(-110, 'must be -110 dBm or more').max(-10, 'must be at most -10 dBm: signals are below zero')
})

export const reading = thing({
  kind: 'reading',
  table: 'readings',
  facts: readingFacts,
  later: true,
  refersTo: { room: 'room', unit: 'unit' },
  carriesOver: null,
  compared: 'not'
})
