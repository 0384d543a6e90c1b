import { notFound, conflictingState, DomainProblem } from '../problem'
import { nearNames } from '@pasado/core/record/near-names'
import { isDeepStrictEqual } from 'node:util'
import type { PoolConnection } from 'mysql2/promise'
import { v7 as uuidv7 } from 'uuid'
import { summarise } from '@pasado/core/documents/visit-summary'
import { chained, chainStart } from '@pasado/core/record/chain'
import type { Draft, Entry } from '@pasado/core/record/entry'
import type { EntryKind } from '@pasado/core/record/entries/all'
import type { Author } from '@pasado/core/record/attribution'
import type { VisitRecord } from '@pasado/core/record/record'
import { apply } from '@pasado/core/record/reduce'
import { headText, type LaterHead } from '@pasado/core/record/later-heads'
import { remember } from '@pasado/core/history/history'
import type { OnFault } from '@pasado/core/rules/evaluate'
import { entriesAfter } from '../archive/archived'
import { entriesById, insertEntries } from '../db/entries'
import { archivedVisit } from '../db/archives'
import { rows, transactionOn, type Db, type Statement } from '../db/pool'
import { lockVisit, moveHead, type ShownOfVisit, type VisitHead } from '../db/visits'
import { signText, type CompanyKeys } from '../vault/master-key'
import { SecretsErased, type Vault } from '../vault/vault'
import { ownerOfOutbox, claimOutbox } from '../db/outboxes'
import { markElsewhere } from './elsewhere'
import { modelsNamed } from '@pasado/core/record/guard'
import { mustFit, mustNotLeak } from './guards'
import { mayWrite } from './who-may'
import { keepTooLate } from './too-late'
import { mustDiffer, receiptOf, refuseOther, type Receipt } from './each-once'
import type { OpenVisit } from './open-visit'
import { insertLaterHeads } from '../db/later-heads'
import { listedFindings, project, projectFindings } from '../db/projections'
import { serverAuthor, serverDevice } from './server-author'
import { VisitStates, type VisitState } from './states'

/** Kinds that no rule reads and no list is made of: after them findings and projections are what they were. */
const unjudged = new Set<EntryKind>(['note.written', 'wait.started', 'secret.shown'])

/** Of so many outboxes it is remembered whose they are. */
const MOST_OWNERS = 20_000

/** Where visits are written: every write goes through here, one transaction each. */
export class Logbook {
  readonly states: VisitStates
  /** Told after each write that went through, with what was written. */
  onWritten: (visit: string, added: readonly Entry[]) => void = () => undefined

  /** @param onFault is told of rules that fail on a record */
  constructor(
    readonly db: Db,
    readonly vault: Vault,
    readonly keys: CompanyKeys,
    onFault?: OnFault
  ) {
    this.states = new VisitStates(onFault)
  }

  /**
   * Takes entries from a person's device, each once however often it is sent.
   * @returns a receipt for each, in order
   * @throws DomainProblem where the visit is unknown or sealed, or an entry is not acceptable; then none is written
   */
  async append(visit: string, drafts: readonly Draft[], author: Author, now = new Date()): Promise<Receipt[]> {
    mustDiffer(drafts)
    try {
      return await this.#append(visit, drafts, author, now, new Map())
    } catch (error) {
      // Most entries come once. Where one came before, the index of ids says so, and it is looked up.
      if ((error as { code?: string }).code !== 'ER_DUP_ENTRY' && !(error instanceof DomainProblem)) throw error
      const known = await entriesById(
        this.db,
        drafts.map(({ id }) => id)
      )
      const isSealed = error instanceof DomainProblem && error.type === 'sealed'
      if (error instanceof DomainProblem) await addArchived(this.db, visit, drafts, known)
      const fresh = drafts.filter(({ id }) => !known.has(id))
      if (isSealed && fresh.length > 0) throw await keepTooLate(this, visit, fresh, author, now, error)
      if (known.size === 0) throw error
      return this.#append(visit, drafts, author, now, known)
    }
  }

  #append(
    visit: string,
    drafts: readonly Draft[],
    author: Author,
    now: Date,
    before: ReadonlyMap<string, Entry>
  ): Promise<Receipt[]> {
    return this.write(
      visit,
      now,
      async (open) => {
        // Begun anew with every try: what a try that was rolled back had placed is not in the logbook.
        const known = new Map(before)
        for (const draft of drafts) refuseOther(draft, known.get(draft.id))
        const fresh = drafts.filter(({ id }) => !known.has(id))
        if (fresh.length) {
          mustBeOpen(open)
          for (const from of new Set(fresh.map((draft) => draft.from))) await this.mustBeOwn(open, from, author)
          await mayWrite(this.states, open, author, fresh, now)
          const catalogue = await this.states.catalogueFor(open.connection, open.state.record, modelsNamed(fresh))
          mustFit(fresh, open.state, author, (key) => catalogue.has(key))
          await this.#mustNotLeak(open, fresh)
          for (const draft of fresh) known.set(draft.id, this.#place(open, draft, author))
          await markElsewhere(open, fresh, serverAuthor)
          await this.#reassess(open, fresh)
        }
        return drafts.map(({ id }) => receiptOf(known.get(id)!))
      },
      { hopeful: true }
    )
  }

  /**
   * An outbox is one person's: the first to send from it. Ids of devices from before are held against the lines they stand on.
   * @throws DomainProblem where it is another person's
   */
  async mustBeOwn(open: OpenVisit, outbox: string, author: Author): Promise<void> {
    const owner = await this.#ownerOf(open, outbox, author)
    if (owner !== author.id)
      throw new DomainProblem(
        'conflict',
        'outbox-of-another',
        'This was written on a device by somebody else; it is sent when they log in there.',
        [{ path: ['from'], message: 'is another person’s outbox' }]
      )
  }

  /** Whose an outbox is, which never changes once it is in the database. */
  readonly #owners = new Map<string, string>()

  async #ownerOf(open: OpenVisit, outbox: string, author: Author): Promise<string> {
    const known = this.#owners.get(outbox) ?? (await ownerOfOutbox(open.connection, outbox))
    // What is claimed here may be rolled back: it is remembered when it is found there.
    if (known === null) return this.#claim(open, outbox, author)
    if (this.#owners.size >= MOST_OWNERS) this.#owners.clear()
    this.#owners.set(outbox, known)
    return known
  }

  async #claim(open: OpenVisit, outbox: string, author: Author): Promise<string> {
    const before = await whoWroteBefore(open, outbox, author)
    return before === author.id ? claimOutbox(open.connection, outbox, author.id, open.now) : before
  }

  /**
   * Locks a visit, lets `work` add entries, and writes them with the projections they change.
   * Everything that `work` does on the connection belongs to the same transaction.
   * @param options.prepare comes before the lock
   * @param options.hopeful tries first without the lock, by the head that is remembered: `work` may be called once more
   */
  async write<T>(
    visit: string,
    now: Date,
    work: (open: OpenVisit) => Promise<T>,
    { prepare, hopeful = false }: { prepare?: (connection: PoolConnection) => Promise<void>; hopeful?: boolean } = {}
  ): Promise<T> {
    try {
      const lock = lockVisit(visit)
      const held = hopeful ? this.states.held(visit) : null
      const hoped = held && this.#heads.get(held)
      const result = await transactionOn<
        VisitHead,
        { value: T; state: VisitState; head: VisitHead; added: readonly Entry[] }
      >(
        this.db,
        prepare ? null : lock,
        async (connection, locked, last) => {
          await prepare?.(connection)
          const [head] = prepare ? await rows<VisitHead>(connection, lock.sql, [visit]) : locked
          if (!head) throw notFound('visit')
          const before = head === hoped ? held! : await this.states.at(connection, visit, head.last_seq)
          // Somebody wrote here while a connection was waited for: the lock tells what stands now.
          if (head === hoped && this.states.held(visit) !== held) throw new Error('what was hoped stands no more')
          const added: Entry[] = []
          const open: OpenVisit = {
            connection,
            head,
            state: before,
            now,
            write: (kind, body, by, look) => {
              const draft = {
                id: uuidv7(),
                visit,
                at: open.now.toISOString(),
                from: serverDevice,
                base: open.state.seq,
                ...look,
                kind,
                body
              } as Draft
              return this.#place(open, draft, by)
            }
          }
          this.#added.set(open, added)
          const value = await work(open)
          if (added.length) await this.#store(open, before, added, last)
          return { value, state: open.state, head: headAfter(head, open.state, added), added }
        },
        hoped ? [hoped] : null
      )
      this.states.keep(visit, result.state)
      this.#heads.set(result.state, result.head)
      if (result.added.length) this.onWritten(visit, result.added)
      return result.value
    } catch (error) {
      this.states.forget(visit)
      throw error
    }
  }

  readonly #added = new WeakMap<OpenVisit, Entry[]>()
  /** The head of a visit as it was when its state was written. */
  readonly #heads = new WeakMap<VisitState, VisitHead>()

  #place(open: OpenVisit, draft: Draft, by: Author): Entry {
    const { id, name, role } = by
    const placed = {
      ...draft,
      by: { id, name, role },
      seq: open.state.seq + 1,
      received: open.now.toISOString()
    }
    const before = this.#added.get(open)!.at(-1)?.hash ?? (open.head.last_seq ? open.head.last_hash : chainStart)
    const entry = chained(before, placed)
    this.#added.get(open)!.push(entry)
    open.state = {
      seq: entry.seq,
      record: apply(open.state.record, placed),
      // Folded once for all that is added, when it is stored.
      history: open.state.history
    }
    return entry
  }

  async #store(
    open: OpenVisit,
    before: VisitState,
    added: readonly Entry[],
    last: (statement: Statement) => void
  ): Promise<void> {
    const { head } = open
    const state = { ...open.state, history: remember(before.history, added) }
    const hash = added.at(-1)!.hash
    open.state = state
    // The head first: it locks the visit where nothing did before, and tells whether anybody else was here.
    const isPlain = before.seq > 0 && added.every(({ kind }) => unjudged.has(kind))
    if (isPlain) last(moveHead(head.id, before.seq, state.seq, hash, null))
    else await this.#project(open, before, hash, last)
    last(insertEntries(added))
    // What follows a seal is not under it: the server signs for it line by line.
    if (before.record.seal)
      last(
        insertLaterHeads(
          head.id,
          added.map((entry) => this.#signed(entry))
        )
      )
  }

  /** Moves the head, and brings what is listed of the visit with it. */
  async #project(
    { connection, head, state }: OpenVisit,
    before: VisitState,
    hash: string,
    last: (statement: Statement) => void
  ): Promise<void> {
    const { record } = state
    const { policy } = await this.states.standardOf(connection, record)
    // Of an open visit the rules are asked later: what they say is listed, and guards no write.
    if (before.seq > 0 && !record.seal) last(moveHead(head.id, before.seq, state.seq, hash, shownOf(record)))
    else {
      const findings = await this.states.findingsOf(connection, head.id, state)
      const listed = before.seq > 0 ? await listedFindings(connection, head.id) : []
      last(moveHead(head.id, before.seq, state.seq, hash, { ...shownOf(record), summary: summarise(record, findings) }))
      projectFindings(head.id, head.home_id, { record, findings }, listed, last)
    }
    const was = before.seq > 0 ? before.record : null
    await project(connection, head.id, head.home_id, was, { record, eraseAfterDays: policy.eraseAfterDays }, last)
  }

  #signed(entry: Entry): LaterHead {
    const { keyName: key, publicKey } = this.keys
    return { seq: entry.seq, key, publicKey, signature: signText(this.keys, headText(entry.visit, entry, key)) }
  }

  async #mustNotLeak(open: OpenVisit, drafts: readonly Draft[]): Promise<void> {
    mustNotLeak(drafts, await this.secretsOf(open))
  }

  /** The values of a visit's secrets, to look for in what is to be written; none once they were erased. */
  async secretsOf({ state: { record }, connection, head }: OpenVisit): Promise<string[]> {
    if (Object.keys(record.secrets).length === 0 || record.secretsErased) return []
    return (await this.vault.openAll(connection, head.id)).map(({ value }) => value)
  }

  /** Judges the visit's secrets anew where a name near them changed, so that a passphrase that holds the new name is found out. */
  async #reassess(open: OpenVisit, drafts: readonly Draft[]): Promise<void> {
    const { record } = open.state
    if (!drafts.some(touchesNames) || Object.keys(record.secrets).length === 0) return
    try {
      for (const secret of await this.vault.openAll(open.connection, open.head.id)) {
        const assessed = await this.vault.assess(open.connection, open.head.id, secret, nearNames(record))
        const held = record.secrets[secret.ref]
        if (held && !isDeepStrictEqual(held.assessed, assessed))
          open.write('secret.assessed', { ref: secret.ref, assessed }, serverAuthor)
      }
    } catch (error) {
      if (!(error instanceof SecretsErased)) throw error
    }
  }
}

/** Adds those drafts that are in the file of an archived visit. */
async function addArchived(db: Db, visit: string, drafts: readonly Draft[], known: Map<string, Entry>): Promise<void> {
  if (drafts.every(({ id }) => known.has(id)) || !(await archivedVisit(db, visit))) return
  const sought = new Set(drafts.map(({ id }) => id))
  for (const entry of await entriesAfter(db, visit, 0)) if (sought.has(entry.id)) known.set(entry.id, entry)
}

/** The head of a visit after what was added. */
function headAfter(head: VisitHead, { seq, record }: VisitState, added: readonly Entry[]): VisitHead {
  const sealed = record.seal ? new Date(record.seal.at) : head.sealed_at
  return { ...head, last_seq: seq, last_hash: added.at(-1)?.hash ?? head.last_hash, sealed_at: sealed }
}

/** What lists show of a record by itself. */
export function shownOf(record: VisitRecord): ShownOfVisit {
  const dateOf = (text: string | undefined) => (text === undefined ? null : new Date(text))
  return {
    sealedAt: dateOf(record.seal?.at),
    cancelledAt: dateOf(record.visit.cancelled?.at),
    plannedAt: dateOf(record.brief.facts.plannedAt),
    review: record.review?.state === 'asked' || record.review?.state === 'returned' ? record.review.state : 'none'
  }
}

function touchesNames(draft: Draft): boolean {
  if (draft.kind === 'brief.set') return 'customerName' in draft.body.set || 'street' in draft.body.set
  return draft.kind === 'network.set' && 'ssid' in draft.body.set
}

/** @throws DomainProblem where nothing can be written in the visit any more, or not here */
export function mustBeOpen({ head, state }: Pick<OpenVisit, 'head' | 'state'>): void {
  // The record has the last word: what lists show of a visit is made from it.
  if (head.sealed_at || state.record.seal)
    throw conflictingState('sealed', 'This visit is sealed; open a new visit that starts from it.')
  const { cancelled } = state.record.visit
  if (cancelled)
    throw conflictingState('cancelled', `This visit was cancelled by ${cancelled.by.name}: reopen it first, with why.`)
}

/** Whose outbox it is by what a visit holds of it; the caller's where it holds nothing. */
async function whoWroteBefore({ state, connection, head }: OpenVisit, outbox: string, author: Author): Promise<string> {
  if (outbox === serverDevice) return serverAuthor.id
  if (!state.history.outboxes.has(outbox)) return author.id
  return (await entriesAfter(connection, head.id, 0)).find(({ from }) => from === outbox)!.by.id
}
