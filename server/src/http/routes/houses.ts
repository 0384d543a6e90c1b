import { notFound, conflictingState } from '../../problem'
import { z } from 'zod'
import { houseAction, houseDefinition } from '@pasado/core/house/definition'
import { id } from '@pasado/core/record/fields'
import { pastDurations } from '../../db/durations'
import { insertActions, insertHouse, listHouses, lockHouse, readHouse } from '../../db/houses'
import { transactionOn } from '../../db/pool'
import { readVisit } from '../../logbook/read'
import { readUnit, UnitSilent } from '../../simulators/read-unit'
import { everyRole, route } from '../route'

const MOST_ACTIONS = 5000
const silentWords = {
  login: 'It refuses the login: record the login of its label, or its admin password, first.',
  silent: 'Nothing answers at its address: it is off, still starting, or another unit has its address.',
  unreadable: 'What it told cannot be read.'
} as const

/** What a wait was of, as the run plan names it. */
const durationOf = z.string().regex(/^[\x20-\x7e]{1,160}$/, 'must be a model and what of its work, in plain letters')

/** Simulated houses, what was done in them, and reading their units; what past waits took. */
export const houseRoutes = [
  route({
    method: 'get',
    path: '/durations',
    does: 'What past waits took, by model and what of its work: how many, least, median and ninth of ten, minutes',
    roles: everyRole,
    query: z.strictObject({
      of: z.union([durationOf.transform((one) => [one]), z.array(durationOf).max(120)]).default([])
    }),
    run: async ({ services, query }) => ({
      json: { durations: await pastDurations(services.db, [...new Set(query.of)]) }
    })
  }),
  route({
    method: 'get',
    path: '/houses',
    does: 'The houses that others begin from, and the newest of one’s own',
    roles: everyRole,
    run: async ({ services, person }) => ({
      json: {
        houses: (await listHouses(services.db, person.id)).map(({ definition, ...one }) => ({
          ...one,
          name: definition.name,
          says: definition.says,
          units: definition.units.map(({ name }) => name)
        }))
      }
    })
  }),
  route({
    method: 'get',
    path: '/houses/:id/units/:unit/label',
    does: 'What stands on the label of a unit of a house: its login as well, which is made up',
    roles: everyRole,
    params: z.strictObject({ id, unit: z.string().max(60) }),
    run: async ({ services, params }) => {
      const unit = (await readHouse(services.db, params.id))?.definition.units.find((one) => one.id === params.unit)
      if (!unit) throw notFound('unit of this house')
      return { json: { model: unit.model, serial: unit.serial, mac: unit.mac, login: unit.login ?? null } }
    }
  }),
  route({
    method: 'post',
    path: '/houses',
    does: 'Put up a simulated house: from its definition, or like another one',
    roles: everyRole,
    body: z.union([z.strictObject({ id, definition: houseDefinition }), z.strictObject({ id, from: id })]),
    run: async ({ services, person, body }) => {
      if (await readHouse(services.db, body.id)) return { status: 201, json: { id: body.id } }
      const definition = 'definition' in body ? body.definition : (await readHouse(services.db, body.from))?.definition
      if (!definition) throw notFound('house')
      await insertHouse(services.db, { id: body.id, definition, by: person.id, at: new Date() })
      return { status: 201, json: { id: body.id } }
    }
  }),
  route({
    method: 'get',
    path: '/houses/:id',
    does: 'A simulated house with all that was done in it: pasado.house-run/1',
    roles: everyRole,
    params: z.strictObject({ id }),
    run: async ({ services, params }) => {
      const house = await readHouse(services.db, params.id)
      if (!house) throw notFound('house')
      return {
        json: { format: 'pasado.house-run/1', definition: withoutLogins(house.definition), actions: house.actions }
      }
    }
  }),
  route({
    method: 'post',
    path: '/houses/:id/actions',
    does: 'Do things in a house; `after` is how many were done before',
    roles: everyRole,
    params: z.strictObject({ id }),
    body: z.strictObject({ after: z.int().min(0), actions: z.array(houseAction).min(1).max(100) }),
    run: async ({ services, params, body }) =>
      transactionOn(services.db, null, async (connection) => {
        const count = await lockHouse(connection, params.id)
        if (count === null) throw notFound('house')
        if (count !== body.after)
          throw conflictingState('done-meanwhile', 'Somebody did something else in this house; look again.')
        if (count + body.actions.length > MOST_ACTIONS)
          throw conflictingState(
            'house-full',
            `At most ${MOST_ACTIONS} things are done in one house; put up a new one.`
          )
        await insertActions(connection, params.id, count, body.actions)
        return { json: { count: count + body.actions.length } }
      })
  }),
  route({
    method: 'post',
    path: '/visits/:id/units/:unit/read',
    does: 'Read what a unit’s own page tells, over HTTP with the login of its label or its admin password; nothing is written',
    roles: ['technician', 'lead'],
    params: z.strictObject({ id, unit: id }),
    body: z.strictObject({}),
    run: async ({ services, params, context }) => {
      const { record } = await readVisit(services.logbook, params.id)
      const unit = record.units[params.unit]
      const house = record.house ? await readHouse(services.db, record.house) : null
      if (!unit || !house)
        throw conflictingState(
          'no-house',
          'This visit is bound to no simulated house; reading real units is not part of this version.'
        )
      const simulated = house.definition.units.find(({ serial }) => serial === unit.facts.serial)
      if (!simulated) throw conflictingState('unit-not-here', 'No unit of the house has this serial; check the label.')
      const secrets = await services.vault.openAll(services.db, params.id)
      const logins = secrets
        .filter((secret) => record.secrets[secret.ref]?.id === params.unit)
        .flatMap(({ purpose, value }) => {
          const [user, password] = value.split(' / ')
          if (purpose === 'label-login' && user && password) return [{ user, password }]
          return purpose === 'admin-password' ? [{ user: 'admin', password: value }] : []
        })
      const address = `http://127.0.0.1:${context.req.socket.localPort}/stand-ins/houses/${record.house}/units/${simulated.id}/status`
      for (const login of [...logins, null]) {
        try {
          return { json: { values: await readUnit(address, login) } }
        } catch (error) {
          if (!(error instanceof UnitSilent)) throw error
          if (error.why !== 'login') throw conflictingState(`unit-${error.why}`, silentWords[error.why])
        }
      }
      throw conflictingState('unit-login', silentWords.login)
    }
  })
]

/** The logins of a house are read off its labels, not out of its file. */
function withoutLogins(definition: z.infer<typeof houseDefinition>): z.infer<typeof houseDefinition> {
  return { ...definition, units: definition.units.map(({ login: _, ...unit }) => unit) }
}
