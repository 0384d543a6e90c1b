import { readFile, readdir } from 'node:fs/promises'
import { join } from 'node:path'
import mysql, { type RowDataPacket } from 'mysql2/promise'

const FOLDER = join(import.meta.dirname, 'migrations')
const LOCK = 'pasado-migrations'

/**
 * Runs every migration that has not run yet, in the order of their numbers, under a lock that other server processes respect.
 * @returns the names of those that ran now
 */
export async function migrate(url: string): Promise<string[]> {
  const connection = await mysql.createConnection({ uri: url, multipleStatements: true, timezone: 'Z', charset: 'utf8mb4' })
  try {
    const [locked] = await connection.query<RowDataPacket[]>('SELECT GET_LOCK(?, 60) AS got', [LOCK])
    if (locked[0]!.got !== 1) throw new Error('another process has been migrating the database for a minute; try again')
    await connection.query('CREATE TABLE IF NOT EXISTS migrations (name VARCHAR(100) NOT NULL PRIMARY KEY, ran_at DATETIME(3) NOT NULL) ENGINE=InnoDB')
    const [done] = await connection.query<RowDataPacket[]>('SELECT name FROM migrations')
    const known = new Set(done.map((one) => String(one.name)))
    const names = (await readdir(FOLDER)).filter((name) => /^\d{3}_.*\.sql$/.test(name) && !known.has(name)).sort()
    for (const name of names) {
      await connection.query(await readFile(join(FOLDER, name), 'utf8'))
      await connection.query('INSERT INTO migrations (name, ran_at) VALUES (?, ?)', [name, new Date()])
    }
    await connection.query('SELECT RELEASE_LOCK(?)', [LOCK])
    return names
  } finally {
    await connection.end()
  }
}
