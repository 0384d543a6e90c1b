import { notFound } from '../problem'
import type { ToldOfForeign } from '@pasado/core/documents/foreign'
import { modelsUsed, printRecordFile, type LockedSecrets } from '@pasado/core/documents/record-file'
import type { Author } from '@pasado/core/record/attribution'
import { entriesAfter } from '../archive/archived'
import type { VisitRecord } from '@pasado/core/record/record'
import { isOurKey } from '../db/seal-keys'
import { readVisitHead } from '../db/visits'
import type { Services } from '../services'
import { lockSecrets } from '../vault/envelope'
import { becauseOfSealed } from '../because/kept'
import { fileOf, whatDoesNotHold } from './integrity'
import type { Logbook } from './logbook'
import { keptVerdicts } from './verdicts'
import { erasedProblem } from './secrets'

/** Everything a browser needs to show a visit: its logbook, the standard and the models it names. */
export async function visitForBrowser(logbook: Logbook, visit: string) {
  const { entries, record } = await readVisit(logbook, visit)
  const catalogue = await logbook.states.catalogueFor(logbook.db, record)
  return {
    entries,
    standard: await logbook.states.standardOf(logbook.db, record),
    models: modelsUsed(record, catalogue),
    verdicts: record.seal ? ((await keptVerdicts(logbook.db, visit))?.findings ?? null) : null,
    foreign: await toldOfForeign(logbook, visit, record),
    broken: record.seal ? await whatDoesNotHold(logbook, logbook.db, { entries, record }) : null
  }
}

/** What is to be told of a visit that came as a file; null of our own. */
export async function toldOfForeign(
  { db, states }: Logbook,
  visit: string,
  record: VisitRecord
): Promise<ToldOfForeign | null> {
  const foreign = await states.foreignOf(db, visit)
  return (
    foreign && {
      by: foreign.by.name,
      at: foreign.at.toISOString(),
      standard: foreign.standard !== null,
      models: foreign.models.map(({ id, version }) => `${id}, version ${version}`),
      key: record.seal !== null && !(await isOurKey(db, record.seal.key))
    }
  )
}

/** A visit's logbook and what it amounts to. */
export async function readVisit(logbook: Logbook, visit: string) {
  const head = await readVisitHead(logbook.db, visit)
  if (!head) throw notFound('visit')
  const entries = (await entriesAfter(logbook.db, visit, 0)).filter(({ seq }) => seq <= head.last_seq)
  const { record, history } = await logbook.states.at(logbook.db, visit, head.last_seq)
  return { entries, record, history }
}

/** A visit's logbook, what it amounts to, and what the rules say of it. */
export async function judgedVisit(logbook: Logbook, visit: string) {
  const read = await readVisit(logbook, visit)
  return { ...read, findings: await logbook.states.findingsOf(logbook.db, visit, read) }
}

/**
 * A visit as the text of a pasado.record/1 file.
 * @param lock where given, the secrets go with it, encrypted to this passphrase; that is logged as their showing
 */
export async function visitFile(
  services: Services,
  visit: string,
  lock: { passphrase: string; by: Author } | null
): Promise<string> {
  const { db, logbook, vault } = services
  let bundle: unknown = null
  if (lock) {
    bundle = await logbook.write(visit, new Date(), async (open) => {
      try {
        const opened = await vault.openAll(open.connection, visit)
        if (opened.length === 0) return null
        const dataKey = await vault.exportKey(open.connection, visit)
        for (const { ref } of opened) open.write('secret.shown', { ref, why: 'export, encrypted' }, lock.by)
        return { dataKey: dataKey.toString('base64'), secrets: opened }
      } catch (error) {
        throw erasedProblem(error)
      }
    })
  }
  // Beside the visit's lock: making a key from a passphrase takes a while.
  const secrets: LockedSecrets | null = lock && bundle ? await lockSecrets(lock.passphrase, visit, bundle) : null
  const { entries, record } = await readVisit(logbook, visit)
  const because = await becauseOfSealed(services, { entries, record })
  return printRecordFile(await fileOf(logbook, db, { entries, record }, { secrets, because }))
}

/** Begins to work out which lines the verdicts of a visit that was just sealed rest on; nobody waits for it. */
export function beginBecause(services: Services, visit: string): void {
  readVisit(services.logbook, visit)
    .then((read) => becauseOfSealed(services, read))
    .catch((error: unknown) => services.log.error({ err: error, visit }, 'what verdicts rest on was not begun'))
}
