import { refused, notFound, conflictingState } from '../../problem'
import { randomInt } from 'node:crypto'
import { v7 as uuidv7 } from 'uuid'
import { z } from 'zod'
import { makePassphrase } from '@pasado/core/secrets/make'
import { addPerson, allPeople, changePerson, endAllSessions, lockPerson, setPassword } from '../../db/people'
import { transactionOn } from '../../db/pool'
import { route } from '../route'
import { hashPassword, loginForm } from '../session'

const name = z.string().trim().min(2, 'must have at least 2 characters').max(120)
const role = z.enum(['technician', 'lead', 'office'])
const params = z.strictObject({ id: z.uuid() })

/** A password to begin with: told to the person, who replaces it at the first log-in. */
const newPassword = () => makePassphrase((below) => randomInt(below))

/** Who works here. */
export const peopleRoutes = [
  route({
    method: 'get',
    path: '/people',
    does: 'Everybody, who works here first, with their open visits and where they are logged in',
    roles: ['lead'],
    run: async ({ services }) => ({ json: { people: await allPeople(services.db, new Date()) } })
  }),
  route({
    method: 'post',
    path: '/people',
    does: 'Add a person; the password to begin with is answered, this once',
    roles: ['lead'],
    body: z.strictObject({
      login: z.string().regex(loginForm, 'must be 2 to 60 small letters, digits, dots or hyphens, a letter first'),
      name,
      role
    }),
    run: async ({ services, body }) => {
      const password = newPassword()
      const person = { id: uuidv7(), ...body }
      try {
        await addPerson(services.db, person, await hashPassword(password), new Date(), true)
      } catch (error) {
        if ((error as { code?: string }).code === 'ER_DUP_ENTRY')
          throw refused([{ path: ['login'], message: `is somebody’s already; choose another, ${body.login}2 for one` }])
        throw error
      }
      return { status: 201, json: { id: person.id, password } }
    }
  }),
  route({
    method: 'post',
    path: '/people/:id',
    does: 'Change a person’s name or role, or whether they work here; who has left logs in no more and stays in every logbook',
    roles: ['lead'],
    params,
    body: z.strictObject({ name, role, left: z.boolean() }),
    run: ({ services, params, body }) =>
      transactionOn<never, Record<string, never>>(services.db, null, async (connection) => {
        const { person, otherLeads } = await lockPerson(connection, params.id)
        if (!person) throw notFound('person')
        if (person.role === 'lead' && person.leftAt === null && otherLeads === 0 && (body.left || body.role !== 'lead'))
          throw conflictingState('last-lead', 'This is the last lead; make somebody else a lead first.')
        await changePerson(connection, params.id, {
          name: body.name,
          role: body.role,
          leftAt: body.left ? (person.leftAt ?? new Date()) : null
        })
        if (body.left) await endAllSessions(connection, params.id)
        return {}
      })
  }),
  route({
    method: 'post',
    path: '/people/:id/password',
    does: 'Give a person a new password to begin with, answered this once; every session of theirs ends',
    roles: ['lead'],
    params,
    run: ({ services, params, person: by }) =>
      transactionOn<never, { json: { password: string } }>(services.db, null, async (connection) => {
        const { person } = await lockPerson(connection, params.id)
        if (!person) throw notFound('person')
        if (person.id === by.id)
          throw refused([{ path: ['id'], message: 'is yourself; change your password in the menu under your name' }])
        const password = newPassword()
        await setPassword(connection, params.id, await hashPassword(password), true, null)
        return { json: { password } }
      })
  })
]
