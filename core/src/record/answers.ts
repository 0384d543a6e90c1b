import { z } from 'zod'

/** What the customer is asked at hand-over, with the words of the question. */
export const choices = {
  guest: 'Guest network',
  parental: 'Parental controls',
  security: 'Security service',
  updates: 'Automatic updates',
  lamp: 'Status lamps'
} as const
export type Choice = keyof typeof choices
export const choiceNames = Object.keys(choices) as [Choice, ...Choice[]]

/** What can be answered to each choice. */
export const choiceAnswers: Record<Choice, readonly string[]> = {
  guest: ['yes', 'no'],
  parental: ['yes', 'no'],
  security: ['yes', 'no'],
  updates: ['automatic', 'managed', 'no'],
  lamp: ['bright', 'dim', 'off']
}

/** Who keeps the customer's secrets after the visit. */
export const custodies = ['erase-after-30-days', 'customer-only-now', 'company-keeps'] as const

/** Reasons for showing a secret, one of which is logged with each showing. */
export const revealReasons = [
  'typing it into a unit',
  'joining a device',
  'telling the customer',
  'making the pack',
  'checking it'
] as const
export type RevealReason = (typeof revealReasons)[number]

export const secretPurposes = [
  'wifi-passphrase',
  'admin-password',
  'label-key',
  'label-login',
  'setup-code',
  'provider-login',
  'recovery-answers'
] as const
export type SecretPurpose = (typeof secretPurposes)[number]

/** What is known about a secret without knowing it. Made by the server when the secret is put into the vault. */
export const secretAssessment = z.strictObject({
  /** Strength from 0 to 4, as zxcvbn scores it with the visit's names as hints. */
  score: z.int().min(0).max(4),
  /** The base-2 logarithm of the guesses needed. */
  bits: z.number().min(0),
  /** Keyed print: equal for equal secrets of this visit, worth nothing without the visit's key. */
  print: z.string().max(64),
  /** True where it holds a network name, the customer's name or the street. */
  holdsName: z.boolean(),
  /** True where the same value is in use at another home. */
  usedElsewhere: z.boolean()
})
export type SecretAssessment = z.infer<typeof secretAssessment>

/** How an item of a box was found. */
export const itemStates = ['present', 'missing', 'damaged', 'extra', 'open'] as const

/** What a picture shows: a unit, the work of a stage, or what a rule asks for. */
export const photoAbout = z.strictObject({ thing: z.enum(['unit', 'stage', 'rule']), id: z.string().max(60) })

/** Another home where a unit of this serial or MAC address stands. */
export const elsewhere = z.strictObject({
  by: z.enum(['serial', 'mac']),
  home: z.uuid(),
  visit: z.uuid(),
  since: z.iso.datetime(),
  sealed: z.boolean()
})
export type Elsewhere = z.infer<typeof elsewhere>

/** What happens to a unit, and the maker's own mesh or link test of it, passed or not. */
export const unitEvents = [
  'powered',
  'restarted',
  'moved',
  'updated',
  'reset',
  'settings-changed',
  'tested-good',
  'tested-bad'
] as const
export type UnitEvent = (typeof unitEvents)[number]
