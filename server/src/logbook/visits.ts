import { v7 as uuidv7 } from 'uuid'
import type { Author, Body } from '@pasado/core/record/entry'
import { chainStart } from '@pasado/core/record/chain'
import type { Facts } from '@pasado/core/record/facts'
import { standing } from '@pasado/core/record/record'
import { sealHindrances } from '@pasado/core/standard/evaluate'
import { sealParts, sealText, signedDigest } from '@pasado/core/record/seal'
import { modelsUsed } from '@pasado/core/formats/record-file'
import { nextErasure, secretsLeft } from '@pasado/core/secrets/erasure'
import type { SecretPurpose } from '@pasado/core/record/answers'
import { currentStandard } from '../db/catalogue'
import { entriesAfter } from '../db/entries'
import { setErasure } from '../db/erasures'
import { endPackLinks } from '../db/pack-links'
import { eraseLabelPhotos } from '../db/photos'
import { insertVisit, latestSealed, setTechnician } from '../db/visits'
import { conflictingState, forbidden, HttpProblem, notFound, refused } from '../http/problem'
import { signText } from '../vault/master-key'
import { SecretsErased } from '../vault/vault'
import { leaksIn } from './guards'
import { nearNames, type Logbook } from './logbook'
import type { OpenVisit } from './open-visit'

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
 */
export async function openVisit(logbook: Logbook, visit: NewVisit, by: Author, now = new Date()): Promise<void> {
  const from = await latestSealed(logbook.db, visit.home)
  const standard = await currentStandard(logbook.db)
  await logbook.write(visit.id, now, async (open) => {
    open.write('visit.opened', {
      home: visit.home, customer: visit.customer, technician: visit.technician,
      standard: { id: standard.id, version: standard.version }, startedFrom: from, brief: visit.brief
    }, by)
    if (from) await carryOver(logbook, open, from, by)
  }, async (connection) => {
    await insertVisit(connection, {
      id: visit.id, home: visit.home, technician: visit.technician,
      plannedAt: visit.brief.plannedAt ? new Date(visit.brief.plannedAt) : null, openedAt: now, hash: chainStart
    })
  })
}

/** Copies what stands at the home from its last sealed visit: facts as they are, secrets into the new visit's vault. */
async function carryOver(logbook: Logbook, open: OpenVisit, from: string, by: Author): Promise<void> {
  const lines = await entriesAfter(open.connection, from, 0)
  const { record } = await logbook.states.at(open.connection, from, lines.at(-1)!.seq)
  const { customerName: _n, plannedAt: _p, reason: _r, street: _s, town: _t, ...rest } = record.brief.facts
  const known = open.state.record.brief.facts
  const brief = Object.fromEntries(Object.entries(rest).filter(([field]) => !(field in known)))
  if (Object.keys(brief).length) open.write('brief.set', { set: brief }, by)
  const tables = {
    storey: record.storeys ?? {}, room: record.rooms ?? {}, wall: record.walls ?? {}, opening: record.openings ?? {}, outlet: record.outlets ?? {}, trouble: record.troubles ?? {}, fitting: record.fittings ?? {}, cable: record.cables ?? {},
    unit: record.units, segment: record.segments, pool: record.pools, host: record.hosts, network: record.networks, radio: record.radios ?? {}, device: record.devices ?? {}
  } as const
  for (const [kind, table] of Object.entries(tables) as [keyof typeof tables, Record<string, { id: string; facts: Record<string, unknown>; addedSeq: number; removedSeq: number | null }>][]) {
    for (const { id, facts } of standing(table)) {
      const { wasReset: _w, moveRecorded: _m, setUpPlace: _u, rejoined: _j, firmwareAfter, ...kept } = facts
      // Photos stay with their visit.
      for (const field of ['paper', 'paperX', 'paperY', 'paperWidthM']) delete kept[field]
      if (firmwareAfter !== undefined) kept.firmwareBefore = firmwareAfter
      if (kind === 'unit') {
        kept.stayed = true
        delete kept.box
      }
      if (Object.keys(kept).length) open.write(`${kind}.set`, { id, set: kept } as Body<'unit.set'>, by)
    }
  }
  if (record.secretsErased) return
  for (const secret of await logbook.vault.openAll(open.connection, from)) {
    const held = record.secrets[secret.ref]
    if (held) await keep(logbook, open, { ref: uuidv7(), purpose: secret.purpose, thing: held.thing, id: held.id, origin: held.origin, value: secret.value }, by)
  }
}

/** A secret as a person hands it in. */
export interface NewSecret {
  ref: string
  purpose: SecretPurpose
  thing: 'brief' | 'unit' | 'network'
  id: string
  origin: 'typed' | 'label' | 'made'
  value: string
}

async function keep(logbook: Logbook, open: OpenVisit, secret: NewSecret, by: Author) {
  const { ref, purpose, thing, id, origin, value } = secret
  const assessed = await logbook.vault.keep(open.connection, { ref, visit: open.head.id, thing: id, purpose, value }, nearNames(open.state.record))
  open.write('secret.kept', { ref, purpose, thing, id, origin, assessed }, by)
  return assessed
}

/**
 * Puts a secret into the vault and says so in the logbook. Sent twice under one reference, it is kept once.
 * @throws HttpProblem where the visit is sealed, its secrets erased, or the value stands in the logbook already
 */
export async function keepSecret(logbook: Logbook, visit: string, secret: NewSecret, by: Author, now = new Date()) {
  return logbook.write(visit, now, async (open) => {
    if (open.head.sealed_at) throw conflictingState('sealed', 'This visit is sealed; open a new visit that starts from it.')
    const held = open.state.record.secrets[secret.ref]
    if (held) return held.assessed
    await mustNotStandInLogbook(open, secret.value)
    try {
      return await keep(logbook, open, secret, by)
    } catch (error) {
      throw erasedProblem(error)
    }
  })
}

/** A value that stands in some line already, a name or a note, is no secret any more. */
async function mustNotStandInLogbook(open: OpenVisit, value: string): Promise<void> {
  const lines = await entriesAfter(open.connection, open.head.id, 0)
  const line = lines.find(({ body }) => leaksIn(body, [value]).length > 0)
  if (line) {
    throw new HttpProblem(422, 'refused', 'This value stands in the logbook already, where many can read it.', [
      { pointer: '/value', field: 'value', detail: `stands in line ${line.seq} of the logbook already; make another one` }])
  }
}

/**
 * Shows one secret, and logs who saw it and why.
 * @throws HttpProblem where there is none or it was erased
 */
export async function showSecret(logbook: Logbook, visit: string, ref: string, why: string, by: Author, now = new Date()): Promise<string> {
  return logbook.write(visit, now, async (open) => {
    let secret
    try {
      secret = await logbook.vault.open(open.connection, visit, ref)
    } catch (error) {
      throw erasedProblem(error)
    }
    if (!secret) throw notFound('secret')
    open.write('secret.shown', { ref, why }, by)
    return secret.value
  })
}

/** The problem that a person is told where a visit's secrets are gone. */
export function erasedProblem(error: unknown): unknown {
  return error instanceof SecretsErased ? new HttpProblem(410, 'secrets-erased', "This visit's secrets were erased; make new ones in a new visit.") : error
}

/** Destroys the key of a visit's secrets because somebody asked for it; the seal still verifies. */
export async function eraseSecrets(logbook: Logbook, visit: string, by: Author, now = new Date()): Promise<void> {
  await logbook.write(visit, now, async (open) => {
    const { record } = open.state
    if (!record.secretsErased) await eraseNow(logbook, open, { refs: secretsLeft(record).map(({ ref }) => ref).sort(), kept: [] }, 'asked', by)
  })
}

/**
 * Erases what is due of a sealed visit's secrets, as who keeps them was answered.
 * @returns whether anything was due
 */
export async function eraseAsAnswered(logbook: Logbook, visit: string, by: Author, now: Date): Promise<boolean> {
  return logbook.write(visit, now, async (open) => {
    const { record } = open.state
    // Of a visit that was taken in without its secrets there is nothing to erase here; its logbook stays as it came.
    const step = !(await logbook.vault.hasKey(open.connection, visit)) ? null : nextErasure(record, (await logbook.states.standardOf(open.connection, record)).policy.eraseAfterDays)
    if (!step || Date.parse(step.at) > now.getTime()) {
      // It stood under another day than was answered: it is put where it belongs.
      await setErasure(open.connection, visit, step ? new Date(step.at) : null)
      return false
    }
    await eraseNow(logbook, open, step, 'custody', by)
    return true
  })
}

async function eraseNow(logbook: Logbook, open: OpenVisit, { refs, kept }: { refs: string[]; kept: string[] }, because: 'asked' | 'custody', by: Author): Promise<void> {
  const key = await logbook.vault.erase(open.connection, open.head.id, open.now, kept)
  // Photos of labels are under the key that is gone, whatever is kept.
  await eraseLabelPhotos(open.connection, open.head.id)
  await endPackLinks(open.connection, open.head.id)
  open.write('secrets.erased', { refs, ...(kept.length ? { kept } : {}), ...(key === null ? {} : { key }), because }, by)
}

/** Hands an open visit to another technician, who stands in its record from here on; to the same one again changes nothing. */
export async function handVisit(logbook: Logbook, visit: string, technician: { id: string; name: string }, reason: string, by: Author, now = new Date()): Promise<void> {
  await logbook.write(visit, now, async (open) => {
    if (open.head.sealed_at) throw conflictingState('sealed', 'This visit is sealed; it stays with who sealed it.')
    const has = open.state.record.visit.technician.id
    if (by.role === 'technician' && by.id !== has && by.id !== technician.id) throw forbidden('A technician hands on a visit of their own, or takes one over; ask a lead or the office.')
    if (has === technician.id) return
    if (leaksIn(reason, await logbook.secretsOf(open)).length > 0) throw refused([{ path: ['reason'], message: 'holds a secret of this visit; say it without' }])
    open.write('visit.handed', { technician, reason }, by)
    await setTechnician(open.connection, visit, technician)
  })
}

/** Checks an open visit by another version of the standard; the same one again changes nothing. */
export async function moveStandard(logbook: Logbook, visit: string, standard: { id: string; version: number }, by: Author, now = new Date()): Promise<void> {
  await logbook.write(visit, now, (open) => {
    if (open.head.sealed_at) throw conflictingState('sealed', 'This visit is sealed; it stays with the version it was checked by.')
    if (open.state.record.visit.standard.version !== standard.version) open.write('standard.moved', { standard }, by)
    return Promise.resolve()
  })
}

/**
 * Seals a visit: the last entry, signed.
 * @param digest of the record that was on the screen; another one means that something changed meanwhile
 * @throws HttpProblem where something still stands in the way
 */
export async function sealVisit(logbook: Logbook, visit: string, digest: string, by: Author, now = new Date()): Promise<void> {
  await logbook.write(visit, now, async (open) => {
    const { record, findings, seq } = open.state
    if (open.head.sealed_at) throw conflictingState('sealed', 'This visit was sealed already.')
    const current = signedDigest(record)
    if (current !== digest) throw conflictingState('changed', 'The record changed while you were about to seal it. Look at it again.')
    const hindrances = sealHindrances(record, findings, current, (await logbook.states.standardOf(open.connection, record)).policy.fourEyes)
    if (hindrances.length) throw new HttpProblem(409, 'not-ready', `It cannot be sealed yet: ${hindrances.join('; ')}.`, [], { hindrances })
    const entries = await entriesAfter(open.connection, visit, seq - 1)
    const standard = await logbook.states.standardOf(open.connection, record)
    const models = modelsUsed(record, await logbook.states.catalogueFor(open.connection, record))
    const parts = sealParts(entries.at(-1)!, record, standard, models, logbook.keys.keyName)
    open.write('sealed', { ...parts, signature: signText(logbook.keys, sealText(visit, parts)) }, by)
  })
}

