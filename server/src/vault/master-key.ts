import { createPrivateKey, createPublicKey, hkdfSync, randomBytes, sign, type KeyObject } from 'node:crypto'
import { link, mkdir, open, readFile, stat, unlink } from 'node:fs/promises'
import { dirname } from 'node:path'
import { keyName } from '@pasado/core/record/seal'

/** The keys of one company's server: one wraps data keys, one prints secrets across homes, one signs seals. */
export interface CompanyKeys {
  wrap: Buffer
  print: Buffer
  seal: KeyObject
  /** By this the database knows its company's master key, and nothing can be made from it. */
  check: string
  /** The public half of the sealing key: 32 octets in hexadecimal. */
  publicKey: string
  /** The name by which a seal knows its key. */
  keyName: string
}

/** The fixed head of an Ed25519 private key in PKCS #8 (RFC 8410), before its 32 octets. */
const PKCS8_HEAD = Buffer.from('302e020100300506032b657004220420', 'hex')

/** Derives the company's keys from the master key (32 octets), each by HKDF-SHA-256 under its own name. */
export function companyKeys(master: Buffer): CompanyKeys {
  const derive = (name: string) => Buffer.from(hkdfSync('sha256', master, Buffer.alloc(0), `pasado ${name} 1`, 32))
  const seal = createPrivateKey({ key: Buffer.concat([PKCS8_HEAD, derive('seal')]), format: 'der', type: 'pkcs8' })
  const publicKey = Buffer.from(createPublicKey(seal).export({ format: 'jwk' }).x!, 'base64url').toString('hex')
  return {
    wrap: derive('wrap'),
    print: derive('print'),
    check: derive('check').toString('hex'),
    seal,
    publicKey,
    keyName: keyName(publicKey)
  }
}

/** Signs a text with the sealing key; hexadecimal. */
export function signText(keys: CompanyKeys, text: string): string {
  return sign(null, Buffer.from(text, 'utf8'), keys.seal).toString('hex')
}

/**
 * Makes a key and its file, whole or not at all: who starts at the same moment, or after a stop in between, never reads half of one.
 * @throws Error with the code EEXIST where there is a file already
 */
async function newKeyIn(file: string): Promise<Buffer> {
  await mkdir(dirname(file), { recursive: true, mode: 0o700 })
  const key = randomBytes(32)
  const beside = `${file}.${randomBytes(6).toString('hex')}`
  const handle = await open(beside, 'wx', 0o600)
  try {
    await handle.chmod(0o600)
    await handle.writeFile(`${key.toString('hex')}\n`)
    await handle.sync()
    await link(beside, file)
    return key
  } finally {
    await handle.close()
    await unlink(beside)
  }
}

/**
 * Reads the master key from its file, or makes one there on the first start, readable by its owner only.
 * @throws Error where others can read the file or it does not hold 64 hexadecimal digits
 */
export async function masterKeyFrom(file: string): Promise<Buffer> {
  try {
    return await newKeyIn(file)
  } catch (error) {
    if ((error as { code?: string }).code !== 'EEXIST') throw error
  }
  const { mode } = await stat(file)
  if (mode & 0o077) throw new Error(`the key file ${file} can be read by others; run: chmod 600 ${file}`)
  const text = (await readFile(file, 'utf8')).trim()
  if (!/^[0-9a-f]{64}$/.test(text))
    throw new Error(`the key file ${file} must hold 64 hexadecimal digits; restore it from your backup`)
  return Buffer.from(text, 'hex')
}
