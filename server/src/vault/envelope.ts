import { createCipheriv, createDecipheriv, createHmac, hkdfSync, randomBytes, scrypt } from 'node:crypto'
import { digestOf } from '@pasado/core/values/canonical'
import type { LockedSecrets } from '@pasado/core/documents/record-file'

const IV_OCTETS = 12
const TAG_OCTETS = 16

/** Encrypts with AES-256-GCM; the context is bound in, so that a value cannot be moved elsewhere. Gives iv, tag and text in one. */
export function sealValue(key: Buffer, value: Buffer, context: string): Buffer {
  const iv = randomBytes(IV_OCTETS)
  const cipher = createCipheriv('aes-256-gcm', key, iv)
  cipher.setAAD(Buffer.from(context))
  const text = Buffer.concat([cipher.update(value), cipher.final()])
  return Buffer.concat([iv, cipher.getAuthTag(), text])
}

/** Opens what `sealValue` made. @throws where key or context differ or a bit was changed */
export function openValue(key: Buffer, sealed: Buffer, context: string): Buffer {
  const decipher = createDecipheriv('aes-256-gcm', key, sealed.subarray(0, IV_OCTETS))
  decipher.setAAD(Buffer.from(context))
  decipher.setAuthTag(sealed.subarray(IV_OCTETS, IV_OCTETS + TAG_OCTETS))
  return Buffer.concat([decipher.update(sealed.subarray(IV_OCTETS + TAG_OCTETS)), decipher.final()])
}

/** A print of a secret under a key: equal for equal secrets, and worth nothing without the key. */
export function printOf(key: Buffer, value: string): Buffer {
  return createHmac('sha256', key).update(value, 'utf8').digest()
}

/** The key of the prints that stand in a visit's entries; gone with the visit's data key. */
export function printKeyOf(dataKey: Buffer): Buffer {
  return Buffer.from(hkdfSync('sha256', dataKey, Buffer.alloc(0), 'pasado visit print 1', 32))
}

const SCRYPT = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 }

/** A key from a passphrase, made beside the thread that serves. */
export function keyFrom(passphrase: string, salt: Buffer): Promise<Buffer> {
  return new Promise((resolve, reject) =>
    scrypt(passphrase, salt, 32, SCRYPT, (error, key) => (error ? reject(error) : resolve(key)))
  )
}

/** Encrypts an export's secrets to a passphrase. */
export async function lockSecrets(passphrase: string, visit: string, secrets: unknown): Promise<LockedSecrets> {
  const salt = randomBytes(16)
  const sealed = sealValue(await keyFrom(passphrase, salt), Buffer.from(JSON.stringify(secrets)), visit)
  const data = sealed.subarray(IV_OCTETS + TAG_OCTETS).toString('base64')
  return {
    kdf: 'scrypt-32768-8-1',
    salt: salt.toString('base64'),
    iv: sealed.subarray(0, IV_OCTETS).toString('base64'),
    tag: sealed.subarray(IV_OCTETS, IV_OCTETS + TAG_OCTETS).toString('base64'),
    data,
    digest: digestOf(data)
  }
}

/** Opens an export's secrets. @throws where the passphrase is another or the file was altered */
export async function unlockSecrets(passphrase: string, visit: string, locked: LockedSecrets): Promise<unknown> {
  const key = await keyFrom(passphrase, Buffer.from(locked.salt, 'base64'))
  const sealed = Buffer.concat([locked.iv, locked.tag, locked.data].map((part) => Buffer.from(part, 'base64')))
  return JSON.parse(openValue(key, sealed, visit).toString('utf8'))
}
