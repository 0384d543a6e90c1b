import mysql, { type RowDataPacket } from 'mysql2/promise'
import { databaseAddress } from './hosts'
import { underLease } from './lease'
import { connectionTo } from './pool'

/** Tables of which a line that was written stays as it is: the logbook, and what was signed of it after a seal. */
const onlyAdded = new Set(['entries', 'later_heads'])
/** What only setting up the database writes, and who archives. */
const onlyRead = new Set([
  'migrations',
  'migration_statements',
  'leases',
  'archives',
  'archived_visits',
  'archived_files'
])

/**
 * Gives the user that servers run as what they need of each table, and no more: nothing that is in the logbook can be changed or taken out
 * by it. Done after each migration, as a new table is nobody's yet.
 * @param url of the user who sets up the database, who may grant
 * @param running the address that servers use
 */
export async function grantRunning(url: string, running: string): Promise<void> {
  const { database } = databaseAddress.parse(running)
  const { account, has } = await rightsOf(running)
  await underLease(url, { name: 'migrations' }, async (connection) => {
    const [tables] = await connection.query<RowDataPacket[]>(
      "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = ? AND table_type = 'BASE TABLE'",
      [database]
    )
    for (const { name } of tables as { name: string }[]) {
      const rights = onlyRead.has(name) ? 'SELECT' : `SELECT, INSERT${onlyAdded.has(name) ? '' : ', UPDATE, DELETE'}`
      // On a cluster each grant keeps all nodes waiting: what was granted is not granted again.
      if (has.get(name) !== rights) await connection.query(`GRANT ${rights} ON ??.?? TO ${account}`, [database, name])
    }
  })
}

/**
 * The account that an address logs in to, as it stands in a GRANT, and what it may do by table.
 * @throws Error where it may do more than its tables allow
 */
async function rightsOf(running: string): Promise<{ account: string; has: ReadonlyMap<string, string> }> {
  // Before it is given anything it may not use the database.
  const connection = await mysql.createConnection({ ...connectionTo(running), database: undefined })
  try {
    const [[me]] = await connection.query<(RowDataPacket & { account: string })[]>('SELECT CURRENT_USER() AS account')
    const [grants] = await connection.query<RowDataPacket[]>('SHOW GRANTS')
    const wide = grants
      .map((grant) => /^GRANT (.+) ON \S+\.\* TO /.exec(String(Object.values(grant)[0]))?.[1] ?? 'USAGE')
      .filter((rights) => rights !== 'USAGE')
    if (wide.length > 0)
      throw new Error(
        `DATABASE_URL: its user may do more than it needs (${wide.join(', ')}); take that back, or leave MIGRATE_URL out`
      )
    const account = me!.account
      .split('@')
      .map((part) => connection.escape(part))
      .join('@')
    const has = grants.flatMap((grant): [string, string][] => {
      const [, rights, table] = /^GRANT (.+) ON `[^`]+`\.`([^`]+)` TO /.exec(String(Object.values(grant)[0])) ?? []
      return rights && table ? [[table, rights]] : []
    })
    return { account, has: new Map(has) }
  } finally {
    await connection.end()
  }
}
