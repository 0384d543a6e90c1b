import { z } from 'zod'
import type { Context } from 'koa'
import { dropExpiredSessions, endAllSessions, endSession } from '../../db/people'
import { everyRole, route } from '../route'
import type { Sessions } from '../session'

const sessionsOf = (context: Context) => context.state.sessions as Sessions

/** Logging in and out. */
export const sessionRoutes = [
  route({
    method: 'post',
    path: '/session',
    does: 'Log in',
    roles: 'anyone',
    body: z.strictObject({ login: z.string().min(1).max(60), password: z.string().min(1).max(200) }),
    run: async ({ services, body, context }) => {
      await dropExpiredSessions(services.db, new Date())
      return { json: { person: await sessionsOf(context).logIn(context, body.login, body.password) } }
    }
  }),
  route({
    method: 'get',
    path: '/session',
    does: 'Who is logged in',
    roles: 'anyone',
    run: async ({ person }) => ({ json: { person } })
  }),
  route({
    method: 'post',
    path: '/session/password',
    does: 'Choose another password of one’s own; every other session ends',
    roles: everyRole,
    body: z.strictObject({ current: z.string().min(1).max(200), wanted: z.string().min(1).max(200) }),
    run: async ({ person, body, context }) => {
      await sessionsOf(context).choosePassword(context, person, body.current, body.wanted)
      return {}
    }
  }),
  route({
    method: 'post',
    path: '/session/again',
    does: 'Type one’s password again, after which more secrets may be looked at',
    roles: everyRole,
    body: z.strictObject({ password: z.string().min(1).max(200) }),
    run: async ({ person, body, context }) => {
      await sessionsOf(context).again(person, body.password)
      return {}
    }
  }),
  route({
    method: 'delete',
    path: '/session',
    does: 'Log out here',
    roles: 'anyone',
    run: async ({ services, context }) => {
      const hash = sessionsOf(context).tokenHash(context)
      if (hash) await endSession(services.db, hash)
      sessionsOf(context).forget(context)
      return {}
    }
  }),
  route({
    method: 'delete',
    path: '/sessions',
    does: 'Log out everywhere',
    roles: everyRole,
    run: async ({ services, person, context }) => {
      await endAllSessions(services.db, person.id)
      sessionsOf(context).forget(context)
      return {}
    }
  })
]
