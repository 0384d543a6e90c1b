import { z } from 'zod'
import { photoAbout, revealReasons } from '../record/answers'
import { id, textLine } from '../record/fields'
import { contract, everyRole, inTheField, outboxLook } from './contract'

/** A form holds texts only: the outbox comes as JSON. */
function readOutbox(text: string, context: z.RefinementCtx): z.infer<typeof outboxLook> {
  try {
    return outboxLook.parse(JSON.parse(text))
  } catch {
    context.addIssue({ code: 'custom', message: 'must be JSON with from, base and own' })
    return z.NEVER
  }
}

const photo = z.strictObject({ id, ref: id })

/** Photos of a visit: served only to those who may see it, never from a shared cache. */
export const photosApi = {
  keepPhoto: contract({
    method: 'post',
    path: '/visits/:id/photos',
    does: 'Keep a photo: multipart/form-data with the file as `photo`, JPEG, PNG or WebP, at most 12 MB',
    roles: inTheField,
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
    status: 201,
    answer: z.object({ ref: id })
  }),
  readPhoto: contract({
    method: 'get',
    path: '/visits/:id/photos/:ref',
    does: 'A photo that is no secret, as JPEG; `size=small` for a small one',
    roles: everyRole,
    params: photo,
    query: z.strictObject({ size: z.enum(['small', 'full']).default('full') }),
    answer: 'image/jpeg'
  }),
  showLabelPhoto: contract({
    method: 'post',
    path: '/visits/:id/photos/:ref/show',
    does: 'The photo of a label, a secret; who and why is logged',
    roles: everyRole,
    params: photo,
    body: z.strictObject({ why: z.enum(revealReasons) }),
    answer: 'image/jpeg'
  })
}
