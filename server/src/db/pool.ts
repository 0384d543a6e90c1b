import mysql, { type Pool, type PoolConnection, type ResultSetHeader, type RowDataPacket } from 'mysql2/promise'

export type Db = Pool
export type Connection = PoolConnection | Pool

/** Opens a pool of connections: UTC, strict mode, utf8mb4, dates as Date. */
export function openPool(url: string, connections = 10): Db {
  const pool = mysql.createPool({
    uri: url, connectionLimit: connections, timezone: 'Z', charset: 'utf8mb4', supportBigNumbers: true, enableKeepAlive: true,
    connectTimeout: 5_000,
    // A transaction begins with its lock and ends with its last writes in one trip each; all values go in as placeholders.
    multipleStatements: true
  })
  pool.on('connection', (connection) => {
    connection.query("SET SESSION sql_mode = 'STRICT_ALL_TABLES,NO_ENGINE_SUBSTITUTION,ERROR_FOR_DIVISION_BY_ZERO', time_zone = '+00:00', tx_isolation = 'READ-COMMITTED'")
  })
  return pool
}

/** A parameter of a statement. */
export type Param = string | number | Date | Buffer | null

/** Runs a query with placeholders and gives its rows. */
export async function rows<T>(db: Connection, sql: string, params: Param[] = []): Promise<T[]> {
  const [result] = await db.execute<RowDataPacket[]>(sql, params)
  return result as T[]
}

/** Runs a query with placeholders and gives its first row, or null. */
export async function row<T>(db: Connection, sql: string, params: Param[] = []): Promise<T | null> {
  return (await rows<T>(db, sql, params))[0] ?? null
}

/** Runs a statement with placeholders and gives how many rows it touched. */
export async function run(db: Connection, sql: string, params: Param[] = []): Promise<number> {
  const [result] = await db.execute<ResultSetHeader>(sql, params)
  return result.affectedRows
}

const RETRIED = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD'])
const MOST_TRIES = 5

/** A statement with its values. */
export interface Statement {
  sql: string
  params: unknown[]
}

/**
 * Does work in one transaction that begins with a locking query and may end with statements kept for last, which go to
 * the server together with the commit. Retried on deadlock.
 * @param lock the query that locks, or null
 * @param work is given the rows of the lock and a way to keep statements for last
 */
export async function transactionOn<R, T>(db: Db, lock: Statement | null, work: (connection: PoolConnection, locked: R[], last: (statement: Statement) => void) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    const connection = await db.getConnection()
    try {
      const kept: Statement[] = []
      const [began] = await connection.query<RowDataPacket[][]>(`START TRANSACTION${lock ? `; ${lock.sql}` : ''}`, lock?.params ?? [])
      const result = await work(connection, (lock ? (began[1] as unknown as R[]) : []), (statement) => kept.push(statement))
      await connection.query([...kept.map(({ sql }) => sql), 'COMMIT'].join('; '), kept.flatMap(({ params }) => params))
      return result
    } catch (error) {
      await connection.rollback().catch(() => undefined)
      const code = (error as { code?: string }).code ?? ''
      if (!RETRIED.has(code) || attempt >= MOST_TRIES) throw error
    } finally {
      connection.release()
    }
    await new Promise((resolve) => setTimeout(resolve, 20 * attempt * (0.5 + Math.random())))
  }
}

/** True where the error means that the database cannot be reached, rather than that it refused something. */
export function isAway(error: unknown): boolean {
  const code = (error as { code?: string } | null)?.code ?? ''
  return ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOENT', 'PROTOCOL_CONNECTION_LOST', 'ER_SERVER_SHUTDOWN', 'ER_CONNECTION_KILLED', 'ER_CON_COUNT_ERROR'].includes(code) ||
    /Can't add new command when connection is in closed state/.test(String((error as Error | null)?.message))
}
