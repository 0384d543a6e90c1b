import { z } from 'zod'
import { contract } from './contract'

const keys = z.array(z.object({ name: z.string(), publicKey: z.string() }))

/** Public keys that seals are proven with. */
export const keysApi = {
  readKeys: contract({
    method: 'get',
    path: '/keys',
    does: 'The public keys that were ever this company’s, the one in use first named: seals are proven with them',
    roles: 'anyone',
    answer: z.object({ key: z.string(), publicKey: z.string(), all: keys })
  }),
  readUnknownKeys: contract({
    method: 'get',
    path: '/keys/unknown',
    does: 'Public keys from before it was noted whose they are',
    roles: ['lead'],
    answer: z.object({ keys })
  }),
  confirmKey: contract({
    method: 'post',
    path: '/keys/:name/ours',
    does: 'Say that a key from before was this company’s: what it sealed counts as ours',
    roles: ['lead'],
    params: z.strictObject({ name: z.string().regex(/^[0-9a-f]{16}$/) }),
    answer: 'nothing'
  })
}
