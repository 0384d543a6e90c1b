import { firstStandard } from '@pasado/core/rules/first-standard'
import { importFile } from '../../logbook/import'
import { moveStandard, handVisit, openVisit, sealVisit, setCancelled } from '../../logbook/visits'
import { readStandard } from '../../db/catalogue'
import { beginBecause, readVisit, visitFile, visitForBrowser } from '../../logbook/read'
import { routesOf, authorOf } from '../route'
import { standardDifferences } from '@pasado/core/rules/difference'
import { visitsApi } from '@pasado/core/api/visits'
import { busy, DomainProblem, refused, notFound } from '../../problem'
import { type Draft } from '@pasado/core/record/entry'
import { entriesAfter } from '../../archive/archived'
import { readHome } from '../../db/homes'
import { technicians, type Person } from '../../db/people'
import { noteTakenAlong } from '../../db/taken-along'
import { readVisitHead } from '../../db/visits'
import { makePack, makeRecordPdf, mayMakePack } from '../../documents/make'
import { eraseSecrets, keepSecret, showSecret } from '../../logbook/secrets'
import type { Services } from '../../services'
import type { Sessions } from '../session'

const fileName = (what: string, visit: string, ending: string) => `pasado-${what}-${visit.slice(-12)}.${ending}`

/** Somebody who can be sent. @throws HttpProblem where it is nobody who works here in the field */
async function whoCanGo({ db }: Services, wanted: string): Promise<Person> {
  const found = (await technicians(db)).find((person) => person.id === wanted)
  if (!found) throw refused([{ path: ['technician'], message: 'is nobody who can be sent; choose a technician' }])
  return found
}

/** Visits: opening, reading, writing, secrets, documents, sealing. */
export const visitsRoutes = routesOf(visitsApi, {
  openVisit: async ({ services, person, body }) => {
    const technician = await whoCanGo(services, body.technician)
    const home = await readHome(services.db, body.home)
    if (home && home.customerId !== body.customer)
      throw refused([{ path: ['customer'], message: 'is not the customer of this home' }])
    const known = await readVisitHead(services.db, body.id)
    if (known && known.home_id !== body.home) throw refused([{ path: ['id'], message: 'is another visit’s' }])
    if (known) return { status: 200 as const, json: { id: body.id } }
    try {
      await openVisit(
        services.logbook,
        { ...body, brief: body.brief, technician: { id: technician.id, name: technician.name } },
        authorOf(person)
      )
      return { json: { id: body.id } }
    } catch (error) {
      // The same request, sent twice at once: the other one opened it.
      const opened =
        error instanceof DomainProblem && error.type === 'visit-exists'
          ? await readVisitHead(services.db, body.id)
          : null
      if (opened?.home_id !== body.home) throw error
      return { status: 200 as const, json: { id: body.id } }
    }
  },
  handVisit: async ({ services, person, params, body }) => {
    const next = await whoCanGo(services, body.technician)
    await handVisit(services.logbook, params.id, { id: next.id, name: next.name }, body.reason, authorOf(person))
    return {}
  },
  cancelVisit: async ({ services, person, params, body }) => {
    await setCancelled(services.logbook, params.id, true, body.reason, authorOf(person))
    return {}
  },
  reopenVisit: async ({ services, person, params, body }) => {
    await setCancelled(services.logbook, params.id, false, body.reason, authorOf(person))
    return {}
  },
  readVisit: async ({ services, params }) => ({ json: await visitForBrowser(services.logbook, params.id) }),
  readEntries: async ({ services, params, query }) => {
    if (!(await readVisitHead(services.db, params.id))) throw notFound('visit')
    return { json: { entries: await entriesAfter(services.db, params.id, query.after) } }
  },
  listenToVisit: async ({ services, person, params, query, context }) => {
    // Another process has it in a moment.
    if (services.stopping) throw busy('This server is being stopped; listen again.')
    if (!(await readVisitHead(services.db, params.id))) throw notFound('visit')
    if (query.outbox) await noteTakenAlong(services.db, params.id, query.outbox, person.id, new Date())
    const resumed = Number(context.get('Last-Event-ID') || query.after)
    context.type = 'text/event-stream'
    context.set('X-Accel-Buffering', 'no')
    context.body = services.live.listen(params.id, Number.isFinite(resumed) ? resumed : query.after)
    return { taken: true }
  },
  writeEntries: async ({ services, person, params, body }) => {
    const drafts = body.entries as Draft[]
    const strays = drafts.flatMap((draft, index) =>
      draft.visit === params.id
        ? []
        : [{ path: ['entries', index, 'visit'], message: 'is not the visit of this address' }]
    )
    if (strays.length) throw refused(strays)
    return { json: { receipts: await services.logbook.append(params.id, drafts, authorOf(person)) } }
  },
  keepSecret: async ({ services, person, params, body }) => {
    const { security: _, outbox, ...secret } = body
    return {
      json: { assessed: await keepSecret(services.logbook, params.id, secret, authorOf(person), new Date(), outbox) }
    }
  },
  showSecret: async ({ services, person, params, body, context }) => {
    await (context.state.sessions as Sessions).mayShow(person)
    return { json: { value: await showSecret(services.logbook, params.id, params.ref, body.why, authorOf(person)) } }
  },
  eraseSecrets: async ({ services, person, params, body }) => {
    await eraseSecrets(services.logbook, params.id, body.why, authorOf(person))
    return {}
  },
  sealVisit: async ({ services, person, params, body }) => {
    await sealVisit(services.logbook, params.id, body, authorOf(person))
    beginBecause(services, params.id)
    return {}
  },
  moveStandard: async ({ services, person, params, body: { version, reason, outbox } }) => {
    const { record } = await readVisit(services.logbook, params.id)
    const next = await readStandard(services.db, firstStandard.id, version)
    if (!next) throw notFound('version of the standard')
    const before = await services.logbook.states.standardOf(services.db, record)
    await moveStandard(
      services.logbook,
      params.id,
      { id: next.id, version },
      authorOf(person),
      new Date(),
      reason,
      outbox
    )
    return { json: { differences: standardDifferences(before, next) } }
  },
  makePack: async ({ services, person, params }) => {
    await mayMakePack(services, person, params.id)
    return {
      file: {
        name: fileName('pack', params.id, 'pdf'),
        bytes: await makePack(services, params.id, authorOf(person))
      }
    }
  },
  makeRecordPdf: async ({ services, params }) => ({
    file: {
      name: fileName('record', params.id, 'pdf'),
      bytes: await makeRecordPdf(services, params.id)
    }
  }),
  exportVisit: async ({ services, params }) => ({
    file: {
      name: fileName('record', params.id, 'json'),
      bytes: await visitFile(services, params.id, null)
    }
  }),
  exportWithSecrets: async ({ services, person, params, body }) => {
    if (!(await readVisitHead(services.db, params.id))) throw notFound('visit')
    const bytes = await visitFile(services, params.id, { passphrase: body.passphrase, by: authorOf(person) })
    return { file: { name: fileName('record', params.id, 'json'), bytes } }
  },
  importVisit: async ({ services, person, body }) => ({
    json: await importFile(services, body.text, body.passphrase ?? null, authorOf(person))
  })
})
