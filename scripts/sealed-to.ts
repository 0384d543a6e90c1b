import { readFileSync, statSync } from 'node:fs'
import { masterKeyFrom } from '@pasado/server/vault/master-key'
import type { SealedTo } from '@pasado/server/backup/sealed-stream'

const LEAST_LETTERS = 12

/**
 * What a backup is sealed to: the passphrase in PASADO_PASSPHRASE, or a file with a key of 64 hexadecimal digits.
 * @throws Error naming what is missing
 */
export function sealedTo(keyFile: string | undefined): SealedTo {
  if (keyFile !== undefined) {
    if (statSync(keyFile).mode & 0o077) throw new Error(`${keyFile} can be read by others; run: chmod 600 ${keyFile}`)
    const text = readFileSync(keyFile, 'utf8').trim()
    if (!/^[0-9a-f]{64}$/.test(text)) throw new Error(`${keyFile} must hold 64 hexadecimal digits`)
    return { key: Buffer.from(text, 'hex') }
  }
  const passphrase = process.env.PASADO_PASSPHRASE ?? ''
  if ([...passphrase].length < LEAST_LETTERS)
    throw new Error(
      `set PASADO_PASSPHRASE to at least ${LEAST_LETTERS} characters that are kept somewhere else, or name a key file with --sealed-to`
    )
  return { passphrase }
}

/** The master key as it is set. @throws Error where it is not whole */
export const masterKeyOf = async (keyFile: string): Promise<Buffer> =>
  process.env.MASTER_KEY ? Buffer.from(process.env.MASTER_KEY, 'hex') : masterKeyFrom(keyFile)

/** Runs a command; what is wrong is told in a line, and its status is 2. */
export async function asCommand(work: () => Promise<number>): Promise<never> {
  try {
    process.exit(await work())
  } catch (error) {
    console.error((error as Error).message)
    process.exit(2)
  }
}
