import { notFound } from '../../problem'
import type { RateLimiterMySQL } from 'rate-limiter-flexible'
import { z } from 'zod'
import { id } from '@pasado/core/record/fields'
import type { Db } from '../../db/pool'
import { endPackLinks, packLinksOf } from '../../db/pack-links'
import { mayMakePack } from '../../documents/make'
import { makePackPage, openPackPage } from '../../documents/pack-page'
import { limiter, spend } from '../limits'
import { authorOf, everyRole, route } from '../route'

const TRIES_AN_ADDRESS = 30
const limits = new WeakMap<Db, RateLimiterMySQL>()
const limitOf = (db: Db) => {
  const known = limits.get(db) ?? limiter(db, 'pack', TRIES_AN_ADDRESS)
  limits.set(db, known)
  return known
}

/** The customer's pack as a page: made for a visit, opened by whoever has link and code. The link's token is in no address. */
export const packLinkRoutes = [
  route({
    method: 'post',
    path: '/visits/:id/pack-links',
    does: 'Make the customer’s pack as a page: a token for the link, a code to tell by voice, and when both end. Shown this once',
    roles: everyRole,
    params: z.strictObject({ id }),
    body: z.strictObject({ days: z.int().min(1, 'must be 1 day or more').max(30, 'must be at most 30 days') }),
    run: async ({ services, person, params, body }) => {
      await mayMakePack(services, person, params.id)
      return { status: 201, json: await makePackPage(services, params.id, body.days, authorOf(person)) }
    }
  }),
  route({
    method: 'get',
    path: '/visits/:id/pack-links',
    does: 'Links to the pack of a visit that have not ended',
    roles: everyRole,
    params: z.strictObject({ id }),
    run: async ({ services, params }) => ({ json: { links: await packLinksOf(services.db, params.id, new Date()) } })
  }),
  route({
    method: 'delete',
    path: '/visits/:id/pack-links/:link',
    does: 'End a link to the pack of a visit',
    roles: everyRole,
    params: z.strictObject({ id, link: z.string().regex(/^[0-9a-f]{64}$/) }),
    run: async ({ services, params }) => {
      if ((await endPackLinks(services.db, params.id, Buffer.from(params.link, 'hex'))) === 0) throw notFound('link')
      return {}
    }
  }),
  route({
    method: 'post',
    path: '/pack',
    does: 'Open a pack’s page with the token of its link and the code',
    roles: 'anyone',
    body: z.strictObject({
      token: z.string().regex(/^[\w-]{32}$/, 'is not whole: copy all of the link'),
      code: z
        .string()
        .transform((text) => text.replace(/\s/g, ''))
        .pipe(z.string().regex(/^\d{6}$/, 'must be six digits'))
    }),
    run: async ({ services, body, context }) => {
      await spend(limitOf(services.db), (context as { state: { address: string } }).state.address)
      return { json: await openPackPage(services, body.token, body.code) }
    }
  })
]
