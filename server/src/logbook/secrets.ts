import { mustWorkOn } from './who-may'
import type { Body } from '@pasado/core/record/entries/all'
import { nearNames } from '@pasado/core/record/near-names'
import { type ErasureStep, nextErasure, secretsLeft } from '@pasado/core/work/erasure/erasure'
import type { OpenVisit, Look } from './open-visit'
import { endPackLinks } from '../db/pack-links'
import { entriesAfter } from '../archive/archived'
import { eraseLabelPhotos } from '../db/photos'
import { openVisitsOfHome, readVisitHead } from '../db/visits'
import type { Author } from '@pasado/core/record/attribution'
import { mustBeOpen, type Logbook } from './logbook'
import type { SecretPurpose } from '@pasado/core/record/answers'
import { SecretsErased } from '../vault/vault'
import { conflictingState, gone, notFound, refused } from '../problem'
import { leaksIn } from '@pasado/core/secrets/leaks'
import { setErasure } from '../db/erasures'

/** A secret as a person hands it in. */
export interface NewSecret {
  ref: string
  purpose: SecretPurpose
  thing: 'brief' | 'unit' | 'network'
  id: string
  origin: 'typed' | 'label' | 'made'
  /** That it is to be typed in later. */
  prepared?: true
  value: string
}

/**
 * Puts a secret into the vault and says so in the logbook. Sent twice under one reference, it is kept once.
 * @throws DomainProblem where the visit is sealed, its secrets erased, or the value stands in the logbook already
 */
export async function keepSecret(
  logbook: Logbook,
  visit: string,
  secret: NewSecret,
  by: Author,
  now = new Date(),
  look?: Look
) {
  return logbook.write(visit, now, async (open) => {
    const held = open.state.record.secrets[secret.ref]
    if (held) return held.assessed
    mustBeOpen(open)
    if (open.state.record.secretsErased) throw erasedProblem(new SecretsErased())
    await mustWorkOn(logbook.states, open, by, look?.base, now)
    if (look) await logbook.mustBeOwn(open, look.from, by)
    await mustNotStandInLogbook(open, secret.value)
    try {
      return await keepIn(logbook, open, secret, by, look)
    } catch (error) {
      if ((error as { code?: string }).code === 'ER_DUP_ENTRY')
        throw refused([{ path: ['ref'], message: 'is that of a secret of another visit; give it a new one' }])
      throw erasedProblem(error)
    }
  })
}

/**
 * Shows one secret, and logs who saw it and why.
 * @throws DomainProblem where there is none or it was erased
 */
export async function showSecret(
  logbook: Logbook,
  visit: string,
  ref: string,
  why: string,
  by: Author,
  now = new Date()
): Promise<string> {
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
  return error instanceof SecretsErased
    ? gone('secrets-erased', "This visit's secrets were erased; make new ones in a new visit.")
    : error
}

/**
 * Destroys the key of a visit's secrets because somebody asked for it; the seal still verifies. Copies that a later open visit of the
 * home began with go as well.
 * @throws DomainProblem where there is nothing to erase: of an open visit in which none was kept yet, later ones would be lost
 */
export async function eraseSecrets(
  logbook: Logbook,
  visit: string,
  why: string,
  by: Author,
  now = new Date()
): Promise<void> {
  await eraseCopies(logbook, visit, null, by, now)
  await logbook.write(visit, now, async (open) => {
    const { record } = open.state
    if (record.secretsErased) return
    if (!(await logbook.vault.hasKey(open.connection, visit)))
      throw conflictingState('nothing-kept', 'No secret of this visit is kept here, so there is nothing to erase.')
    if (leaksIn(why, await logbook.secretsOf(open)).length > 0)
      throw refused([{ path: ['why'], message: 'holds a secret of this visit; say it without' }])
    await eraseNow(
      logbook,
      open,
      {
        refs: secretsLeft(record)
          .map(({ ref }) => ref)
          .sort(),
        kept: []
      },
      { because: 'asked', why },
      by
    )
  })
}

/**
 * Erases what is due of a sealed visit's secrets, as who keeps them was answered.
 * @returns whether anything was due
 */
export async function eraseAsAnswered(logbook: Logbook, visit: string, by: Author, now: Date): Promise<boolean> {
  const due = await dueStep(logbook, visit, now)
  if (due) await eraseCopies(logbook, visit, due.refs, by, now)
  return logbook.write(visit, now, async (open) => {
    const { record } = open.state
    // Of a visit that was taken in without its secrets there is nothing to erase here; its logbook stays as it came.
    const step = !(await logbook.vault.hasKey(open.connection, visit))
      ? null
      : nextErasure(record, (await logbook.states.standardOf(open.connection, record)).policy.eraseAfterDays)
    if (!step || Date.parse(step.at) > now.getTime()) {
      // It stood under another day than was answered: it is put where it belongs.
      await setErasure(open.connection, visit, step ? new Date(step.at) : null)
      return false
    }
    await eraseNow(logbook, open, step, { because: 'custody' }, by)
    return true
  })
}

/** A value that stands in some line already, a name or a note, is no secret any more. */
async function mustNotStandInLogbook(open: OpenVisit, value: string): Promise<void> {
  const lines = await entriesAfter(open.connection, open.head.id, 0)
  const line = lines.find(({ body }) => leaksIn(body, [value]).length > 0)
  if (line) {
    const message = `stands in line ${line.seq} of the logbook already; make another one`
    throw refused([{ path: ['value'], message }], 'This value stands in the logbook already, where many can read it.')
  }
}

async function dueStep({ db, states }: Logbook, visit: string, now: Date): Promise<ErasureStep | null> {
  const head = await readVisitHead(db, visit)
  if (!head) return null
  const { record } = await states.at(db, visit, head.last_seq)
  const step = nextErasure(record, (await states.standardOf(db, record)).policy.eraseAfterDays)
  return step && Date.parse(step.at) <= now.getTime() ? step : null
}

async function eraseNow(
  logbook: Logbook,
  open: OpenVisit,
  { refs, kept }: { refs: string[]; kept: string[] },
  said: Pick<Body<'secrets.erased'>, 'because' | 'why'>,
  by: Author
): Promise<void> {
  const key = await logbook.vault.erase(open.connection, open.head.id, open.now, kept)
  // Photos of labels are under the key that is gone, whatever is kept.
  await eraseLabelPhotos(open.connection, open.head.id)
  await endPackLinks(open.connection, open.head.id)
  open.write(
    'secrets.erased',
    { refs, ...(kept.length ? { kept } : {}), ...(key === null ? {} : { key }), ...said },
    by
  )
}

/**
 * Erases in the open visits of the home what they began with and that is erased where it came from. What the customer was asked
 * about anew there, and what was kept since, stays.
 * @param refs which secrets of the visit go; null for all
 */
async function eraseCopies(
  logbook: Logbook,
  visit: string,
  refs: readonly string[] | null,
  by: Author,
  now: Date
): Promise<void> {
  const head = await readVisitHead(logbook.db, visit)
  if (!head) return
  const gone = await logbook.vault.printsOf(logbook.db, visit, refs)
  if (gone.size === 0) return
  for (const later of await openVisitsOfHome(logbook.db, head.home_id)) {
    if (later === visit) continue
    await logbook.write(later, now, async (open) => {
      const { record } = open.state
      if (record.visit.startedFrom !== visit || record.custody !== null || record.secretsErased) return
      const left = new Set(secretsLeft(record).map(({ ref }) => ref))
      const copies = [...(await logbook.vault.printsOf(open.connection, later, null))]
        .filter(([ref, print]) => left.has(ref) && [...gone.values()].includes(print))
        .map(([ref]) => ref)
        .sort()
      if (copies.length === 0) return
      const key = await logbook.vault.eraseSome(open.connection, later, copies, now)
      await endPackLinks(open.connection, later)
      open.write('copies.erased', { refs: copies, from: visit, ...(key === null ? {} : { key }) }, by)
    })
  }
}

export async function keepIn(logbook: Logbook, open: OpenVisit, secret: NewSecret, by: Author, look?: Look) {
  const { ref, purpose, thing, id, origin, prepared, value } = secret
  const assessed = await logbook.vault.keep(
    open.connection,
    { ref, visit: open.head.id, thing: id, purpose, value },
    nearNames(open.state.record)
  )
  open.write('secret.kept', { ref, purpose, thing, id, origin, ...(prepared ? { prepared } : {}), assessed }, by, look)
  return assessed
}
