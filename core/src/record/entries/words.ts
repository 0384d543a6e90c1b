import { z } from 'zod'
import { attributionOf } from '../attribution'
import { id } from '../fields'
import { entryKind } from './kind'

/** What somebody who was there says of two lines that did not know of each other. */
export const wordKinds = {
  /** Which came first: a change, or a proof that did not know of it. It says nothing of what either says. */
  'order.said': entryKind({
    body: z.strictObject({
      /** The entry that changed something, and the one that says how it was found. */
      change: id,
      proof: id,
      /** Whether the change came before the proof, or after it. */
      came: z.enum(['before', 'after'])
    }),
    by: 'anybody',
    refersTo: {},
    apply: (record, line) => ({ words: [...(record.words ?? []), { ...attributionOf(line), ...line.body }] }),
    inverse: null,
    describe: ({ came }) => `which came first, by the word of who was there: the change came ${came} the proof`
  })
}
