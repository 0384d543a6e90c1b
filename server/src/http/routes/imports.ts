import { z } from 'zod'
import { importFile } from '../../logbook/import'
import { authorOf, route } from '../route'

/** Taking visits in from files. */
export const importRoutes = [
  route({
    method: 'post',
    path: '/import',
    does: 'Take in a visit from a pasado.record/1 file',
    roles: ['lead'],
    takes: 'file',
    body: z.strictObject({ text: z.string().max(30_000_000), passphrase: z.string().max(200).optional() }),
    run: async ({ services, person, body }) => ({
      status: 201,
      json: await importFile(services, body.text, body.passphrase ?? null, authorOf(person))
    })
  })
]
