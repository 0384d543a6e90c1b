import { z } from 'zod'
import type { PackContent } from '../documents/pack-content'
import { digest, id } from '../record/fields'
import { contract, everyRole, moment, shapedAs } from './contract'

/** A link to a pack as it is listed: named by the digits of its hash. */
export const listedPackLink = z.object({
  id: digest,
  madeAt: moment,
  expiresAt: moment,
  openedAt: moment.nullable(),
  triesLeft: z.int()
})
export type ListedPackLink = z.output<typeof listedPackLink>

/** The customer's pack as a page: made for a visit, opened by whoever has link and code. The link's token is in no address. */
export const packLinksApi = {
  makePackLink: contract({
    method: 'post',
    path: '/visits/:id/pack-links',
    does: 'Make the customer’s pack as a page: a token for the link, a code to tell by voice, and when both end. Shown this once',
    roles: everyRole,
    params: z.strictObject({ id }),
    body: z.strictObject({ days: z.int().min(1, 'must be 1 day or more').max(30, 'must be at most 30 days') }),
    status: 201,
    answer: z.object({ token: z.string(), code: z.string(), expiresAt: moment })
  }),
  listPackLinks: contract({
    method: 'get',
    path: '/visits/:id/pack-links',
    does: 'Links to the pack of a visit that have not ended',
    roles: everyRole,
    params: z.strictObject({ id }),
    answer: z.object({ links: z.array(listedPackLink) })
  }),
  endPackLink: contract({
    method: 'delete',
    path: '/visits/:id/pack-links/:link',
    does: 'End a link to the pack of a visit',
    roles: everyRole,
    params: z.strictObject({ id, link: digest }),
    answer: 'nothing'
  }),
  openPack: contract({
    method: 'post',
    path: '/pack',
    does: 'Open a pack’s page with the token of its link and the code',
    roles: 'anyone',
    body: z.strictObject({
      token: z.string().regex(/^[\w-]{32}$/, 'is not whole: copy all of the link'),
      code: z
        .string()
        .transform((text) => text.replace(/\s/g, ''))
        .pipe(z.string().regex(/^\d{6}$/, 'must be six digits'))
    }),
    answer: shapedAs<PackContent>()
  })
}
