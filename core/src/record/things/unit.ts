import { z } from 'zod'
import { across, checked, id, textLine, yes } from '../fields'
import { attributed } from '../attribution'
import { elsewhere } from '../answers'
import { readMac, unitMacProblem } from '../../values/mac'
import { roles } from '../../catalogue/model'
import { ssidProblem } from '../../values/ssid'
import * as seen from './seen'
import { thing, without } from './thing'
import { versionProblem } from '../../values/version'

/** A device of ours at this home. */
export const unitFacts = z.strictObject({
  name: textLine(60),
  model: z.string().max(60),
  modelVersion: z.int().min(1),
  role: z.enum(roles),
  /** What it is beside that, where its model can be both. */
  alsoRole: z.enum(roles),
  serial: checked(
    (text) =>
      /^[A-Za-z0-9][A-Za-z0-9./ -]{1,39}$/.test(text)
        ? null
        : 'must be 2 to 40 letters, digits, dots, slashes or hyphens, as on the label',
    40
  ),
  mac: checked(unitMacProblem, 40).transform((text) => readMac({ text }).mac),
  defaultSsid: checked(ssidProblem, 64),
  /** The address of its own page, as the label tells it. */
  pageAddress: textLine(100),
  /** The box it came out of. */
  box: id,
  /** Where it went, of one that was not needed and is no more in the visit. */
  spare: z.enum(['with-customer', 'taken-back']),
  /** True where it stood here before this visit. */
  stayed: yes,
  used: yes,
  wasReset: yes,
  /** What is printed on the power adapter that came with it. */
  adapterPlug: textLine(60),
  adapterVolts: z.number().positive('must be above 0').max(400, 'must be at most 400 V'),
  adapterAmps: z.number().positive('must be above 0').max(100, 'must be at most 100 A: milliamperes are thousandths'),
  method: z.string().max(60),
  needsReady: z.array(z.string().max(40)).max(20),
  setUpPlace: textLine(80),
  place: textLine(80),
  moveRecorded: yes,
  heightM: z.number().min(0, 'must be 0 or more').max(30, 'must be at most 30 m: enter metres'),
  /** Where it stands in the plan. */
  storey: id,
  x: across,
  y: across,
  /** Whether a cable leads to it from the router's side. */
  cabled: yes,
  cabinet: yes,
  surgeNote: textLine(300),
  floorsReason: textLine(300),
  mode: z.enum(['router', 'access-point', 'bridge']),
  dhcpServer: z.enum(['on', 'off']),
  dhcpRelay: z.enum(['on', 'off']),
  secondaryAddress: z.enum(['on', 'off']),
  firmwareBefore: checked(versionProblem, 40),
  firmwareAfter: checked(versionProblem, 40),
  updates: z.enum(['automatic', 'managed']),
  localAdminOnly: yes,
  remoteAdmin: z.enum(['off', 'agreed', 'on']),
  accountOwner: z.enum(['customer', 'technician', 'none']),
  technicianRemoved: yes,
  /** The local administrator's login name, and how the recovery questions of its page were answered. */
  adminName: textLine(40),
  recovery: z.enum(['made-up', 'real', 'not-asked']),
  pushButton: z.enum(['off', 'asked-for', 'on']),
  /** The signal of its wireless hop, and the rate to the next powerline adapter, as its page or its app tells them. */
  hopDbm: z.number().min(-110, 'must be -110 dBm or more').max(-10, 'must be at most -10 dBm: signals are below zero'),
  mainsMbps: z.number().min(0, 'must be 0 or more').max(10_000, 'must be at most 10000 Mbit/s'),
  /** It chooses the channels of its radios by itself. */
  autoChannels: yes
})

const besides = {
  ...seen.besides,
  prompts: z.record(
    z.string(),
    z.strictObject({ ...attributed, answer: z.enum(['yes', 'no']), from: z.enum(['customer', 'default']) })
  ),
  elsewhere: z.array(elsewhere).optional(),
  transfer: z.strictObject({ ...attributed, from: z.string(), reason: z.string() }).optional(),
  /** Steps of methods by method and number, what was pressed to pair it, and what its own page told last. */
  steps: z.record(z.string(), z.strictObject({ ...attributed, seen: z.boolean() })).optional(),
  pairing: z.array(z.strictObject({ ...attributed, which: z.enum(['first', 'second']), on: z.string() })).optional(),
  presses: z.array(z.strictObject({ ...attributed, button: z.string(), seconds: z.number() })).optional(),
  read: z.strictObject({ ...attributed, values: z.record(z.string(), z.string()) }).optional(),
  /** That somebody was really on its air, seen last. */
  path: z
    .strictObject({
      ...attributed,
      before: z.int().optional(),
      after: z.int().optional(),
      address: z.string(),
      server: z.string().optional(),
      network: z.string().optional()
    })
    .optional()
}

/** It stood here before the visit, and what it ran at its end is what it runs now; what was done to it was done then. */
function carriedOver(facts: Record<string, unknown>): Record<string, unknown> {
  const { firmwareAfter, ...kept } = without(
    'wasReset',
    'moveRecorded',
    'setUpPlace',
    'box',
    // What was read then says nothing of how it is now.
    'hopDbm',
    'mainsMbps'
  )(facts)
  return { ...kept, ...(firmwareAfter === undefined ? {} : { firmwareBefore: firmwareAfter }), stayed: true }
}

export const unit = thing({
  kind: 'unit',
  table: 'units',
  facts: unitFacts,
  besides,
  begins: { ...seen.begins, prompts: {} },
  later: false,
  refersTo: { box: 'box', storey: 'storey' },
  carriesOver: carriedOver,
  compared: { byField: 1 }
})
