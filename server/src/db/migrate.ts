import { createHash } from 'node:crypto'
import { readFile, readdir } from 'node:fs/promises'
import { join } from 'node:path'
import type { Connection, RowDataPacket } from 'mysql2/promise'
import { underLease, type StillHeld } from './lease'

const FOLDER = join(import.meta.dirname, 'migrations')
/** The lease that whoever sets up the database holds. */
const MIGRATIONS = 'migrations'

/** A migration: its number, its statements, the oldest program that can run beside it, and whether projections are to be made anew after it. */
interface Migration {
  name: string
  number: number
  statements: string[]
  oldest: number
  rebuild: boolean
}

/** What came of migrating. */
export interface Migrated {
  /** The names of the migrations that ran now. */
  ran: string[]
  /** Whether projections have to be made anew before anybody relies on them. */
  rebuild: boolean
}

/**
 * Runs every migration that has not run yet, in the order of their numbers, under a lease that other server processes respect.
 * Each statement is noted when it has run, so that one that was interrupted goes on where it stood.
 * @param onWait told where another process is at it
 * @throws Error where the database is of a later program that this one cannot run beside, or a statement that ran was another one
 */
export async function migrate(url: string, onWait?: () => void): Promise<Migrated> {
  return underLease(url, { name: MIGRATIONS, ...(onWait && { onWait }) }, async (connection, stillHeld) => {
    await connection.query(
      'CREATE TABLE IF NOT EXISTS migrations (name VARCHAR(100) NOT NULL PRIMARY KEY, ran_at DATETIME(3) NOT NULL) ENGINE=InnoDB'
    )
    await connection.query(
      'ALTER TABLE migrations ADD COLUMN IF NOT EXISTS oldest SMALLINT UNSIGNED NOT NULL DEFAULT 0, ADD COLUMN IF NOT EXISTS rebuild_due BOOLEAN NOT NULL DEFAULT FALSE'
    )
    await connection.query(
      'CREATE TABLE IF NOT EXISTS migration_statements (name VARCHAR(100) NOT NULL, number SMALLINT UNSIGNED NOT NULL, checksum CHAR(64) CHARACTER SET ascii NOT NULL, ran_at DATETIME(3) NOT NULL, PRIMARY KEY (name, number)) ENGINE=InnoDB'
    )
    const [done] = await connection.query<RowDataPacket[]>('SELECT name, oldest, rebuild_due FROM migrations')
    const all = await allMigrations()
    mustBeNewEnough(
      all.at(-1)!.number,
      done.map((row) => Number(row.oldest))
    )
    const known = new Set(done.map((row) => String(row.name)))
    const fresh = known.size === 0
    const ran = all.filter(({ name }) => !known.has(name))
    for (const migration of ran) {
      await carryOut(connection, migration, stillHeld)
      // A database that begins now has nothing to make anew.
      await connection.query('INSERT INTO migrations (name, ran_at, oldest, rebuild_due) VALUES (?, ?, ?, ?)', [
        migration.name,
        new Date(),
        migration.oldest,
        migration.rebuild && !fresh
      ])
    }
    return {
      ran: ran.map(({ name }) => name),
      rebuild: done.some((row) => Boolean(row.rebuild_due)) || (!fresh && ran.some(({ rebuild }) => rebuild))
    }
  })
}

/** Notes that projections were made anew after the migrations that wanted it. */
export async function noteRebuilt(url: string): Promise<void> {
  await underLease(url, { name: MIGRATIONS }, async (connection) => {
    await connection.query('UPDATE migrations SET rebuild_due = FALSE')
  })
}

/** Whether every migration of this program has run, none of them by halves. */
export async function isMigrated(db: { query: (sql: string) => Promise<[unknown, unknown]> }): Promise<boolean> {
  const [done] = await db.query('SELECT name FROM migrations')
  const known = new Set((done as { name: string }[]).map(({ name }) => name))
  return (await allMigrations()).every(({ name }) => known.has(name))
}

let read: Promise<Migration[]> | null = null
function allMigrations(): Promise<Migration[]> {
  return (read ??= (async () => {
    const names = (await readdir(FOLDER)).filter((name) => /^\d{3}_.*\.sql$/.test(name)).sort()
    return Promise.all(
      names.map(async (name): Promise<Migration> => {
        const text = await readFile(join(FOLDER, name), 'utf8')
        const number = Number(name.slice(0, 3))
        return {
          name,
          number,
          statements: statementsOf(text),
          oldest: Number(/^-- oldest program: (\d+)$/m.exec(text)?.[1] ?? 0),
          rebuild: /^-- rebuild$/m.test(text)
        }
      })
    )
  })())
}

/** The statements of a migration: each ends with a semicolon at the end of its line; lines that are remarks are left out. */
export function statementsOf(text: string): string[] {
  return text
    .split('\n')
    .filter((line) => !/^\s*--/.test(line))
    .join('\n')
    .split(/;[ \t]*(?:\n|$)/)
    .map((statement) => statement.trim())
    .filter(Boolean)
}

function mustBeNewEnough(newest: number, oldest: readonly number[]): void {
  const wanted = Math.max(0, ...oldest)
  if (newest < wanted)
    throw new Error(
      `this database has been set up by a later Pasado, beside which this one (with ${newest} migrations) cannot run; it needs one that knows migration ${wanted}. Start the later version.`
    )
}

/** What the database says where a statement that was interrupted had been carried out all the same. */
const alreadyThere = new Set([
  'ER_TABLE_EXISTS_ERROR',
  'ER_DUP_FIELDNAME',
  'ER_DUP_KEYNAME',
  'ER_CANT_DROP_FIELD_OR_KEY',
  'ER_DUP_ENTRY'
])

async function carryOut(connection: Connection, { name, statements }: Migration, stillHeld: StillHeld): Promise<void> {
  const [noted] = await connection.query<RowDataPacket[]>(
    'SELECT number, checksum FROM migration_statements WHERE name = ?',
    [name]
  )
  const known = new Map(noted.map((row) => [Number(row.number), String(row.checksum)]))
  for (const [at, statement] of statements.entries()) {
    const checksum = createHash('sha256').update(statement).digest('hex')
    const before = known.get(at + 1)
    if (before === checksum) continue
    stillHeld()
    if (before !== undefined)
      throw new Error(
        `${name}: statement ${at + 1} ran as another one than it is now; go on with the version of Pasado that began this migration`
      )
    try {
      // What changes rows goes together with its note; what changes tables ends a transaction by itself.
      await connection.query('START TRANSACTION')
      await connection.query(statement)
    } catch (error) {
      const { code = '', message } = error as { code?: string; message: string }
      if (code === 'ER_LOCK_WAIT_TIMEOUT')
        throw new Error(`${name}: a table is in use by another program, a dump for one; try again when it has ended`, {
          cause: error
        })
      if (!alreadyThere.has(code)) throw new Error(`${name}: statement ${at + 1} failed: ${message}`, { cause: error })
    }
    await connection.query(
      `
        INSERT INTO migration_statements (name, number, checksum, ran_at)
        VALUES (?, ?, ?, ?)
      `,
      [name, at + 1, checksum, new Date()]
    )
    await connection.query('COMMIT')
  }
}
