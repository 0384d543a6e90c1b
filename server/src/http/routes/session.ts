import { routesOf } from '../route'
import { sessionApi } from '@pasado/core/api/session'
import type { Context } from 'koa'
import { dropExpiredSessions, endAllSessions, endSession } from '../../db/people'
import type { Sessions } from '../session'

const sessionsOf = (context: Context) => context.state.sessions as Sessions

/** Logging in and out. */
export const sessionRoutes = routesOf(sessionApi, {
  logIn: async ({ services, body, context }) => {
    await dropExpiredSessions(services.db, new Date())
    return { json: { person: await sessionsOf(context).logIn(context, body.login, body.password) } }
  },
  whoIsLoggedIn: async ({ person }) => ({ json: { person } }),
  choosePassword: async ({ person, body, context }) => {
    await sessionsOf(context).choosePassword(context, person, body.current, body.wanted)
    return {}
  },
  passwordAgain: async ({ person, body, context }) => {
    await sessionsOf(context).again(person, body.password)
    return {}
  },
  logOut: async ({ services, context }) => {
    const hash = sessionsOf(context).tokenHash(context)
    if (hash) await endSession(services.db, hash)
    sessionsOf(context).forget(context)
    return {}
  },
  logOutEverywhere: async ({ services, person, context }) => {
    await endAllSessions(services.db, person.id)
    sessionsOf(context).forget(context)
    return {}
  }
})
