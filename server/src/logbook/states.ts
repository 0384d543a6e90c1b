import { catalogueOf, modelKey, type Catalogue } from '@pasado/core/catalogue/model'
import { fold, nothingFolded, type Folded } from '@pasado/core/history/fold'
import type { History } from '@pasado/core/history/history'
import type { VisitRecord } from '@pasado/core/record/record'
import type { Finding, OnFault } from '@pasado/core/rules/evaluate'
import { judge, type Judged } from '@pasado/core/rules/judged'
import type { Standard } from '@pasado/core/policy/standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { allModels, readStandard } from '../db/catalogue'
import { entriesAfter } from '../archive/archived'
import { readForeign, type ForeignVisit } from '../db/foreign-visits'
import type { Connection } from '../db/pool'
import { keepVerdicts, keptVerdicts, verdictsOfThen } from './verdicts'

/** A visit's record and history as of a line of its logbook. */
export interface VisitState {
  seq: number
  record: VisitRecord
  history: History
}

const KEPT = 200
/** Of so many visits it is remembered whether they were taken in. */
const MOST_KNOWN = 20_000

/**
 * Keeps the latest records in memory, so that an append reduces what is new only. Nothing depends on it: a state is
 * always brought forward to the line that the locked visit names, whoever wrote it.
 */
export class VisitStates {
  readonly #states = new Map<string, VisitState>()
  readonly #judged = new Map<string, Judged>()
  #catalogue: Catalogue | null = null
  readonly #standards = new Map<string, Standard>()
  readonly #foreign = new Map<string, ForeignVisit | null>()

  /** @param onFault is told of rules that fail on a record */
  constructor(private readonly onFault?: OnFault) {}

  /** The state of a visit at a line. */
  async at(db: Connection, visit: string, seq: number): Promise<VisitState> {
    const held = this.#states.get(visit)
    if (held?.seq === seq) return held
    const from = held && held.seq < seq ? held : { seq: 0, ...nothingFolded }
    const news = (await entriesAfter(db, visit, from.seq)).filter((entry) => entry.seq <= seq)
    const state = { seq, ...fold(news, from) }
    // What the rules said of a sealed one is kept before anybody asks for it.
    if (state.record.seal) await this.findingsOf(db, visit, state)
    // What is asked of an earlier line does not take the place of what stands now.
    if (!held || held.seq < seq) this.keep(visit, state)
    return state
  }

  /** The latest state of a visit that is remembered. */
  held(visit: string): VisitState | null {
    return this.#states.get(visit) ?? null
  }

  /** Remembers a state; the one not used for longest makes room. */
  keep(visit: string, state: VisitState): void {
    keepAmong(this.#states, visit, state)
  }

  /** Forgets a visit, after a write of which it is not known whether it went through. */
  forget(visit: string): void {
    this.#states.delete(visit)
    this.#judged.delete(visit)
  }

  /**
   * What the rules say of a visit by the standard it names, all of them asked; of a sealed one what they said when it was sealed. Where that was not
   * kept, as by versions from before, it is kept now, by what is listed of the visit, and stays.
   */
  async findingsOf(db: Connection, visit: string, { record, history }: Folded): Promise<readonly Finding[]> {
    if (!record.seal) return (await this.#judge(db, { record, history }, null)).findings
    const kept = await keptVerdicts(db, visit)
    if (kept) return kept.findings
    const { findings } = await this.#judge(db, { record, history }, null)
    await keepVerdicts(db, visit, await verdictsOfThen(db, visit, findings), 'migration', new Date())
    // Another process may have been first.
    return (await keptVerdicts(db, visit))!.findings
  }

  /** What the rules say of an open visit, for lists: only those are asked that looked at what is otherwise than when they were asked last. */
  async findingsSince(db: Connection, visit: string, { record, history }: Folded): Promise<readonly Finding[]> {
    const judged = await this.#judge(db, { record, history }, this.#judged.get(visit) ?? null)
    keepAmong(this.#judged, visit, judged)
    return judged.findings
  }

  async #judge(db: Connection, folded: Folded, before: Judged | null): Promise<Judged> {
    const { record } = folded
    const [catalogue, standard] = [await this.catalogueFor(db, record), await this.standardOf(db, record)]
    return judge(folded, catalogue, standard, { onFault: this.onFault, now: new Date().toISOString() }, before)
  }

  /** What a visit that was taken in brought along; null of our own. A visit is foreign from its first line or never. */
  async foreignOf(db: Connection, visit: string): Promise<ForeignVisit | null> {
    const known = this.#foreign.get(visit)
    if (known !== undefined) return known
    const read = await readForeign(db, visit)
    if (this.#foreign.size > MOST_KNOWN) this.#foreign.clear()
    this.#foreign.set(visit, read)
    return read
  }

  /**
   * The catalogue; read again where a model is named that is not known yet: another server, or a lead just now, may have published it.
   * @param named models that are about to be recorded, as `id@version`
   */
  async catalogueFor(db: Connection, record: VisitRecord, named: readonly string[] = []): Promise<Catalogue> {
    const wanted = () => [
      ...named,
      ...[...Object.values(record.units), ...Object.values(record.boxes ?? {})].flatMap(({ facts }) =>
        facts.model ? [modelKey(facts.model, facts.modelVersion ?? 1)] : []
      )
    ]
    if (!this.#catalogue || wanted().some((key) => !this.#catalogue!.has(key)))
      this.#catalogue = catalogueOf(await allModels(db))
    const foreign = await this.foreignOf(db, record.visit.id)
    return foreign?.models.length ? new Map([...this.#catalogue, ...catalogueOf(foreign.models)]) : this.#catalogue
  }

  /** The standard that a record is checked by. */
  async standardOf(db: Connection, record: VisitRecord): Promise<Standard> {
    const { id, version } = record.visit.standard
    const foreign = (await this.foreignOf(db, record.visit.id))?.standard
    if (foreign && foreign.id === id && foreign.version === version) return foreign
    const key = `${id}@${version}`
    const known = this.#standards.get(key)
    if (known) return known
    const read = (await readStandard(db, id, version)) ?? firstStandard
    this.#standards.set(key, read)
    return read
  }
}

/** Keeps something of a visit; what was not used for longest makes room. */
function keepAmong<T>(kept: Map<string, T>, visit: string, value: T): void {
  kept.delete(visit)
  kept.set(visit, value)
  if (kept.size > KEPT) kept.delete(kept.keys().next().value!)
}
