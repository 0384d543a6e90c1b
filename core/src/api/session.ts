import { z } from 'zod'
import { contract, everyRole, personRoles } from './contract'

/** Who is logged in. */
export const caller = z.object({
  id: z.uuid(),
  login: z.string(),
  name: z.string(),
  role: z.enum(personRoles),
  /** Whether the password was given by a lead, and is to be replaced before anything else. */
  mustChoose: z.boolean()
})
export type Me = z.output<typeof caller>

const password = z.string().min(1).max(200)

/** Logging in and out. */
export const sessionApi = {
  logIn: contract({
    method: 'post',
    path: '/session',
    does: 'Log in',
    roles: 'anyone',
    body: z.strictObject({ login: z.string().min(1).max(60), password }),
    answer: z.object({ person: caller })
  }),
  whoIsLoggedIn: contract({
    method: 'get',
    path: '/session',
    does: 'Who is logged in',
    roles: 'anyone',
    answer: z.object({ person: caller.nullable() })
  }),
  choosePassword: contract({
    method: 'post',
    path: '/session/password',
    does: 'Choose another password of one’s own; every other session ends',
    roles: everyRole,
    body: z.strictObject({ current: password, wanted: password }),
    answer: 'nothing'
  }),
  passwordAgain: contract({
    method: 'post',
    path: '/session/again',
    does: 'Type one’s password again, after which more secrets may be looked at',
    roles: everyRole,
    body: z.strictObject({ password }),
    answer: 'nothing'
  }),
  logOut: contract({
    method: 'delete',
    path: '/session',
    does: 'Log out here',
    roles: 'anyone',
    answer: 'nothing'
  }),
  logOutEverywhere: contract({
    method: 'delete',
    path: '/sessions',
    does: 'Log out everywhere',
    roles: everyRole,
    answer: 'nothing'
  })
}
