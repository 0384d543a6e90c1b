import { z } from 'zod'
import { allModels, currentStandard } from '../../db/catalogue'
import { dueChecks } from '../../db/checks'
import { homesByStreet, homesByTerms, readHome } from '../../db/homes'
import { technicians } from '../../db/people'
import { allSealKeys } from '../../db/seal-keys'
import { openVisits, visitsInReview, visitsOfHome } from '../../db/visits'
import { searchWords } from '../../logbook/terms'
import { notFound } from '../problem'
import { everyRole, route } from '../route'

/** Lists: the day, homes, models, people. */
export const listRoutes = [
  route({
    method: 'get', path: '/day', does: 'Visits that are not sealed: mine, or everybody’s; checks that are due; and for a lead what waits for review', roles: everyRole,
    query: z.strictObject({ whose: z.enum(['mine', 'all']).default('mine') }),
    run: async ({ services, person, query }) => ({
      json: {
        visits: await openVisits(services.db, query.whose === 'mine' && person.role !== 'office' ? person.id : null),
        review: person.role === 'lead' ? await visitsInReview(services.db) : [],
        checks: (await dueChecks(services.db, query.whose === 'mine' && person.role !== 'office' ? person.id : null, new Date())).map(({ result: _, ...one }) => one)
      }
    })
  }),
  route({
    method: 'get', path: '/homes', does: 'Homes, by street or found by name, street, serial or MAC address', roles: everyRole,
    query: z.strictObject({ q: z.string().max(120).optional(), afterStreet: z.string().max(120).optional(), afterId: z.uuid().optional() }),
    run: async ({ services, query }) => {
      const words = searchWords(query.q ?? '')
      if (words.length) {
        const found = new Map<string, { foundBy: string[] }>()
        for (const one of await homesByTerms(services.db, words)) {
          const known = found.get(one.id)
          if (known) known.foundBy.push(one.foundBy)
          else found.set(one.id, { ...one, foundBy: [one.foundBy] })
        }
        return { json: { homes: [...found.values()] } }
      }
      const after = query.afterStreet !== undefined && query.afterId ? { street: query.afterStreet, id: query.afterId } : null
      return { json: { homes: await homesByStreet(services.db, after) } }
    }
  }),
  route({
    method: 'get', path: '/homes/:id', does: 'A home and its visits, newest first', roles: everyRole,
    params: z.strictObject({ id: z.uuid() }),
    run: async ({ services, params }) => {
      const home = await readHome(services.db, params.id)
      if (!home) throw notFound('home')
      return { json: { home, visits: await visitsOfHome(services.db, params.id) } }
    }
  }),
  route({
    method: 'get', path: '/catalogue', does: 'Every model in every version, and the standard in force', roles: everyRole,
    run: async ({ services }) => ({ json: { models: await allModels(services.db), standard: await currentStandard(services.db) } })
  }),
  route({
    method: 'get', path: '/technicians', does: 'Who can be sent to a visit', roles: everyRole,
    run: async ({ services }) => ({ json: { technicians: (await technicians(services.db)).map(({ id, name, role }) => ({ id, name, role })) } })
  }),
  route({
    method: 'get', path: '/keys', does: 'The public keys that seals are proven with, our own first named', roles: 'anyone',
    run: async ({ services }) => ({ json: { key: services.keys.keyName, publicKey: services.keys.publicKey, all: await allSealKeys(services.db) } })
  })
]
