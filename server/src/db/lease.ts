import mysql, { type Connection, type ResultSetHeader, type RowDataPacket } from 'mysql2/promise'
import { v7 as uuidv7 } from 'uuid'
import { connectionTo, isAway, isInTrouble } from './pool'

/** So often whoever holds a lease says that it is at work, ms. */
const BEAT_MS = 1_500
/** A lease whose holder has said nothing for so long is another's to take, ms. */
const SILENT_MS = 20_000
const LOOK_MS = 250
/** A table that a dump or another program reads is waited for so long. */
const TABLE_WAIT_S = 60

/** What a lease is asked for. */
export interface LeaseOptions {
  name: string
  /** So long another that holds it is waited for. */
  waitMs?: number
  /** Told once where another holds it. */
  onWait?: () => void
}

/** Whoever works under a lease asks before each step whether it is theirs still. */
export type StillHeld = () => void

/**
 * Does something that one process at a time does, whichever node of the database each is on. The lease is a row: its holder counts it
 * up while it works. One that stands still for a while, by the clock of whoever waits, or whose holder's connection is gone from the same node, is taken over.
 * @throws Error where another holds it for longer than is waited for, or took it over
 */
export async function underLease<T>(
  url: string,
  { name, waitMs = 60_000, onWait = () => undefined }: LeaseOptions,
  work: (connection: Connection, stillHeld: StillHeld) => Promise<T>
): Promise<T> {
  const open = () => mysql.createConnection(connectionTo(url))
  // What is worked with may be busy for minutes: that somebody is at work is said on another.
  const [connection, beating] = await Promise.all([open(), open()])
  const lease = new Lease(beating, name, uuidv7())
  try {
    await lease.take(waitMs, onWait)
    await connection.query(`SET SESSION lock_wait_timeout = ${TABLE_WAIT_S}`)
    return await work(connection, () => lease.mustHold())
  } finally {
    await lease.giveBack().catch(() => undefined)
    await Promise.all([connection.end(), beating.end()].map((ending) => ending.catch(() => undefined)))
  }
}

/** A holder at a beat, and since when it stands still by the clock of whoever waits, ms. */
interface Seen {
  holder: string
  beat: number
  since: number
}

interface Held {
  holder: string
  beat: number
  /** Whether the connection of its holder is gone from this node; null where the holder is on another. */
  gone: number | null
}

class Lease {
  #isHeld = false
  #timer: NodeJS.Timeout | null = null
  #isLost = false
  #saidAt = 0

  constructor(
    private readonly connection: Connection,
    private readonly name: string,
    private readonly me: string
  ) {}

  async take(waitMs: number, onWait: () => void): Promise<void> {
    await this.connection.query(`
      CREATE TABLE IF NOT EXISTS leases (
        name VARCHAR(60) CHARACTER SET ascii NOT NULL PRIMARY KEY,
        holder CHAR(36) CHARACTER SET ascii NOT NULL,
        beat INT UNSIGNED NOT NULL,
        node VARCHAR(200) NOT NULL,
        connection BIGINT UNSIGNED NOT NULL
      ) ENGINE=InnoDB
    `)
    const began = performance.now()
    let seen = null as Seen | null
    let isTold = false
    for (;;) {
      if (await this.#isTaken(seen).catch(isRefused)) break
      const held = await this.#held()
      if (held && (held.holder !== seen?.holder || held.beat !== seen.beat))
        seen = { holder: held.holder, beat: held.beat, since: performance.now() }
      if (held?.gone) seen = { holder: held.holder, beat: held.beat, since: -Infinity }
      if (performance.now() - began > waitMs)
        throw new Error(
          `another process has been setting up the database for ${Math.round(waitMs / 60_000)} min; try again when it has ended`
        )
      if (held && !held.gone && !isTold) {
        isTold = true
        onWait()
      }
      if (!held?.gone) await new Promise((resolve) => setTimeout(resolve, LOOK_MS))
    }
    this.#isHeld = true
    this.#saidAt = performance.now()
    this.#timer = setInterval(() => void this.#sayAtWork(), BEAT_MS).unref()
  }

  /** @throws Error where another took it over, or may have: nothing was heard of this process for long */
  mustHold(): void {
    if (this.#isLost || performance.now() - this.#saidAt > SILENT_MS / 2)
      throw new Error('another process has taken over setting up the database; start again')
  }

  async giveBack(): Promise<void> {
    if (this.#timer) clearInterval(this.#timer)
    if (this.#isHeld) await this.#change('DELETE FROM leases WHERE name = ? AND holder = ?', [this.name, this.me])
    this.#isHeld = false
  }

  /** Takes it where nobody has it, or whoever has it has been silent for long. */
  async #isTaken(seen: Seen | null): Promise<boolean> {
    const free = `INSERT IGNORE INTO leases (name, holder, beat, node, connection) VALUES (?, ?, 0, ${NODE}, CONNECTION_ID())`
    if ((await this.#change(free, [this.name, this.me])) === 1) return true
    if (!seen || performance.now() - seen.since < SILENT_MS) return false
    const over = `UPDATE leases SET holder = ?, beat = 0, node = ${NODE}, connection = CONNECTION_ID() WHERE name = ? AND holder = ? AND beat = ?`
    return (await this.#change(over, [this.me, this.name, seen.holder, seen.beat])) === 1
  }

  async #held(): Promise<Held | null> {
    const [found] = await this.connection.query<RowDataPacket[]>(
      `
        SELECT holder, beat,
          IF(node = ${NODE}, NOT EXISTS (SELECT 1 FROM information_schema.PROCESSLIST p WHERE p.ID = leases.connection), NULL) AS gone
        FROM leases
        WHERE name = ?
      `,
      [this.name]
    )
    return (found[0] as Held | undefined) ?? null
  }

  async #sayAtWork(): Promise<void> {
    try {
      const sql = 'UPDATE leases SET beat = beat + 1 WHERE name = ? AND holder = ?'
      const asked = performance.now()
      if ((await this.#change(sql, [this.name, this.me])) === 1) this.#saidAt = asked
      else if (this.#isHeld) this.#isLost = true
    } catch (error) {
      // What is in trouble is said again with the next beat; a connection that is gone says nothing any more.
      if ((error as { fatal?: boolean }).fatal || isAway(error)) this.#isLost = true
    }
  }

  async #change(sql: string, params: (string | number)[]): Promise<number> {
    return (await this.connection.query<ResultSetHeader>(sql, params))[0].affectedRows
  }
}

/** Which node of the database this is, and for whom: connections are counted by each for itself, and told to their own user. */
const NODE = "CONCAT_WS(' ', CURRENT_USER(), @@hostname, @@port)"

/** On a cluster two that take it at once are told apart as they commit: whoever is refused looks again. */
function isRefused(error: unknown): false {
  if (isInTrouble(error)) return false
  throw error
}
