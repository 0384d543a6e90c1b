import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import { join } from 'node:path'
import { startMariaDb, type LocalDatabase } from '../scripts/mariadb'

const folder = join(import.meta.dirname, '../.data')

/** A port of loopback that nobody uses just now. */
export async function freePort(): Promise<number> {
  const probe = createServer()
  await new Promise<void>((resolve) => probe.listen(0, '127.0.0.1', resolve))
  const { port } = probe.address() as AddressInfo
  await new Promise((resolve) => probe.close(resolve))
  return port
}

/** A MariaDB with an empty directory of its own. */
export async function emptyDatabase(): Promise<LocalDatabase & { folder: string; drop: () => Promise<void> }> {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const own = mkdtempSync(join(folder, 'test-'))
  const database = await startMariaDb(own, await freePort())
  return {
    ...database,
    folder: own,
    drop: async () => {
      await database.kill()
      rmSync(own, { recursive: true, force: true })
    }
  }
}
