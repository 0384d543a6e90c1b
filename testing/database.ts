import { randomBytes } from 'node:crypto'
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import { userInfo } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import { startMariaDb, type LocalDatabase } from '../scripts/mariadb'

const folder = join(import.meta.dirname, '../.data')
/** Where the MariaDB of one-mariadb.ts is told to the workers of the tests. */
export const ONE_MARIADB = 'TEST_MARIADB'

/** A database for a test, and a folder of its own to keep keys and files in. */
export interface TestDatabase {
  url: string
  folder: string
  drop: () => Promise<void>
}

/** A port of loopback that nobody uses just now. */
export async function freePort(): Promise<number> {
  const probe = createServer()
  await new Promise<void>((resolve) => probe.listen(0, '127.0.0.1', resolve))
  const { port } = probe.address() as AddressInfo
  await new Promise((resolve) => probe.close(resolve))
  return port
}

function ownFolder(): string {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  return mkdtempSync(join(folder, 'test-'))
}

/** A MariaDB with an empty directory of its own, for tests that stop it, end it or look into it. */
export async function ownMariaDb(isLogged = false): Promise<LocalDatabase & TestDatabase> {
  const own = ownFolder()
  const database = await startMariaDb(own, await freePort(), isLogged)
  return {
    ...database,
    folder: own,
    drop: async () => {
      await database.kill()
      rmSync(own, { recursive: true, force: true })
    }
  }
}

/** Another empty database, which our user may fill, on the MariaDB that runs in a folder. */
export async function databaseOn(mariadb: { url: string; folder: string }, name: string): Promise<string> {
  const admin = await adminOf(mariadb.folder)
  await admin.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`)
  await admin.query(`GRANT ALL ON ${name}.* TO 'pasado'@'127.0.0.1'`)
  await admin.end()
  return mariadb.url.replace(/\/pasado$/, `/${name}`)
}

/** An empty database, on the MariaDB that all tests of a run share where there is one: to start one takes longer than many a test. */
export async function emptyDatabase(): Promise<TestDatabase> {
  const told = process.env[ONE_MARIADB]
  if (told === undefined) return ownMariaDb()
  const mariadb = JSON.parse(told) as { url: string; folder: string }
  const name = `test_${randomBytes(8).toString('hex')}`
  const own = ownFolder()
  return {
    url: await databaseOn(mariadb, name),
    folder: own,
    drop: async () => {
      const admin = await adminOf(mariadb.folder)
      await admin.query(`DROP DATABASE ${name}`)
      await admin.end()
      rmSync(own, { recursive: true, force: true })
    }
  }
}

/** By its socket, as whoever made it: our own user may not make databases. */
const adminOf = (mariadb: string) =>
  mysql.createConnection({ socketPath: join(mariadb, 'm.sock'), user: userInfo().username })

/** Whoever may make users and databases on the MariaDB that a test's database is on. */
export function rootOf({ folder }: TestDatabase): Promise<mysql.Connection> {
  const told = process.env[ONE_MARIADB]
  return adminOf(told === undefined ? folder : (JSON.parse(told) as { folder: string }).folder)
}
