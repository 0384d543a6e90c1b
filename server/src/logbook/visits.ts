import { whatDoesNotHold } from './integrity'
import { DomainProblem, forbidden, refused, conflictingState } from '../problem'
import { v7 as uuidv7 } from 'uuid'
import type { Author } from '@pasado/core/record/attribution'
import { whyNotCancel } from '@pasado/core/record/may'
import { carriedEntries } from '@pasado/core/record/carry-over'
import { chainStart } from '@pasado/core/record/chain'
import type { Entry } from '@pasado/core/record/entry'
import type { Facts } from '@pasado/core/record/facts'
import { listed } from '@pasado/core/values/list'
import { unheardFrom } from './unheard'
import { sealHindrances } from '@pasado/core/rules/seal-hindrances'
import { sealParts, sealText, signedDigest } from '@pasado/core/record/seal'
import { modelsUsed } from '@pasado/core/documents/record-file'
import { currentStandard } from '../db/catalogue'
import { entriesAfter } from '../archive/archived'
import { insertVisit, latestSealed, setTechnician } from '../db/visits'
import { signText } from '../vault/master-key'
import { leaksIn } from '@pasado/core/secrets/leaks'
import { type Logbook } from './logbook'
import type { Look, OpenVisit } from './open-visit'
import { keepIn } from './secrets'
import { allRules } from '@pasado/core/rules/all'
import { provenOf } from '@pasado/core/rules/proven-before'
import type { VisitRecord } from '@pasado/core/record/record'
import { keepVerdicts, keptVerdicts } from './verdicts'
import { mayMoveStandard, maySeal } from './who-may'

/** What a new visit is opened with. */
export interface NewVisit {
  id: string
  home: string
  customer: string
  technician: { id: string; name: string }
  brief: Facts<'brief'>
}

/**
 * Opens a visit. Where the home has a sealed one, the new visit starts from its units, ranges, networks and secrets.
 * @throws DomainProblem where another visit has this id
 */
export async function openVisit(logbook: Logbook, visit: NewVisit, by: Author, now = new Date()): Promise<void> {
  const from = await latestSealed(logbook.db, visit.home)
  const standard = await currentStandard(logbook.db)
  const opening = logbook.write(
    visit.id,
    now,
    async (open) => {
      open.write(
        'visit.opened',
        {
          home: visit.home,
          customer: visit.customer,
          technician: visit.technician,
          standard: { id: standard.id, version: standard.version },
          startedFrom: from,
          brief: visit.brief
        },
        by
      )
      if (from) await carryOver(logbook, open, from, by)
    },
    {
      prepare: (connection) =>
        insertVisit(connection, {
          id: visit.id,
          home: visit.home,
          technician: visit.technician,
          plannedAt: visit.brief.plannedAt ? new Date(visit.brief.plannedAt) : null,
          openedAt: now,
          hash: chainStart
        })
    }
  )
  try {
    await opening
  } catch (error) {
    if ((error as { code?: string }).code !== 'ER_DUP_ENTRY') throw error
    throw conflictingState('visit-exists', 'A visit was opened under this id already.')
  }
}

/** Copies what stands at the home from its last sealed visit: facts as they are, secrets into the new visit's vault. */
async function carryOver(logbook: Logbook, open: OpenVisit, from: string, by: Author): Promise<void> {
  const lines = await entriesAfter(open.connection, from, 0)
  const { record } = await logbook.states.at(open.connection, from, lines.at(-1)!.seq)
  const broken = await whatDoesNotHold(logbook, open.connection, { entries: lines, record })
  if (broken)
    open.write(
      'note.written',
      { text: `What stands here was taken over from a visit that does not hold: ${broken}. Look at everything anew.` },
      by
    )
  for (const { kind, body } of carriedEntries(record, open.state.record.brief.facts))
    open.write(kind, body as never, by)
  await carrySecrets(logbook, open, from, record, by)
  // Last: what was taken over before it is in its past.
  const verdicts = broken === null ? ((await keptVerdicts(open.connection, from))?.findings ?? []) : []
  const { policy } = await logbook.states.standardOf(open.connection, record)
  const proven = provenOf(record, verdicts, allRules, policy)
  if (proven.length > 0) open.write('proven.before', { visit: from, proven }, by)
}

/** Copies the secrets of a visit into the vault of the one that begins from it. */
async function carrySecrets(
  logbook: Logbook,
  open: OpenVisit,
  from: string,
  record: VisitRecord,
  by: Author
): Promise<void> {
  if (record.secretsErased) return
  // Where it is told later that they are gone there, these are copies of them.
  for (const secret of await logbook.vault.openAll(open.connection, from)) {
    const held = record.secrets[secret.ref]
    // What was prepared and never typed in is no secret of the home.
    if (held && !held.prepared)
      await keepIn(
        logbook,
        open,
        {
          ref: uuidv7(),
          purpose: secret.purpose,
          thing: held.thing,
          id: held.id,
          origin: held.origin,
          value: secret.value
        },
        by
      )
  }
}

/** Hands an open visit to another technician, who stands in its record from here on; to the same one again changes nothing. */
export async function handVisit(
  logbook: Logbook,
  visit: string,
  technician: { id: string; name: string },
  reason: string,
  by: Author,
  now = new Date()
): Promise<void> {
  await logbook.write(visit, now, async (open) => {
    if (open.head.sealed_at) throw conflictingState('sealed', 'This visit is sealed; it stays with who sealed it.')
    const has = open.state.record.visit.technician.id
    if (by.role === 'technician' && by.id !== has && by.id !== technician.id)
      throw forbidden('A technician hands on a visit of their own, or takes one over; ask a lead or the office.')
    if (has === technician.id) return
    if (leaksIn(reason, await logbook.secretsOf(open)).length > 0)
      throw refused([{ path: ['reason'], message: 'holds a secret of this visit; say it without' }])
    open.write('visit.handed', { technician, reason }, by)
    await setTechnician(open.connection, visit, technician)
  })
}

/**
 * Cancels a visit that takes place no more, or reopens one; twice changes nothing.
 * @throws DomainProblem where it is sealed, or not this person's to say
 */
export async function setCancelled(
  logbook: Logbook,
  visit: string,
  cancelled: boolean,
  reason: string,
  by: Author,
  now = new Date()
): Promise<void> {
  await logbook.write(visit, now, async (open) => {
    const { record } = open.state
    if (open.head.sealed_at || record.seal)
      throw conflictingState('sealed', 'This visit is sealed: it took place, and stays as it is.')
    const why = whyNotCancel(record, by)
    if (why !== null) throw forbidden(why)
    if (Boolean(record.visit.cancelled) === cancelled) return
    if (leaksIn(reason, await logbook.secretsOf(open)).length > 0)
      throw refused([{ path: ['reason'], message: 'holds a secret of this visit; say it without' }])
    open.write(cancelled ? 'visit.cancelled' : 'visit.reopened', { reason }, by)
  })
}

/** Checks an open visit by another version; the same one again changes nothing. An older one is a lead's to choose, with why. */
export async function moveStandard(
  logbook: Logbook,
  visit: string,
  standard: { id: string; version: number },
  by: Author,
  now = new Date(),
  reason?: string,
  look?: Look
): Promise<void> {
  await logbook.write(visit, now, async (open) => {
    if (open.head.sealed_at)
      throw conflictingState('sealed', 'This visit is sealed; it stays with the version it was checked by.')
    const { record } = open.state
    const isForeign = (await logbook.states.foreignOf(open.connection, visit))?.standard
    if (!isForeign && record.visit.standard.version === standard.version) return
    mayMoveStandard(record, standard.version, reason, by)
    if (look) await logbook.mustBeOwn(open, look.from, by)
    if (reason && leaksIn(reason, await logbook.secretsOf(open)).length > 0)
      throw refused([{ path: ['reason'], message: 'holds a secret of this visit; say it without' }])
    open.write('standard.moved', { standard, ...(reason ? { reason } : {}) }, by, look)
  })
}

/**
 * Seals a visit: the last entry, signed.
 * @param asked `digest` of the record that was on the screen: another one means that something changed meanwhile; `outbox` it is asked
 *   from; `without`: why devices that were not heard from are not waited for
 * @throws DomainProblem where something still stands in the way
 */
export async function sealVisit(
  logbook: Logbook,
  visit: string,
  { digest, outbox, without }: { digest: string; outbox?: string | undefined; without?: string | undefined },
  by: Author,
  now = new Date()
): Promise<void> {
  await logbook.write(visit, now, async (open) => {
    const { record } = open.state
    if (open.head.sealed_at || record.seal) throw conflictingState('sealed', 'This visit was sealed already.')
    maySeal(record, by)
    const current = signedDigest(record)
    if (current !== digest)
      throw conflictingState('changed', 'The record changed while you were about to seal it. Look at it again.')
    const hindrances = sealHindrances(
      open.state,
      await logbook.states.findingsOf(open.connection, visit, open.state),
      current,
      (await logbook.states.standardOf(open.connection, record)).policy.fourEyes
    )
    if (hindrances.length)
      throw new DomainProblem('conflict', 'not-ready', `It cannot be sealed yet: ${hindrances.join('; ')}.`, [], {
        hindrances
      })
    await setSeal(logbook, open, by, await passUnheard(logbook, open, outbox, without, by))
  })
}

/**
 * Writes down that devices which were not heard from are not waited for.
 * @returns the line; null where all were heard from
 * @throws DomainProblem where devices may hold something of the visit that nobody has heard of, and it is not said why they are not waited for
 */
async function passUnheard(
  logbook: Logbook,
  open: OpenVisit,
  outbox: string | undefined,
  reason: string | undefined,
  by: Author
): Promise<Entry | null> {
  const unheard = await unheardFrom(open.connection, open.state.record, outbox, open.now)
  if (unheard.length === 0) return null
  if (reason === undefined)
    throw new DomainProblem(
      'conflict',
      'not-heard-from',
      `A device of ${listed([...new Set(unheard.map(({ person }) => person))])} took this visit along and was not heard from since: wait for it, or say why it is sealed without.`
    )
  if (leaksIn(reason, await logbook.secretsOf(open)).length > 0)
    throw refused([{ path: ['without'], message: 'holds a secret of this visit; say it without' }])
  const outboxes = unheard.map(({ person, since }) => ({ person, since: since.toISOString() }))
  return open.write('unheard.passed', { outboxes, reason }, by)
}

/**
 * Sets the seal on an open visit as it stands, whatever hinders it, and keeps what the rules say of it.
 * @param written the line that was written just before it, where one was
 */
export async function setSeal(
  { states, keys }: Logbook,
  open: OpenVisit,
  by: Author,
  written: Entry | null = null
): Promise<void> {
  const { record, seq } = open.state
  const visit = open.head.id
  const findings = await states.findingsOf(open.connection, visit, open.state)
  const last = written ?? (await entriesAfter(open.connection, visit, seq - 1)).at(-1)!
  const standard = await states.standardOf(open.connection, record)
  const models = modelsUsed(record, await states.catalogueFor(open.connection, record))
  await keepVerdicts(open.connection, visit, findings, 'seal', open.now)
  const parts = sealParts(last, record, standard, models, findings, keys.keyName)
  open.write('sealed', { ...parts, signature: signText(keys, sealText(visit, parts)) }, by)
}
