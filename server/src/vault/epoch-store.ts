import { createHash, hkdfSync, randomBytes } from 'node:crypto'
import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  statSync,
  writeSync
} from 'node:fs'
import { dirname } from 'node:path'
import { z } from 'zod'
import { openValue, sealValue } from './envelope'

/** Where Debian says which machine this is. */
const MACHINE = '/etc/machine-id'

const form = z.strictObject({
  format: z.literal('pasado.epoch-keys/1'),
  /** Which file it is: one that was brought over has another. */
  id: z.string().regex(/^[0-9a-f]{16}$/),
  keys: z.array(z.string().regex(/^[0-9a-f]{64}$/))
})

/** Said where a data key is wrapped by the key of an epoch that this machine does not have. */
export class EpochMissing extends Error {
  constructor(file: string, name: string) {
    super(
      `the file of epoch keys ${file} lacks the key ${name}: take it over from another node (pasado keys send | ssh … pasado keys take), or put the newest copy of the keys there`
    )
  }
}

/** An epoch's key by its name: it tells which key it is, and nothing of the key. */
export const epochName = (key: Buffer): string =>
  createHash('sha256').update('pasado epoch name 1').update(key).digest('hex').slice(0, 16)

/**
 * The keys of the epochs, in a file of their own beside the master key's: data keys are wrapped by both together. What is taken out of the file
 * is gone, and with it all that only it opened. The file is small and changes once in days; it is read when it changed.
 */
export class EpochStore {
  #keys = new Map<string, Buffer>()
  #readAt = ''
  #id: string | null = null

  /** @param wrap the company's wrapping key, from the master key */
  constructor(
    readonly file: string,
    private readonly wrap: Buffer
  ) {}

  /**
   * What wraps data keys in an epoch; null is of before there were epochs.
   * @throws EpochMissing where its key is not on this machine
   */
  wrapping(epoch: string | null): Buffer {
    if (epoch === null) return this.wrap
    const key = this.#keys.get(epoch) ?? this.#read().get(epoch)
    if (!key) throw new EpochMissing(this.file, epoch)
    return Buffer.from(hkdfSync('sha256', key, this.wrap, 'pasado epoch wrap 1', 32))
  }

  /** Which file on which machine this is, for the others that may hold one. */
  holder(): string {
    this.#read()
    if (this.#id === null) this.#write([])
    const machine = existsSync(MACHINE) ? readFileSync(MACHINE, 'utf8').trim() : ''
    return createHash('sha256').update(`${this.#id!} ${machine}`).digest('hex').slice(0, 16)
  }

  /** The names of the epochs whose keys are here, as the file has them now. */
  names(): string[] {
    return [...this.#read().keys()]
  }

  /** Makes the key of a new epoch; on the disk before anything is wrapped by it. @returns its name */
  add(): string {
    const key = randomBytes(32)
    this.#write([...this.#read().values(), key])
    return epochName(key)
  }

  /** Destroys keys: what they wrapped cannot be opened again from this machine. */
  destroy(names: readonly string[]): void {
    const held = this.#read()
    const kept = [...held].filter(([name]) => !names.includes(name)).map(([, key]) => key)
    if (kept.length < held.size) this.#write(kept)
  }

  /** All keys in one text that only a server of this company opens: for another node, or for a copy. */
  send(): string {
    const text = JSON.stringify([...this.#read().values()].map((key) => key.toString('hex')))
    return sealValue(this.#carrying(), Buffer.from(text), 'epoch keys').toString('base64')
  }

  /**
   * Takes over keys that another node or a copy has.
   * @returns how many were not here yet
   * @throws Error where the text is of another company or not whole
   */
  take(text: string): number {
    let sent: Buffer[]
    try {
      const opened = openValue(this.#carrying(), Buffer.from(text.trim(), 'base64'), 'epoch keys').toString('utf8')
      sent = (JSON.parse(opened) as string[]).map((hex) => Buffer.from(hex, 'hex'))
    } catch {
      throw new Error('These epoch keys are of another company, or not whole. Nothing was taken over.')
    }
    const held = this.#read()
    const fresh = sent.filter((key) => !held.has(epochName(key)))
    if (fresh.length > 0) this.#write([...held.values(), ...fresh])
    return fresh.length
  }

  #carrying(): Buffer {
    return Buffer.from(hkdfSync('sha256', this.wrap, Buffer.alloc(0), 'pasado epochs carried 1', 32))
  }

  #read(): Map<string, Buffer> {
    if (!existsSync(this.file)) {
      this.#keys = new Map()
      return this.#keys
    }
    const { mode, mtimeMs, ino, size } = statSync(this.file)
    if (mode & 0o077)
      throw new Error(`the file of epoch keys ${this.file} can be read by others; run: chmod 600 ${this.file}`)
    const at = `${ino} ${mtimeMs} ${size}`
    if (at === this.#readAt) return this.#keys
    // One that is read while another takes its place may be written over by then: the new one stands there a moment later.
    const reading = () => form.safeParse(parsed(readFileSync(this.file, 'utf8')))
    const first = reading()
    const read = first.success ? first : reading()
    if (!read.success)
      throw new Error(`the file of epoch keys ${this.file} is not whole; put the newest copy of it there`)
    this.#id = read.data.id
    this.#keys = new Map(
      read.data.keys.map((hex) => {
        const key = Buffer.from(hex, 'hex')
        return [epochName(key), key]
      })
    )
    this.#readAt = at
    return this.#keys
  }

  /** Puts another file in place of this one, whole or not at all, and writes over what stood in it. */
  #write(keys: readonly Buffer[]): void {
    mkdirSync(dirname(this.file), { recursive: true, mode: 0o700 })
    const id = this.#id ?? randomBytes(8).toString('hex')
    const text = JSON.stringify({ format: 'pasado.epoch-keys/1', id, keys: keys.map((key) => key.toString('hex')) })
    const beside = `${this.file}.${randomBytes(6).toString('hex')}`
    writeWhole(beside, 'wx', `${text}\n`)
    const before = existsSync(this.file) ? openSync(this.file, 'r+') : null
    renameSync(beside, this.file)
    const folder = openSync(dirname(this.file), 'r')
    fsyncSync(folder)
    closeSync(folder)
    if (before !== null) {
      const { size } = statSync(this.file)
      writeSync(before, Buffer.alloc(Math.max(size, 4096)), 0, null, 0)
      fsyncSync(before)
      closeSync(before)
    }
    this.#readAt = ''
    this.#read()
  }
}

function writeWhole(file: string, flag: 'wx', text: string): void {
  const handle = openSync(file, flag, 0o600)
  writeSync(handle, text)
  fsyncSync(handle)
  closeSync(handle)
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
