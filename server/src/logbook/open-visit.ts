import type { PoolConnection } from 'mysql2/promise'
import type { Entry } from '@pasado/core/record/entry'
import type { Body, EntryKind } from '@pasado/core/record/entries/all'
import type { Author } from '@pasado/core/record/attribution'
import type { VisitHead } from '../db/visits'
import type { VisitState } from './states'

/** From which outbox something was asked for, and what had been seen there when its look was taken. */
export interface Look {
  from: string
  base: number
  own?: number
}

/** A visit while it is locked for writing. */
export interface OpenVisit {
  connection: PoolConnection
  head: VisitHead
  state: VisitState
  now: Date
  /** Adds an entry of the server's own making, in somebody's name. */
  write: <K extends EntryKind>(kind: K, body: Body<K>, by: Author, look?: Look) => Entry
}
