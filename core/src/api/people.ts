import { z } from 'zod'
import { contract, everyRole, moment, personRoles } from './contract'
import { caller } from './session'

const name = z.string().trim().min(2, 'must have at least 2 characters').max(120)
const role = z.enum(personRoles)
const params = z.strictObject({ id: z.uuid() })
/** A person's login: one spelling, so that nobody is taken for another. */
export const loginForm = /^[a-z][a-z0-9.-]{1,59}$/

/** Somebody of the company as the list of people shows them. */
export const listedPerson = caller.extend({
  leftAt: moment.nullable(),
  /** Where they are logged in just now, in how many browsers. */
  sessions: z.int(),
  openVisits: z.int()
})
export type ListedPerson = z.output<typeof listedPerson>

/** Who works here. */
export const peopleApi = {
  listPeople: contract({
    method: 'get',
    path: '/people',
    does: 'Everybody, who works here first, with their open visits and where they are logged in',
    roles: ['lead'],
    answer: z.object({ people: z.array(listedPerson) })
  }),
  addPerson: contract({
    method: 'post',
    path: '/people',
    does: 'Add a person; the password to begin with is answered, this once',
    roles: ['lead'],
    body: z.strictObject({
      login: z.string().regex(loginForm, 'must be 2 to 60 small letters, digits, dots or hyphens, a letter first'),
      name,
      role
    }),
    status: 201,
    answer: z.object({ id: z.uuid(), password: z.string() })
  }),
  changePerson: contract({
    method: 'post',
    path: '/people/:id',
    does: 'Change a person’s name or role, or whether they work here; who has left logs in no more and stays in every logbook',
    roles: ['lead'],
    params,
    body: z.strictObject({ name, role, left: z.boolean() }),
    answer: 'nothing'
  }),
  givePassword: contract({
    method: 'post',
    path: '/people/:id/password',
    does: 'Give a person a new password to begin with, answered this once; every session of theirs ends',
    roles: ['lead'],
    params,
    answer: z.object({ password: z.string() })
  }),
  listTechnicians: contract({
    method: 'get',
    path: '/technicians',
    does: 'Who can be sent to a visit',
    roles: everyRole,
    answer: z.object({ technicians: z.array(z.object({ id: z.uuid(), name: z.string(), role })) })
  })
}
