import { z } from 'zod'
import type { Model } from '../catalogue/model'
import type { ToldOfForeign } from '../documents/foreign'
import type { Standard } from '../policy/standard'
import { revealReasons, secretAssessment, secretPurposes } from '../record/answers'
import { briefFacts } from '../record/brief'
import { draftEntry, type Entry } from '../record/entry'
import { digest, id, textLine } from '../record/fields'
import type { Finding } from '../rules/finding'
import { wepKeyProblem, wpaPassphraseProblem } from '../values/wifi-qr'
import { withoutThem } from './outboxes'
import { contract, everyRole, inTheField, moment, outboxLook, shapedAs } from './contract'

const visit = z.strictObject({ id })
const after = z.strictObject({ after: z.coerce.number().int().min(0).default(0) })

/** A secret as a person hands it in. */
const newSecret = z
  .strictObject({
    ref: id,
    purpose: z.enum(secretPurposes),
    thing: z.enum(['brief', 'unit', 'network']),
    id: z.string().max(40),
    origin: z.enum(['typed', 'label', 'made']),
    /** That it is to be typed in later. */
    prepared: z.literal(true).optional(),
    security: z.enum(['wpa', 'wep']).optional(),
    value: z.string().min(1, 'must not be empty').max(128),
    outbox: outboxLook.optional()
  })
  .superRefine((secret, context) => {
    if (secret.prepared && secret.purpose !== 'wifi-passphrase')
      context.addIssue({ code: 'custom', path: ['prepared'], message: 'is for Wi-Fi passphrases only' })
    if (secret.purpose !== 'wifi-passphrase') return
    const problem = secret.security === 'wep' ? wepKeyProblem(secret.value) : wpaPassphraseProblem(secret.value)
    if (problem) context.addIssue({ code: 'custom', path: ['value'], message: problem })
  })

/** That a line was taken: its place in the logbook, the server's clock and its link in the chain. */
export const receipt = z.object({ id, seq: z.int(), received: moment, hash: digest })
export type Receipt = z.output<typeof receipt>

/** Everything a browser needs to show a visit: its logbook, the standard and the models it names. */
export const wholeVisit = z.object({
  entries: shapedAs<Entry[]>(),
  standard: shapedAs<Standard>(),
  models: shapedAs<Model[]>(),
  /** The verdicts that were kept when it was sealed. */
  verdicts: shapedAs<Finding[]>().nullable(),
  /** What is to be told of a visit that came as a file. */
  foreign: shapedAs<ToldOfForeign>().nullable(),
  /** What does not hold of its seal, in words: somebody altered what is kept here. */
  broken: z.string().nullable()
})
export type WholeVisit = z.output<typeof wholeVisit>

/** Why something is done to a visit. */
const why = z.strictObject({ reason: z.string().trim().min(1, 'is missing: say why').max(300) })

/** Visits: opening, reading, writing, secrets, documents, sealing. */
export const visitsApi = {
  openVisit: contract({
    method: 'post',
    path: '/visits',
    does: 'Open a visit, at a home that is known or a new one',
    roles: everyRole,
    body: z.strictObject({
      id: z.uuidv7(),
      home: id,
      customer: id,
      technician: id,
      brief: briefFacts.partial().required({ customerName: true, street: true, town: true })
    }),
    status: 201,
    answer: z.object({ id })
  }),
  handVisit: contract({
    method: 'post',
    path: '/visits/:id/technician',
    does: 'Hand an open visit to another technician, with why: one’s own or to oneself; a lead and the office any',
    roles: everyRole,
    params: visit,
    body: z.strictObject({ technician: id, reason: z.string().trim().min(1, 'is missing: say why').max(300) }),
    answer: 'nothing'
  }),
  cancelVisit: contract({
    method: 'post',
    path: '/visits/:id/cancel',
    does: 'Cancel a visit that takes place no more, with why: one’s own; a lead and the office any',
    roles: everyRole,
    params: visit,
    body: why,
    answer: 'nothing'
  }),
  reopenVisit: contract({
    method: 'post',
    path: '/visits/:id/reopen',
    does: 'Reopen a visit that was cancelled, with why: one’s own; a lead and the office any',
    roles: everyRole,
    params: visit,
    body: why,
    answer: 'nothing'
  }),
  readVisit: contract({
    method: 'get',
    path: '/visits/:id',
    does: 'A visit with its whole logbook, standard and catalogue',
    roles: everyRole,
    params: visit,
    answer: wholeVisit
  }),
  readEntries: contract({
    method: 'get',
    path: '/visits/:id/entries',
    does: 'Entries of a visit after a line',
    roles: everyRole,
    params: visit,
    query: after,
    answer: z.object({ entries: shapedAs<Entry[]>() })
  }),
  listenToVisit: contract({
    method: 'get',
    path: '/visits/:id/events',
    does: 'Entries as they come, as server-sent events',
    roles: everyRole,
    params: visit,
    query: after.extend({ outbox: id.optional() }),
    answer: 'text/event-stream'
  }),
  writeEntries: contract({
    method: 'post',
    path: '/visits/:id/entries',
    does: 'Write one entry or many; each is taken once. The office writes the booking and notes',
    roles: everyRole,
    params: visit,
    body: z.strictObject({ entries: z.array(draftEntry).min(1).max(1000) }),
    answer: z.object({ receipts: z.array(receipt) })
  }),
  keepSecret: contract({
    method: 'post',
    path: '/visits/:id/secrets',
    does: 'Put a secret into the vault',
    roles: inTheField,
    params: visit,
    body: newSecret,
    status: 201,
    answer: z.object({ assessed: secretAssessment })
  }),
  showSecret: contract({
    method: 'post',
    path: '/visits/:id/secrets/:ref/show',
    does: 'Show a secret; who and why is logged. After ten within an hour the password is asked for again (403 `password-again`)',
    roles: everyRole,
    params: z.strictObject({ id, ref: id }),
    body: z.strictObject({ why: z.enum(revealReasons) }),
    answer: z.object({ value: z.string() })
  }),
  eraseSecrets: contract({
    method: 'post',
    path: '/visits/:id/erase-secrets',
    does: 'Destroy the key of a visit’s secrets before its day, for good, with why; copies in a visit that began from it go as well',
    roles: ['lead'],
    params: visit,
    body: z.strictObject({ confirm: z.literal('erase for good'), why: textLine(300) }),
    answer: 'nothing'
  }),
  sealVisit: contract({
    method: 'post',
    path: '/visits/:id/seal',
    does: 'Seal a visit whose record has this digest: its technician or a lead; from which outbox, and why without devices that were not heard from',
    roles: inTheField,
    params: visit,
    body: z.strictObject({ digest, outbox: id.optional(), without: withoutThem.optional() }),
    answer: 'nothing'
  }),
  moveStandard: contract({
    method: 'post',
    path: '/visits/:id/standard',
    does: 'Check an open visit by another version of the standard: its technician or a lead by a newer one, a lead with a reason by an older one',
    roles: inTheField,
    params: visit,
    body: z.strictObject({ version: z.int().min(1), reason: textLine(300).optional(), outbox: outboxLook.optional() }),
    answer: z.object({ differences: z.array(z.string()) })
  }),
  makePack: contract({
    method: 'post',
    path: '/visits/:id/pack',
    does: 'Make the customer’s pack as PDF',
    roles: everyRole,
    params: visit,
    body: z.strictObject({}),
    answer: 'application/pdf'
  }),
  makeRecordPdf: contract({
    method: 'get',
    path: '/visits/:id/record.pdf',
    does: 'The company’s record as PDF, secrets masked',
    roles: everyRole,
    params: visit,
    answer: 'application/pdf'
  }),
  exportVisit: contract({
    method: 'get',
    path: '/visits/:id/export',
    does: 'The visit as pasado.record/1, without secrets',
    roles: everyRole,
    params: visit,
    answer: 'application/json'
  }),
  exportWithSecrets: contract({
    method: 'post',
    path: '/visits/:id/export',
    does: 'The visit as pasado.record/1, secrets encrypted to a passphrase',
    roles: ['lead'],
    params: visit,
    body: z.strictObject({ passphrase: z.string().min(12, 'must be at least 12 characters long').max(200) }),
    answer: 'application/json'
  }),
  importVisit: contract({
    method: 'post',
    path: '/import',
    does: 'Take in a visit from a pasado.record/1 file',
    roles: ['lead'],
    takes: 'file',
    body: z.strictObject({ text: z.string().max(30_000_000), passphrase: z.string().max(200).optional() }),
    status: 201,
    answer: z.object({ visit: id, entries: z.int(), known: z.boolean() })
  })
}
