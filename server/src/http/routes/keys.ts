import { confirmSealKey, sealKeysOf } from '../../db/seal-keys'
import { keysApi } from '@pasado/core/api/keys'
import { notFound } from '../../problem'
import { routesOf } from '../route'

/** Public keys that seals are proven with. */
export const keysRoutes = routesOf(keysApi, {
  readKeys: async ({ services }) => ({
    json: {
      key: services.keys.keyName,
      publicKey: services.keys.publicKey,
      all: await sealKeysOf(services.db, 'ours')
    }
  }),
  readUnknownKeys: async ({ services }) => ({ json: { keys: await sealKeysOf(services.db, 'unknown') } }),
  confirmKey: async ({ services, params }) => {
    if (!(await confirmSealKey(services.db, params.name))) throw notFound('key')
    return {}
  }
})
