import {
  integrityProblems,
  makeRecordFile,
  type LockedSecrets,
  type RecordFile
} from '@pasado/core/documents/record-file'
import { chainProblem } from '@pasado/core/record/chain'
import type { Entry } from '@pasado/core/record/entry'
import type { VisitRecord } from '@pasado/core/record/record'
import type { BecauseLines } from '../because/lines'
import type { Connection } from '../db/pool'
import { laterHeads } from '../db/later-heads'
import { isOurKey, sealKey } from '../db/seal-keys'
import type { Logbook } from './logbook'
import { keptVerdicts } from './verdicts'

/** A visit as a pasado.record/1 file. */
export async function fileOf(
  { states }: Logbook,
  db: Connection,
  { entries, record }: { entries: Entry[]; record: VisitRecord },
  beside: { secrets?: LockedSecrets | null; because?: BecauseLines | null } = {}
): Promise<RecordFile> {
  const visit = record.visit.id
  const key = record.seal
    ? ((await states.foreignOf(db, visit))?.publicKey ?? (await sealKey(db, record.seal.key)))
    : null
  const verdicts = record.seal?.verdicts ? ((await keptVerdicts(db, visit))?.findings ?? null) : null
  const catalogue = await states.catalogueFor(db, record)
  const heads = record.seal ? await laterHeads(db, visit) : []
  return makeRecordFile(entries, await states.standardOf(db, record), catalogue, key, { ...beside, verdicts, heads })
}

/**
 * What does not hold of a visit as this server keeps it, in words: its chain, and where it is sealed, its seal. Null where all of it does.
 * Asked whenever something is printed, shown or carried over: whoever altered the database is not to be believed.
 */
export async function whatDoesNotHold(
  logbook: Logbook,
  db: Connection,
  visit: { entries: Entry[]; record: VisitRecord }
): Promise<string | null> {
  if (!visit.record.seal) return chainProblem(visit.entries)
  const file = await fileOf(logbook, db, visit)
  const [problem] = integrityProblems(file)
  return problem ? `${problem.path.join('.')} ${problem.message}` : foreignHead(logbook, db, file)
}

/** A line after the seal that is signed by a key that was never this company's, nor that of the seal, in words; null where there is none. */
async function foreignHead(
  { keys }: Logbook,
  db: Connection,
  { heads = [], record }: RecordFile
): Promise<string | null> {
  for (const { seq, key } of heads)
    if (key !== keys.keyName && key !== record.seal?.key && !(await isOurKey(db, key)))
      return `line ${seq} was written after the seal, and is signed by a key that is not this company’s`
  return null
}
