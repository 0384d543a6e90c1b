import { peopleApi } from '@pasado/core/api/people'
import { routesOf } from '../route'
import {
  technicians,
  addPerson,
  allPeople,
  changePerson,
  endAllSessions,
  lockPerson,
  setPassword
} from '../../db/people'
import { refused, notFound, conflictingState } from '../../problem'
import { randomInt } from 'node:crypto'
import { v7 as uuidv7 } from 'uuid'
import { makePassphrase } from '@pasado/core/secrets/make'
import { transactionOn } from '../../db/pool'
import { hashPassword } from '../session'

/** A password to begin with: told to the person, who replaces it at the first log-in. */
const newPassword = () => makePassphrase((below) => randomInt(below))

/** Who works here. */
export const peopleRoutes = routesOf(peopleApi, {
  listPeople: async ({ services }) => ({ json: { people: await allPeople(services.db, new Date()) } }),
  addPerson: async ({ services, body }) => {
    const password = newPassword()
    const person = { id: uuidv7(), ...body }
    try {
      await addPerson(services.db, person, await hashPassword(password), new Date(), true)
    } catch (error) {
      if ((error as { code?: string }).code === 'ER_DUP_ENTRY')
        throw refused([{ path: ['login'], message: `is somebody’s already; choose another, ${body.login}2 for one` }])
      throw error
    }
    return { json: { id: person.id, password } }
  },
  changePerson: ({ services, params, body }) =>
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
    }),
  givePassword: ({ services, params, person: by }) =>
    transactionOn<never, { json: { password: string } }>(services.db, null, async (connection) => {
      const { person } = await lockPerson(connection, params.id)
      if (!person) throw notFound('person')
      if (person.id === by.id)
        throw refused([{ path: ['id'], message: 'is yourself; change your password in the menu under your name' }])
      const password = newPassword()
      await setPassword(connection, params.id, await hashPassword(password), true, null)
      return { json: { password } }
    }),
  listTechnicians: async ({ services }) => ({
    json: { technicians: (await technicians(services.db)).map(({ id, name, role }) => ({ id, name, role })) }
  })
})
