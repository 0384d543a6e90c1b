import { z } from 'zod'
import { across, id, textLine, yes } from '../fields'
import { asItIs, thing } from './thing'
export const outletKinds = ['mains', 'line', 'network'] as const

/** A mains outlet, the outlet of the line, or a network socket. */
export const outletFacts = z.strictObject({
  storey: id,
  kind: z.enum(outletKinds),
  x: across,
  y: across,
  circuit: textLine(20),
  strip: yes,
  cabinet: yes,
  /** The network socket at the other end of its cable. */
  cableTo: id
})

export const outlet = thing({
  kind: 'outlet',
  table: 'outlets',
  facts: outletFacts,
  later: true,
  refersTo: { storey: 'storey', cableTo: 'outlet' },
  carriesOver: asItIs,
  compared: { drawn: 'outlets' }
})
