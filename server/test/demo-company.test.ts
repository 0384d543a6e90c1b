import { allCounted } from '@pasado/testing/counted'
import { whatIsListed } from '@pasado/testing/held'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { demoVisits } from '@pasado/demo/all'
import { readRecordFile } from '@pasado/core/documents/record-file'
import { visitRecord } from '@pasado/core/record/record'
import { signedDigest } from '@pasado/core/record/seal'
import { isolde } from '@pasado/demo/company'
import { loadVisits } from '../../scripts/load-demo'
import { main as pasado } from '../../cli/src/main'
import { rebuildProjections } from '../src/logbook/rebuild'
import { judgedVisit, readVisit } from '../src/logbook/read'
import { Caller, draft, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let wenna: Caller
const scripts = demoVisits()
const sealedIds = scripts.filter(({ steps }) => steps.some(({ does }) => does === 'seal')).map(({ id }) => id)
const idOf = (street: string, nth = 0) => scripts.filter(({ brief }) => brief.street === street).at(nth)!.id

beforeAll(async () => {
  company = await startCompany()
  await loadVisits(company.services, scripts, new Date())
  wenna = await Caller.as(company.running, 'wenna')
})
afterAll(() => company.stop())

const exported = async (visit: string) => (await wenna.call('GET', `/visits/${visit}/export`)).text

it('the demo company has its homes and visits: a dozen sealed, one in review with two breaks, one ready to sign', async () => {
  expect(sealedIds.length).toBeGreaterThanOrEqual(12)
  const { body } = await wenna.call<{
    visits: { id: string; summary: { open: number; heaviest: { outcome: string }[] }; review: string }[]
  }>('GET', '/day?whose=all')
  const inReview = body.visits.filter(({ review }) => review === 'asked')
  expect(inReview.map(({ summary }) => summary.heaviest.filter(({ outcome }) => outcome === 'breaks').length)).toEqual([
    2
  ])
  expect(body.visits.filter(({ summary }) => summary.open === 0)).toHaveLength(1)
  for (const { id } of scripts) {
    const { record } = await readVisit(company.services.logbook, id)
    expect(visitRecord.safeParse(record).error?.issues ?? []).toEqual([])
  }
})

it('every projection is what a rebuild makes of the logbook', async () => {
  const { services } = company
  await allCounted(services.db)
  const before = await whatIsListed(services)
  expect(before.get('units')!.split('\n').length).toBeGreaterThan(40)
  await rebuildProjections(services.logbook)
  expect(await whatIsListed(services)).toEqual(before)
})

describe('a sealed visit', () => {
  it('takes no more entries, and is not sealed twice', async () => {
    const id = sealedIds[0]!
    const { record } = await readVisit(company.services.logbook, id)
    expect(
      (await wenna.call('POST', `/visits/${id}/entries`, { entries: [draft(id, 'note.written', { text: 'late' })] }))
        .status
    ).toBe(409)
    expect((await wenna.call('POST', `/visits/${id}/seal`, { digest: signedDigest(record) })).status).toBe(409)
  })

  it('is proven by pasado verify, and any changed octet is found out', async () => {
    const text = await exported(sealedIds[0]!)
    const file = join(company.database.folder, 'sealed.json')
    const verify = async (changed: string) => {
      writeFileSync(file, changed)
      return quietly(() => pasado(['verify', file]))
    }
    expect(await verify(text)).toBe(0)
    expect(await verify(`${text} `)).toBe(1)
    const step = Math.floor(text.length / 60)
    for (let at = 3; at < text.length; at += step) {
      const octet = text[at]!
      const letter = octet === 'x' ? 'y' : 'x'
      const other = /[0-8]/.test(octet) ? String(Number(octet) + 1) : letter
      expect(
        await verify(text.slice(0, at) + other + text.slice(at + 1)),
        `octet ${at}: ${text.slice(at - 20, at + 20)}`
      ).not.toBe(0)
    }
    writeFileSync(file, text)
    expect(await quietly(() => pasado(['verify', file, '--key', '00'.repeat(32)]))).toBe(1)
  })

  it('cannot be sealed before it is ready', async () => {
    const id = idOf('22 Dulse Road')
    const { record } = await readVisit(company.services.logbook, id)
    const { status, body } = await wenna.call<{ hindrances: string[] }>('POST', `/visits/${id}/seal`, {
      digest: signedDigest(record)
    })
    expect(status).toBe(409)
    expect(body.hindrances).toEqual(['the customer has not signed', 'the technician has not signed'])
    expect((await wenna.call('POST', `/visits/${id}/seal`, { digest: '0'.repeat(64) })).status).toBe(409)
  })

  it('is where the next visit at its home starts from, secrets included', async () => {
    const from = sealedIds.at(-2)!
    const { record } = await readVisit(company.services.logbook, from)
    const id = uuidv7()
    const { customerName, street, town } = record.brief.facts
    await wenna.call('POST', '/visits', {
      id,
      home: record.visit.home,
      customer: record.visit.customer,
      technician: isolde.id,
      brief: { customerName, street, town, reason: 'fault' }
    })
    const { record: next, findings } = await judgedVisit(company.services.logbook, id)
    expect(next.visit.startedFrom).toBe(from)
    // What held then is not asked anew, as nothing was changed yet.
    expect(next.provenBefore).toMatchObject({ visit: from })
    expect(findings.find(({ rule }) => rule === 'prove-source')).toMatchObject({
      outcome: 'not-here',
      evidence: expect.stringContaining(`last proven on ${record.seal!.at.slice(0, 10)}`) as string
    })
    expect(Object.keys(next.units).sort()).toEqual(Object.keys(record.units).sort())
    expect(Object.keys(next.secrets)).toHaveLength(Object.keys(record.secrets).length)
    const [item] = Object.values(next.secrets)
    expect((await wenna.call('POST', `/visits/${id}/secrets/${item!.ref}/show`, { why: 'checking it' })).status).toBe(
      200
    )
  })
})

describe('files', () => {
  it('pasado check: 0 where all musts hold, 1 where some do not, 2 where it cannot be read', async () => {
    const file = join(company.database.folder, 'check.json')
    const check = async (text: string) => {
      writeFileSync(file, text)
      return quietly(() => pasado(['check', file]))
    }
    expect(await check(await exported(sealedIds[1]!))).toBe(0)
    const open = await exported(idOf('9 Ferryslip Terrace', -1))
    expect(await check(open)).toBe(1)
    expect(await check(open.slice(0, 5000))).toBe(2)
    expect(await check(open.replace('"pasado.record/1"', '"pasado.record/2"'))).toBe(2)
    expect(await check(open.replace('192.169.20.244', '192.168.20.244'))).toBe(2)
  })

  it('exported, taken in by an empty company and exported again, a visit is the same to the last octet', async () => {
    const texts = await Promise.all(
      [sealedIds[0]!, idOf('9 Ferryslip Terrace', -1), idOf('4 Lantern Rise')].map(exported)
    )
    const locked = (
      await wenna.call('POST', `/visits/${idOf('22 Dulse Road')}/export`, { passphrase: 'gulls over the harbour' })
    ).text
    const secret = Object.values(readRecordFile(locked).record.secrets)[0]!
    const other = await startCompany()
    try {
      const lead = await Caller.as(other.running, 'wenna')
      for (const text of texts) {
        expect((await lead.call('POST', '/import', { text })).status).toBe(201)
        expect((await lead.call('POST', '/import', { text })).body).toMatchObject({ known: true })
        const { visit } = readRecordFile(text)
        expect((await lead.call('GET', `/visits/${visit}/export`)).text === text, visit).toBe(true)
      }
      expect((await lead.call('POST', '/import', { text: texts[0]!.replaceAll('Skerrow', 'Skarrow') })).status).toBe(
        422
      )
      expect((await lead.call('POST', '/import', { text: locked, passphrase: 'another one' })).status).toBe(422)
      expect((await lead.call('POST', '/import', { text: locked, passphrase: 'gulls over the harbour' })).status).toBe(
        201
      )
      const shown = async (caller: Caller) =>
        (
          await caller.call<{ value: string }>('POST', `/visits/${idOf('22 Dulse Road')}/secrets/${secret.ref}/show`, {
            why: 'checking it'
          })
        ).body.value
      expect(await shown(lead)).toBe(await shown(wenna))
    } finally {
      await other.stop()
    }
  })
})

it('pack and record are PDFs, and only the pack holds passphrases', async () => {
  const id = idOf('22 Dulse Road')
  const made = await wenna.call('POST', `/visits/${id}/pack`, {})
  const record = await wenna.call('GET', `/visits/${id}/record.pdf`)
  for (const answer of [made, record]) expect([answer.status, answer.text.slice(0, 5)]).toEqual([200, '%PDF-'])
})

/** Runs a command without its words. */
async function quietly<T>(work: () => Promise<T>): Promise<T> {
  const { log, error } = console
  console.log = console.error = () => undefined
  try {
    return await work()
  } finally {
    console.log = log
    console.error = error
  }
}
