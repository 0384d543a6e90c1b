import { HttpProblem } from './problem'
import { isIP } from 'node:net'
import type { Context } from 'koa'
import type { Pool as CallbackPool } from 'mysql2'
import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible'
import { isInTrouble, type Db } from '../db/pool'

const WINDOW_S = 15 * 60

/** So many tries in a quarter of an hour, or in another time, counted in the database for all servers together. */
export function limiter(db: Db, keyPrefix: string, points: number, duration = WINDOW_S): RateLimiterMySQL {
  return new RateLimiterMySQL({
    storeClient: (db as unknown as { pool: CallbackPool }).pool,
    storeType: 'pool',
    dbName: databaseName(db),
    tableName: 'login_limits',
    tableCreated: true,
    duration,
    keyPrefix,
    points
  })
}

/** Where a caller is, to count tries by: what a proxy says where one is trusted and it is an address, else the other end of the line. */
export function addressOf({ ip, req }: Pick<Context, 'ip' | 'req'>): string {
  return isIP(ip) ? ip : (req.socket.remoteAddress ?? 'unknown')
}

/** Takes one try. @throws HttpProblem where there were too many */
export async function spend(limit: RateLimiterMySQL, key: string): Promise<void> {
  try {
    await consume(limit, key)
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error
    const seconds = Math.ceil(error.msBeforeNext / 1000)
    throw new HttpProblem(
      429,
      'too-many-tries',
      `Too many tries. Wait ${Math.ceil(seconds / 60)} min, then try again.`,
      [],
      { retryAfterSeconds: seconds }
    )
  }
}

/** Takes one of a number. @returns whether there was one left */
export async function takeOne(limit: RateLimiterMySQL, key: string): Promise<boolean> {
  try {
    await consume(limit, key)
    return true
  } catch (error) {
    if (error instanceof RateLimiterRes) return false
    throw error
  }
}

/** Log-ins at once at several servers may be in each other's way in the database; they try again. */
async function consume(limit: RateLimiterMySQL, key: string): Promise<void> {
  for (let attempt = 1; ; attempt++) {
    try {
      await limit.consume(key)
      return
    } catch (error) {
      if (!isInTrouble(error) || attempt >= 5) throw error
      await new Promise((resolve) => setTimeout(resolve, 20 * attempt * (0.5 + Math.random())))
    }
  }
}

function databaseName(db: Db): string {
  return (db as unknown as { pool: { config: { connectionConfig: { database: string } } } }).pool.config
    .connectionConfig.database
}
