import { z } from 'zod'
import { itemStates, photoAbout } from '../answers'
import { attributionOf } from '../attribution'
import { digest, id, textLine } from '../fields'
import { itemKey } from '../keys'
import type { VisitRecord } from '../record'
import { changed, entryKind } from './kind'

function withPhoto(
  record: VisitRecord,
  ref: string,
  change: Partial<NonNullable<VisitRecord['photos']>[string]>
): Partial<VisitRecord> {
  const photos = changed(record.photos, ref, () => change)
  return photos ? { photos } : {}
}

const aPhoto = z.strictObject({ ref: id })
const itemName = textLine(300).refine(
  (name) => name !== '__proto__',
  'is not a name that can be kept; call it otherwise'
)

/** What was in the boxes, and photos. */
export const kitKinds = {
  /** Items of a box, looked at: there, missing, damaged, or in it without being on its list; `open` takes that back. */
  'items.checked': entryKind({
    body: z
      .strictObject({
        box: id,
        items: z.array(itemName).min(1, 'must name at least one item').max(60),
        state: z.enum(itemStates),
        done: textLine(300).optional()
      })
      .refine(({ state, done }) => state === 'present' || state === 'open' || done !== undefined, {
        path: ['done'],
        message: 'is missing: say what was done about it'
      }),
    by: 'anybody',
    refersTo: { box: 'box' },
    tells: ({ box, items, state, done }) =>
      items.map((item) => ({
        key: itemKey(box, item),
        value: state === 'open' ? null : { state, done: done ?? null }
      })),
    apply: (record, line) => {
      const { box, items, state, done } = line.body
      const boxes = changed(record.boxes, box, ({ items: before }) => {
        const kept = { ...before }
        for (const item of items) {
          if (state === 'open') delete kept[item]
          else kept[item] = { ...attributionOf(line), state, ...(done === undefined ? {} : { done }) }
        }
        return { items: kept }
      })
      return boxes ? { boxes } : {}
    },
    inverse: ({ box, items }, record) => {
      const held = record.boxes?.[box]?.items ?? {}
      const before = held[items[0]!]
      // Items that stood differently before cannot all be put back by one entry; those like the first are.
      const alike = items.filter((item) => held[item]?.state === before?.state && held[item]?.done === before?.done)
      const done = before?.done === undefined ? {} : { done: before.done }
      return { kind: 'items.checked', body: { box, items: alike, state: before?.state ?? 'open', ...done } }
    },
    describe: ({ state, items, done }) => `In the box, ${state}: ${items.join(', ')}${done ? `; ${done}` : ''}`
  }),
  'photo.added': entryKind({
    body: z.strictObject({
      ref: id,
      about: photoAbout,
      caption: textLine(200).nullable(),
      /** True for a picture of a label: a secret, kept under the visit's key. */
      label: z.boolean(),
      width: z.int().min(1),
      height: z.int().min(1),
      octets: z.int().min(1),
      sha256: digest
    }),
    by: 'server',
    refersTo: {},
    apply: (record, line) => ({
      photos: { ...record.photos, [line.body.ref]: { ...attributionOf(line), ...line.body, removedSeq: null } }
    }),
    inverse: null,
    describe: ({ label, about, caption }, names) => {
      const what = label ? 'Photo of a label' : 'Photo'
      return `${what} of ${about.thing === 'unit' ? names.unit(about.id) : about.id}${caption ? `: ${caption}` : ''}`
    }
  }),
  'photo.captioned': entryKind({
    body: z.strictObject({ ref: id, caption: textLine(200).nullable() }),
    by: 'anybody',
    refersTo: { ref: 'photo' },
    apply: (record, { body }) => withPhoto(record, body.ref, { caption: body.caption }),
    inverse: ({ ref }, record) => ({
      kind: 'photo.captioned',
      body: { ref, caption: record.photos?.[ref]?.caption ?? null }
    }),
    describe: ({ caption }) => (caption ? `Photo captioned: ${caption}` : 'Caption of a photo taken away')
  }),
  'photo.removed': entryKind({
    body: aPhoto,
    by: 'anybody',
    refersTo: { ref: 'photo' },
    apply: (record, { body, seq }) => withPhoto(record, body.ref, { removedSeq: seq }),
    inverse: (body) => ({ kind: 'photo.restored', body }),
    describe: () => 'A photo taken out'
  }),
  'photo.restored': entryKind({
    body: aPhoto,
    by: 'anybody',
    refersTo: { ref: 'photo' },
    apply: (record, { body }) => withPhoto(record, body.ref, { removedSeq: null }),
    inverse: (body) => ({ kind: 'photo.removed', body }),
    describe: () => 'A photo put back'
  })
}
