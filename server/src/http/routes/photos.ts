import { photosApi } from '@pasado/core/api/photos'
import { routesOf, authorOf } from '../route'
import { refused } from '../../problem'
import { keepPhoto, photoOf, showLabelPhoto } from '../../logbook/photos'
import type { Sessions } from '../session'

/** Photos of a visit: served only to those who may see it, never from a shared cache. */
export const photosRoutes = routesOf(photosApi, {
  keepPhoto: async ({ services, person, params, body, file }) => {
    if (!file) throw refused([{ path: ['photo'], message: 'is missing; send the picture as the file photo' }])
    await keepPhoto(
      services.logbook,
      params.id,
      {
        ref: body.ref,
        about: { thing: body.thing, id: body.about },
        caption: body.caption ?? null,
        label: body.label === 'yes',
        octets: file
      },
      authorOf(person),
      new Date(),
      body.outbox
    )
    return { json: { ref: body.ref } }
  },
  readPhoto: async ({ services, params, query }) => ({
    file: {
      name: `pasado-photo-${params.ref.slice(-12)}.jpg`,
      bytes: await photoOf(services.logbook, params.id, params.ref, query.size === 'small')
    }
  }),
  showLabelPhoto: async ({ services, person, params, body, context }) => {
    await (context.state.sessions as Sessions).mayShow(person)
    return {
      file: {
        name: `pasado-label-${params.ref.slice(-12)}.jpg`,
        bytes: await showLabelPhoto(services.logbook, params.id, params.ref, body.why, authorOf(person))
      }
    }
  }
})
