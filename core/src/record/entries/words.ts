import { z } from 'zod'
import { attributionOf } from '../attribution'
import { id } from '../fields'
import { entryKind } from './kind'

/** What somebody who was there says of what the logbook does not tell. */
export const wordKinds = {
  /** A unit, or something that stays, stood there when all that was found before this line was found, though it was recorded later. */
  'thing.stood': entryKind({
    body: z.strictObject({ thing: z.enum(['unit', 'stays']), id }),
    by: 'anybody',
    refersTo: { id: ({ thing }: { thing: 'unit' | 'stays' }) => thing },
    apply: (record, line) => ({ stood: [...(record.stood ?? []), { ...attributionOf(line), ...line.body }] }),
    inverse: null,
    describe: ({ id: named }, names) => `${names.unit(named)}: stood there already when it was found so`
  }),
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
