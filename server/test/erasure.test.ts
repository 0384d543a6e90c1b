import { createHash } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { integrityProblems, readRecordFile } from '@pasado/core/documents/record-file'
import { rows, run } from '../src/db/pool'
import { visitFile } from '../src/logbook/read'
import { setSeal } from '../src/logbook/visits'
import { serverAuthor } from '../src/logbook/server-author'
import { isolde as isoldeHerself } from '@pasado/demo/company'
import { eraseDue } from '../src/vault/erase-due'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let corin: Caller
beforeAll(async () => {
  company = await startCompany()
  isolde = await Caller.as(company.running, 'isolde')
  corin = await Caller.as(company.running, 'corin')
})
afterAll(() => company.stop())

const DAY = 24 * 3_600_000
const value = 'demo-lantern-on-the-quay-7'

/** A visit with two secrets, sealed a moment ago: by the server's own hand, as what hinders a seal is not of interest here. */
async function sealedVisit(custody: Record<string, unknown> | null) {
  const visit = await openAVisit(isolde)
  const [unit, network] = [uuidv7(), uuidv7()]
  const secrets = [
    { ref: uuidv7(), purpose: 'wifi-passphrase', thing: 'network', id: network, origin: 'typed', value },
    { ref: uuidv7(), purpose: 'admin-password', thing: 'unit', id: unit, origin: 'typed', value: `${value}-admin` }
  ]
  await isolde.call('POST', `/visits/${visit}/entries`, {
    entries: [
      draft(visit, 'unit.set', { id: unit, set: { name: 'Router' } }),
      draft(visit, 'network.set', { id: network, set: { ssid: 'Razorbill' } }),
      ...(custody ? [draft(visit, 'custody.answered', custody as { custody: 'company-keeps' })] : [])
    ]
  })
  for (const secret of secrets)
    expect((await isolde.call('POST', `/visits/${visit}/secrets`, secret)).status).toBeLessThan(300)
  await company.services.logbook.write(visit, new Date(), (open) =>
    setSeal(company.services.logbook, open, serverAuthor)
  )
  return { visit, wifi: secrets[0]!.ref, admin: secrets[1]!.ref }
}

const show = async (visit: string, ref: string) =>
  await isolde.call<{ value?: string }>('POST', `/visits/${visit}/secrets/${ref}/show`, { why: 'checking it' })
const state = (visit: string) =>
  company.services.logbook.write(visit, new Date(), (open) => Promise.resolve(open.state.record))

describe('secrets go by themselves, as was answered', () => {
  it('after the standard’s days, and not before; the logbook says so with the print of the key', async () => {
    const { visit, wifi } = await sealedVisit({ custody: 'erase-after-30-days' })
    const [{ wrapped }] = (await rows<{ wrapped: Buffer }>(
      company.services.db,
      'SELECT wrapped FROM vault_keys WHERE visit_id = ?',
      [visit]
    )) as [{ wrapped: Buffer }]
    const dataKey = await company.services.vault.exportKey(company.services.db, visit)
    await eraseDue(company.services, new Date(Date.now() + 29 * DAY))
    expect((await show(visit, wifi)).body.value).toBe(value)
    expect(await eraseDue(company.services, new Date(Date.now() + 30 * DAY + 60_000))).toBeGreaterThan(0)
    expect((await show(visit, wifi)).status).toBe(410)
    expect(
      (
        await rows<{ wrapped: Buffer | null }>(
          company.services.db,
          'SELECT wrapped FROM vault_keys WHERE visit_id = ?',
          [visit]
        )
      )[0]!.wrapped
    ).toBeNull()
    expect(wrapped.length).toBeGreaterThan(0)
    const { body } = await isolde.call<{ entries: { kind: string; by: { name: string }; body: unknown }[] }>(
      'GET',
      `/visits/${visit}/entries`
    )
    expect(body.entries.filter(({ kind }) => kind === 'secrets.erased')).toMatchObject([
      { by: { name: 'Pasado' }, body: { because: 'custody', key: createHash('sha256').update(dataKey).digest('hex') } }
    ])
    expect(await eraseDue(company.services, new Date(Date.now() + 90 * DAY))).toBe(0)
  })

  it('at once where only the customer keeps them', async () => {
    const { visit, admin } = await sealedVisit({ custody: 'customer-only-now' })
    await eraseDue(company.services)
    expect((await show(visit, admin)).status).toBe(410)
    expect((await state(visit)).secretsErased).toBe(true)
  })

  it('what the company keeps stays until its day, under another key; the rest goes', async () => {
    const until = new Date(Date.now() + 60 * DAY).toISOString().slice(0, 10)
    const { visit, wifi, admin } = await sealedVisit({ custody: 'company-keeps', keeps: ['admin-password'], until })
    await eraseDue(company.services, new Date(Date.now() + 31 * DAY))
    expect((await show(visit, wifi)).status).toBe(410)
    expect((await show(visit, admin)).body.value).toBe(`${value}-admin`)
    expect(await state(visit)).toMatchObject({
      secretsErased: false,
      secrets: { [wifi]: { erasedAt: expect.any(String) as string } }
    })
    await eraseDue(company.services, new Date(Date.now() + 59 * DAY))
    expect((await show(visit, admin)).status).toBe(200)
    await eraseDue(company.services, new Date(Date.now() + 62 * DAY))
    expect((await show(visit, admin)).status).toBe(410)
  })

  it('a visit that came without its secrets keeps its logbook as it came', async () => {
    const { visit } = await sealedVisit({ custody: 'erase-after-30-days' })
    await run(company.services.db, 'DELETE FROM vault_keys WHERE visit_id = ?', [visit])
    const lines = async () =>
      (
        await rows<{ count: number }>(company.services.db, 'SELECT COUNT(*) AS count FROM entries WHERE visit_id = ?', [
          visit
        ])
      )[0]!.count
    const before = await lines()
    await eraseDue(company.services, new Date(Date.now() + 31 * DAY))
    expect(await lines()).toBe(before)
    expect(await rows(company.services.db, 'SELECT 1 FROM erasures WHERE visit_id = ?', [visit])).toEqual([])
  })

  it('a key that nobody can open any more is destroyed all the same; a visit that cannot be erased keeps no other', async () => {
    const [lost, broken, other] = [
      await sealedVisit({ custody: 'customer-only-now' }),
      await sealedVisit({ custody: 'company-keeps', keeps: ['admin-password'], until: '2999-01-01' }),
      await sealedVisit({ custody: 'customer-only-now' })
    ]
    const spoil = (visit: string) =>
      run(company.services.db, 'UPDATE vault_keys SET wrapped = ? WHERE visit_id = ?', [Buffer.alloc(60, 1), visit])
    await spoil(lost.visit)
    await spoil(broken.visit)
    await eraseDue(company.services, new Date(Date.now() + 40 * DAY))
    expect([(await state(lost.visit)).secretsErased, (await state(other.visit)).secretsErased]).toEqual([true, true])
    // What is kept has to be opened first: that fails, nothing is lost of it, and the others went.
    expect(Object.values((await state(broken.visit)).secrets).some(({ erasedAt }) => erasedAt !== undefined)).toBe(
      false
    )
    expect(
      (
        await rows<{ wrapped: Buffer | null }>(
          company.services.db,
          'SELECT wrapped FROM vault_keys WHERE visit_id = ?',
          [lost.visit]
        )
      )[0]!.wrapped
    ).toBeNull()
    await run(company.services.db, 'DELETE FROM erasures WHERE visit_id = ?', [broken.visit])
  })

  it('kept without an end, nothing goes; a day that stood wrong is put right, and nothing is erased for it', async () => {
    const { visit, admin } = await sealedVisit({ custody: 'company-keeps' })
    const other = await sealedVisit({ custody: 'erase-after-30-days' })
    await run(
      company.services.db,
      'INSERT INTO erasures (visit_id, home_id, due_at) SELECT id, home_id, opened_at FROM visits WHERE id = ?',
      [visit]
    )
    await run(company.services.db, 'UPDATE erasures SET due_at = ? WHERE visit_id = ?', [new Date(0), other.visit])
    expect(await eraseDue(company.services)).toBe(0)
    expect((await show(visit, admin)).status).toBe(200)
    expect((await show(other.visit, other.admin)).status).toBe(200)
    const left = await rows<{ visit_id: string; due_at: Date }>(
      company.services.db,
      'SELECT visit_id, due_at FROM erasures WHERE visit_id IN (?, ?)',
      [visit, other.visit]
    )
    expect(left.map(({ visit_id }) => visit_id)).toEqual([other.visit])
    expect(left[0]!.due_at.getTime()).toBeGreaterThan(Date.now() + 29 * DAY)
  })
})

type Way = { token: string; code: string; expiresAt: string }
const openPage = (token: string, code: string) =>
  new Caller(company.running.address).call<{
    networks: { ssid: string; passphrase: string; qr: string }[]
    title: string
  }>('POST', '/pack', { token, code })

describe('the pack as a page', () => {
  it('opens with link and code together, for whoever has both, and tells what the pack tells', async () => {
    const { visit } = await sealedVisit(null)
    const { status, body: way } = await isolde.call<Way>('POST', `/visits/${visit}/pack-links`, { days: 7 })
    expect(status).toBe(201)
    const { body } = await openPage(way.token, `${way.code.slice(0, 3)} ${way.code.slice(3)}`)
    expect(body.networks).toMatchObject([
      { ssid: 'Razorbill', passphrase: value, qr: expect.stringContaining('Razorbill') as string }
    ])
    const { body: listed } = await isolde.call<{ links: { openedAt: string | null }[] }>(
      'GET',
      `/visits/${visit}/pack-links`
    )
    expect(listed.links).toMatchObject([{ openedAt: expect.any(String) as string }])
    const { body: book } = await isolde.call<{ entries: { kind: string; body: unknown }[] }>(
      'GET',
      `/visits/${visit}/entries`
    )
    expect(book.entries.at(-1)).toMatchObject({ kind: 'secret.shown', body: { why: 'making the pack’s page' } })
    expect(JSON.stringify(book)).not.toContain(way.token)
  })

  it('stands encrypted: neither token nor code nor what it says can be read in the database', async () => {
    const { visit } = await sealedVisit(null)
    const { body: way } = await isolde.call<Way>('POST', `/visits/${visit}/pack-links`, { days: 1 })
    const [row] = await rows<{ sealed_pack: Buffer; token_hash: Buffer }>(
      company.services.db,
      'SELECT sealed_pack, token_hash FROM pack_links WHERE visit_id = ?',
      [visit]
    )
    for (const hidden of [value, 'Razorbill', way.token, way.code])
      expect(Buffer.concat([row!.sealed_pack, row!.token_hash]).includes(hidden)).toBe(false)
  })

  it('a wrong code is told with the tries that are left; after the fifth the right one is too late; a guessed link is told like an ended one', async () => {
    const { visit } = await sealedVisit(null)
    const { body: way } = await isolde.call<Way>('POST', `/visits/${visit}/pack-links`, { days: 7 })
    const wrong = way.code === '000000' ? '000001' : '000000'
    const titles: string[] = []
    for (let at = 0; at < 5; at++) titles.push((await openPage(way.token, wrong)).text)
    expect(titles[0]).toContain('4 tries are left')
    expect(titles[4]).toContain('last try')
    const late = await openPage(way.token, way.code)
    const guessed = await openPage('A'.repeat(32), way.code)
    expect([late.status, guessed.status]).toEqual([410, 410])
    expect(guessed.text).toBe(late.text)
    expect((await openPage('short', '12')).status).toBe(422)
  })

  it('ends by its day, by hand, and when the secrets are erased', async () => {
    const { visit } = await sealedVisit({ custody: 'erase-after-30-days' })
    const make = async () => (await isolde.call<Way>('POST', `/visits/${visit}/pack-links`, { days: 30 })).body
    const [past, ended, erased] = [await make(), await make(), await make()]
    const hash = (way: Way) => createHash('sha256').update(way.token).digest()
    await run(company.services.db, 'UPDATE pack_links SET expires_at = ? WHERE token_hash = ?', [
      new Date(Date.now() - 1000),
      hash(past)
    ])
    expect((await openPage(past.token, past.code)).status).toBe(410)
    expect((await isolde.call('DELETE', `/visits/${visit}/pack-links/${hash(ended).toString('hex')}`)).status).toBe(204)
    expect((await openPage(ended.token, ended.code)).status).toBe(410)
    expect((await openPage(erased.token, erased.code)).status).toBe(200)
    await eraseDue(company.services, new Date(Date.now() + 31 * DAY))
    expect((await openPage(erased.token, erased.code)).status).toBe(410)
    expect((await isolde.call('POST', `/visits/${visit}/pack-links`, { days: 31 })).status).toBe(422)
  })
})

it('a file with a partial erasure says what its entries say', async () => {
  const { visit } = await sealedVisit({
    custody: 'company-keeps',
    keeps: ['admin-password'],
    until: new Date(Date.now() + 60 * DAY).toISOString().slice(0, 10)
  })
  await eraseDue(company.services, new Date(Date.now() + 31 * DAY))
  const text = await visitFile(company.services, visit, null)
  // The seal of these visits is none; all else has to fit.
  expect(integrityProblems(readRecordFile(text), text).map(({ path }) => path[0])).not.toContain('record')
})

/** By somebody else: ten looks an hour are one person's. */
const look = (visit: string, ref: string) =>
  corin.call<{ value?: string }>('POST', `/visits/${visit}/secrets/${ref}/show`, { why: 'checking it' })

describe('nothing outlives its day', () => {
  it('what is kept until a day before the standard’s days goes on that day, the rest on theirs', async () => {
    const soon = new Date(Date.now() + 5 * DAY).toISOString().slice(0, 10)
    const { visit, wifi, admin } = await sealedVisit({
      custody: 'company-keeps',
      keeps: ['admin-password'],
      until: soon
    })
    // The whole of its last day is still theirs, wherever on the earth that ends.
    await eraseDue(company.services, new Date(Date.parse(soon) + DAY + 11 * 3_600_000))
    expect((await look(visit, admin)).status).toBe(200)
    await eraseDue(company.services, new Date(Date.parse(soon) + DAY + 12 * 3_600_000 + 1000))
    expect([(await look(visit, admin)).status, (await look(visit, wifi)).status]).toEqual([410, 200])
    expect((await state(visit)).secretsErased).toBe(false)
    await eraseDue(company.services, new Date(Date.now() + 31 * DAY))
    expect((await look(visit, wifi)).status).toBe(410)
  })

  it('copies in the visit that began from it go with their source, what was made since and label photos of its own stay', async () => {
    const wenna = await Caller.as(company.running, 'wenna')
    const { visit, wifi } = await sealedVisit({ custody: 'erase-after-30-days' })
    const {
      visit: { home, customer }
    } = await state(visit)
    const next = uuidv7()
    const opened = await isolde.call('POST', '/visits', {
      id: next,
      home,
      customer,
      technician: isoldeHerself.id,
      brief: { customerName: 'Cressa Oakum', street: '6 Trawl Street', town: 'Ness Skerrow' }
    })
    expect(opened.status).toBe(201)
    const made = uuidv7()
    expect(
      (
        await isolde.call('POST', `/visits/${next}/secrets`, {
          ref: made,
          purpose: 'recovery-answers',
          thing: 'brief',
          id: 'brief',
          origin: 'typed',
          value: 'made-up-since-then'
        })
      ).status
    ).toBe(201)
    const copies = Object.values((await state(next)).secrets)
      .filter(({ ref }) => ref !== made)
      .map(({ ref }) => ref)
    expect(copies).toHaveLength(2)
    for (const ref of copies) expect((await look(next, ref)).status).toBe(200)
    expect(
      (
        await wenna.call('POST', `/visits/${visit}/erase-secrets`, {
          confirm: 'erase for good',
          why: 'The customer asked for it.'
        })
      ).status
    ).toBe(204)
    expect((await look(visit, wifi)).status).toBe(410)
    for (const ref of copies) expect((await look(next, ref)).status).toBe(410)
    expect((await look(next, made)).body.value).toBe('made-up-since-then')
    const after = await state(next)
    expect([after.secretsErased, copies.map((ref) => typeof after.secrets[ref]!.erasedAt)]).toEqual([
      false,
      ['string', 'string']
    ])
    // A new one can still be kept.
    expect(
      (
        await isolde.call('POST', `/visits/${next}/secrets`, {
          ref: uuidv7(),
          purpose: 'wifi-passphrase',
          thing: 'network',
          id: 'brief',
          origin: 'typed',
          value: 'marigold-anvil-thirteen'
        })
      ).status
    ).toBe(201)
    // And by themselves, when the day of the source has come.
    const { visit: other } = await sealedVisit({ custody: 'customer-only-now' })
    const there = await state(other)
    const later = uuidv7()
    await isolde.call('POST', '/visits', {
      id: later,
      home: there.visit.home,
      customer: there.visit.customer,
      technician: isoldeHerself.id,
      brief: { customerName: 'Cressa Oakum', street: '6 Trawl Street', town: 'Ness Skerrow' }
    })
    await eraseDue(company.services)
    expect(Object.values((await state(later)).secrets).every(({ erasedAt }) => erasedAt !== undefined)).toBe(true)
  })
})
