import { z } from 'zod'
import { attributed } from '../attribution'
import { lampLooks } from '../../catalogue/look'

/** What a look at its lamps saw. */
const sighting = z.strictObject({ ...attributed, lamps: lampLooks })
export type Sighting = z.infer<typeof sighting>

/** What was seen of something with lamps and a switch, and what was done to it: of a unit of ours, or of what stays. */
export const besides = {
  sightings: z.array(sighting),
  events: z.array(z.strictObject({ ...attributed, what: z.string() }))
}

/** What a new one begins with. */
export const begins = { sightings: [], events: [] }
