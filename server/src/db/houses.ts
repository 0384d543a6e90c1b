import type { HouseAction, HouseDefinition } from '@pasado/core/house/definition'
import { row, rows, run, type Connection } from './pool'

/** A house with all that was done in it. */
export interface StoredHouse {
  definition: HouseDefinition
  actions: HouseAction[]
}

/** Puts a house up. */
export async function insertHouse(
  db: Connection,
  house: { id: string; definition: HouseDefinition; template?: boolean; by: string; at: Date }
): Promise<void> {
  await run(
    db,
    `
      INSERT INTO houses (id, definition, template, made_by, made_at)
      VALUES (?, ?, ?, ?, ?)
    `,
    [house.id, JSON.stringify(house.definition), house.template ? 1 : 0, house.by, house.at]
  )
}

/** A house; null where there is none of this id. */
export async function readHouse(db: Connection, id: string): Promise<StoredHouse | null> {
  const found = await row<{ definition: string }>(db, 'SELECT definition FROM houses WHERE id = ?', [id])
  if (!found) return null
  const actions = await rows<{ action: string }>(
    db,
    'SELECT action FROM house_actions WHERE house_id = ? ORDER BY number',
    [id]
  )
  return {
    definition: JSON.parse(found.definition) as HouseDefinition,
    actions: actions.map(({ action }) => JSON.parse(action) as HouseAction)
  }
}

/** How many things were done in a house; its row is locked until the transaction ends. Null where there is no such house. */
export async function lockHouse(db: Connection, id: string): Promise<number | null> {
  if (!(await row(db, 'SELECT id FROM houses WHERE id = ? FOR UPDATE', [id]))) return null
  return (await row<{ count: number }>(db, 'SELECT COUNT(*) AS count FROM house_actions WHERE house_id = ?', [id]))!
    .count
}

/** Adds what was done, numbered on from what was done before. */
export async function insertActions(
  db: Connection,
  id: string,
  from: number,
  actions: readonly HouseAction[]
): Promise<void> {
  for (const [index, action] of actions.entries())
    await run(db, 'INSERT INTO house_actions (house_id, number, action) VALUES (?, ?, ?)', [
      id,
      from + index + 1,
      JSON.stringify(action)
    ])
}

/** The houses that others begin from, and the newest of a person's own. */
export async function listHouses(
  db: Connection,
  person: string
): Promise<{ id: string; template: boolean; definition: HouseDefinition; madeAt: Date }[]> {
  const found = await rows<{ id: string; template: number; definition: string; made_at: Date }>(
    db,
    `(SELECT id, template, definition, made_at FROM houses WHERE template = TRUE ORDER BY made_at DESC LIMIT 40)
    UNION ALL (SELECT id, template, definition, made_at FROM houses WHERE made_by = ? AND template = FALSE ORDER BY made_at DESC LIMIT 20)`,
    [person]
  )
  return found.map(({ id, template, definition, made_at }) => ({
    id,
    template: template === 1,
    definition: JSON.parse(definition) as HouseDefinition,
    madeAt: made_at
  }))
}
