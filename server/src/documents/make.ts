import { whatDoesNotHold } from '../logbook/integrity'
import { setTimeout as pause } from 'node:timers/promises'
import { BECAUSE_WAIT_MS, becauseOfSealed, isBeingWorkedOut } from '../because/kept'
import { linesOf, type BecauseLines } from '../because/lines'
import { keptVerdicts } from '../logbook/verdicts'
import { worksOn } from '@pasado/core/record/may'
import { conflictingState, notFound, forbidden } from '../problem'
import type { Logbook } from '../logbook/logbook'
import { customersLogins, packContentOf, type PackContent } from '@pasado/core/documents/pack-content'
import type { Entry } from '@pasado/core/record/entry'
import type { Finding } from '@pasado/core/rules/finding'
import type { Author } from '@pasado/core/record/attribution'
import { packDigest } from '@pasado/core/record/seal'
import { photosOf, standing, unitName, type Photo, type VisitRecord } from '@pasado/core/record/record'
import { nameOfStage } from '@pasado/core/record/stages'
import { changesBetween, differing } from '@pasado/core/documents/changes'
import type { Revision } from '@pasado/core/documents/change'
import { entriesUpTo } from '@pasado/core/record/moments'
import { fold, type Folded } from '@pasado/core/history/fold'
import { passphraseOf } from '@pasado/core/work/wifi/passphrase'
import type { Person } from '../db/people'
import { pictureOf } from '../archive/archived'
import { readVisitHead } from '../db/visits'
import { judgedVisit, readVisit, toldOfForeign } from '../logbook/read'
import { erasedProblem } from '../logbook/secrets'
import type { Services } from '../services'
import { packPdf } from './pack'
import { recordPdf, type RecordParts } from './record-pdf'
import type { SmallPhoto } from './record-proof'

/**
 * What the customer's pack says. That its passphrases were shown is logged with why, and on an open visit that a pack was made
 * from the record as it is now.
 */
export async function packOf(
  { logbook, vault, config, db }: Services,
  visit: string,
  by: Author,
  why: string
): Promise<PackContent> {
  await mustHold(logbook, visit)
  const { record, values } = await logbook.write(visit, new Date(), async (open) => {
    const before = open.state.record
    if (!open.head.sealed_at && !worksOn(before, by))
      throw forbidden(`${before.visit.technician.name} makes the pack of this visit, or whoever joined it.`)
    try {
      const wanted = new Set([
        ...standing(before.networks).map((network) => passphraseOf(before, network)?.ref),
        ...customersLogins(before).map(({ ref }) => ref)
      ])
      const opened = (await vault.openAll(open.connection, visit)).filter(({ ref }) => wanted.has(ref))
      for (const { ref } of opened) open.write('secret.shown', { ref, why }, by)
      if (!open.head.sealed_at) open.write('pack.made', { digest: packDigest(before) }, by)
      return { record: before, values: new Map(opened.map(({ ref, value }) => [ref, value])) }
    } catch (error) {
      throw erasedProblem(error)
    }
  })
  return packContentOf({
    record,
    catalogue: await logbook.states.catalogueFor(db, record),
    values,
    company: { name: config.COMPANY_NAME, phone: config.COMPANY_PHONE },
    zone: config.COMPANY_ZONE
  })
}

/** Nothing is printed for a customer of what was altered where it is kept. @throws DomainProblem where a sealed visit does not hold */
async function mustHold(logbook: Logbook, visit: string): Promise<void> {
  const { entries, record } = await readVisit(logbook, visit)
  const broken = record.seal ? await whatDoesNotHold(logbook, logbook.db, { entries, record }) : null
  if (broken)
    throw conflictingState('broken', `This visit does not hold: ${broken}. Nothing of it is printed for a customer.`)
}

/** Refuses the pack of an open visit to the office: it is the technician's to make. @throws DomainProblem, also where there is no such visit */
export async function mayMakePack({ db }: Services, person: Person, visit: string): Promise<void> {
  const head = await readVisitHead(db, visit)
  if (!head) throw notFound('visit')
  if (person.role === 'office' && !head.sealed_at) throw forbidden('The technician makes the pack of an open visit.')
}

/** Makes the customer's pack on paper. */
export async function makePack(services: Services, visit: string, by: Author): Promise<Buffer> {
  return packPdf(await packOf(services, visit, by, 'making the pack'))
}

/** Makes the company's record of a visit as it is now. */
export async function makeRecordPdf(services: Services, visit: string): Promise<Buffer> {
  const { logbook, db, config } = services
  const { entries, record, history, findings } = await judgedVisit(logbook, visit)
  const left = { ...(await revisionOf(logbook, db, { record, history })), zone: config.COMPANY_ZONE }
  const changes: NonNullable<RecordParts['changes']>[number][] = []
  for (const [moment, title] of [
    ['planned', 'Different from the plan'],
    ['found', 'As found, as left']
  ] as const) {
    const then = fold(entriesUpTo(entries, moment))
    // Where nothing was planned or found, everything is new: that is the record itself.
    if (standing(then.record.units).length)
      changes.push({ title, changes: differing(changesBetween({ ...left, ...then }, left)) })
  }
  if (record.visit.startedFrom !== null) {
    const before = await readVisit(logbook, record.visit.startedFrom)
    changes.push({
      title: 'Since the visit before',
      changes: changesBetween(await revisionOf(logbook, db, before), left)
    })
  }
  // A sealed visit is printed with what was said of it when it was sealed, whatever a later program would say.
  const said = record.seal ? ((await keptVerdicts(db, visit))?.findings ?? findings) : findings
  const because =
    (await becauseOfSealed(services, { entries, record })) ??
    (isBeingWorkedOut(visit) ? [] : await becauseNow(services, { entries, said, ...left }))
  return recordPdf({
    ...left,
    findings: said,
    because,
    broken: await whatDoesNotHold(logbook, db, { entries, record }),
    changes,
    photos: await smallPhotos(db, record),
    foreign: await toldOfForeign(logbook, visit, record)
  })
}

/** Which lines findings rest on where that is not kept, as far as there is time: the record is printed without the others. */
async function becauseNow(
  { log }: Services,
  {
    entries,
    said,
    record,
    catalogue,
    standard
  }: Pick<Revision, 'record' | 'catalogue' | 'standard'> & { entries: readonly Entry[]; said: readonly Finding[] }
): Promise<BecauseLines> {
  const ask = {
    entries: record.seal ? entries.filter(({ seq }) => seq < record.seal!.seq) : entries,
    findings: said,
    models: [...catalogue],
    standard,
    now: record.seal?.at ?? new Date().toISOString(),
    forMs: BECAUSE_WAIT_MS
  }
  try {
    // Others may be asking the same thread.
    return await Promise.race([
      linesOf(ask, record.seal?.chain ?? null),
      pause(BECAUSE_WAIT_MS + 500, [], { ref: false })
    ])
  } catch (error) {
    log.error({ err: error, visit: record.visit.id }, 'what findings rest on could not be worked out')
    return []
  }
}

async function revisionOf(
  logbook: Services['logbook'],
  db: Services['db'],
  { record, history }: Folded
): Promise<Revision> {
  return {
    record,
    history,
    catalogue: await logbook.states.catalogueFor(db, record),
    standard: await logbook.states.standardOf(db, record)
  }
}

async function smallPhotos(db: Services['db'], record: VisitRecord): Promise<SmallPhoto[]> {
  const nameOf = (about: Photo['about']) => {
    if (about.thing === 'unit' && record.units[about.id]) return unitName(record.units[about.id]!)
    return about.thing === 'stage' ? nameOfStage(about.id) : about.id
  }
  return Promise.all(
    photosOf(record).map(async (photo) => ({
      about: nameOf(photo.about),
      caption: photo.caption,
      at: photo.at,
      jpeg: photo.label ? null : ((await pictureOf(db, record.visit.id, photo.ref))?.small ?? null)
    }))
  )
}
