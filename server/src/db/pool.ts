import type { Socket } from 'node:net'
import type { Connection as CallbackConnection, Pool as CallbackPool } from 'mysql2'
import { databaseAddress, hostsOf, leaveHostOf, type Hosts } from './hosts'
import mysql, { type Pool, type PoolConnection, type ResultSetHeader, type RowDataPacket } from 'mysql2/promise'

export type Db = Pool
export type Connection = PoolConnection | Pool

/** A lock that somebody holds is waited for so long; then the work begins anew. */
const LOCK_WAIT_S = 3
/** A statement that takes longer is ended by the database. */
const STATEMENT_S = 20
/** A database that has not answered for so long is given up, ms: it may stand still. What it was told may have been done. */
const ANSWER_MS = 22_000
/** So long a connection is waited for, ms: then it is said that nothing is taken just now. */
const CONNECTION_MS = 5_000

/** What every connection is set to: strict, and what is committed is seen at once. */
const SESSION = `sql_mode = 'STRICT_ALL_TABLES,NO_ENGINE_SUBSTITUTION,ERROR_FOR_DIVISION_BY_ZERO', time_zone = '+00:00', tx_isolation = 'READ-COMMITTED', innodb_lock_wait_timeout = ${LOCK_WAIT_S}, max_statement_time = ${STATEMENT_S}`

const writers = new WeakMap<Db, Db>()

/** Connections to a database that is in no cluster. */
const standAlone = new WeakSet<CallbackConnection>()
/** A text of statements is no longer than this, in characters: what is longer goes one statement at a time. */
const MOST_AT_ONCE = 1_000_000
/** The number of the error that a block ends with where a statement of it did not find its rows. */
const NOT_TOUCHED = 31_001

/** The connections of a pool that transactions are made on: on each of them a transaction begins with its first statement. */
export const writersOf = (db: Db): Db => writers.get(db)!

/** Opens a pool of connections: UTC, strict mode, utf8mb4, dates as Date. It has others for transactions, which end with it. */
export function openPool(url: string, connections = 10, waitMs = CONNECTION_MS): Db {
  const pool = poolOf(url, connections, waitMs, SESSION)
  const forWriting = poolOf(url, connections, waitMs, `${SESSION}, autocommit = 0`)
  writers.set(pool, forWriting)
  const end = pool.end.bind(pool)
  pool.end = async () => {
    await Promise.all([end(), forWriting.end()])
  }
  return pool
}

/** What a connection to a database is opened with, at whichever of its hosts is used now. */
export function connectionTo(url: string) {
  const { user, password, database } = databaseAddress.parse(url)
  const hosts = hostsOf(url)
  return { user, password, database, stream: () => hosts.connect(), timezone: 'Z', charset: 'utf8mb4' } as const
}

function poolOf(url: string, connections: number, waitMs: number, session: string): Db {
  const pool = mysql.createPool({
    ...connectionTo(url),
    connectionLimit: connections,
    supportBigNumbers: true,
    connectTimeout: waitMs * 0.6,
    // One statement at a time: where several go in one text, the end of a transaction between two of them goes unnoticed.
    multipleStatements: false,
    // Where a statement was asked for is found by its text; noting it costs more than many a statement.
    trace: false
  })
  pool.on('connection', (connection) => {
    const raw = connection as unknown as CallbackConnection
    // On one that cannot be set as it is meant nothing is written: the next statement on it says so.
    void raw.query(`SET SESSION ${session}`, (error) => {
      if (error) connection.destroy()
    })
    void raw.query<RowDataPacket[]>('SELECT @@wsrep_on AS clustered', (error, found) => {
      if (!error && found[0]?.clustered === 0) standAlone.add(raw)
    })
  })
  waitNotForEver((pool as unknown as { pool: CallbackPool }).pool, hostsOf(url), waitMs)
  return pool
}

type OnConnection = (error: NodeJS.ErrnoException | null, connection: RawConnection) => void
type RawConnection = CallbackConnection & { release: () => void; stream?: Socket }

/** Has whoever waits for a connection wait for a while only, and go on to the next host where this one cannot be reached or was left. */
function waitNotForEver(pool: CallbackPool, hosts: Hosts, waitMs: number): void {
  const get = pool.getConnection.bind(pool) as (done: OnConnection) => void
  const askedFor = (done: OnConnection) => {
    let isOver = false
    const timer = setTimeout(() => {
      isOver = true
      done(Object.assign(new Error('no connection was free in time'), { code: 'PASADO_NO_CONNECTION' }), null as never)
    }, waitMs)
    get((error, connection) => {
      clearTimeout(timer)
      if (!isOver) done(error, connection)
      else if (!error) connection.release()
    })
  }
  const tryHosts = (done: OnConnection, left: number) => {
    const { at } = hosts
    askedFor((error, connection) => {
      if (hosts.count === 1) done(error, connection)
      else if (error && isAway(error) && left > 0) {
        hosts.leave(at)
        tryHosts(done, left - 1)
      } else if (!error && !hosts.isCurrent(connection.stream)) {
        connection.destroy()
        tryHosts(done, left)
      } else done(error, connection)
    })
  }
  pool.getConnection = ((done: OnConnection) => tryHosts(done, hosts.count)) as typeof pool.getConnection
}

/** A parameter of a statement. */
export type Param = string | number | Date | Buffer | null

/** Said by a node that is no part of the cluster any more, and of one that does not answer. */
const noHost = new Set(['ER_UNKNOWN_COM_ERROR', 'PASADO_NO_ANSWER'])

const rawOf = (connection: PoolConnection) =>
  (connection as unknown as { connection: CallbackConnection & { stream?: Socket } }).connection

const socketOf = (connection: PoolConnection) => rawOf(connection).stream

/** Asks something on one connection, and gives the connection up where nothing is answered in time. */
async function inTime<T>(connection: PoolConnection, answer: Promise<T>): Promise<T> {
  let timer: NodeJS.Timeout | undefined
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => {
      connection.destroy()
      reject(Object.assign(new Error('the database did not answer in time'), { code: 'PASADO_NO_ANSWER' }))
    }, ANSWER_MS).unref()
  })
  try {
    return await Promise.race([answer, late])
  } catch (error) {
    if (noHost.has((error as { code?: string }).code ?? '')) leaveHostOf(socketOf(connection))
    throw error
  } finally {
    clearTimeout(timer)
  }
}

async function execute<R extends RowDataPacket[] | ResultSetHeader>(
  db: Connection,
  sql: string,
  params: Param[]
): Promise<R> {
  const isPool = 'getConnection' in db
  const connection = isPool ? await db.getConnection() : db
  try {
    return (await inTime(connection, connection.execute<R>(sql, params)))[0]
  } finally {
    if (isPool) connection.release()
  }
}

/** Runs a query with placeholders and gives its rows. */
export async function rows<T>(db: Connection, sql: string, params: Param[] = []): Promise<T[]> {
  return (await execute<RowDataPacket[]>(db, sql, params)) as T[]
}

/** Runs a query with placeholders and gives its first row, or null. */
export async function row<T>(db: Connection, sql: string, params: Param[] = []): Promise<T | null> {
  return (await rows<T>(db, sql, params))[0] ?? null
}

/** Runs a statement with placeholders and gives how many rows it touched. */
export async function run(db: Connection, sql: string, params: Param[] = []): Promise<number> {
  return (await execute<ResultSetHeader>(db, sql, params)).affectedRows
}

/** Nothing of the transaction was taken: two were in each other's way, or a node has lost the others. */
const RETRIED = new Set([
  'ER_LOCK_DEADLOCK',
  'ER_LOCK_WAIT_TIMEOUT',
  'ER_CHECKREAD',
  'ER_UNKNOWN_COM_ERROR',
  'PASADO_NOT_TOUCHED'
])
const MOST_TRIES = 8
/** The pause before another try doubles from this, ms, to a second. */
const FIRST_PAUSE_MS = 15
/** After this long no further try is made: whoever waits is told to come again. */
const MOST_MS = 25_000

let retries = 0

/** How many transactions of this process were begun anew. */
export const retriesSoFar = (): number => retries

const pauseMs = (attempt: number) => Math.min(1_000, FIRST_PAUSE_MS * 2 ** attempt) * (0.5 + Math.random())

/** A statement with its values. */
export interface Statement {
  sql: string
  params: unknown[]
  /** How many rows it has to find; another number means that somebody else was there first, and the work begins anew. */
  touches?: number
}

/** Said where a statement did not find the rows that the transaction holds to be there. */
class NotTouched extends Error {
  readonly code = 'PASADO_NOT_TOUCHED'
}

/**
 * Does work in one transaction that begins with a locking query and may end with statements kept for last. Begun anew on a
 * deadlock or a lock that is waited for in vain: `work` is then called again, so that **all it changes it makes itself**;
 * what it changed outside by an attempt that was rolled back would be taken for done.
 * In a cluster every statement goes by itself, the commit too: only so the database tells of each that the transaction still stands.
 * @param lock the query that locks, or null
 * @param work is given the rows of the lock and a way to keep statements for last
 * @param hoped what the lock would find, where that is known well enough to try once without it: a statement kept for last has to make
 *   sure of it. Whatever goes wrong then is tried again with the lock.
 */
export async function transactionOn<R, T>(
  db: Db,
  lock: Statement | null,
  work: (connection: PoolConnection, locked: R[], last: (statement: Statement) => void) => Promise<T>,
  hoped: R[] | null = null
): Promise<T> {
  if (hoped) {
    const done = await once(db, null, (connection, _, last) => work(connection, hoped, last)).catch(() => null)
    if (done) return done.result
  }
  const began = Date.now()
  for (let attempt = 1; ; attempt++) {
    try {
      return (await once(db, lock, work)).result
    } catch (error) {
      const code = (error as { code?: string }).code ?? ''
      if (!RETRIED.has(code) || attempt >= MOST_TRIES || Date.now() - began > MOST_MS) throw error
    }
    retries++
    await new Promise((resolve) => setTimeout(resolve, pauseMs(attempt)))
  }
}

async function once<R, T>(
  db: Db,
  lock: Statement | null,
  work: (connection: PoolConnection, locked: R[], last: (statement: Statement) => void) => Promise<T>
): Promise<{ result: T }> {
  const connection = await writersOf(db).getConnection()
  try {
    const kept: Statement[] = []
    const locked = lock ? (await inTime(connection, connection.query<RowDataPacket[]>(lock.sql, lock.params)))[0] : []
    const result = await work(connection, locked as R[], (statement) => kept.push(statement))
    await endWith(connection, kept)
    return { result }
  } catch (error) {
    await inTime(connection, connection.rollback()).catch(() => undefined)
    throw error
  } finally {
    connection.release()
  }
}

/**
 * Carries out what was kept for last, and commits. A database by itself is told all of it at once; where it is one of a cluster each goes by
 * itself, as another node may undo the transaction between two of them, and says so only with the next.
 */
async function endWith(connection: PoolConnection, kept: readonly Statement[]): Promise<void> {
  const text = kept.length > 0 && standAlone.has(rawOf(connection)) ? inOneBlock(connection, kept) : null
  if (text !== null && text.length < MOST_AT_ONCE) {
    await inTime(connection, connection.query(text)).catch((error: unknown) => {
      throw (error as { errno?: number }).errno === NOT_TOUCHED
        ? new NotTouched('not as many rows were found as there were')
        : error
    })
    return
  }
  for (const statement of kept) await carryOut(connection, statement)
  await inTime(connection, connection.query('COMMIT'))
}

/** Statements and the commit as one, which stops where one of them fails or does not find its rows. */
function inOneBlock(connection: PoolConnection, statements: readonly Statement[]): string {
  const sure = (touches: number | undefined) =>
    touches === undefined
      ? ''
      : `IF ROW_COUNT() <> ${touches} THEN SIGNAL SQLSTATE '45000' SET MYSQL_ERRNO = ${NOT_TOUCHED}; END IF;`
  const each = statements.map(({ sql, params, touches }) => `${connection.format(sql, params)};${sure(touches)}`)
  return `BEGIN NOT ATOMIC ${each.join('\n')} COMMIT; END`
}

async function carryOut(connection: PoolConnection, { sql, params, touches }: Statement): Promise<void> {
  const [{ affectedRows }] = await inTime(connection, connection.query<ResultSetHeader>(sql, params))
  if (touches !== undefined && affectedRows !== touches)
    throw new NotTouched(`${affectedRows} rows were found, not ${touches}`)
}

/** What the database answers where it takes nothing for the moment: no quorum, too many locks, no room on its disk. */
const inTrouble = new Set([
  ...RETRIED,
  // A cluster that lost its quorum just then: whether it was taken is found by its id when it is sent again.
  'ER_ERROR_DURING_COMMIT',
  'ER_RECORD_FILE_FULL',
  'ER_DISK_FULL',
  'ER_GET_ERRNO',
  'ER_STATEMENT_TIMEOUT',
  'PASADO_NO_CONNECTION'
])

/** True where the error means that the database takes nothing just now, and the same may go through later. */
export function isInTrouble(error: unknown): boolean {
  return inTrouble.has((error as { code?: string } | null)?.code ?? '')
}

/** True where the error means that the database cannot be reached, rather than that it refused something. */
export function isAway(error: unknown): boolean {
  const code = (error as { code?: string } | null)?.code ?? ''
  return (
    [
      'ECONNREFUSED',
      'ECONNRESET',
      'EPIPE',
      'ETIMEDOUT',
      'ENOENT',
      'PROTOCOL_CONNECTION_LOST',
      'ER_SERVER_SHUTDOWN',
      'ER_CONNECTION_KILLED',
      'ER_CON_COUNT_ERROR',
      'EHOSTUNREACH',
      'PASADO_NO_ANSWER'
    ].includes(code) ||
    /Can't add new command when connection is in closed state/.test(String((error as Error | null)?.message))
  )
}
