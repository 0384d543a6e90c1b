import type { Pool as CallbackPool } from 'mysql2'
import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible'
import type { Db } from '../db/pool'
import { HttpProblem } from './problem'

const WINDOW_S = 15 * 60

/** So many tries in a quarter of an hour, counted in the database for all servers together. */
export function limiter(db: Db, keyPrefix: string, points: number): RateLimiterMySQL {
  return new RateLimiterMySQL({ storeClient: (db as unknown as { pool: CallbackPool }).pool, storeType: 'pool', dbName: databaseName(db), tableName: 'login_limits', tableCreated: true, duration: WINDOW_S, keyPrefix, points })
}

/** Takes one try. @throws HttpProblem where there were too many */
export async function spend(limit: RateLimiterMySQL, key: string): Promise<void> {
  try {
    await limit.consume(key)
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error
    const seconds = Math.ceil(error.msBeforeNext / 1000)
    throw new HttpProblem(429, 'too-many-tries', `Too many tries. Wait ${Math.ceil(seconds / 60)} min, then try again.`, [], { retryAfterSeconds: seconds })
  }
}

function databaseName(db: Db): string {
  return (db as unknown as { pool: { config: { connectionConfig: { database: string } } } }).pool.config.connectionConfig.database
}
