import { housesApi } from '@pasado/core/api/houses'
import { routesOf } from '../route'
import { notFound, conflictingState } from '../../problem'
import type { HouseDefinition } from '@pasado/core/house/definition'
import { pastDurations } from '../../db/durations'
import { insertActions, insertHouse, listHouses, lockHouse, readHouse } from '../../db/houses'
import { transactionOn } from '../../db/pool'
import { readVisit } from '../../logbook/read'
import { readUnit, UnitSilent } from '../../simulators/read-unit'

const MOST_ACTIONS = 5000
const silentWords = {
  login: 'It refuses the login: record the login of its label, or its admin password, first.',
  silent: 'Nothing answers at its address: it is off, still starting, or another unit has its address.',
  unreadable: 'What it told cannot be read.'
} as const

/** Simulated houses, what was done in them, and reading their units; what past waits took. */
export const housesRoutes = routesOf(housesApi, {
  readDurations: async ({ services, query }) => ({
    json: { durations: await pastDurations(services.db, [...new Set(query.of)]) }
  }),
  listHouses: async ({ services, person }) => ({
    json: {
      houses: (await listHouses(services.db, person.id)).map(({ definition, ...house }) => ({
        ...house,
        name: definition.name,
        says: definition.says,
        units: definition.units.map(({ name }) => name)
      }))
    }
  }),
  readHouseLabel: async ({ services, params }) => {
    const unit = (await readHouse(services.db, params.id))?.definition.units.find(
      (candidate) => candidate.id === params.unit
    )
    if (!unit) throw notFound('unit of this house')
    return { json: { model: unit.model, serial: unit.serial, mac: unit.mac, login: unit.login ?? null } }
  },
  putUpHouse: async ({ services, person, body }) => {
    if (await readHouse(services.db, body.id)) return { json: { id: body.id } }
    const definition = 'definition' in body ? body.definition : (await readHouse(services.db, body.from))?.definition
    if (!definition) throw notFound('house')
    await insertHouse(services.db, { id: body.id, definition, by: person.id, at: new Date() })
    return { json: { id: body.id } }
  },
  readHouse: async ({ services, params }) => {
    const house = await readHouse(services.db, params.id)
    if (!house) throw notFound('house')
    return {
      json: {
        format: 'pasado.house-run/1' as const,
        definition: withoutLogins(house.definition),
        actions: house.actions
      }
    }
  },
  actInHouse: async ({ services, params, body }) =>
    transactionOn(services.db, null, async (connection) => {
      const count = await lockHouse(connection, params.id)
      if (count === null) throw notFound('house')
      if (count !== body.after)
        throw conflictingState('done-meanwhile', 'Somebody did something else in this house; look again.')
      if (count + body.actions.length > MOST_ACTIONS)
        throw conflictingState('house-full', `At most ${MOST_ACTIONS} things are done in one house; put up a new one.`)
      await insertActions(connection, params.id, count, body.actions)
      return { json: { count: count + body.actions.length } }
    }),
  readUnit: async ({ services, params, context }) => {
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

/** The logins of a house are read off its labels, not out of its file. */
function withoutLogins(definition: HouseDefinition): HouseDefinition {
  return { ...definition, units: definition.units.map(({ login: _, ...unit }) => unit) }
}
