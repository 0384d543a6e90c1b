import type { LaterHead } from '@pasado/core/record/later-heads'
import { rows, type Connection, type Statement } from './pool'

/** Keeps signatures under lines that were written after a seal. */
export const insertLaterHeads = (visit: string, heads: readonly LaterHead[]): Statement => ({
  sql: `
    INSERT INTO later_heads (visit_id, seq, key_name, public_key, signature)
    VALUES ?
  `,
  params: [heads.map(({ seq, key, publicKey, signature }) => [visit, seq, key, publicKey, signature])]
})

/** The signatures under the lines of a visit that were written after its seal, in their order. */
export const laterHeads = (db: Connection, visit: string): Promise<LaterHead[]> =>
  rows<LaterHead>(
    db,
    'SELECT seq, key_name AS `key`, public_key AS publicKey, signature FROM later_heads WHERE visit_id = ? ORDER BY seq',
    [visit]
  )
