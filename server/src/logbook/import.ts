import { summarise } from '@pasado/core/documents/visit-summary'
import { conflictingState } from '../problem'
import { z } from 'zod'
import { canonicalJson } from '@pasado/core/values/canonical'
import { chainStart } from '@pasado/core/record/chain'
import type { Entry } from '@pasado/core/record/entry'
import { fold } from '@pasado/core/history/fold'
import type { Author } from '@pasado/core/record/attribution'
import { refuse } from '@pasado/core/values/problem'
import { integrityProblems, readRecordFile, type RecordFile } from '@pasado/core/documents/record-file'
import { secretPurposes } from '@pasado/core/record/answers'
import { keyName } from '@pasado/core/record/seal'
import { evaluate } from '@pasado/core/rules/evaluate'
import { catalogueOf } from '@pasado/core/catalogue/model'
import { allModels, readStandard } from '../db/catalogue'
import { insertEntries } from '../db/entries'
import { transactionOn, type Connection } from '../db/pool'
import { insertForeign, type ForeignVisit } from '../db/foreign-visits'
import { insertLaterHeads } from '../db/later-heads'
import { isOurKey } from '../db/seal-keys'
import { insertVisit, moveHead, readVisitHead } from '../db/visits'
import type { Services } from '../services'
import { unlockSecrets } from '../vault/envelope'
import { shownOf } from './logbook'
import { project, projectFindings } from '../db/projections'
import { keepBecause } from '../because/kept'
import { keepVerdicts } from './verdicts'

const bundle = z.strictObject({
  dataKey: z.base64(),
  secrets: z.array(
    z.strictObject({
      ref: z.uuid(),
      thing: z.string().max(40),
      purpose: z.enum(secretPurposes),
      value: z.string().max(128)
    })
  )
})

/**
 * Takes in a visit from the text of a record file, as it is: same entries, same chain, same seal. It is marked as taken in, with who
 * did it. What it brings along (a standard, models, a key) serves for reading this visit and is in force nowhere.
 * @throws Refusal where the file was altered or cut short; DomainProblem where another visit stands under its id
 */
export async function importFile(
  services: Services,
  text: string,
  passphrase: string | null,
  by: Author,
  now = new Date()
): Promise<{ visit: string; entries: number; known: boolean }> {
  const file = readRecordFile(text)
  const problems = integrityProblems(file, text)
  if (problems.length) refuse(problems)
  const entries = file.entries as Entry[]
  const secrets = file.secrets && passphrase !== null ? await openBundle(file, passphrase) : null
  const { db, vault, log } = services
  const known = await readVisitHead(db, file.visit)
  if (known) {
    if (known.last_hash === entries.at(-1)!.hash) return { visit: file.visit, entries: entries.length, known: true }
    throw conflictingState('visit-exists', 'A visit with this id is here already, with another logbook.')
  }
  await transactionOn(db, null, async (connection, _, last) => {
    const { record } = file
    const findings =
      file.verdicts ??
      evaluate(fold(entries), catalogueOf(file.models), file.standard, {
        onFault: (rule) => log.error({ rule }, 'a rule could not judge a visit that was taken in')
      })
    await insertVisit(connection, {
      id: file.visit,
      home: record.visit.home,
      technician: record.visit.technician,
      plannedAt: dateOf(record.brief.facts.plannedAt),
      openedAt: new Date(record.visit.openedAt),
      hash: chainStart
    })
    await insertForeign(connection, file.visit, {
      by: { id: by.id, name: by.name },
      at: now,
      ...(await broughtAlong(connection, file))
    })
    if (record.seal) await keepVerdicts(connection, file.visit, findings, 'import', now)
    if (file.because) await keepBecause(connection, file.visit, file.because)
    last(insertEntries(entries))
    if (file.heads) last(insertLaterHeads(file.visit, file.heads))
    last(
      moveHead(file.visit, 0, entries.length, entries.at(-1)!.hash, {
        ...shownOf(record),
        summary: summarise(record, findings)
      })
    )
    await project(
      connection,
      file.visit,
      record.visit.home,
      null,
      { record, eraseAfterDays: file.standard.policy.eraseAfterDays },
      last
    )
    projectFindings(file.visit, record.visit.home, { record, findings }, [], last)
    if (secrets) await vault.takeIn(connection, file.visit, Buffer.from(secrets.dataKey, 'base64'), secrets.secrets)
  })
  log.warn({ visit: file.visit, by: by.id }, 'a visit was taken in from a file')
  return { visit: file.visit, entries: entries.length, known: false }
}

const dateOf = (text: string | undefined) => (text === undefined ? null : new Date(text))

async function openBundle(file: RecordFile, passphrase: string) {
  try {
    return bundle.parse(await unlockSecrets(passphrase, file.visit, file.secrets!))
  } catch {
    return refuse([{ path: ['passphrase'], message: 'does not open the secrets of this file; type it again' }])
  }
}

/** Of what a file brings along, what is not ours by the letter. */
async function broughtAlong(
  connection: Connection,
  file: RecordFile
): Promise<Pick<ForeignVisit, 'standard' | 'models' | 'publicKey'>> {
  const here = await readStandard(connection, file.standard.id, file.standard.version)
  const models = new Map(
    (await allModels(connection)).map((model) => [`${model.id}@${model.version}`, canonicalJson(model)])
  )
  return {
    standard: here && canonicalJson(here) === canonicalJson(file.standard) ? null : file.standard,
    models: file.models.filter((model) => models.get(`${model.id}@${model.version}`) !== canonicalJson(model)),
    publicKey: file.publicKey === null || (await isOurKey(connection, keyName(file.publicKey))) ? null : file.publicKey
  }
}
