import { copyFileSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import mysql from 'mysql2/promise'

const folder = join(import.meta.dirname, 'before-outbox')

/** Fills an empty database with one that an earlier version made, and puts its key file down. */
export async function restoreDatabaseOfBefore(url: string, keyFile: string): Promise<void> {
  const connection = await mysql.createConnection({ uri: url, timezone: 'Z', charset: 'utf8mb4' })
  for (const line of gunzipSync(readFileSync(join(folder, 'database.sql.gz')))
    .toString('utf8')
    .split('\n'))
    if (line) await connection.query(line)
  await connection.end()
  copyFileSync(join(folder, 'database-key'), keyFile)
}
