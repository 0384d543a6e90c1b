import { z } from 'zod'
import { ownRule } from './own-rule-schema'

export const levels = ['must', 'should', 'note'] as const
export type Level = (typeof levels)[number]

/** The figures of a standard that the company sets. */
export const policy = z.strictObject({
  /** Least strength of passphrases and passwords, 0 to 4. */
  leastStrength: z.int().min(0).max(4),
  /** Where fixed addresses stand: outside the pools or reserved in them, or inside them. */
  poolSchool: z.enum(['outside', 'inside']),
  /** The weakest security allowed on a network that is not an isolated guest network. */
  leastSecurity: z.enum(['wpa2-aes', 'wpa2-wpa3', 'wpa3']),
  /** One name for all bands, or one name a band. */
  bandNames: z.enum(['one-name', 'one-a-band']),
  /** Extenders send the router's name, or that name with a suffix. */
  extenderNames: z.enum(['same', 'suffix']),
  updates: z.enum(['automatic', 'managed']),
  leastHeightM: z.number().min(0).max(10),
  mostHeightM: z.number().min(0).max(10),
  mostMembers: z.int().min(1).max(64),
  eraseAfterDays: z.int().min(0).max(3650),
  /** Least distance from a source of trouble, most distance of one wireless hop, and how far an outlet may be, metres. */
  clearM: z.number().min(0).max(10).optional(),
  mostHopM: z.number().min(1).max(100).optional(),
  outletWithinM: z.number().min(0.2).max(20).optional(),
  /** The least signal of a wireless hop. */
  leastHopDbm: z.number().min(-95).max(-30).optional(),
  mostHops: z.int().min(1).max(8).optional(),
  /** Name servers that the company sets by hand, for the provider's own that fail. */
  dnsChoices: z
    .array(z.strictObject({ name: z.string().min(1).max(40), servers: z.string().min(7).max(80) }))
    .max(6)
    .optional(),
  /** Channels of 2.4 GHz that do not overlap. */
  channelSet: z.enum(['1-6-11', '1-5-9-13']).optional(),
  /** Most seconds between the two presses of a push-button pairing. */
  pairWindowS: z.int().min(10).max(600).optional(),
  /** Of the speed paid for, the share that the source is to give. */
  sourceShare: z.number().min(0).max(1).optional(),
  /** What a room is to have: least signal, Mbit/s or the share of the source if that is less, and the latency that may be added. */
  roomDbm: z.number().min(-95).max(-30).optional(),
  roomMbps: z.number().min(0).max(10_000).optional(),
  roomShare: z.number().min(0).max(1).optional(),
  addedMs: z.number().min(0).max(1000).optional(),
  /** Whether somebody other than the technician has to approve a visit before it is sealed. */
  fourEyes: z.boolean().optional(),
  /** Whether what somebody says of which came first counts only once a lead has said the same. */
  wordNeedsLead: z.boolean().optional(),
  /** How long a mesh is left to settle before it is looked at again, hours. */
  settleH: z.number().min(1).max(168).optional(),
  /** So long after a visit was handed on is taken what was written before, hours. */
  lateH: z.number().min(0).max(720).optional()
})
export type Policy = z.infer<typeof policy>

/** Figures that came later, as they are where a version of the standard does not name them. */
export const laterFigures = {
  clearM: 1,
  mostHopM: 12,
  outletWithinM: 2,
  leastHopDbm: -67,
  mostHops: 2,
  pairWindowS: 120,
  sourceShare: 0.9,
  roomDbm: -67,
  roomMbps: 100,
  roomShare: 0.8,
  addedMs: 20,
  settleH: 24,
  lateH: 72
} as const

/** The company's standard: its figures, and the level of each rule where it differs from the rule's own; off: not in force. */
export const standard = z.strictObject({
  format: z.literal('pasado.standard/1'),
  id: z.string().min(1).max(60),
  version: z.int().min(1),
  policy,
  levels: z.record(z.string(), z.enum([...levels, 'off'])),
  /** The rules this version knows; a rule that came later takes no part. Left out by versions from before there were more than 46. */
  rules: z.array(z.string().max(60)).max(200).optional(),
  /** Rules of the company's own, that a person answers. */
  own: z.array(ownRule).max(60).optional(),
  /** Why this version was made. */
  note: z.string().max(600).optional()
})
export type Standard = z.infer<typeof standard>
