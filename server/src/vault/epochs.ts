import { beginEpoch, endedEpochs, endEpoch, livingEpochs, lockEpoch, noteHolder, type KeyEpoch } from '../db/key-epochs'
import { underLease } from '../db/lease'
import { transactionOn, type Connection, type Db } from '../db/pool'
import { lockKeysOf, replaceKey } from '../db/vault-keys'
import { openValue, sealValue } from './envelope'
import type { EpochStore } from './epoch-store'

const AT_ONCE = 100
/** An epoch that another followed is kept so long: whoever began to wrap in it on another node of the database is done by then, ms. */
const SETTLED_MS = 5 * 60_000

/** A machine that was not seen for so long holds no keys any more, ms. */
const FORGOTTEN_MS = 7 * 24 * 3_600_000

/** What was done about the epochs. */
export interface Renewal {
  /** The name of the epoch that was begun. */
  begun: string | null
  /** How many data keys were wrapped anew. */
  wrapped: number
  /** The names of epochs whose keys were destroyed. */
  destroyed: string[]
  /** How many other machines hold epoch keys. */
  othersHold: number
}

export interface EpochOptions {
  db: Db
  /** The database for a user who may set it up, for the lease: one process does it at a time. */
  url: string
  store: EpochStore
  /** Whether an epoch may be begun; false where the file stands on several machines, which all have to have the key first. */
  mayBegin: boolean
  /** Told once a key is made and not in use yet: it goes to other machines then. */
  onMade?: () => Promise<void>
  /** Begins the first one: the company is new, or somebody says that no older program runs beside this one. */
  beginFirst?: boolean
  /** Begins one even where nothing was erased. */
  always?: boolean
  now?: Date
}

/**
 * Keeps to it that what was erased cannot be opened by any copy: on the day after an erasure a new epoch begins, all data keys that live are
 * wrapped by its key, and the key of the one before is destroyed. A copy of the database from before then opens nothing, whoever has it, once
 * the copies of the old key are gone.
 */
export function renewEpochs(options: EpochOptions): Promise<Renewal> {
  return underLease(options.url, { name: 'key-epochs' }, (_, stillHeld) => renewed(options, stillHeld))
}

async function renewed(options: EpochOptions, stillHeld: () => void): Promise<Renewal> {
  const { db, store, now = new Date(), onMade } = options
  const others = await noteHolder(db, store.holder(), now, new Date(now.getTime() - FORGOTTEN_MS))
  // Another machine would not have the key: somebody has to bring it there.
  const mayBegin = options.mayBegin && (others === 0 || onMade !== undefined)
  const begun = await begunAnew({ ...options, mayBegin }, await livingEpochs(db), now)
  const living = await livingEpochs(db)
  const done: Renewal = { begun, wrapped: 0, destroyed: [], othersHold: others }
  const used = living.at(-1)
  if (!used) return done
  // Those that another process ended, on another machine.
  store.destroy(await endedEpochs(db, store.names()))
  for (const epoch of [null, ...living.slice(0, -1).map(({ name }) => name)])
    done.wrapped += await wrapAnew(db, store, epoch, used.name, stillHeld)
  const followedLongAgo = (at: number) => living[at + 1]!.begunAt.getTime() <= now.getTime() - SETTLED_MS
  for (const { name } of living.slice(0, -1).filter((_, at) => followedLongAgo(at))) {
    stillHeld()
    if (!(await endedWhole(db, store, name, used.name, now))) continue
    store.destroy([name])
    done.destroyed.push(name)
  }
  return done
}

/** Begins an epoch where one is due. @returns its name; null where none is */
async function begunAnew(
  { db, store, mayBegin, onMade, beginFirst = false, always = false }: EpochOptions,
  living: readonly KeyEpoch[],
  now: Date
): Promise<string | null> {
  const used = living.at(-1)
  const dayOf = (at: Date) => at.toISOString().slice(0, 10)
  // In a company of before there were epochs older programs may run beside this one, and could not open what is wrapped in one.
  const isDue = used ? used.erasedAt !== null && dayOf(used.erasedAt) < dayOf(now) : beginFirst
  if (!always && !(mayBegin && isDue)) return null
  const name = store.add()
  await onMade?.()
  // Behind the one before, whatever a clock said then.
  await beginEpoch(db, name, new Date(Math.max(now.getTime(), (used?.begunAt.getTime() ?? 0) + 1)))
  return name
}

/** Wraps in one epoch what is wrapped in another, a hundred at a time. @returns how many */
async function wrapAnew(
  db: Db,
  store: EpochStore,
  from: string | null,
  to: string,
  stillHeld: () => void
): Promise<number> {
  let [many, after] = [0, '']
  for (;;) {
    stillHeld()
    const visits = await transactionOn(db, null, (connection) => wrapSome(connection, store, from, to, after))
    many += visits.length
    if (visits.length < AT_ONCE) return many
    after = visits.at(-1)!
  }
}

async function wrapSome(
  connection: Connection,
  store: EpochStore,
  from: string | null,
  to: string,
  after: string
): Promise<string[]> {
  const held = await lockKeysOf(connection, from, after, AT_ONCE)
  for (const { visit, wrapped } of held) {
    const dataKey = openValue(store.wrapping(from), wrapped, visit)
    await replaceKey(connection, visit, { wrapped: sealValue(store.wrapping(to), dataKey, visit), epoch: to })
  }
  return held.map(({ visit }) => visit)
}

/** Ends an epoch in which nothing is wrapped any more, and nothing will be. @returns whether it was */
function endedWhole(db: Db, store: EpochStore, name: string, used: string, now: Date): Promise<boolean> {
  return transactionOn(db, null, async (connection) => {
    await lockEpoch(connection, name)
    const left = await wrapSome(connection, store, name, used, '')
    if (left.length === AT_ONCE) return false
    await endEpoch(connection, name, now)
    return true
  })
}

/**
 * Makes sure that the keys of all living epochs are on this machine.
 * @returns whether there is any epoch
 * @throws EpochMissing where one is not here
 */
export async function mustHaveEpochs(db: Connection, store: EpochStore): Promise<boolean> {
  const living = await livingEpochs(db)
  for (const { name } of living) store.wrapping(name)
  return living.length > 0
}
