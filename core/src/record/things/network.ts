import { z } from 'zod'
import { thing, without } from './thing'
import { bands } from '../../values/band'
import { checked, id, textLine, yes } from '../fields'
import { ssidProblem } from '../../values/ssid'
export const securities = ['open', 'wep', 'wpa-tkip', 'wpa2-aes', 'wpa2-wpa3', 'wpa3'] as const

/** A network on the air. */
export const networkFacts = z.strictObject({
  ssid: checked(ssidProblem, 64),
  /** A name that is to be typed in later: it is on no air, and nothing prints it. */
  preparedName: checked(ssidProblem, 64),
  /** How the name is said, in letters that paper can show, where it is in others. */
  transcription: textLine(64),
  use: z.enum(['main', 'guest', 'office', 'equipment']),
  bands: z.array(z.enum(bands)).min(1).max(3),
  security: z.enum(securities),
  segment: id,
  isolated: yes,
  hidden: yes,
  /** The extender that sends this name, where it is not the router's. */
  extender: id,
  /** What stays and sends it, where it is theirs and none of ours. */
  stays: id
})

export const network = thing({
  kind: 'network',
  table: 'networks',
  facts: networkFacts,
  later: false,
  refersTo: { segment: 'segment', extender: 'unit', stays: 'stays' },
  // What was prepared and never typed in is no network of the home.
  carriesOver: without('preparedName'),
  compared: { byField: 2 }
})
