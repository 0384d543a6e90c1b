import { z } from 'zod'
import { across, id, metres, textLine, thickness } from '../fields'
import { materialNames } from '../../radio/wall-loss'
import { thing, without } from './thing'

/** A storey: its floor's height above the ground floor's, and the ceiling over it. */
export const storeyFacts = z.strictObject({
  name: textLine(40),
  floorM: metres(-20, 60),
  heightM: metres(1.5, 12),
  ceilingMaterial: z.enum(materialNames),
  ceilingMm: thickness,
  /** A photo of a paper plan that lies under the drawing, where its upper left corner lies and how wide it is. */
  paper: id,
  paperX: across,
  paperY: across,
  paperWidthM: metres(1, 300)
})

export const storey = thing({
  kind: 'storey',
  table: 'storeys',
  facts: storeyFacts,
  later: true,
  refersTo: {},
  carriesOver: without('paper', 'paperX', 'paperY', 'paperWidthM'),
  compared: { drawn: 'storeys' }
})
