import { DomainProblem, refused, notFound } from '../../problem'
import { z } from 'zod'
import { revealReasons, secretPurposes } from '@pasado/core/record/answers'
import { draftEntry, type Draft } from '@pasado/core/record/entry'
import { briefFacts } from '@pasado/core/record/brief'
import { id, textLine } from '@pasado/core/record/fields'
import { wepKeyProblem, wpaPassphraseProblem } from '@pasado/core/values/wifi-qr'
import { entriesAfter } from '../../db/entries'
import { readHome } from '../../db/homes'
import { technicians, type Person } from '../../db/people'
import { readVisitHead } from '../../db/visits'
import { makePack, makeRecordPdf, mayMakePack } from '../../documents/make'
import { visitFile, visitForBrowser } from '../../logbook/read'
import { handVisit, openVisit, sealVisit } from '../../logbook/visits'
import { eraseSecrets, keepSecret, showSecret } from '../../logbook/secrets'
import type { Services } from '../../services'
import type { Sessions } from '../session'
import { authorOf, everyRole, outboxLook, route } from '../route'

const visitId = z.strictObject({ id })
const inTheField = ['technician', 'lead'] as const
const fileName = (what: string, visit: string, ending: string) => `pasado-${what}-${visit.slice(-12)}.${ending}`

/** Somebody who can be sent. @throws HttpProblem where it is nobody who works here in the field */
async function whoCanGo({ db }: Services, wanted: string): Promise<Person> {
  const found = (await technicians(db)).find((one) => one.id === wanted)
  if (!found) throw refused([{ path: ['technician'], message: 'is nobody who can be sent; choose a technician' }])
  return found
}

const newSecret = z
  .strictObject({
    ref: id,
    purpose: z.enum(secretPurposes),
    thing: z.enum(['brief', 'unit', 'network']),
    id: z.string().max(40),
    origin: z.enum(['typed', 'label', 'made']),
    security: z.enum(['wpa', 'wep']).optional(),
    value: z.string().min(1, 'must not be empty').max(128),
    outbox: outboxLook.optional()
  })
  .superRefine((secret, context) => {
    if (secret.purpose !== 'wifi-passphrase') return
    const problem = secret.security === 'wep' ? wepKeyProblem(secret.value) : wpaPassphraseProblem(secret.value)
    if (problem) context.addIssue({ code: 'custom', path: ['value'], message: problem })
  })

/** Visits: opening, reading, writing, secrets, documents, sealing. */
export const visitRoutes = [
  route({
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
    run: async ({ services, person, body }) => {
      const technician = await whoCanGo(services, body.technician)
      const home = await readHome(services.db, body.home)
      if (home && home.customerId !== body.customer)
        throw refused([{ path: ['customer'], message: 'is not the customer of this home' }])
      const known = await readVisitHead(services.db, body.id)
      if (known && known.home_id !== body.home) throw refused([{ path: ['id'], message: 'is another visit’s' }])
      if (known) return { status: 200, json: { id: body.id } }
      try {
        await openVisit(
          services.logbook,
          { ...body, brief: body.brief, technician: { id: technician.id, name: technician.name } },
          authorOf(person)
        )
        return { status: 201, json: { id: body.id } }
      } catch (error) {
        // The same request, sent twice at once: the other one opened it.
        const opened =
          error instanceof DomainProblem && error.type === 'visit-exists'
            ? await readVisitHead(services.db, body.id)
            : null
        if (opened?.home_id !== body.home) throw error
        return { status: 200, json: { id: body.id } }
      }
    }
  }),
  route({
    method: 'post',
    path: '/visits/:id/technician',
    does: 'Hand an open visit to another technician, with why: one’s own or to oneself; a lead and the office any',
    roles: everyRole,
    params: visitId,
    body: z.strictObject({ technician: id, reason: z.string().trim().min(1, 'is missing: say why').max(300) }),
    run: async ({ services, person, params, body }) => {
      const next = await whoCanGo(services, body.technician)
      await handVisit(services.logbook, params.id, { id: next.id, name: next.name }, body.reason, authorOf(person))
      return {}
    }
  }),
  route({
    method: 'get',
    path: '/visits/:id',
    does: 'A visit with its whole logbook, standard and catalogue',
    roles: everyRole,
    params: visitId,
    run: async ({ services, params }) => ({ json: await visitForBrowser(services.logbook, params.id) })
  }),
  route({
    method: 'get',
    path: '/visits/:id/entries',
    does: 'Entries of a visit after a line',
    roles: everyRole,
    params: visitId,
    query: z.strictObject({ after: z.coerce.number().int().min(0).default(0) }),
    run: async ({ services, params, query }) => {
      if (!(await readVisitHead(services.db, params.id))) throw notFound('visit')
      return { json: { entries: await entriesAfter(services.db, params.id, query.after) } }
    }
  }),
  route({
    method: 'get',
    path: '/visits/:id/events',
    does: 'Entries as they come, as server-sent events',
    roles: everyRole,
    params: visitId,
    query: z.strictObject({ after: z.coerce.number().int().min(0).default(0) }),
    run: async ({ services, params, query, context }) => {
      if (!(await readVisitHead(services.db, params.id))) throw notFound('visit')
      const resumed = Number(context.get('Last-Event-ID') || query.after)
      context.type = 'text/event-stream'
      context.set('X-Accel-Buffering', 'no')
      context.body = services.live.listen(params.id, Number.isFinite(resumed) ? resumed : query.after)
      return { taken: true }
    }
  }),
  route({
    method: 'post',
    path: '/visits/:id/entries',
    does: 'Write one entry or many; each is taken once. The office writes the booking and notes',
    roles: everyRole,
    params: visitId,
    body: z.strictObject({ entries: z.array(draftEntry).min(1).max(1000) }),
    run: async ({ services, person, params, body }) => {
      const drafts = body.entries as Draft[]
      const strays = drafts.flatMap((draft, index) =>
        draft.visit === params.id
          ? []
          : [{ path: ['entries', index, 'visit'], message: 'is not the visit of this address' }]
      )
      if (strays.length) throw refused(strays)
      return { json: { receipts: await services.logbook.append(params.id, drafts, authorOf(person)) } }
    }
  }),
  route({
    method: 'post',
    path: '/visits/:id/secrets',
    does: 'Put a secret into the vault',
    roles: inTheField,
    params: visitId,
    body: newSecret,
    run: async ({ services, person, params, body }) => {
      const { security: _, outbox, ...secret } = body
      return {
        status: 201,
        json: { assessed: await keepSecret(services.logbook, params.id, secret, authorOf(person), new Date(), outbox) }
      }
    }
  }),
  route({
    method: 'post',
    path: '/visits/:id/secrets/:ref/show',
    does: 'Show a secret; who and why is logged. After ten within an hour the password is asked for again (403 `password-again`)',
    roles: everyRole,
    params: z.strictObject({ id, ref: id }),
    body: z.strictObject({ why: z.enum(revealReasons) }),
    run: async ({ services, person, params, body, context }) => {
      await (context.state.sessions as Sessions).mayShow(person)
      return { json: { value: await showSecret(services.logbook, params.id, params.ref, body.why, authorOf(person)) } }
    }
  }),
  route({
    method: 'post',
    path: '/visits/:id/erase-secrets',
    does: 'Destroy the key of a visit’s secrets before its day, for good, with why; copies in a visit that began from it go as well',
    roles: ['lead'],
    params: visitId,
    body: z.strictObject({ confirm: z.literal('erase for good'), why: textLine(300) }),
    run: async ({ services, person, params, body }) => {
      await eraseSecrets(services.logbook, params.id, body.why, authorOf(person))
      return {}
    }
  }),
  route({
    method: 'post',
    path: '/visits/:id/seal',
    does: 'Seal a visit whose record has this digest: its technician or a lead',
    roles: inTheField,
    params: visitId,
    body: z.strictObject({ digest: z.string().regex(/^[0-9a-f]{64}$/) }),
    run: async ({ services, person, params, body }) => {
      await sealVisit(services.logbook, params.id, body.digest, authorOf(person))
      return {}
    }
  }),
  route({
    method: 'post',
    path: '/visits/:id/pack',
    does: 'Make the customer’s pack as PDF',
    roles: everyRole,
    params: visitId,
    body: z.strictObject({}),
    run: async ({ services, person, params }) => {
      await mayMakePack(services, person, params.id)
      return {
        file: {
          name: fileName('pack', params.id, 'pdf'),
          type: 'application/pdf',
          bytes: await makePack(services, params.id, authorOf(person))
        }
      }
    }
  }),
  route({
    method: 'get',
    path: '/visits/:id/record.pdf',
    does: 'The company’s record as PDF, secrets masked',
    roles: everyRole,
    params: visitId,
    run: async ({ services, params }) => ({
      file: {
        name: fileName('record', params.id, 'pdf'),
        type: 'application/pdf',
        bytes: await makeRecordPdf(services, params.id)
      }
    })
  }),
  route({
    method: 'get',
    path: '/visits/:id/export',
    does: 'The visit as pasado.record/1, without secrets',
    roles: everyRole,
    params: visitId,
    run: async ({ services, params }) => ({
      file: {
        name: fileName('record', params.id, 'json'),
        type: 'application/json',
        bytes: await visitFile(services, params.id, null)
      }
    })
  }),
  route({
    method: 'post',
    path: '/visits/:id/export',
    does: 'The visit as pasado.record/1, secrets encrypted to a passphrase',
    roles: ['lead'],
    params: visitId,
    body: z.strictObject({ passphrase: z.string().min(12, 'must be at least 12 characters long').max(200) }),
    run: async ({ services, person, params, body }) => {
      if (!(await readVisitHead(services.db, params.id))) throw notFound('visit')
      const bytes = await visitFile(services, params.id, { passphrase: body.passphrase, by: authorOf(person) })
      return { file: { name: fileName('record', params.id, 'json'), type: 'application/json', bytes } }
    }
  })
]
