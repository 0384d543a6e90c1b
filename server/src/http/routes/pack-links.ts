import { packLinksApi } from '@pasado/core/api/pack-links'
import { routesOf, authorOf } from '../route'
import { notFound } from '../../problem'
import type { RateLimiterMySQL } from 'rate-limiter-flexible'
import type { Db } from '../../db/pool'
import { endPackLinks, packLinksOf } from '../../db/pack-links'
import { mayMakePack } from '../../documents/make'
import { makePackPage, openPackPage } from '../../documents/pack-page'
import { limiter, spend } from '../limits'

const TRIES_AN_ADDRESS = 30
const limits = new WeakMap<Db, RateLimiterMySQL>()
const limitOf = (db: Db) => {
  const known = limits.get(db) ?? limiter(db, 'pack', TRIES_AN_ADDRESS)
  limits.set(db, known)
  return known
}

/** The customer's pack as a page: made for a visit, opened by whoever has link and code. The link's token is in no address. */
export const packLinksRoutes = routesOf(packLinksApi, {
  makePackLink: async ({ services, person, params, body }) => {
    await mayMakePack(services, person, params.id)
    return { json: await makePackPage(services, params.id, body.days, authorOf(person)) }
  },
  listPackLinks: async ({ services, params }) => ({
    json: { links: await packLinksOf(services.db, params.id, new Date()) }
  }),
  endPackLink: async ({ services, params }) => {
    if ((await endPackLinks(services.db, params.id, Buffer.from(params.link, 'hex'))) === 0) throw notFound('link')
    return {}
  },
  openPack: async ({ services, body, context }) => {
    await spend(limitOf(services.db), (context as { state: { address: string } }).state.address)
    return { json: await openPackPage(services, body.token, body.code) }
  }
})
