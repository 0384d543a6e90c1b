import { z } from 'zod'
import { secretAssessment, secretPurposes } from '../answers'
import { attributionOf } from '../attribution'
import { digest, id, textLine } from '../fields'
import { secretKey } from '../keys'
import type { Secret, VisitRecord } from '../record'
import { changed, entryKind } from './kind'
import { unheardTold } from '../unheard'

function erased(secrets: VisitRecord['secrets'], refs: readonly string[], at: string): VisitRecord['secrets'] {
  return Object.fromEntries(
    Object.entries(secrets).map(([ref, secret]) => [ref, refs.includes(ref) ? { ...secret, erasedAt: at } : secret])
  )
}

/** Secrets by reference, the pack, the signatures and the seal. */
export const handoverKinds = {
  'secret.kept': entryKind({
    body: z.strictObject({
      ref: id,
      purpose: z.enum(secretPurposes),
      thing: z.enum(['brief', 'unit', 'network']),
      id: z.string().max(40),
      origin: z.enum(['typed', 'label', 'made']),
      /** That it is to be typed in later: until then it is on no air. */
      prepared: z.literal(true).optional(),
      assessed: secretAssessment
    }),
    by: 'server',
    refersTo: {},
    tells: ({ id, purpose, prepared, assessed }) =>
      prepared ? [] : [{ key: secretKey(id, purpose), value: assessed.print }],
    apply: (record, line) => ({
      secrets: { ...record.secrets, [line.body.ref]: { ...attributionOf(line), ...line.body } }
    }),
    inverse: null,
    describe: ({ purpose, prepared }) =>
      `${purpose.replaceAll('-', ' ')} put into the vault${prepared ? ', prepared to be typed in later' : ''}`
  }),
  /** A secret that was prepared is in use from here on. What it sets, the line with which it was kept tells. */
  'secret.typed-in': entryKind({
    body: z.strictObject({
      ref: id,
      /** That it is to be typed in still, after all. */
      prepared: z.literal(true).optional()
    }),
    by: 'anybody',
    refersTo: { ref: 'secret' },
    apply: (record, line) => {
      const { ref, prepared } = line.body
      const { prepared: wasPrepared, typedIn: wasTypedIn, ...kept } = record.secrets[ref] ?? {}
      // Only what was prepared is typed in, and only what was typed in so is prepared again: no other secret goes out of use by it.
      if (!(prepared ? wasTypedIn : wasPrepared)) return {}
      const now = prepared ? { prepared: true as const } : { typedIn: true as const }
      return { secrets: { ...record.secrets, [ref]: { ...(kept as Secret), ...attributionOf(line), ...now } } }
    },
    inverse: ({ ref }, before) =>
      before.secrets[ref]?.prepared ? { kind: 'secret.typed-in', body: { ref, prepared: true } } : null,
    describe: ({ prepared }) =>
      prepared ? 'A passphrase is prepared still, and not typed in' : 'A passphrase that was prepared is typed in'
  }),
  'secret.assessed': entryKind({
    body: z.strictObject({ ref: id, assessed: secretAssessment }),
    by: 'server',
    refersTo: { ref: 'secret' },
    apply: (record, { body }) => {
      const secrets = changed(record.secrets, body.ref, () => ({ assessed: body.assessed }))
      return secrets ? { secrets } : {}
    },
    inverse: null,
    describe: () => 'A secret judged anew'
  }),
  'secret.shown': entryKind({
    body: z.strictObject({ ref: id, why: textLine(120) }),
    by: 'server',
    refersTo: { ref: 'secret' },
    apply: () => ({}),
    inverse: null,
    describe: ({ why }) => `A secret shown: ${why}`
  }),
  /** Secrets are gone for good: their key was destroyed, its SHA-256 beside, and those kept went under another. `by custody` where nobody asked for it. */
  'secrets.erased': entryKind({
    body: z.strictObject({
      refs: z.array(id),
      kept: z.array(id).optional(),
      key: digest.optional(),
      because: z.enum(['asked', 'custody']).optional(),
      /** Why somebody asked for it before its day. */
      why: textLine(300).optional()
    }),
    by: 'server',
    refersTo: {},
    apply: (record, { body: { refs, kept }, at }) =>
      kept?.length ? { secrets: erased(record.secrets, refs, at) } : { secretsErased: true },
    inverse: null,
    describe: ({ refs, kept, because, why, key }) => {
      const what = kept?.length ? `${refs.length} secrets erased, ${kept.length} kept` : 'All secrets erased'
      const reason = `${because === 'custody' ? ', as was agreed' : ''}${why ? `: ${why}` : ''}`
      return `${what}${reason}${key ? `; the key destroyed had the SHA-256 ${key.slice(0, 16)}…` : ''}`
    }
  }),
  /** What was copied from a visit whose secrets were erased is gone with them: its key was destroyed, what else is kept here went under another. */
  'copies.erased': entryKind({
    body: z.strictObject({ refs: z.array(id).min(1), from: id, key: digest.optional() }),
    by: 'server',
    refersTo: {},
    apply: (record, { body, at }) => ({ secrets: erased(record.secrets, body.refs, at) }),
    inverse: null,
    describe: ({ refs }) =>
      `${refs.length} ${refs.length === 1 ? 'secret' : 'secrets'} erased that this visit began with: they were erased where they came from`
  }),
  'pack.made': entryKind({
    body: z.strictObject({ digest }),
    by: 'server',
    refersTo: {},
    apply: (record, { body, at }) => ({ pack: { ...record.pack, madeDigest: body.digest, madeAt: at } }),
    inverse: null,
    describe: () => 'Pack made'
  }),
  'pack.given': entryKind({
    body: z.strictObject({ how: z.enum(['printed', 'by mail', 'on their device']) }),
    by: 'anybody',
    refersTo: {},
    problem: (_, { record }) =>
      record.pack.madeDigest ? null : { field: ['how'], message: 'the pack has not been made yet; make it first' },
    apply: ({ pack }, { body, at }) => ({
      pack: { ...pack, givenDigest: pack.madeDigest, givenAt: at, how: body.how }
    }),
    inverse: null,
    describe: ({ how }) => `Pack given, ${how}`
  }),
  'signature.given': entryKind({
    body: z.strictObject({
      who: z.enum(['customer', 'technician']),
      name: textLine(120),
      /** The strokes drawn, as an SVG path of moves and lines on a 600 × 200 sheet. */
      strokes: z
        .string()
        .max(60_000)
        .regex(
          /^M-?\d+(?:\.\d)? -?\d+(?:\.\d)?(?: [ML]-?\d+(?:\.\d)? -?\d+(?:\.\d)?)+$/,
          'must hold at least one stroke: sign in the box'
        ),
      /** The digest of the record that was on the screen when it was signed. */
      digest
    }),
    by: 'anybody',
    refersTo: {},
    apply: (record, line) => {
      const { who, name, strokes, digest } = line.body
      return { signatures: { ...record.signatures, [who]: { ...attributionOf(line), name, strokes, digest } } }
    },
    inverse: null,
    describe: ({ name, who }) => `Signed by ${name}, ${who}`
  }),
  /** Whoever seals it does not wait for devices that took the visit along and were not heard from since. */
  'unheard.passed': entryKind({
    body: z.strictObject({
      outboxes: z
        .array(z.strictObject({ person: z.string().max(120), since: z.iso.datetime() }))
        .min(1)
        .max(100),
      reason: textLine(300)
    }),
    by: 'server',
    refersTo: {},
    apply: (_, line) => ({ unheard: { ...attributionOf(line), ...line.body } }),
    inverse: null,
    describe: ({ outboxes, reason }, { moment }) => `Not waited for: ${unheardTold(outboxes, moment)}. ${reason}`
  }),
  sealed: entryKind({
    body: z.strictObject({
      chain: digest,
      record: digest,
      standard: digest,
      catalogue: digest,
      /** What the rules said at that moment; left out by seals from before it was signed. */
      verdicts: digest.optional(),
      key: z.string().max(80),
      signature: z.string().max(200)
    }),
    by: 'server',
    refersTo: {},
    apply: (_, line) => ({ seal: { ...attributionOf(line), ...line.body } }),
    inverse: null,
    describe: ({ key }) => `Sealed with key ${key}`
  })
}
