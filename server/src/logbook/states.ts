import { catalogueOf, modelKey, type Catalogue } from '@pasado/core/catalogue/model'
import { emptyRecord, reduce } from '@pasado/core/record/reduce'
import type { VisitRecord } from '@pasado/core/record/record'
import { evaluate, type Finding } from '@pasado/core/standard/evaluate'
import { firstStandard, type Standard } from '@pasado/core/standard/standard'
import { allModels, readStandard } from '../db/catalogue'
import { entriesAfter } from '../db/entries'
import type { Connection } from '../db/pool'

/** A visit's record as of a line of its logbook, with its findings. */
export interface VisitState {
  seq: number
  record: VisitRecord
  findings: readonly Finding[]
}

const KEPT = 200

/**
 * Keeps the latest records in memory, so that an append reduces what is new only. Nothing depends on it: a state is
 * always brought forward to the line that the locked visit names, whoever wrote it.
 */
export class VisitStates {
  readonly #states = new Map<string, VisitState>()
  #catalogue: Catalogue | null = null
  readonly #standards = new Map<string, Standard>()

  /** The state of a visit at a line. */
  async at(db: Connection, visit: string, seq: number): Promise<VisitState> {
    const held = this.#states.get(visit)
    if (held?.seq === seq) return held
    const from = held && held.seq < seq ? held : { seq: 0, record: emptyRecord, findings: [] }
    const news = (await entriesAfter(db, visit, from.seq)).filter((one) => one.seq <= seq)
    const record = reduce(news, from.record)
    const state = { seq, record, findings: await this.judge(db, record) }
    this.keep(visit, state)
    return state
  }

  /** Remembers a state; the one not used for longest makes room. */
  keep(visit: string, state: VisitState): void {
    this.#states.delete(visit)
    this.#states.set(visit, state)
    if (this.#states.size > KEPT) this.#states.delete(this.#states.keys().next().value!)
  }

  /** Forgets a visit, after a write of which it is not known whether it went through. */
  forget(visit: string): void {
    this.#states.delete(visit)
  }

  /** Judges a record by the standard it names. */
  async judge(db: Connection, record: VisitRecord): Promise<Finding[]> {
    return evaluate(record, await this.catalogueFor(db, record), await this.standardOf(db, record))
  }

  /**
   * The catalogue; read again where a model is named that is not known yet: another server, or a lead just now, may have published it.
   * @param named models that are about to be recorded, as `id@version`
   */
  async catalogueFor(db: Connection, record: VisitRecord, named: readonly string[] = []): Promise<Catalogue> {
    const wanted = () => [...named, ...[...Object.values(record.units), ...Object.values(record.boxes ?? {})].flatMap(({ facts }) => (facts.model ? [modelKey(facts.model, facts.modelVersion ?? 1)] : []))]
    if (!this.#catalogue || wanted().some((key) => !this.#catalogue!.has(key))) this.#catalogue = catalogueOf(await allModels(db))
    return this.#catalogue
  }

  /** The standard that a record is checked by. */
  async standardOf(db: Connection, record: VisitRecord): Promise<Standard> {
    const { id, version } = record.visit.standard
    const key = `${id}@${version}`
    const known = this.#standards.get(key)
    if (known) return known
    const read = (await readStandard(db, id, version)) ?? firstStandard
    this.#standards.set(key, read)
    return read
  }
}
