import { refused, notFound, conflictingState, DomainProblem } from '../problem'
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
import { entriesAfter, entriesById, insertEntries } from '../db/entries'
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
import type { OpenVisit } from './open-visit'
import { insertLaterHeads } from '../db/later-heads'
import { project } from '../db/projections'
import { serverAuthor, serverDevice } from './server-author'
import { VisitStates, type VisitState } from './states'

/** How the server answers for an entry that it holds. */
export interface Receipt {
  id: string
  seq: number
  received: string
  hash: string
}

/** Kinds that no rule reads and no list is made of: after them findings and projections are what they were. */
const unjudged = new Set<EntryKind>(['note.written', 'wait.started', 'secret.shown'])

/** Where visits are written: every write goes through here, one transaction each. */
export class Logbook {
  readonly states: VisitStates
  /** Told after each write that went through. */
  onWritten: (visit: string) => void = () => undefined

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
      const fresh = drafts.filter(({ id }) => !known.has(id))
      if (error instanceof DomainProblem && error.type === 'sealed' && fresh.length > 0)
        throw await keepTooLate(this, visit, fresh, author, now, error)
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
    return this.write(visit, now, async (open) => {
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
    })
  }

  /**
   * An outbox is one person's: the first to send from it. Ids of devices from before are held against the lines they stand on.
   * @throws DomainProblem where it is another person's
   */
  async mustBeOwn(open: OpenVisit, outbox: string, author: Author): Promise<void> {
    const owner = (await ownerOfOutbox(open.connection, outbox)) ?? (await this.#claim(open, outbox, author))
    if (owner !== author.id)
      throw new DomainProblem(
        'conflict',
        'outbox-of-another',
        'This was written on a device by somebody else; it is sent when they log in there.',
        [{ path: ['from'], message: 'is another person’s outbox' }]
      )
  }

  async #claim(open: OpenVisit, outbox: string, author: Author): Promise<string> {
    const before = await whoWroteBefore(open, outbox, author)
    return before === author.id ? claimOutbox(open.connection, outbox, author.id, open.now) : before
  }

  /**
   * Locks a visit, lets `work` add entries, and writes them with the projections they change.
   * Everything that `work` does on the connection belongs to the same transaction, and so does `prepare`, which comes before the lock.
   */
  async write<T>(
    visit: string,
    now: Date,
    work: (open: OpenVisit) => Promise<T>,
    prepare?: (connection: PoolConnection) => Promise<void>
  ): Promise<T> {
    try {
      const lock = lockVisit(visit)
      const result = await transactionOn<VisitHead, { value: T; state: VisitState; wrote: boolean }>(
        this.db,
        prepare ? null : lock,
        async (connection, locked, last) => {
          await prepare?.(connection)
          const [head] = prepare ? await rows<VisitHead>(connection, lock.sql, [visit]) : locked
          if (!head) throw notFound('visit')
          const before = await this.states.at(connection, visit, head.last_seq)
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
          return { value, state: open.state, wrote: added.length > 0 }
        }
      )
      this.states.keep(visit, result.state)
      if (result.wrote) this.onWritten(visit)
      return result.value
    } catch (error) {
      this.states.forget(visit)
      throw error
    }
  }

  readonly #added = new WeakMap<OpenVisit, Entry[]>()

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
      history: open.state.history,
      findings: open.state.findings
    }
    return entry
  }

  async #store(
    open: OpenVisit,
    before: VisitState,
    added: readonly Entry[],
    last: (statement: Statement) => void
  ): Promise<void> {
    const { connection, head } = open
    const state = { ...open.state, history: remember(before.history, added) }
    const { record } = state
    last(insertEntries(added))
    // What follows a seal is not under it: the server signs for it line by line.
    if (before.record.seal)
      last(
        insertLaterHeads(
          head.id,
          added.map((entry) => this.#signed(entry))
        )
      )
    const hash = added.at(-1)!.hash
    if (before.seq && added.every(({ kind }) => unjudged.has(kind))) {
      last(moveHead(head.id, before.seq, state.seq, hash, null))
      open.state = { ...state, findings: before.findings }
      return
    }
    const findings = await this.states.judge(connection, state)
    last(moveHead(head.id, before.seq, state.seq, hash, shownOf(record, findings)))
    const { policy } = await this.states.standardOf(connection, record)
    await project(
      connection,
      head.id,
      head.home_id,
      before.seq ? before : null,
      { record, findings, eraseAfterDays: policy.eraseAfterDays },
      last
    )
    open.state = { ...state, findings }
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

/** What lists show of a record with its findings. */
export function shownOf(record: VisitRecord, findings: VisitState['findings']): ShownOfVisit {
  const dateOf = (text: string | undefined) => (text === undefined ? null : new Date(text))
  return {
    sealedAt: dateOf(record.seal?.at),
    cancelledAt: dateOf(record.visit.cancelled?.at),
    plannedAt: dateOf(record.brief.facts.plannedAt),
    review: record.review?.state === 'asked' || record.review?.state === 'returned' ? record.review.state : 'none',
    summary: summarise(record, findings)
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

/** @throws DomainProblem where one id stands for two entries */
function mustDiffer(drafts: readonly Draft[]): void {
  const first = new Map<string, Draft>()
  const twice = drafts.flatMap((draft, index) => {
    const other = first.get(draft.id)
    first.set(draft.id, other ?? draft)
    return other
      ? [{ path: ['entries', index, 'id'], message: 'is the id of an entry before it in this request; send each once' }]
      : []
  })
  if (twice.length) throw refused(twice)
}

function refuseOther(draft: Draft, held: Entry | undefined): void {
  if (!held) return
  const { by: _b, seq: _s, received: _r, hash: _h, ...sent } = held
  if (!isDeepStrictEqual(sent, JSON.parse(JSON.stringify(draft)))) {
    throw new DomainProblem(
      'conflict',
      'id-taken',
      'The logbook holds another entry under this id; give the new one an id of its own.',
      [],
      { entry: draft.id }
    )
  }
}

function receiptOf({ id, seq, received, hash }: Entry): Receipt {
  return { id, seq, received, hash }
}

/** Whose outbox it is by what a visit holds of it; the caller's where it holds nothing. */
async function whoWroteBefore({ state, connection, head }: OpenVisit, outbox: string, author: Author): Promise<string> {
  if (outbox === serverDevice) return serverAuthor.id
  if (!state.history.outboxes.has(outbox)) return author.id
  return (await entriesAfter(connection, head.id, 0)).find(({ from }) => from === outbox)!.by.id
}
