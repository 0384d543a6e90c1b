import { digest } from '../record/fields'
import { z } from 'zod'
import { catalogueOf, model, modelKey, type Catalogue, type Model } from '../catalogue/model'
import { problemsOf, refuse, type Problem } from '../values/problem'
import { canonicalJson, digestOf } from '../values/canonical'
import { chainProblem } from '../record/chain'
import { entry, type Entry, type Placed } from '../record/entry'
import { visitRecord, type VisitRecord } from '../record/record'
import { reduce } from '../record/reduce'
import { laterHead, laterHeadProblem, type LaterHead } from '../record/later-heads'
import { keyName, sealSignatureHolds } from '../record/seal'
import { frozenVerdict, type Finding } from '../rules/finding'
import { standard, type Standard } from '../policy/standard'

const base64 = z.string().regex(/^[A-Za-z0-9+/]+=*$/)

/** Secrets on request, encrypted to a passphrase: scrypt (N 2^15, r 8, p 1) to a key for AES-256-GCM. */
export const lockedSecrets = z.strictObject({
  kdf: z.literal('scrypt-32768-8-1'),
  salt: base64,
  iv: base64,
  tag: base64,
  data: base64,
  digest: digest
})
export type LockedSecrets = z.infer<typeof lockedSecrets>

/** One visit as a file: its logbook, the record it amounts to, the standard and models it was checked by, and the public key of its seal. */
export const recordFile = z.strictObject({
  format: z.literal('pasado.record/1'),
  visit: z.uuid(),
  entries: z.array(entry).min(1),
  record: visitRecord,
  standard,
  models: z.array(model),
  publicKey: digest.nullable(),
  secrets: lockedSecrets.nullable(),
  /** What the rules said when it was sealed, where the seal vouches for it; left out otherwise. */
  verdicts: z.array(frozenVerdict).max(5000).optional(),
  /** For each verdict the lines that it rests on, null where it is not told; left out where that was not worked out. */
  because: z
    .array(z.array(z.int().min(1)).max(100_000).nullable())
    .max(5000)
    .optional(),
  /** The server's signatures under lines that were written after the seal; left out where there are none. */
  heads: z.array(laterHead).max(100_000).optional()
})
export type RecordFile = z.infer<typeof recordFile>

/** The models that a record's units name, in a fixed order: what a file must hold to be checked on its own. */
export function modelsUsed(record: VisitRecord, catalogue: Catalogue): Model[] {
  const keys = new Set(
    [...Object.values(record.units), ...Object.values(record.boxes ?? {})].flatMap(({ facts }) =>
      facts.model === undefined ? [] : [modelKey(facts.model, facts.modelVersion ?? 1)]
    )
  )
  return [...keys].sort().flatMap((key) => catalogue.get(key) ?? [])
}

/** What stands in the file of a visit beside its logbook and what that is read by. */
export interface BesideLogbook {
  secrets?: LockedSecrets | null
  /** What the rules said when it was sealed, and the lines that each rests on. */
  verdicts?: readonly Finding[] | null
  because?: readonly (readonly number[] | null)[] | null
  heads?: readonly LaterHead[]
}

/** Makes the file of a visit. */
export function makeRecordFile(
  entries: readonly Entry[],
  standardUsed: Standard,
  catalogue: Catalogue,
  publicKey: string | null,
  { secrets = null, verdicts = null, because = null, heads = [] }: BesideLogbook = {}
): RecordFile {
  const record = reduce(entries as readonly Placed[])
  return {
    format: 'pasado.record/1',
    visit: entries[0]!.visit,
    entries: [...entries],
    record,
    standard: standardUsed,
    models: modelsUsed(record, catalogue),
    publicKey,
    secrets,
    ...(verdicts && record.seal?.verdicts ? { verdicts: [...verdicts] } : {}),
    ...(verdicts && record.seal?.verdicts && because ? { because: because.map((lines) => lines && [...lines]) } : {}),
    ...(heads.length ? { heads: [...heads] } : {})
  }
}

/** The text of a record file: canonical JSON and one line end, so that the same visit always gives the same octets. */
export function printRecordFile(file: RecordFile): string {
  return `${canonicalJson(file)}\n`
}

/**
 * Reads the text of a record file.
 * @throws Refusal where it is cut short, of another format or version, or holds what its schema does not know
 */
export function readRecordFile(text: string): RecordFile {
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch {
    refuse([{ path: [], message: 'is not JSON; it may have been cut short: export it again' }])
  }
  const format = typeof raw === 'object' && raw !== null && 'format' in raw ? raw.format : undefined
  if (format !== 'pasado.record/1') {
    const known = typeof format === 'string' && format.startsWith('pasado.record/')
    refuse([
      {
        path: ['format'],
        message: known
          ? `is ${String(format)}; this program reads pasado.record/1: export it with a matching version`
          : 'must be pasado.record/1: this is no record of a visit'
      }
    ])
  }
  const checked = recordFile.safeParse(raw, { reportInput: true })
  if (!checked.success) refuse(problemsOf(checked.error))
  return checked.data
}

/** What is wrong with a file although every field is well formed: its chain, its record, and where it is sealed, its seal. */
export function integrityProblems(file: RecordFile, text?: string): Problem[] {
  const problems: Problem[] = []
  const say = (path: Problem['path'], message: string) => problems.push({ path, message })
  const entries = file.entries as Entry[]
  const broken = chainProblem(entries)
  if (broken) say(['entries'], broken)
  if (entries[0]!.kind !== 'visit.opened')
    say(['entries', 0, 'kind'], 'must be visit.opened: the beginning of the logbook is missing')
  if (entries[0]!.visit !== file.visit) say(['visit'], 'is not the visit of the entries')
  if (canonicalJson(reduce(entries as Placed[])) !== canonicalJson(file.record))
    say(['record'], 'is not what the entries amount to: it was altered')
  const catalogue = catalogueOf(file.models)
  if (canonicalJson(modelsUsed(file.record, catalogue)) !== canonicalJson(file.models))
    say(['models'], 'are not the models that the units and boxes name')
  const sealedAt = entries.findIndex(({ kind }) => kind === 'sealed')
  if (sealedAt >= 0) sealProblems(file, entries, sealedAt, say)
  else if (file.verdicts !== undefined) say(['verdicts'], 'have no seal to vouch for them; leave them out')
  const unfounded = becauseProblem(file, sealedAt)
  if (unfounded) problems.push(unfounded)
  if (sealedAt < 0 && file.heads !== undefined) say(['heads'], 'have no seal that they follow; leave them out')
  if (sealedAt < 0 && file.publicKey !== null) say(['publicKey'], 'has no seal to prove; leave it null')
  if (file.secrets && digestOf(file.secrets.data) !== file.secrets.digest) say(['secrets', 'data'], 'was altered')
  if (text !== undefined && text !== printRecordFile(file))
    say([], 'is not in canonical form: its text was changed since it was exported')
  return problems
}

/** What is wrong with the lines that verdicts rest on, as far as their numbers tell; null where nothing is. */
function becauseProblem({ because, verdicts }: RecordFile, sealedAt: number): Problem | null {
  if (because === undefined) return null
  if (verdicts === undefined) return { path: ['because'], message: 'tells of verdicts that are not here; leave it out' }
  if (because.length !== verdicts.length)
    return { path: ['because'], message: `tells of ${because.length} verdicts where there are ${verdicts.length}` }
  const wrong = because.findIndex((lines) =>
    lines?.some((line, at) => line > sealedAt || (at > 0 && line <= lines[at - 1]!))
  )
  return wrong < 0
    ? null
    : { path: ['because', wrong], message: 'names lines that do not stand under the seal, or not in their order' }
}

function sealProblems(
  file: RecordFile,
  entries: Entry[],
  sealedAt: number,
  say: (path: Problem['path'], message: string) => void
): void {
  const sealed = entries[sealedAt] as Entry<'sealed'>
  const after = entries
    .slice(sealedAt + 1)
    .find(({ kind }) => kind !== 'secret.shown' && kind !== 'secrets.erased' && kind !== 'copies.erased')
  if (after)
    say(
      ['entries', after.seq - 1],
      `was written after the seal: nothing may follow it but the showing and erasing of secrets`
    )
  const unsigned = laterHeadProblem(file.visit, entries, sealed.seq, file.heads ?? [])
  if (unsigned) say(['heads'], unsigned)
  const { seal } = { seal: sealed.body }
  const before = reduce(entries.slice(0, sealedAt) as Placed[])
  if (seal.chain !== entries[sealedAt - 1]?.hash)
    say(['entries', sealedAt, 'body', 'chain'], 'is not the link the seal was set on')
  if (seal.record !== digestOf(before))
    say(['entries', sealedAt, 'body', 'record'], 'is not the digest of the sealed record')
  if (seal.standard !== digestOf(file.standard)) say(['standard'], 'is not the standard that was sealed')
  if (seal.catalogue !== digestOf(file.models)) say(['models'], 'are not the models that were sealed')
  if (seal.verdicts !== undefined && file.verdicts === undefined)
    say(['verdicts'], 'are missing: this seal vouches for them')
  else if (seal.verdicts === undefined && file.verdicts !== undefined)
    say(['verdicts'], 'are not under this seal; leave them out')
  else if (seal.verdicts !== undefined && seal.verdicts !== digestOf(file.verdicts))
    say(['verdicts'], 'are not what the rules said when it was sealed')
  if (file.publicKey === null) say(['publicKey'], 'is missing; without it the signature cannot be proven')
  else if (keyName(file.publicKey) !== seal.key) say(['publicKey'], `is not the key ${seal.key} that the seal names`)
  else if (!sealSignatureHolds(file.visit, seal, file.publicKey))
    say(['entries', sealedAt, 'body', 'signature'], 'does not hold: the seal or what it covers was altered')
}
