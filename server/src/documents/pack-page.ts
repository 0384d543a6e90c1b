import { DomainProblem, gone } from '../problem'
import { createHash, randomBytes, randomInt, scrypt } from 'node:crypto'
import { promisify } from 'node:util'
import { packContent, type PackContent } from '@pasado/core/documents/pack-content'
import type { Author } from '@pasado/core/record/attribution'
import { insertPackLink, openedPackLink, tryPackLink } from '../db/pack-links'
import type { Services } from '../services'
import { openValue, sealValue } from '../vault/envelope'
import { packOf } from './make'

/** A way to a pack: what goes into the link, what is told by voice, and when both end. */
export interface PackWay {
  token: string
  code: string
  expiresAt: Date
}

const TRIES = 5
const DAY_MS = 24 * 3_600_000
const COST = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 }
const derive = promisify(scrypt) as (
  password: string,
  salt: Buffer,
  length: number,
  options: typeof COST
) => Promise<Buffer>

/** Link and code together open it: a code alone is soon guessed, a link alone is soon forwarded. */
const keyFor = (token: string, code: string, salt: Buffer) => derive(`${token} ${code}`, salt, 32, COST)
const hashOf = (token: string) => createHash('sha256').update(token, 'utf8').digest()

/** Makes a customer's pack as a page behind a link that ends after some days and wants a code of six digits. */
export async function makePackPage(
  services: Services,
  visit: string,
  days: number,
  by: Author,
  now = new Date()
): Promise<PackWay> {
  const content = await packOf(services, visit, by, 'making the pack’s page')
  const token = randomBytes(24).toString('base64url')
  const code = String(randomInt(1_000_000)).padStart(6, '0')
  const salt = randomBytes(16)
  const expiresAt = new Date(now.getTime() + days * DAY_MS)
  const sealed = sealValue(await keyFor(token, code, salt), Buffer.from(JSON.stringify(content), 'utf8'), 'pack page')
  await insertPackLink(services.db, {
    token: hashOf(token),
    visit,
    salt,
    sealed,
    triesLeft: TRIES,
    by: by.id,
    madeAt: now,
    expiresAt
  })
  return { token, code, expiresAt }
}

/**
 * Opens a pack's page.
 * @throws DomainProblem where there is no such link or it has ended, which look alike, or the code is wrong; after five wrong ones the link ends
 */
export async function openPackPage(
  { db }: Services,
  token: string,
  code: string,
  now = new Date()
): Promise<PackContent> {
  const hash = hashOf(token)
  const link = await tryPackLink(db, hash, now)
  if (!link) throw gone('link-ended', 'This link has ended, or it was copied only in part. Ask for a new one.')
  let content: Buffer
  try {
    content = openValue(await keyFor(token, code, link.salt), link.sealed, 'pack page')
  } catch {
    const left = link.triesLeft
    throw new DomainProblem(
      'forbidden',
      'wrong-code',
      left === 0
        ? 'The code is not right. That was the last try: ask for a new link.'
        : `The code is not right; ${left} ${left === 1 ? 'try is' : 'tries are'} left.`,
      [{ path: ['code'], message: 'is not the one that was told; ask for it again' }]
    )
  }
  await openedPackLink(db, hash, now, TRIES)
  return packContent.parse(JSON.parse(content.toString('utf8')))
}
