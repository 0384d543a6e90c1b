import { mustWorkOn } from './who-may'
import { refused, notFound } from '../problem'
import type { Author } from '@pasado/core/record/attribution'
import type { z } from 'zod'
import type { photoAbout } from '@pasado/core/record/answers'
import { pictureOf } from '../archive/archived'
import { insertPhoto, readPhoto } from '../db/photos'
import { preparePhoto } from '../photos/prepare'
import { leaksIn } from '@pasado/core/secrets/leaks'
import { mustBeOpen, type Logbook } from './logbook'
import type { Look } from './open-visit'
import { erasedProblem } from './secrets'

/** A photo as it comes from a device. */
export interface NewPhoto {
  ref: string
  about: z.infer<typeof photoAbout>
  caption: string | null
  label: boolean
  octets: Buffer
}

/**
 * Keeps a photo and says so in the logbook. Sent twice under one reference, it is kept once. One of a label goes under
 * the visit's key, as the secrets on it do.
 * @throws DomainProblem where it is no photo, the visit is sealed, or the caption holds a secret
 */
export async function keepPhoto(
  logbook: Logbook,
  visit: string,
  photo: NewPhoto,
  by: Author,
  now = new Date(),
  look?: Look
): Promise<void> {
  const prepared = await preparePhoto(photo.octets)
  await logbook.write(visit, now, async (open) => {
    const { record } = open.state
    if (record.photos?.[photo.ref]) return
    mustBeOpen(open)
    await mustWorkOn(logbook.states, open, by, look?.base, now)
    if (look) await logbook.mustBeOwn(open, look.from, by)
    if (photo.about.thing === 'unit' && !record.units[photo.about.id])
      throw refused([{ path: ['about', 'id'], message: 'no unit of this visit has this id' }])
    try {
      if (photo.caption !== null && leaksIn({ caption: photo.caption }, await logbook.secretsOf(open)).length) {
        throw refused([
          { path: ['caption'], message: 'holds a secret of this visit; take it out: secrets belong in the vault only' }
        ])
      }
      const picture = photo.label
        ? await logbook.vault.sealOctets(open.connection, visit, photo.ref, prepared.picture)
        : prepared.picture
      await insertPhoto(open.connection, {
        ref: photo.ref,
        visit,
        label: photo.label,
        picture,
        small: photo.label ? null : prepared.small
      })
    } catch (error) {
      if ((error as { code?: string }).code === 'ER_DUP_ENTRY')
        throw refused([{ path: ['ref'], message: 'is that of a photo of another visit; give it a new one' }])
      throw erasedProblem(error)
    }
    open.write(
      'photo.added',
      {
        ref: photo.ref,
        about: photo.about,
        caption: photo.caption,
        label: photo.label,
        width: prepared.width,
        height: prepared.height,
        octets: prepared.picture.length,
        sha256: prepared.sha256
      },
      by,
      look
    )
  })
}

/** A photo that is no secret, as it is shown. */
export async function photoOf(logbook: Logbook, visit: string, ref: string, small: boolean): Promise<Buffer> {
  const found = await pictureOf(logbook.db, visit, ref)
  if (!found || found.label) throw notFound('photo')
  return small ? (found.small ?? found.picture) : found.picture
}

/**
 * Shows the photo of a label, and logs who saw it and why.
 * @throws DomainProblem where there is none or the visit's secrets were erased
 */
export async function showLabelPhoto(
  logbook: Logbook,
  visit: string,
  ref: string,
  why: string,
  by: Author,
  now = new Date()
): Promise<Buffer> {
  return logbook.write(visit, now, async (open) => {
    const found = await readPhoto(open.connection, visit, ref)
    if (!found?.label) throw notFound('photo of a label')
    try {
      const picture = await logbook.vault.openOctets(open.connection, visit, ref, found.picture)
      open.write('secret.shown', { ref, why }, by)
      return picture
    } catch (error) {
      throw erasedProblem(error)
    }
  })
}
