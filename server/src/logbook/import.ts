import { z } from 'zod'
import { canonicalJson } from '@pasado/core/record/canonical'
import { chainStart } from '@pasado/core/record/chain'
import type { Author, Entry } from '@pasado/core/record/entry'
import { refuse } from '@pasado/core/calc/refusal'
import { integrityProblems, readRecordFile, type RecordFile } from '@pasado/core/formats/record-file'
import { secretPurposes } from '@pasado/core/record/answers'
import { keyName } from '@pasado/core/record/seal'
import { evaluate } from '@pasado/core/standard/evaluate'
import { catalogueOf } from '@pasado/core/catalogue/model'
import { addModel, addStandard, allModels, readStandard } from '../db/catalogue'
import { insertEntries } from '../db/entries'
import { transactionOn, type Connection } from '../db/pool'
import { addSealKey } from '../db/seal-keys'
import { insertVisit, moveHead, readVisitHead } from '../db/visits'
import { conflictingState } from '../http/problem'
import type { Services } from '../services'
import { unlockSecrets } from '../vault/envelope'
import { shownOf } from './logbook'
import { project } from './project'

const bundle = z.strictObject({
  dataKey: z.base64(),
  secrets: z.array(z.strictObject({ ref: z.uuid(), thing: z.string().max(40), purpose: z.enum(secretPurposes), value: z.string().max(128) }))
})

/**
 * Takes in a visit from the text of a record file, as it is: same entries, same chain, same seal.
 * @throws Refusal where the file was altered or cut short; HttpProblem where another visit stands under its id
 */
export async function importFile(services: Services, text: string, passphrase: string | null, _by: Author): Promise<{ visit: string; entries: number; known: boolean }> {
  const file = readRecordFile(text)
  const problems = integrityProblems(file, text)
  if (problems.length) refuse(problems)
  const entries = file.entries as Entry[]
  const secrets = file.secrets && passphrase !== null ? openBundle(file, passphrase) : null
  const { db, vault } = services
  const known = await readVisitHead(db, file.visit)
  if (known) {
    if (known.last_hash === entries.at(-1)!.hash) return { visit: file.visit, entries: entries.length, known: true }
    throw conflictingState('visit-exists', 'A visit with this id is here already, with another logbook.')
  }
  await transactionOn(db, null, async (connection, _, last) => {
    await addParts(connection, file)
    const { record } = file
    const findings = evaluate(record, catalogueOf(file.models), file.standard)
    await insertVisit(connection, {
      id: file.visit, home: record.visit.home, technician: record.visit.technician,
      plannedAt: dateOf(record.brief.facts.plannedAt), openedAt: new Date(record.visit.openedAt), hash: chainStart
    })
    last(insertEntries(entries))
    last(moveHead(file.visit, 0, entries.length, entries.at(-1)!.hash, shownOf(record, findings)))
    await project(connection, file.visit, record.visit.home, null, { record, findings, eraseAfterDays: file.standard.policy.eraseAfterDays }, last)
    if (secrets) await vault.takeIn(connection, file.visit, Buffer.from(secrets.dataKey, 'base64'), secrets.secrets)
  })
  return { visit: file.visit, entries: entries.length, known: false }
}

const dateOf = (text: string | undefined) => (text === undefined ? null : new Date(text))

function openBundle(file: RecordFile, passphrase: string) {
  try {
    return bundle.parse(unlockSecrets(passphrase, file.visit, file.secrets!))
  } catch {
    return refuse([{ path: ['passphrase'], message: 'does not open the secrets of this file; type it again' }])
  }
}

/** Adds the standard and models of a file; refuses them where others stand under their names. */
async function addParts(connection: Connection, file: RecordFile): Promise<void> {
  if (file.publicKey !== null) await addSealKey(connection, keyName(file.publicKey), file.publicKey)
  await addStandard(connection, file.standard)
  const here = await readStandard(connection, file.standard.id, file.standard.version)
  if (canonicalJson(here) !== canonicalJson(file.standard)) {
    throw conflictingState('standard-differs', `Version ${file.standard.version} of the standard ${file.standard.id} is another one here.`)
  }
  for (const model of file.models) await addModel(connection, model)
  const models = new Map((await allModels(connection)).map((one) => [`${one.id}@${one.version}`, one]))
  const other = file.models.find((model) => canonicalJson(models.get(`${model.id}@${model.version}`)) !== canonicalJson(model))
  if (other) throw conflictingState('model-differs', `Version ${other.version} of the model ${other.id} is another one here.`)
}
