import { z } from 'zod'
import { asItIs, thing } from './thing'
import { across, checked, id, textLine } from '../fields'
import { besides, begins } from './seen'
import { parseIpv4 } from '../../values/ipv4'

export const stayKinds = ['router', 'modem', 'access-point', 'mesh-node', 'switch', 'printer', 'other'] as const

/**
 * Something at the home that is not ours and stays: the customer's router, the provider's modem, a mesh that is added to, a printer.
 * Units hang on it, are paired with it and get addresses from it; it carries no duty of a unit of ours.
 */
export const staysFacts = z.strictObject({
  kind: z.enum(stayKinds),
  name: textLine(60),
  /** From the catalogue, where it has the model; else make and model as they are printed on it. */
  model: z.string().max(60),
  modelVersion: z.int().min(1),
  makeModel: textLine(80),
  whose: z.enum(['customer', 'provider']),
  address: checked(
    (text) => (parseIpv4(text) === null ? 'must be an IPv4 address: four numbers 0–255 joined by dots' : null),
    40
  ),
  /** The segment that its address lies in, and in which it gives addresses. */
  segment: id,
  givesAddresses: z.enum(['yes', 'no']),
  place: textLine(80),
  /** Where it stands in the plan. */
  storey: id,
  x: across,
  y: across,
  /** Who has its login. */
  login: z.enum(['customer', 'provider', 'nobody'])
})

export const stays = thing({
  kind: 'stays',
  table: 'stays',
  facts: staysFacts,
  besides,
  begins,
  later: true,
  refersTo: { segment: 'segment', storey: 'storey' },
  carriesOver: asItIs,
  compared: { byField: 10 },
  label: 'What stays'
})
