import { z } from 'zod'
import { attributionOf } from '../attribution'
import { id } from '../fields'
import { neighbourNetwork } from '../neighbour-network'
import type { FaultSearch, VisitRecord } from '../record'
import { changed, entryKind, withoutRow } from './kind'

function withSearch(
  record: VisitRecord,
  id: string,
  change: (search: FaultSearch) => Partial<FaultSearch>
): Partial<VisitRecord> {
  const searches = changed(record.searches, id, change)
  return searches ? { searches } : {}
}

const endings = {
  mended: 'mended',
  provider: 'handed to the provider',
  maker: 'handed to the maker',
  left: 'left as it is'
} as const

/** What was booked, looked for and heard to prove the work. */
export const proofKinds = {
  /** A look at the home again when it has settled: from when to when. */
  'check.booked': entryKind({
    body: z
      .strictObject({ id, from: z.iso.datetime({ offset: true }), to: z.iso.datetime({ offset: true }) })
      .refine(({ from, to }) => Date.parse(from) < Date.parse(to), {
        path: ['to'],
        message: 'must be later than its beginning'
      }),
    by: 'anybody',
    refersTo: {},
    apply: (record, line) => ({
      checks: { ...record.checks, [line.body.id]: { ...attributionOf(line), ...line.body, cancelled: false } }
    }),
    inverse: null,
    describe: ({ from }, names) => `Check booked for ${names.moment(from)}`
  }),
  'check.cancelled': entryKind({
    body: z.strictObject({ id }),
    by: 'anybody',
    refersTo: { id: 'check' },
    apply: (record, { body }) => {
      const checks = changed(record.checks, body.id, () => ({ cancelled: true }))
      return checks ? { checks } : {}
    },
    inverse: null,
    describe: () => 'A booked check taken back'
  }),
  'fault.search': entryKind({
    body: z.strictObject({ search: id, about: z.strictObject({ unit: id.optional(), room: id.optional() }) }),
    by: 'anybody',
    refersTo: { 'about.unit': 'unit', 'about.room': 'room' },
    apply: (record, line) => {
      const { search, about } = line.body
      return {
        searches: {
          ...record.searches,
          [search]: { ...attributionOf(line), id: search, about, observed: {}, found: null }
        }
      }
    },
    inverse: null,
    describe: ({ about }, names) => `Looking for a fault${about.unit ? ` of ${names.unit(about.unit)}` : ''}`
  }),
  /** What was seen or tried while looking for a fault; `null` takes it back. */
  'fault.observed': entryKind({
    body: z.strictObject({ search: id, observation: z.string().max(40), answer: z.string().max(40).nullable() }),
    by: 'anybody',
    refersTo: { search: 'search' },
    apply: (record, line) => {
      const { search, observation, answer } = line.body
      return withSearch(record, search, ({ observed }) => {
        const others = withoutRow(observed, observation)
        // What is answered again stands last: the order is that of the answers.
        return { observed: answer === null ? others : { ...others, [observation]: { ...attributionOf(line), answer } } }
      })
    },
    inverse: null,
    describe: ({ observation, answer }, names) => `Looking for the fault: ${names.observation(observation, answer)}`
  }),
  /** How a search ended: the cause, and mended or handed over to whom. */
  'fault.found': entryKind({
    body: z.strictObject({
      search: id,
      cause: z.string().max(40),
      end: z.enum(['mended', 'provider', 'maker', 'left']),
      probability: z.number().min(0).max(1)
    }),
    by: 'anybody',
    refersTo: { search: 'search' },
    apply: (record, line) => {
      const { search, ...found } = line.body
      return withSearch(record, search, () => ({ found: { ...attributionOf(line), ...found } }))
    },
    inverse: null,
    describe: ({ cause, end }, names) => `The fault: ${names.cause(cause)}, ${endings[end]}`
  }),
  /** The networks of others that are heard here: the strongest, all anew each time. */
  'neighbours.noted': entryKind({
    body: z.strictObject({
      networks: z.array(neighbourNetwork).max(300, 'at most 300: those that are heard strongest')
    }),
    by: 'anybody',
    refersTo: {},
    apply: (_, line) => ({ neighbours: { ...attributionOf(line), networks: line.body.networks } }),
    inverse: null,
    describe: ({ networks }) => `${networks.length} networks of neighbours noted`
  })
}
