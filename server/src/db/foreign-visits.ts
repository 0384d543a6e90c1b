import type { Model } from '@pasado/core/catalogue/model'
import type { Standard } from '@pasado/core/policy/standard'
import { row, run, type Connection } from './pool'

/** What a visit that came as a file brought along for reading only, and who took it in. */
export interface ForeignVisit {
  by: { id: string; name: string }
  at: Date
  /** The standard it was checked by, where it is not one of ours; null where it is. */
  standard: Standard | null
  /** The models it names that are not ours. */
  models: Model[]
  /** The key that proves its seal, where it is not one of ours. */
  publicKey: string | null
}

/** Marks a visit as taken in. */
export async function insertForeign(
  db: Connection,
  visit: string,
  { by, at, standard, models, publicKey }: ForeignVisit
): Promise<void> {
  await run(
    db,
    `
      INSERT INTO foreign_visits (visit_id, by_id, by_name, taken_at, standard, models, public_key)
      VALUES (?, ?, ?, ?, ?, ?, ?)
    `,
    [visit, by.id, by.name, at, standard && JSON.stringify(standard), JSON.stringify(models), publicKey]
  )
  await run(db, 'UPDATE visits SET is_foreign = TRUE WHERE id = ?', [visit])
}

/** What is known of a visit that was taken in; null of our own. */
export async function readForeign(db: Connection, visit: string): Promise<ForeignVisit | null> {
  const found = await row<{
    id: string
    name: string
    at: Date
    standard: string | null
    models: string
    publicKey: string | null
  }>(
    db,
    `
      SELECT by_id AS id, by_name AS name, taken_at AS at, standard, models, public_key AS publicKey
      FROM foreign_visits
      WHERE visit_id = ?
    `,
    [visit]
  )
  return (
    found && {
      by: { id: found.id, name: found.name },
      at: found.at,
      standard: found.standard === null ? null : (JSON.parse(found.standard) as Standard),
      models: JSON.parse(found.models) as Model[],
      publicKey: found.publicKey
    }
  )
}
