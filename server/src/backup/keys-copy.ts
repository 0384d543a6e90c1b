import { createReadStream, existsSync, statSync } from 'node:fs'
import { chmod, mkdir, open, rename, writeFile } from 'node:fs/promises'
import { randomBytes } from 'node:crypto'
import { dirname } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { z } from 'zod'
import { rows, type Connection } from '../db/pool'
import { EpochStore } from '../vault/epoch-store'
import { companyKeys, masterKeyFrom } from '../vault/master-key'
import { opening, sealing, type SealedTo } from './sealed-stream'
import { syncFolder } from './synced'

const hex = (octets: number) => z.string().regex(new RegExp(`^[0-9a-f]{${octets * 2}}$`))

/** The newest copy of all keys: what a backup of the database lacks. Each one takes the place of the one before, so that what was erased is in none. */
const keysCopy = z.strictObject({
  format: z.literal('pasado.keys/1'),
  at: z.string(),
  master: hex(32),
  /** All epoch keys, as one node sends them to another. */
  epochs: z.string(),
  /** The data keys that live, wrapped: of each visit its epoch and the key. */
  wrapped: z.record(z.string(), z.tuple([z.string().nullable(), z.string()]))
})
export type KeysCopy = z.infer<typeof keysCopy>

const PAGE = 5_000

/**
 * Puts together the copy of all keys as they are now.
 * @throws Error where an epoch ended meanwhile each time: the copy would lack its key
 */
export async function copyOfKeys(db: Connection, master: Buffer, store: EpochStore, at: Date): Promise<KeysCopy> {
  for (let tries = 0; tries < 3; tries++) {
    const copy = await copyOnce(db, master, store, at)
    const names = new Set([null, ...store.names()])
    if (Object.values(copy.wrapped).every(([epoch]) => names.has(epoch))) return copy
  }
  throw new Error('The keys are being changed just now; make the backup again in some minutes.')
}

async function copyOnce(db: Connection, master: Buffer, store: EpochStore, at: Date): Promise<KeysCopy> {
  const wrapped: KeysCopy['wrapped'] = {}
  for (let after = ''; ;) {
    const held = await rows<{ visit: string; wrapped: Buffer; epoch: string | null }>(
      db,
      `
        SELECT visit_id AS visit, wrapped, epoch
        FROM vault_keys
        WHERE visit_id > ?
          AND wrapped IS NOT NULL
        ORDER BY visit_id
        LIMIT ${PAGE}
      `,
      [after]
    )
    for (const key of held) wrapped[key.visit] = [key.epoch, key.wrapped.toString('base64')]
    if (held.length < PAGE) break
    after = held.at(-1)!.visit
  }
  return {
    format: 'pasado.keys/1',
    at: at.toISOString(),
    master: master.toString('hex'),
    epochs: store.send(),
    wrapped
  }
}

/** Writes the copy in place of the one before, whole or not at all. */
export async function writeKeysCopy(file: string, copy: KeysCopy, to: SealedTo): Promise<void> {
  const beside = `${file}.${randomBytes(6).toString('hex')}`
  const handle = await open(beside, 'wx', 0o600)
  await pipeline(
    Readable.from([Buffer.from(JSON.stringify(copy))]),
    await sealing(to),
    handle.createWriteStream({ flush: true })
  )
  await rename(beside, file)
  await syncFolder(dirname(file))
  await chmod(file, 0o600)
}

/** Reads a copy of the keys. @throws NotOpened, or Error where there is none */
export async function readKeysCopy(file: string, to: SealedTo): Promise<KeysCopy> {
  if (!existsSync(file) || !statSync(file).isFile()) throw new Error(`There is no copy of the keys ${file}.`)
  const parts: Buffer[] = []
  await pipeline(createReadStream(file), opening(to), async (source: AsyncIterable<Buffer>) => {
    for await (const part of source) parts.push(part)
  })
  return keysCopy.parse(JSON.parse(Buffer.concat(parts).toString('utf8')))
}

/**
 * Puts the keys of a copy into their files, readable by their owner only; what is there already stays.
 * @returns how many epoch keys were not there
 * @throws Error where the key file holds another master key; then nothing was written
 */
export async function putKeysBack(copy: KeysCopy, keyFile: string, epochFile: string): Promise<number> {
  const master = Buffer.from(copy.master, 'hex')
  const isThere = existsSync(keyFile)
  if (isThere && !(await masterKeyFrom(keyFile)).equals(master))
    throw new Error(`${keyFile} holds another master key. Put it away first; nothing was written.`)
  await mkdir(dirname(keyFile), { recursive: true, mode: 0o700 })
  if (!isThere) await writeFile(keyFile, `${copy.master}\n`, { mode: 0o600, flag: 'wx', flush: true })
  return new EpochStore(epochFile, companyKeys(master).wrap).take(copy.epochs)
}
