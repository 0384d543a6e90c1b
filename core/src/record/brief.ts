import { z } from 'zod'
import { checked, textLine, thickness, yes } from './fields'
import { materialNames } from '../radio/wall-loss'
import { ssidProblem } from '../values/ssid'
export const accessLines = ['coax', 'telephone-line', 'fibre', 'fixed-wireless', 'existing-router'] as const

export const reasons = ['new', 'extend', 'convert', 'add-node', 'swap', 'fault'] as const

/** What may hang on a telephone line that somebody relies on. */
export const lineLoads = ['nothing', 'alarm', 'pendant', 'lift', 'fax', 'several'] as const

/** What is known before and about the visit as a whole. */
export const briefFacts = z.strictObject({
  customerName: textLine(120),
  /** The customer's name in letters that paper can show, where it is in others. */
  nameOnPaper: textLine(120),
  /** The language that the customer's pack is made in. */
  language: z.enum(['en', 'es']),
  street: textLine(120),
  town: textLine(80),
  phone: textLine(40),
  secondContact: textLine(120),
  plannedAt: z.iso.datetime({ offset: true }),
  reason: z.enum(reasons),
  accessLine: z.enum(accessLines),
  speedDownMbps: z.number().positive('must be above 0').max(100_000),
  speedUpMbps: z.number().positive('must be above 0').max(100_000),
  providerSettings: z.enum(['automatic', 'login', 'fixed']),
  /** Whether a telephone goes through the modem or gateway. */
  telephone: yes,
  /** What else hangs on the telephone line, as the customer was asked before anything was unplugged. */
  lineCarries: z.enum(lineLoads),
  /** Who was told that the line is down meanwhile: the alarm's company, the lift's keeper, whoever answers the pendant. */
  lineTold: textLine(120),
  /** What walls are of, where nothing is said of one by itself. */
  outerMaterial: z.enum(materialNames),
  outerMm: thickness,
  innerMaterial: z.enum(materialNames),
  innerMm: thickness,
  bandNames: z.enum(['one-name', 'one-a-band']),
  /** The network name the home had before, and whether it stays, so that everything rejoins by itself. */
  oldSsid: checked(ssidProblem, 64),
  keepName: yes,
  doubleNatReason: textLine(300),
  /** Why nothing was installed, where the visit ended without a unit: a survey, a customer who was not there. */
  noUnitReason: textLine(300),
  /** What the provider gave as its reference when it was told that the line gives too little. */
  providerReference: textLine(80),
  country: z.string().regex(/^[A-Z]{2}$/, 'must be a country of two capital letters')
})
