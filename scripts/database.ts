import { join } from 'node:path'
import { startMariaDb } from './mariadb'
import { whenStopped } from './stopped'

/** `npm run database`: the own MariaDB by itself, with no server on it, to take a backup from or to put one back into. */
const stopped = whenStopped()
const dataFolder = process.env.DATA_DIR ?? join(import.meta.dirname, '../.data')
const database = await startMariaDb(dataFolder, Number(process.env.DB_PORT ?? 4181))
console.log(
  `The database pasado is on 127.0.0.1:${database.port}, user pasado; its password is in ${join(dataFolder, 'db-password')}.${database.wasRunning ? ' A server is running on it.' : ' Ctrl-C stops it.'}`
)
if (!database.wasRunning) {
  await stopped
  await database.stop()
}
process.exit(0)
