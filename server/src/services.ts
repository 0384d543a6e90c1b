import type { Logger } from 'pino'
import type { Config } from './config'
import type { Db } from './db/pool'
import type { Reads } from './db/reads'
import type { Sparing } from './db/sparing'
import type { LiveFeed } from './http/live'
import type { FollowUp } from './logbook/follow-up'
import type { JudgingThread } from './judging/thread'
import type { Metrics } from './metrics'
import type { Logbook } from './logbook/logbook'
import type { EpochStore } from './vault/epoch-store'
import type { CompanyKeys } from './vault/master-key'
import type { Vault } from './vault/vault'

/** Everything a route can use. */
export interface Services {
  config: Config
  db: Db
  /** Where what may be a moment behind is read. */
  reads: Reads
  keys: CompanyKeys
  epochs: EpochStore
  vault: Vault
  logbook: Logbook
  /** Lists what the rules say of what was written. */
  followUp: FollowUp
  /** Null where visits are judged in the thread that serves. */
  judging: JudgingThread | null
  live: LiveFeed
  metrics: Metrics
  log: Logger
  /** For reads that take long in a large company. */
  sparing: Sparing
  /** Set once the process is told to end. */
  stopping: boolean
}
