import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { demoVisits } from '@pasado/demo/all'
import { loadVisits } from '../../scripts/load-demo'
import { byModel, byRule, byStreet, byWord, byWritten, HOMES_A_PAGE } from '../src/db/home-search'
import { rows, run } from '../src/db/pool'
import { wordsOf } from '../src/db/terms'
import { Caller, startCompany } from '@pasado/testing/company'
import { v7 as uuidv7 } from 'uuid'

let company: Awaited<ReturnType<typeof startCompany>>
let petroc: Caller
type Page = { homes: { id: string; street: string; customer: string; foundBy?: string[] }[]; next: string | null }
const search = async (query: string) => (await petroc.call<Page>('GET', `/homes?${query}`)).body
beforeAll(async () => {
  company = await startCompany()
  petroc = await Caller.as(company.running, 'petroc')
  await loadVisits(
    company.services,
    demoVisits().filter(({ brief }) => /Curlew|Samphire|Pilot|Gull|Wrack|Sandpiper|Slipway/.test(brief.street ?? '')),
    new Date()
  )
})
afterAll(() => company.stop())

describe('homes are found', () => {
  it('by each word of name, street and town, all of them together, with what each was found by', async () => {
    expect((await search('q=curlew')).homes.map(({ street }) => street)).toEqual(['2 Curlew Bank'])
    expect((await search('q=elowen+curl+great')).homes).toMatchObject([{ customer: 'Elowen Tarr' }])
    expect((await search('q=elowen+samphire')).homes).toEqual([])
    expect((await search('q=elow')).homes[0]!.foundBy).toEqual(['customer'])
    const streets = (await search('q=skerrow')).homes.map(({ street }) => street.replace(/^\d+ /, ''))
    expect(streets.length).toBeGreaterThan(4)
    expect(streets).toEqual([...streets].sort())
  })

  it('by the model that stands there, by the version it runs, and with words on top', async () => {
    const { services } = company
    const there = await rows<{ home: string }>(
      services.db,
      'SELECT DISTINCT u.home_id AS home FROM units u JOIN homes h ON h.latest_visit = u.visit_id WHERE u.model = ?',
      ['ostrel-tern']
    )
    expect((await search('model=ostrel-tern')).homes.map(({ id }) => id).sort()).toEqual(
      there.map(({ home }) => home).sort()
    )
    const [version] = await rows<{ firmware: string; count: number }>(
      services.db,
      'SELECT u.firmware, COUNT(DISTINCT u.home_id) AS count FROM units u JOIN homes h ON h.latest_visit = u.visit_id WHERE u.model = ? AND u.firmware IS NOT NULL GROUP BY u.firmware LIMIT 1',
      ['ostrel-tern']
    )
    expect((await search(`model=ostrel-tern&firmware=${version!.firmware}`)).homes).toHaveLength(version!.count)
    const [item] = (await search('model=ostrel-tern')).homes
    expect((await search(`model=ostrel-tern&q=${encodeURIComponent(item!.street)}`)).homes.map(({ id }) => id)).toEqual(
      [item!.id]
    )
  })

  it('by how a rule came out in the latest visit', async () => {
    const broken = await rows<{ rule: string; home: string }>(
      company.services.db,
      "SELECT f.rule, v.home_id AS home FROM findings f JOIN visits v ON v.id = f.visit_id JOIN homes h ON h.latest_visit = v.id WHERE f.outcome = 'breaks'"
    )
    const [{ rule }] = broken as [{ rule: string; home: string }]
    expect((await search(`rule=${rule}&outcome=breaks`)).homes.map(({ id }) => id).sort()).toEqual(
      [...new Set(broken.filter((candidate) => candidate.rule === rule).map(({ home }) => home))].sort()
    )
    expect((await search(`rule=${rule}&outcome=breaks&model=no-such-model`)).homes).toEqual([])
  })

  it('by words as they are written first, where more homes have them than a page holds, then by each word', async () => {
    const { db } = company.services
    const visit = (await rows<{ id: string }>(db, 'SELECT id FROM visits LIMIT 1'))[0]!.id
    const ids: string[] = []
    const kept = async (customer: string) => {
      const id = uuidv7()
      ids.push(id)
      await run(
        db,
        'INSERT INTO homes (id, customer_id, customer, street, town, latest_visit) VALUES (?, ?, ?, ?, ?, ?)',
        [id, uuidv7(), customer, '1 Written Way', 'Writtenham', visit]
      )
      const words = customer.toLowerCase().split(' ')
      for (const term of words)
        await run(db, 'INSERT INTO home_terms (term, home_id, visit_id, what) VALUES (?, ?, ?, ?)', [
          term,
          id,
          visit,
          'customer'
        ])
      return id
    }
    const straight: string[] = []
    const turned: string[] = []
    for (let at = 0; at < HOMES_A_PAGE + 9; at++) {
      straight.push(await kept('Ottilie Marram'))
      if (at % 3 === 0) turned.push(await kept('Marram Ottilie'))
    }
    await kept('Ottilie Other')
    const pages: string[][] = []
    for (let after: string | null = ''; after !== null && pages.length < 9;) {
      const found: Page = await search(`q=ottilie+marr${after ? `&after=${after}` : ''}`)
      pages.push(found.homes.map(({ id }) => id))
      after = found.next
    }
    expect(pages.slice(0, 2).flat().sort()).toEqual(straight.sort())
    expect(pages.slice(2).flat().sort()).toEqual(turned.sort())
    const few = await search('q=ottilie+oth')
    expect(few.homes.map(({ customer }) => customer)).toEqual(['Ottilie Other'])
    expect(few.next).toBeNull()
    // Of two common words what is written so comes at once, and the others follow.
    for (let at = 0; at < 600; at++) await kept('Common Marlin')
    const [written] = [await kept('Marlin Common Third')]
    const commons = await search('q=marlin+common')
    expect(commons.homes.map(({ id }) => id)).toEqual([written])
    const others = await search(`q=marlin+common&after=${commons.next}`)
    expect(others.homes).toHaveLength(HOMES_A_PAGE)
    expect(others.homes.every(({ customer }) => customer === 'Common Marlin')).toBe(true)
    for (const id of ids) await run(db, 'DELETE FROM home_terms WHERE home_id = ?', [id])
    for (const id of ids) await run(db, 'DELETE FROM homes WHERE id = ?', [id])
  })

  it('by a word and a model alike, whichever of them leads', async () => {
    const { db } = company.services
    const [unit] = await rows<{ model: string; town: string }>(
      db,
      'SELECT u.model, h.town FROM units u JOIN homes h ON h.id = u.home_id AND h.latest_visit = u.visit_id WHERE u.model IS NOT NULL GROUP BY u.model, h.town ORDER BY COUNT(DISTINCT h.id) DESC LIMIT 1'
    )
    const wanted = await rows<{ id: string }>(
      db,
      'SELECT DISTINCT h.id FROM units u JOIN homes h ON h.id = u.home_id AND h.latest_visit = u.visit_id WHERE u.model = ? AND h.town = ?',
      [unit!.model, unit!.town]
    )
    const ids = wanted.map(({ id }) => id).sort()
    const query = { words: wordsOf(unit!.town).slice(0, 1), model: unit!.model }
    for (const [sql, params] of [byModel(query, null), byWord(query, query.words[0]!, null)])
      expect([...new Set((await rows<{ id: string }>(db, sql, params)).map(({ id }) => id))].sort()).toEqual(ids)
    expect((await search(`q=${query.words[0]}&model=${query.model}`)).homes.map(({ id }) => id).sort()).toEqual(ids)
  })

  it('refuses a version without its model, and an outcome that is none', async () => {
    expect((await petroc.call('GET', '/homes?firmware=1.0')).body).toMatchObject({
      errors: [{ detail: expect.stringContaining('is missing') as string }]
    })
    expect((await petroc.call('GET', '/homes?rule=kit-role&outcome=fine')).status).toBe(422)
  })

  it('goes on only from where a page ended', async () => {
    for (const after of ['nonsense', Buffer.from('{"id":1}').toString('base64url')])
      expect((await petroc.call('GET', `/homes?after=${after}`)).body).toMatchObject({
        status: 422,
        errors: [{ field: 'query.after', detail: expect.stringContaining('begin with the first page') as string }]
      })
  })

  it('a page at a time, each home once and none left out, in whatever way they are looked for', async () => {
    const { db } = company.services
    const visit = (await rows<{ id: string }>(db, 'SELECT id FROM visits LIMIT 1'))[0]!.id
    for (let at = 0; at < HOMES_A_PAGE * 2 + 7; at++) {
      const id = uuidv7()
      await run(
        db,
        'INSERT INTO homes (id, customer_id, customer, street, town, latest_visit) VALUES (?, ?, ?, ?, ?, ?)',
        [id, uuidv7(), 'Paged Customer', `${at % 9} Same Row`, 'Pagetown', visit]
      )
      await run(db, 'INSERT INTO home_terms (term, home_id, visit_id, what) VALUES (?, ?, ?, ?)', [
        `paged${at % 4}`,
        id,
        visit,
        'customer'
      ])
      await run(db, 'INSERT INTO home_terms (term, home_id, visit_id, what) VALUES (?, ?, ?, ?)', [
        'pagetown',
        id,
        visit,
        'town'
      ])
    }
    for (const [query, wanted] of [
      ['q=paged', HOMES_A_PAGE * 2 + 7],
      ['q=pagetown+paged1', 27],
      ['', null]
    ] as const) {
      const seen: string[] = []
      for (let after: string | null = '', pages = 0; after !== null && pages < 20; pages++) {
        const found: Page = await search(`${query}${after ? `&after=${after}` : ''}`)
        expect(found.homes.length).toBeLessThanOrEqual(HOMES_A_PAGE)
        seen.push(...found.homes.map(({ id }) => id))
        after = found.next
      }
      expect(new Set(seen).size).toBe(seen.length)
      expect(seen.length).toBe(
        wanted ?? (await rows<{ count: number }>(db, 'SELECT COUNT(*) AS count FROM homes'))[0]!.count
      )
    }
  })
})

it('no way of looking reads a table from end to end', async () => {
  const after = { key: 'curlew', id: '0199c000-0000-7000-8000-000000000001' }
  const queries = [
    byRule({ words: ['curlew'], rule: 'kit-role', outcome: 'waived', model: 'ostrel-tern', firmware: '3.1.0' }, after),
    byModel({ words: ['curlew'], model: 'ostrel-tern' }, after),
    byModel({ words: [], model: 'ostrel-tern', firmware: '3.1.0' }, null),
    byWord({ words: ['curlew', 'bank'] }, 'curlew', after, ['customer', 'street']),
    byWritten(['curlew', 'bank'], 'customer', after),
    byWritten(['curlew', 'bank'], 'street', null),
    byWord({ words: ['curlew', 'bank'], model: 'ostrel-tern', firmware: '3.1.0' }, 'curlew', after),
    byStreet(after)
  ]
  for (const [sql, params] of queries) {
    for (const { table, type, key } of await rows<{ table: string; type: string; key: string | null }>(
      company.services.db,
      `EXPLAIN ${sql}`,
      params
    ))
      if (!table.startsWith('<derived')) expect(`${table} ${type} ${key}`, sql).not.toMatch(/ ALL | null$/)
  }
})

it('a home tells what stands there now, by its latest sealed visit, and no secret', async () => {
  const [home] = (await search('q=curlew')).homes
  const { body, text } = await petroc.call<{
    now: { units: { name: string; modelName: string; means: string }[]; networks: { ssid: string }[] }
  }>('GET', `/homes/${home!.id}`)
  expect(body.now.units.length).toBeGreaterThan(0)
  expect(body.now.units[0]).toMatchObject({
    modelName: expect.any(String) as string,
    means: expect.any(String) as string
  })
  expect(body.now.networks[0]!.ssid).toBe('Sea Holly')
  expect(text).not.toContain('passphrase')
})
