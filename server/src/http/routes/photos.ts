import { refused } from '../../problem'
import { z } from 'zod'
import { photoAbout, revealReasons } from '@pasado/core/record/answers'
import { id, textLine } from '@pasado/core/record/fields'
import { keepPhoto, photoOf, showLabelPhoto } from '../../logbook/photos'
import { authorOf, everyRole, outboxLook, route } from '../route'
import type { Sessions } from '../session'

/** A form holds texts only: the outbox comes as JSON. */
function readOutbox(text: string, context: z.RefinementCtx): z.infer<typeof outboxLook> {
  try {
    return outboxLook.parse(JSON.parse(text))
  } catch {
    context.addIssue({ code: 'custom', message: 'must be JSON with from, base and own' })
    return z.NEVER
  }
}

/** Photos of a visit: served only to those who may see it, never from a shared cache. */
export const photoRoutes = [
  route({
    method: 'post',
    path: '/visits/:id/photos',
    does: 'Keep a photo: multipart/form-data with the file as `photo`, JPEG, PNG or WebP, at most 12 MB',
    roles: ['technician', 'lead'],
    params: z.strictObject({ id }),
    upload: 'photo',
    body: z.strictObject({
      ref: z.uuidv7(),
      thing: photoAbout.shape.thing,
      about: photoAbout.shape.id,
      label: z.enum(['yes', 'no']).default('no'),
      caption: textLine(200).optional(),
      outbox: z
        .string()
        .max(200)
        .transform((text, context) => readOutbox(text, context))
        .optional()
    }),
    run: async ({ services, person, params, body, file }) => {
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
      return { status: 201, json: { ref: body.ref } }
    }
  }),
  route({
    method: 'get',
    path: '/visits/:id/photos/:ref',
    does: 'A photo that is no secret, as JPEG; `size=small` for a small one',
    roles: everyRole,
    params: z.strictObject({ id, ref: id }),
    query: z.strictObject({ size: z.enum(['small', 'full']).default('full') }),
    run: async ({ services, params, query }) => ({
      file: {
        name: `pasado-photo-${params.ref.slice(-12)}.jpg`,
        type: 'image/jpeg',
        bytes: await photoOf(services.logbook, params.id, params.ref, query.size === 'small')
      }
    })
  }),
  route({
    method: 'post',
    path: '/visits/:id/photos/:ref/show',
    does: 'The photo of a label, a secret; who and why is logged',
    roles: everyRole,
    params: z.strictObject({ id, ref: id }),
    body: z.strictObject({ why: z.enum(revealReasons) }),
    run: async ({ services, person, params, body, context }) => {
      await (context.state.sessions as Sessions).mayShow(person)
      return {
        file: {
          name: `pasado-label-${params.ref.slice(-12)}.jpg`,
          type: 'image/jpeg',
          bytes: await showLabelPhoto(services.logbook, params.id, params.ref, body.why, authorOf(person))
        }
      }
    }
  })
]
