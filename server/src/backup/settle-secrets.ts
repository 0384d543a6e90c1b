import { secretsLeft } from '@pasado/core/work/erasure/erasure'
import { labelPictures, replacePicture } from '../db/photos'
import { destroyKey, replaceKey, visitsWithKeys } from '../db/vault-keys'
import { emptySecret } from '../db/vault-secrets'
import type { OpenVisit } from '../logbook/open-visit'
import { serverAuthor } from '../logbook/server-author'
import type { Services } from '../services'
import type { KeysCopy } from './keys-copy'

/** What became of the secrets of a database that was put back. */
export interface Settled {
  /** Visits whose secrets, all or some, were erased after the backup: they are erased here as well. */
  erased: string[]
}

const AT_ONCE = 200

/**
 * Puts the data keys of a restored database as they are in the newest copy of the keys. What was erased since the backup has none there: it is
 * erased here too, and the logbook says so, as it says of every erasure.
 */
export async function settleSecrets(
  services: Services,
  keys: KeysCopy,
  backupOf: string,
  now = new Date()
): Promise<Settled> {
  const erased: string[] = []
  for (let after = ''; ;) {
    const visits = await visitsWithKeys(services.db, after, AT_ONCE)
    for (const visit of visits)
      if (await services.logbook.write(visit, now, (open) => settleVisit(services, open, keys, backupOf)))
        erased.push(visit)
    if (visits.length < AT_ONCE) return { erased }
    after = visits.at(-1)!
  }
}

/** Settles one visit. @returns whether secrets of it were erased since the backup */
async function settleVisit({ vault }: Services, open: OpenVisit, keys: KeysCopy, backupOf: string): Promise<boolean> {
  const { connection, head, now } = open
  const living = keys.wrapped[head.id]
  if (living) await replaceKey(connection, head.id, { epoch: living[0], wrapped: Buffer.from(living[1], 'base64') })
  else await destroyKey(connection, head.id, now)
  const lost = living ? await vault.notOpened(connection, head.id) : { refs: null, pictures: null }
  const { record } = open.state
  const left = secretsLeft(record).map(({ ref }) => ref)
  const gone = lost.refs === null ? left : left.filter((ref) => lost.refs?.includes(ref))
  for (const ref of gone) await emptySecret(connection, head.id, ref)
  if (living) await vault.printAnew(connection, head.id)
  for (const { ref } of await labelPictures(connection, head.id))
    if (lost.pictures === null || lost.pictures.includes(ref))
      await replacePicture(connection, head.id, ref, Buffer.alloc(0))
  if (gone.length === 0 || record.secretsErased) return false
  const kept = left.filter((ref) => !gone.includes(ref)).sort()
  // Of an open visit only what it began with goes by itself: the rest can be kept and shown as before.
  const { startedFrom } = record.visit
  if (head.sealed_at === null && startedFrom && living)
    open.write('copies.erased', { refs: gone.sort(), from: startedFrom }, serverAuthor)
  else
    open.write(
      'secrets.erased',
      {
        refs: gone.sort(),
        ...(kept.length ? { kept } : {}),
        because: 'asked',
        why: `They had been erased after the backup of ${backupOf.slice(0, 10)} that was put back.`
      },
      serverAuthor
    )
  return true
}
