import type { Model } from '@pasado/core/catalogue/model'
import type { Standard } from '@pasado/core/policy/standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { row, rows, run, type Connection } from './pool'

/** Every model in every version. */
export async function allModels(db: Connection): Promise<Model[]> {
  return (await rows<{ doc: string }>(db, 'SELECT doc FROM models ORDER BY id, version')).map(
    ({ doc }) => JSON.parse(doc) as Model
  )
}

/** Adds a version of a model; a version that is there already stays as it is. Says whether it was added. */
export async function addModel(db: Connection, model: Model): Promise<boolean> {
  return (
    (await run(db, 'INSERT IGNORE INTO models (id, version, doc) VALUES (?, ?, ?)', [
      model.id,
      model.version,
      JSON.stringify(model)
    ])) > 0
  )
}

/** The ids of models that are no longer offered. */
export async function retiredModels(db: Connection): Promise<string[]> {
  return (await rows<{ id: string }>(db, 'SELECT id FROM retired_models ORDER BY id')).map(({ id }) => id)
}

/** Takes a model out of what is offered, or puts it back. */
export async function retireModel(
  db: Connection,
  id: string,
  retired: boolean,
  by: { id: string; name: string },
  now: Date
): Promise<void> {
  if (retired)
    await run(db, 'INSERT IGNORE INTO retired_models (id, by_id, by_name, at) VALUES (?, ?, ?, ?)', [
      id,
      by.id,
      by.name,
      now
    ])
  else await run(db, 'DELETE FROM retired_models WHERE id = ?', [id])
}

/** One version of a standard. */
export async function readStandard(db: Connection, id: string, version: number): Promise<Standard | null> {
  const found = await row<{ doc: string }>(db, 'SELECT doc FROM standards WHERE id = ? AND version = ?', [id, version])
  return found ? (JSON.parse(found.doc) as Standard) : null
}

/** Adds a version of a standard; a version that is there already stays as it is. */
export async function addStandard(db: Connection, standard: Standard): Promise<void> {
  await run(db, 'INSERT IGNORE INTO standards (id, version, doc) VALUES (?, ?, ?)', [
    standard.id,
    standard.version,
    JSON.stringify(standard)
  ])
}

/** Publishes the next version of the standard. Says whether it was added: somebody may have been first. */
export async function publishStandard(db: Connection, standard: Standard): Promise<boolean> {
  return (
    (await run(db, 'INSERT IGNORE INTO standards (id, version, doc) VALUES (?, ?, ?)', [
      standard.id,
      standard.version,
      JSON.stringify(standard)
    ])) > 0
  )
}

/** Every version of the company's standard, the newest first; those that came with files of others are not among them. */
export async function allStandards(db: Connection): Promise<Standard[]> {
  return (
    await rows<{ doc: string }>(db, 'SELECT doc FROM standards WHERE id = ? ORDER BY version DESC LIMIT 200', [
      firstStandard.id
    ])
  ).map(({ doc }) => JSON.parse(doc) as Standard)
}

/** The standard that new visits are checked by: the newest version. */
export async function currentStandard(db: Connection): Promise<Standard> {
  const found = await row<{ doc: string }>(db, 'SELECT doc FROM standards WHERE id = ? ORDER BY version DESC LIMIT 1', [
    firstStandard.id
  ])
  return found ? (JSON.parse(found.doc) as Standard) : firstStandard
}
