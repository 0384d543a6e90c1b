import type { z } from 'zod'
import { answerKinds } from './answers'
import { handoverKinds } from './handover'
import type { EntryDefinition } from './kind'
import { kitKinds } from './kit'
import { proofKinds } from './proofs'
import { slipKinds } from './slips'
import { thingKinds } from './things'
import { unitKinds } from './units'
import { visitKinds } from './visit'
import { wordKinds } from './words'

/** Every kind of entry. */
export const entryKinds = {
  ...thingKinds,
  ...kitKinds,
  ...unitKinds,
  ...proofKinds,
  ...answerKinds,
  ...slipKinds,
  ...wordKinds,
  ...visitKinds,
  ...handoverKinds
}
export type EntryKind = keyof typeof entryKinds
type Bodies = { [K in EntryKind]: z.infer<(typeof entryKinds)[K]['body']> }
export type Body<K extends EntryKind> = Bodies[K]

/** A kind of entry where which one it is does not matter. */
export const kindOf = (kind: EntryKind): EntryDefinition<unknown> =>
  entryKinds[kind] as unknown as EntryDefinition<unknown>
