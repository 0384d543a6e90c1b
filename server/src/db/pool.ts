import mysql, { type Pool, type PoolConnection, type ResultSetHeader, type RowDataPacket } from 'mysql2/promise'

export type Db = Pool
export type Connection = PoolConnection | Pool

/** Opens a pool of connections: UTC, strict mode, utf8mb4, dates as Date. */
export function openPool(url: string, connections = 10): Db {
  const pool = mysql.createPool({
    uri: url, connectionLimit: connections, timezone: 'Z', charset: 'utf8mb4', supportBigNumbers: true, enableKeepAlive: true,
    connectTimeout: 5_000
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

/** Inserts many rows with one statement; nothing for none. `into` is the part before VALUES. */
export async function insertMany(db: Connection, into: string, values: Param[][]): Promise<void> {
  if (values.length === 0) return
  await db.query(`${into} VALUES ?`, [values])
}

const RETRIED = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD'])
const MOST_TRIES = 5

/** Does work in one transaction: all of it or nothing. Retried on deadlock. */
export async function transaction<T>(db: Db, work: (connection: PoolConnection) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    const connection = await db.getConnection()
    try {
      await connection.beginTransaction()
      const result = await work(connection)
      await connection.commit()
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
