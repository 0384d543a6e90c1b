import { notFound } from '../../problem'
import { z } from 'zod'
import { allModels, currentStandard, retiredModels } from '../../db/catalogue'
import { dueChecks } from '../../db/checks'
import { comingErasures } from '../../db/erasures'
import { manyShownSince } from '../../db/many-shown'
import { findHomes } from '../../db/home-search'
import { readHome } from '../../db/homes'
import { technicians } from '../../db/people'
import { confirmSealKey, sealKeysOf } from '../../db/seal-keys'
import { pageCursor } from '../../db/page'
import { openParts, openVisits, visitsInReview, visitsOfHome } from '../../db/visits'
import { homeNow } from '../../logbook/home-now'
import { searchWords } from '../../db/terms'
import { everyRole, route } from '../route'

/** What was planned a day ago or later stands with what is to come: it is today in some zone. */
export const pivotOf = (now: Date): Date => new Date(now.getTime() - 24 * 3_600_000)

/** Lists: the day, homes, models, people. */
export const listRoutes = [
  route({
    method: 'get',
    path: '/day',
    does: 'Visits that are not sealed: mine, or everybody’s, those to come, then the overdue and the unplanned ones, each part a page with where it goes on in `more`; checks that are due; secrets that are erased within a week; and for a lead what waits for review and who looked at many secrets',
    roles: everyRole,
    query: z.strictObject({ whose: z.enum(['mine', 'all']).default('mine') }),
    run: async ({ services, person, query }) => {
      const technician = query.whose === 'mine' && person.role !== 'office' ? person.id : null
      const parts = await Promise.all(
        openParts.map(async (part) => ({
          part,
          ...(await openVisits(services.db, technician, part, pivotOf(new Date())))
        }))
      )
      return {
        json: {
          visits: parts
            .flatMap(({ visits }) => visits)
            .sort(
              (a, b) =>
                (a.plannedAt?.getTime() ?? Infinity) - (b.plannedAt?.getTime() ?? Infinity) || (a.id < b.id ? -1 : 1)
            ),
          more: Object.fromEntries(parts.map(({ part, next }) => [part, next])),
          review: person.role === 'lead' ? await visitsInReview(services.db, person.id) : [],
          checks: (await dueChecks(services.db, technician, new Date())).map(({ result: _, ...one }) => one),
          shown: person.role === 'lead' ? await manyShownSince(services.db, new Date(Date.now() - 24 * 3_600_000)) : [],
          erasures: await comingErasures(services.db, new Date(Date.now() + 7 * 24 * 3_600_000))
        }
      }
    }
  }),
  route({
    method: 'get',
    path: '/day/visits',
    does: 'A further page of one part of the visits that are not sealed',
    roles: everyRole,
    query: z.strictObject({
      whose: z.enum(['mine', 'all']).default('mine'),
      part: z.enum(openParts),
      after: pageCursor
    }),
    run: async ({ services, person, query: { whose, part, after } }) => {
      const { visits, next } = await openVisits(
        services.db,
        whose === 'mine' && person.role !== 'office' ? person.id : null,
        part,
        pivotOf(new Date()),
        after
      )
      return { json: { visits, next } }
    }
  }),
  route({
    method: 'get',
    path: '/homes',
    does: 'Homes, fifty at a time: by street, or those that fit name, street, town, serial, MAC address, model, firmware and how a rule came out there; `next` leads to the next page',
    roles: everyRole,
    query: z
      .strictObject({
        q: z.string().max(120).optional(),
        model: z.string().min(1).max(60).optional(),
        firmware: z.string().min(1).max(40).optional(),
        rule: z
          .string()
          .regex(/^[a-z0-9-]{3,60}$/, 'must be the id of a rule')
          .optional(),
        outcome: z.enum(['breaks', 'waived', 'unproven']).optional(),
        after: pageCursor.optional()
      })
      .refine(({ firmware, model }) => firmware === undefined || model !== undefined, {
        path: ['model'],
        message: 'is missing: a version is one of a model'
      }),
    run: async ({ services, query: { q, after, ...query } }) => ({
      json: await findHomes(services.db, { ...query, words: searchWords(q ?? '') }, after ?? null)
    })
  }),
  route({
    method: 'get',
    path: '/homes/:id',
    does: 'A home, its visits newest first, and what stands there now by the latest sealed one',
    roles: everyRole,
    params: z.strictObject({ id: z.uuid() }),
    run: async ({ services, params }) => {
      const home = await readHome(services.db, params.id)
      if (!home) throw notFound('home')
      return {
        json: {
          home,
          visits: await visitsOfHome(services.db, params.id),
          now: await homeNow(services.logbook, params.id)
        }
      }
    }
  }),
  route({
    method: 'get',
    path: '/catalogue',
    does: 'Every model in every version, the ids of those that are no longer offered, and the standard in force',
    roles: everyRole,
    run: async ({ services }) => ({
      json: {
        models: await allModels(services.db),
        retired: await retiredModels(services.db),
        standard: await currentStandard(services.db)
      }
    })
  }),
  route({
    method: 'get',
    path: '/technicians',
    does: 'Who can be sent to a visit',
    roles: everyRole,
    run: async ({ services }) => ({
      json: { technicians: (await technicians(services.db)).map(({ id, name, role }) => ({ id, name, role })) }
    })
  }),
  route({
    method: 'get',
    path: '/keys',
    does: 'The public keys that were ever this company’s, the one in use first named: seals are proven with them',
    roles: 'anyone',
    run: async ({ services }) => ({
      json: {
        key: services.keys.keyName,
        publicKey: services.keys.publicKey,
        all: await sealKeysOf(services.db, 'ours')
      }
    })
  }),
  route({
    method: 'get',
    path: '/keys/unknown',
    does: 'Public keys from before it was noted whose they are',
    roles: ['lead'],
    run: async ({ services }) => ({ json: { keys: await sealKeysOf(services.db, 'unknown') } })
  }),
  route({
    method: 'post',
    path: '/keys/:name/ours',
    does: 'Say that a key from before was this company’s: what it sealed counts as ours',
    roles: ['lead'],
    params: z.strictObject({ name: z.string().regex(/^[0-9a-f]{16}$/) }),
    run: async ({ services, params }) => {
      if (!(await confirmSealKey(services.db, params.name))) throw notFound('key')
      return {}
    }
  })
]
