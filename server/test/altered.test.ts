import { afterAll, beforeAll, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { spawnSync } from 'node:child_process'
import { integrityProblems, readRecordFile } from '@pasado/core/documents/record-file'
import { chained } from '@pasado/core/record/chain'
import { headText } from '@pasado/core/record/later-heads'
import type { Entry } from '@pasado/core/record/entry'
import { demoVisits } from '@pasado/demo/all'
import { isolde as isoldeHerself } from '@pasado/demo/company'
import { loadVisits } from '../../scripts/load-demo'
import { makeRecordPdf } from '../src/documents/make'
import { insertLaterHeads, laterHeads } from '../src/db/later-heads'
import { row, transactionOn } from '../src/db/pool'
import { readVisit } from '../src/logbook/read'
import { companyKeys, signText } from '../src/vault/master-key'
import { Caller, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let wenna: Caller
let visit: string
let home: string
let customer: string
beforeAll(async () => {
  company = await startCompany()
  wenna = await Caller.as(company.running, 'wenna')
  const sealed = demoVisits().find(({ steps }) => steps.some(({ does }) => does === 'seal'))!
  await loadVisits(company.services, [sealed], new Date())
  visit = sealed.id
  const at = await row<{ home: string; customer: string }>(
    company.services.db,
    'SELECT h.id AS home, h.customer_id AS customer FROM visits v JOIN homes h ON h.id = v.home_id WHERE v.id = ?',
    [visit]
  )
  ;({ home, customer } = at!)
})
afterAll(() => company.stop())

const brokenOf = async () => (await wenna.call<{ broken: string | null }>('GET', `/visits/${visit}`)).body.broken
const paper = async () =>
  spawnSync('pdftotext', ['-layout', '-', '-'], {
    input: await makeRecordPdf(company.services, visit)
  }).stdout.toString()
const begun = async () => {
  const id = uuidv7()
  const opened = await wenna.call('POST', '/visits', {
    id,
    home,
    customer,
    technician: isoldeHerself.id,
    brief: { customerName: 'Cressa Oakum', street: '6 Trawl Street', town: 'Ness Skerrow' }
  })
  expect(opened.status).toBe(201)
  const { entries } = (await wenna.call<{ entries: Entry[] }>('GET', `/visits/${id}`)).body
  return entries.flatMap(({ kind, body }) => (kind === 'note.written' ? (body as { text: string }).text : []))
}

it('a sealed visit that was altered in the database is told of on the screen, on paper and where it is carried over', async () => {
  expect(await brokenOf()).toBeNull()
  expect(await paper()).not.toContain('DOES NOT HOLD')
  expect(await begun()).toEqual([])
  const { db } = company.services
  const { seq, doc } = (await row<{ seq: number; doc: string }>(
    db,
    'SELECT seq, doc FROM entries WHERE visit_id = ? AND doc LIKE \'%"measurement.set"%\' LIMIT 1',
    [visit]
  ))!
  const better = doc.replace(/"downMbps":\d+(\.\d+)?/, '"downMbps":990')
  expect(better).not.toBe(doc)
  await db.query('UPDATE entries SET doc = ? WHERE visit_id = ? AND seq = ?', [better, visit, seq])
  company.services.logbook.states.forget(visit)
  expect(await brokenOf()).toContain(`line ${seq} (measurement.set) was altered`)
  expect(await paper()).toContain('THIS RECORD DOES NOT HOLD')
  const pack = await wenna.call<{ title: string }>('POST', `/visits/${visit}/pack`, {})
  expect([pack.status, pack.body.title]).toEqual([409, expect.stringContaining('Nothing of it is printed')])
  expect(await begun()).toEqual([expect.stringContaining('taken over from a visit that does not hold')])
})

it('what follows a seal is signed by the server line by line: altered, taken out or signed by another, it is told of', async () => {
  const [, other] = demoVisits().filter(({ steps }) => steps.some(({ does }) => does === 'seal'))
  await loadVisits(company.services, [other!], new Date())
  visit = other!.id
  const { db, logbook } = company.services
  const before = (await readVisit(logbook, visit)).record
  const [ref] = Object.keys(before.secrets)
  for (const why of ['checking it', 'telling the customer'])
    expect((await wenna.call('POST', `/visits/${visit}/secrets/${ref}/show`, { why })).status).toBe(200)
  const heads = await laterHeads(db, visit)
  expect(heads.map(({ seq }) => seq)).toEqual([before.seal!.seq + 1, before.seal!.seq + 2])
  expect(await brokenOf()).toBeNull()
  const told = async () => {
    logbook.states.forget(visit)
    return brokenOf()
  }

  // The last line put otherwise, and its link in the chain made to fit.
  const { entries } = await readVisit(logbook, visit)
  const last = entries.at(-1)!
  const doc = async (entry: Entry) => {
    const { seq, hash } = entry
    const stored = JSON.stringify(entry)
    await db.query('UPDATE entries SET doc = ? WHERE visit_id = ? AND seq = ?', [stored, visit, seq])
    await db.query('UPDATE visits SET last_hash = ? WHERE id = ?', [hash, visit])
  }
  const { hash: _, ...placed } = last
  await doc(chained(entries.at(-2)!.hash, { ...placed, by: { ...placed.by, name: 'Nobody' } }))
  expect(await told()).toContain(`line ${last.seq} was altered after the server had signed it`)
  await doc(last)
  expect(await told()).toBeNull()

  await db.query('DELETE FROM later_heads WHERE visit_id = ? AND seq = ?', [visit, last.seq])
  expect(await told()).toContain(`line ${last.seq} was written after the seal, and has no signature`)
  const theirs = companyKeys(Buffer.alloc(32, 7))
  const { keyName: key, publicKey } = theirs
  const signature = signText(theirs, headText(visit, last, key))
  await transactionOn(db, null, (_connection, _rows, put) => {
    put(insertLaterHeads(visit, [{ seq: last.seq, key, publicKey, signature }]))
    return Promise.resolve()
  })
  expect(await told()).toContain('is signed by a key that is not this company’s')
})

it('a file tells from which line on the server signed for what follows the seal, and is taken in with it', async () => {
  const [, , third] = demoVisits().filter(({ steps }) => steps.some(({ does }) => does === 'seal'))
  await loadVisits(company.services, [third!], new Date())
  const { secrets } = (await readVisit(company.services.logbook, third!.id)).record
  const shown = `/visits/${third!.id}/secrets/${Object.keys(secrets)[0]}/show`
  expect((await wenna.call('POST', shown, { why: 'checking it' })).status).toBe(200)
  const { text } = await wenna.call('GET', `/visits/${third!.id}/export`)
  const file = readRecordFile(text)
  expect([integrityProblems(file, text), file.heads?.length]).toEqual([[], 1])
  const { heads: _, ...without } = file
  // Lines from before the server signed for them have no signature; nothing says that they should.
  expect(integrityProblems(without)).toEqual([])
  expect(integrityProblems({ ...file, heads: [{ ...file.heads![0]!, seq: 3 }] })).toMatchObject([
    { path: ['heads'], message: 'line 3 has a signature, and is no line after the seal' }
  ])
  const elsewhere = await startCompany()
  try {
    const lead = await Caller.as(elsewhere.running, 'wenna')
    expect((await lead.call('POST', '/import', { text })).status).toBe(201)
    expect(await laterHeads(elsewhere.services.db, third!.id)).toEqual(file.heads)
  } finally {
    await elsewhere.stop()
  }
})
