import { z } from 'zod'
import { across, id, metres, textLine, yes } from '../fields'
import { asItIs, thing } from './thing'

/** A room: a rectangle of a storey. Its walls are where its edges are. */
export const roomFacts = z.strictObject({
  name: textLine(60),
  storey: id,
  x: across,
  y: across,
  widthM: metres(0.5, 60),
  depthM: metres(0.5, 60),
  /** The building it is in, where it is not the main one. */
  building: textLine(60),
  /** Whether it is to have signal, and whether the customer complained about it. */
  listed: yes,
  complained: yes
})

export const room = thing({
  kind: 'room',
  table: 'rooms',
  facts: roomFacts,
  later: true,
  refersTo: { storey: 'storey' },
  carriesOver: asItIs,
  compared: { drawn: 'rooms' }
})
