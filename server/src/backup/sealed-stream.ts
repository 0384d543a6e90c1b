import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto'
import { Transform, type TransformCallback } from 'node:stream'
import { keyFrom } from '../vault/envelope'

/*
 * A file sealed in parts, as long as it may be: a head (MAGIC, a salt of 16 octets), then parts of a length (four octets), a tag (sixteen)
 * and text. Each part's nonce is its number and whether it is the last, so that parts cannot change places, be repeated or be left out.
 */
const MAGIC = Buffer.from('pasado.sealed/1\n')
const SALT_OCTETS = 16
const PART_OCTETS = 64 * 1024
const TAG_OCTETS = 16

/** What a file is sealed to: words that a person knows, or a key of 32 octets. */
export type SealedTo = { passphrase: string } | { key: Buffer }

/** Said where a sealed file is not whole, was altered, or is sealed to something else. */
export class NotOpened extends Error {
  constructor() {
    super('It cannot be opened: it is not whole, was altered, or is sealed to another passphrase or key.')
  }
}

const keyOf = async (to: SealedTo, salt: Buffer): Promise<Buffer> =>
  'key' in to ? Buffer.from(hkdfSync('sha256', to.key, salt, 'pasado sealed file 1', 32)) : keyFrom(to.passphrase, salt)

function nonceOf(part: number, isLast: boolean): Buffer {
  const nonce = Buffer.alloc(12)
  nonce.writeBigUInt64BE(BigInt(part), 0)
  nonce.writeUInt8(isLast ? 1 : 0, 11)
  return nonce
}

/** Seals what goes through it. */
export async function sealing(to: SealedTo): Promise<Transform> {
  const salt = randomBytes(SALT_OCTETS)
  const key = await keyOf(to, salt)
  const sealed = (part: number, text: Buffer, isLast: boolean): Buffer => {
    const cipher = createCipheriv('aes-256-gcm', key, nonceOf(part, isLast))
    const done = Buffer.concat([cipher.update(text), cipher.final()])
    const head = Buffer.alloc(4)
    head.writeUInt32BE(done.length)
    return Buffer.concat([head, cipher.getAuthTag(), done])
  }
  let [part, waiting] = [0, Buffer.alloc(0)]
  const stream = new Transform({
    transform(chunk: Buffer, _: BufferEncoding, done: TransformCallback) {
      waiting = Buffer.concat([waiting, chunk])
      // One stays behind: which is the last is known at the end only.
      while (waiting.length > PART_OCTETS) {
        this.push(sealed(part++, waiting.subarray(0, PART_OCTETS), false))
        waiting = waiting.subarray(PART_OCTETS)
      }
      done()
    },
    flush(done: TransformCallback) {
      done(null, sealed(part, waiting, true))
    }
  })
  stream.push(Buffer.concat([MAGIC, salt]))
  return stream
}

/** Opens what `sealing` made; what comes out of it is whole so far, and whole where it ends without an error. @throws NotOpened as the stream's error */
export function opening(to: SealedTo): Transform {
  let waiting = Buffer.alloc(0)
  let key: Buffer | null = null
  let [part, isEnded] = [0, false]
  const opened = (text: Buffer, tag: Buffer): Buffer => {
    for (const isLast of [false, true]) {
      try {
        const decipher = createDecipheriv('aes-256-gcm', key!, nonceOf(part, isLast))
        decipher.setAuthTag(tag)
        const done = Buffer.concat([decipher.update(text), decipher.final()])
        isEnded = isLast
        part++
        return done
      } catch {
        // As the other kind, then.
      }
    }
    throw new NotOpened()
  }
  const takeIn = async (stream: Transform, chunk: Buffer): Promise<void> => {
    waiting = Buffer.concat([waiting, chunk])
    if (!key) {
      if (waiting.length < MAGIC.length + SALT_OCTETS) return
      if (!waiting.subarray(0, MAGIC.length).equals(MAGIC)) throw new NotOpened()
      key = await keyOf(to, waiting.subarray(MAGIC.length, MAGIC.length + SALT_OCTETS))
      waiting = waiting.subarray(MAGIC.length + SALT_OCTETS)
    }
    while (waiting.length >= 4 + TAG_OCTETS) {
      const length = waiting.readUInt32BE(0)
      if (length > PART_OCTETS || isEnded) throw new NotOpened()
      const whole = 4 + TAG_OCTETS + length
      if (waiting.length < whole) return
      stream.push(opened(waiting.subarray(4 + TAG_OCTETS, whole), waiting.subarray(4, 4 + TAG_OCTETS)))
      waiting = waiting.subarray(whole)
    }
  }
  return new Transform({
    transform(chunk: Buffer, _: BufferEncoding, done: TransformCallback) {
      takeIn(this, chunk).then(() => done(), done)
    },
    flush(done: TransformCallback) {
      done(isEnded && waiting.length === 0 ? null : new NotOpened())
    }
  })
}
