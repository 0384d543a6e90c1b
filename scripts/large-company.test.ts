import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { integrityProblems, readRecordFile } from '@pasado/core/documents/record-file'
import { canonicalJson } from '@pasado/core/values/canonical'
import { largeCompany } from '@pasado/demo/large-company'
import { byModel, byRule, byStreet, byWord, byWritten } from '@pasado/server/db/home-search'
import { rows } from '@pasado/server/db/pool'
import { visitFile } from '@pasado/server/logbook/read'
import { rebuildProjections } from '@pasado/server/logbook/rebuild'
import { openVisit } from '@pasado/server/logbook/visits'
import { v7 as uuidv7 } from 'uuid'
import { isolde } from '@pasado/demo/company'
import { startCompany } from '@pasado/testing/company'
import { allCounted } from '@pasado/testing/counted'
import { loadLargeCompany } from './large-company'

const today = new Date('2026-03-02T10:00:00Z')
const HOMES = 300
let company: Awaited<ReturnType<typeof startCompany>>
beforeAll(async () => {
  company = await startCompany()
})
afterAll(() => company.stop())

const everyTable = async () =>
  Object.fromEntries(
    await Promise.all(
      ['homes', 'units', 'networks', 'findings', 'home_terms', 'durations', 'checks', 'erasures'].map(async (table) => {
        const list = (await rows<Record<string, unknown>>(company.services.db, `SELECT * FROM ${table}`)).map((row) =>
          canonicalJson(JSON.parse(JSON.stringify(row)) as never)
        )
        return [table, list.sort()] as const
      })
    )
  )

describe('a generated company', () => {
  it('is the same at each making, no serial or MAC address is there twice, and a fifth of its homes was visited again', () => {
    const [first, other] = [[...largeCompany({ homes: 200, today })], [...largeCompany({ homes: 200, today })]]
    expect(first).toEqual(other)
    const homes = new Set(first.map(({ home }) => home))
    expect(homes.size).toBe(200)
    expect(first.length).toBeGreaterThan(215)
    const macs = first
      .filter(({ lines }) => (lines[0]!.body as { startedFrom: string | null }).startedFrom === null)
      .flatMap(({ lines }) =>
        lines.flatMap((line) => (line.kind === 'unit.set' ? [(line.body as { set: { mac: string } }).set.mac] : []))
      )
    expect(new Set(macs).size).toBe(macs.length)
  })

  it('is loaded with logbooks that verify, and what things are found by is what a rebuild makes of them', async () => {
    const steps: number[] = []
    const loaded = await loadLargeCompany(company.services, { homes: HOMES, today }, ({ homes }) => steps.push(homes))
    expect(loaded).toMatchObject({
      homes: HOMES,
      visits: (await rows(company.services.db, 'SELECT id FROM visits')).length
    })
    expect(steps.length).toBeGreaterThan(1)
    for (const { id } of await rows<{ id: string }>(company.services.db, 'SELECT id FROM visits ORDER BY id LIMIT 7')) {
      const text = await visitFile(company.services, id, null)
      expect(integrityProblems(readRecordFile(text), text)).toEqual([])
    }
    await allCounted(company.services.db)
    const before = await everyTable()
    await rebuildProjections(company.services.logbook)
    const after = await everyTable()
    for (const table of Object.keys(before)) expect(after[table], table).toEqual(before[table])
  }, 60_000)

  it('its homes can be visited again, from what was left there', async () => {
    const [first] = largeCompany({ homes: 1, today })
    const { logbook } = company.services
    const visit = uuidv7()
    await openVisit(
      logbook,
      {
        id: visit,
        home: first!.home,
        customer: first!.customer,
        technician: { id: isolde.id, name: isolde.name },
        brief: { customerName: 'A', street: 'B', town: 'C' }
      },
      isolde
    )
    const { record } = await logbook.write(visit, new Date(), (open) => Promise.resolve(open.state))
    expect(Object.keys(record.units).length).toBeGreaterThanOrEqual(4)
    expect(record.visit.standard.id).toBe('house')
  })

  it('every way of looking for homes is led by its index and stops at the end of a page', async () => {
    const { db } = company.services
    await db.query('ANALYZE TABLE homes, units, findings, home_terms, visits')
    const queries = {
      rule: byRule({ words: [], rule: 'firm-minimum', outcome: 'breaks' }, null),
      model: byModel({ words: [], model: 'ostrel-tern' }, null),
      version: byModel({ words: [], model: 'ostrel-tern', firmware: '3.1.0' }, null),
      word: byWord({ words: ['gre'] }, 'gre', null),
      words: byWord({ words: ['gre', 'row'] }, 'gre', null),
      name: byWritten(['a', 'b'], 'customer', null),
      'street as written': byWritten(['1', 'great'], 'street', null),
      'word and model': byWord({ words: ['gre'], model: 'ostrel-tern' }, 'gre', null),
      street: byStreet(null)
    }
    for (const [name, [sql, params]] of Object.entries(queries)) {
      const plan = await rows<{ table: string; type: string; key: string | null; Extra: string }>(
        db,
        `EXPLAIN ${sql}`,
        params
      )
      for (const { table, type, key, Extra } of plan) {
        // What was found for a page, at most 51 rows, is put in order once more.
        if (table.startsWith('<derived')) continue
        expect(`${table} ${type} ${key}`, name).not.toMatch(/ ALL | null$/)
        expect(Extra, name).not.toMatch(/filesort|temporary/)
      }
    }
  })
})
