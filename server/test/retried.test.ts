import mysql from 'mysql2/promise'
import sharp from 'sharp'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest'
import { chainProblem } from '@pasado/core/record/chain'
import type { Entry } from '@pasado/core/record/entry'
import { signedDigest } from '@pasado/core/record/seal'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { demoVisits } from '@pasado/demo/all'
import { corin, isolde as isoldeHerself } from '@pasado/demo/company'
import { demoHouses } from '@pasado/demo/houses'
import { loadHouses, loadVisits } from '../../scripts/load-demo'
import { row, rows, writersOf } from '../src/db/pool'
import { readVisit, visitFile } from '../src/logbook/read'
import { eraseAsAnswered } from '../src/logbook/secrets'
import { serverAuthor } from '../src/logbook/server-author'
import { Caller, demoModels, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let wenna: Caller
beforeAll(async () => {
  company = await startCompany()
  ;[isolde, wenna] = await Promise.all([Caller.as(company.running, 'isolde'), Caller.as(company.running, 'wenna')])
})
afterAll(() => company.stop())
afterEach(() => vi.restoreAllMocks())

/** Makes the next commits fail after all their work was done, as a deadlock or a lost certification does; counts them. */
function failCommits(times: number, code = 'ER_LOCK_DEADLOCK'): { failed: number } {
  const told = { failed: 0 }
  const db = writersOf(company.services.db)
  const get = db.getConnection.bind(db)
  vi.spyOn(db, 'getConnection').mockImplementation(async () => {
    const connection = await get()
    const query = connection.query.bind(connection) as (...words: unknown[]) => Promise<unknown>
    return new Proxy(connection, {
      get: (target, name) => {
        if (name !== 'query') {
          const value = Reflect.get(target, name) as unknown
          return typeof value === 'function' ? (value as (...words: unknown[]) => unknown).bind(target) : value
        }
        return (...words: unknown[]) => {
          // The commit goes by itself, or ends a block of statements.
          const [text] = words as [string]
          if (!/^COMMIT$|COMMIT; END$/.test(text) || told.failed >= times) return query(...words)
          told.failed++
          const done = text === 'COMMIT' ? Promise.resolve() : query(text.replace(/COMMIT; END$/, 'END'))
          return done
            .then(() => query('ROLLBACK'))
            .then(() => {
              throw Object.assign(new Error('made to fail'), { code })
            })
        }
      }
    })
  })
  return told
}

const stored = async (visit: string) =>
  (await isolde.call<{ entries: Entry[] }>('GET', `/visits/${visit}/entries`)).body.entries
const kinds = async (visit: string) => (await stored(visit)).map(({ kind }) => kind)

describe('a write whose first try fails after its work is there once it is acknowledged', () => {
  const secret = () => ({
    ref: uuidv7(),
    purpose: 'admin-password',
    thing: 'brief',
    id: 'brief',
    origin: 'typed',
    value: `made-up ${uuidv7()}`
  })
  const writes: Record<
    string,
    {
      path?: string
      before?: (visit: string) => Promise<void>
      act: (visit: string) => Promise<{ status: number }>
      there: (visit: string) => Promise<boolean>
    }
  > = {
    'an entry': {
      act: (visit) =>
        isolde.call('POST', `/visits/${visit}/entries`, { entries: [draft(visit, 'note.written', { text: 'kept' })] }),
      there: async (visit) => (await kinds(visit)).filter((kind) => kind === 'note.written').length === 1
    },
    'many entries': {
      act: (visit) =>
        isolde.call('POST', `/visits/${visit}/entries`, {
          entries: [1, 2, 3].map((at) => draft(visit, 'note.written', { text: `kept ${at}` }))
        }),
      there: async (visit) => (await kinds(visit)).filter((kind) => kind === 'note.written').length === 3
    },
    'a secret': {
      act: (visit) => isolde.call('POST', `/visits/${visit}/secrets`, secret()),
      there: async (visit) =>
        (await kinds(visit)).includes('secret.kept') &&
        (await row(company.services.db, 'SELECT 1 FROM vault_secrets WHERE visit_id = ?', [visit])) !== null
    },
    'showing a secret': {
      before: async (visit) => {
        await isolde.call('POST', `/visits/${visit}/secrets`, secret())
      },
      act: async (visit) =>
        isolde.call(
          'POST',
          `/visits/${visit}/secrets/${(await stored(visit)).find((entry): entry is Entry<'secret.kept'> => entry.kind === 'secret.kept')!.body.ref}/show`,
          { why: 'checking it' }
        ),
      there: async (visit) => (await kinds(visit)).filter((kind) => kind === 'secret.shown').length === 1
    },
    erasing: {
      before: async (visit) => {
        await isolde.call('POST', `/visits/${visit}/secrets`, secret())
      },
      act: (visit) =>
        wenna.call('POST', `/visits/${visit}/erase-secrets`, { confirm: 'erase for good', why: 'Asked for.' }),
      there: async (visit) =>
        (await kinds(visit)).includes('secrets.erased') &&
        (await row(company.services.db, 'SELECT 1 FROM vault_keys WHERE visit_id = ? AND wrapped IS NULL', [visit])) !==
          null
    },
    'a photo': {
      act: async (visit) => {
        const form = new FormData()
        for (const [name, value] of Object.entries({ ref: uuidv7(), thing: 'stage', about: 'kit' }))
          form.append(name, value)
        form.append(
          'photo',
          new Blob([
            new Uint8Array(
              await sharp({ create: { width: 64, height: 64, channels: 3, background: '#888' } })
                .jpeg()
                .toBuffer()
            )
          ]),
          'photo.jpg'
        )
        return fetch(`${company.running.address}/api/visits/${visit}/photos`, {
          method: 'POST',
          headers: { cookie: isolde.cookie },
          body: form
        })
      },
      there: async (visit) => (await kinds(visit)).includes('photo.added')
    },
    'handing on': {
      act: (visit) => isolde.call('POST', `/visits/${visit}/technician`, { technician: corin.id, reason: 'Ill.' }),
      there: async (visit) =>
        (await row<{ technician_id: string }>(company.services.db, 'SELECT technician_id FROM visits WHERE id = ?', [
          visit
        ]))!.technician_id === corin.id && (await kinds(visit)).includes('visit.handed')
    },
    'the pack': {
      act: (visit) => isolde.call('POST', `/visits/${visit}/pack`, {}),
      there: async (visit) => (await kinds(visit)).includes('pack.made')
    },
    'a link to the pack': {
      act: (visit) => isolde.call('POST', `/visits/${visit}/pack-links`, { days: 3 }),
      there: async (visit) =>
        (await row(company.services.db, 'SELECT 1 FROM pack_links WHERE visit_id = ?', [visit])) !== null
    },
    'an export with secrets': {
      before: async (visit) => {
        await isolde.call('POST', `/visits/${visit}/secrets`, secret())
      },
      act: (visit) => wenna.call('POST', `/visits/${visit}/export`, { passphrase: 'gulls over the long harbour' }),
      there: async (visit) => (await kinds(visit)).filter((kind) => kind === 'secret.shown').length === 1
    }
  }

  for (const [what, { before, act, there }] of Object.entries(writes)) {
    it.each(what === 'an entry' ? [1, 3] : [1])(`${what}, after %i failures`, async (times) => {
      const visit = await openAVisit(isolde)
      await before?.(visit)
      const told = failCommits(times)
      const { status } = await act(visit)
      expect(told.failed).toBe(times)
      vi.restoreAllMocks()
      expect(status).toBeLessThan(300)
      expect(await there(visit)).toBe(true)
      expect(chainProblem(await stored(visit))).toBeNull()
    })
  }

  it('opening a visit', async () => {
    const told = failCommits(2)
    const visit = await openAVisit(isolde)
    expect(told.failed).toBe(2)
    expect(await kinds(visit)).toEqual(['visit.opened'])
  })

  it('people, passwords and the standard', async () => {
    const { body: added } = await wenna.call<{ id: string }>('POST', '/people', {
      login: 'merryn',
      name: 'Merryn Quay',
      role: 'technician'
    })
    const told = failCommits(1)
    expect(
      (await wenna.call('POST', `/people/${added.id}`, { name: 'Merryn Quay', role: 'office', left: false })).status
    ).toBe(204)
    expect(told.failed).toBe(1)
    expect(
      (await row<{ role: string }>(company.services.db, 'SELECT role FROM users WHERE id = ?', [added.id]))!.role
    ).toBe('office')
    vi.restoreAllMocks()
    const again = failCommits(1)
    const { body } = await wenna.call<{ password: string }>('POST', `/people/${added.id}/password`)
    expect(again.failed).toBe(1)
    const merryn = new Caller(company.running.address)
    expect((await merryn.call('POST', '/session', { login: 'merryn', password: body.password })).status).toBe(200)
  })

  it('one’s own password, the windows of a town, what is done in a house', async () => {
    const { db } = company.services
    const { body: added } = await wenna.call<{ password: string }>('POST', '/people', {
      login: 'talan',
      name: 'Talan Wray',
      role: 'technician'
    })
    const talan = new Caller(company.running.address)
    await talan.call('POST', '/session', { login: 'talan', password: added.password })
    const choosing = failCommits(1)
    expect(
      (await talan.call('POST', '/session/password', { current: added.password, wanted: 'cormorant under nine bells' }))
        .status
    ).toBe(204)
    expect(choosing.failed).toBe(1)
    vi.restoreAllMocks()
    expect(
      (
        await new Caller(company.running.address).call('POST', '/session', {
          login: 'talan',
          password: 'cormorant under nine bells'
        })
      ).status
    ).toBe(200)
    const windows = failCommits(1)
    expect(
      (await wenna.call('POST', '/ways/windows', { town: 'Ness Skerrow', windows: [{ fromMin: 500, toMin: 900 }] }))
        .status
    ).toBeLessThan(300)
    expect(windows.failed).toBe(1)
    vi.restoreAllMocks()
    expect(await rows(db, "SELECT from_min FROM reach_windows WHERE town = 'Ness Skerrow'")).toEqual([
      { from_min: 500 }
    ])
    const house = uuidv7()
    await loadHouses(company.services, demoHouses.slice(0, 1), new Date())
    const [template] = await rows<{ id: string }>(db, 'SELECT id FROM houses WHERE template LIMIT 1')
    expect((await isolde.call('POST', '/houses', { id: house, from: template!.id })).status).toBe(201)
    const acting = failCommits(1)
    expect(
      (await isolde.call('POST', `/houses/${house}/actions`, { after: 0, actions: [{ at: 1, do: 'wait' }] })).status
    ).toBe(200)
    expect(acting.failed).toBe(1)
    vi.restoreAllMocks()
    expect((await rows(db, 'SELECT number FROM house_actions WHERE house_id = ?', [house])).length).toBe(1)
  })

  it('models that are taken in', async () => {
    const next = { ...demoModels[0]!, version: 2 }
    const told = failCommits(1)
    const { status, body } = await wenna.call<{ published: string[] }>('POST', '/models/import', {
      catalogue: { format: 'pasado.catalogue/1', models: [next] }
    })
    expect([status, body.published, told.failed]).toEqual([200, [`${next.id}@2`], 1])
    expect(
      await row(company.services.db, 'SELECT 1 FROM models WHERE id = ? AND version = 2', [next.id])
    ).not.toBeNull()
  })

  it('sealing, moving to another standard, erasing by itself and taking in', async () => {
    const script = demoVisits().filter(({ brief }) => brief.street === '22 Dulse Road')
    await loadVisits(company.services, script, new Date())
    const visit = script.at(-1)!.id
    const { logbook } = company.services
    await wenna.call('POST', '/standards', { standard: { ...nextDraft(firstStandard), note: 'The same once more.' } })
    const moving = failCommits(1)
    expect((await isolde.call('POST', `/visits/${visit}/standard`, { version: 2 })).status).toBe(200)
    expect(moving.failed).toBe(1)
    vi.restoreAllMocks()
    expect((await readVisit(logbook, visit)).record.visit.standard.version).toBe(2)
    const write = async (kind: string, body: object) =>
      expect(
        (
          await isolde.call('POST', `/visits/${visit}/entries`, {
            entries: [
              draft(visit, kind as never, body as never, { base: (await readVisit(logbook, visit)).record.lastSeq })
            ]
          })
        ).status
      ).toBe(200)
    await write('custody.answered', { custody: 'customer-only-now' })
    await isolde.call('POST', `/visits/${visit}/pack`, {})
    await write('pack.given', { how: 'printed' })
    const digest = signedDigest((await readVisit(logbook, visit)).record)
    for (const [who, name] of [
      ['customer', 'Kelp Farm'],
      ['technician', isoldeHerself.name]
    ])
      await write('signature.given', { who, name, strokes: 'M20 110 L60 90 L100 120', digest })
    const sealing = failCommits(1)
    expect((await isolde.call('POST', `/visits/${visit}/seal`, { digest })).status).toBe(204)
    expect(sealing.failed).toBe(1)
    vi.restoreAllMocks()
    expect((await kinds(visit)).filter((kind) => kind === 'sealed')).toHaveLength(1)
    const text = await visitFile(company.services, visit, null)
    const erasing = failCommits(1)
    expect(await eraseAsAnswered(logbook, visit, serverAuthor, new Date(Date.now() + 60_000))).toBe(true)
    expect(erasing.failed).toBe(1)
    vi.restoreAllMocks()
    expect((await readVisit(logbook, visit)).record.secretsErased).toBe(true)

    const other = await startCompany()
    try {
      const lead = await Caller.as(other.running, 'wenna')
      const mine = company
      company = other
      const importing = failCommits(1)
      expect((await lead.call('POST', '/import', { text })).status).toBe(201)
      expect(importing.failed).toBe(1)
      vi.restoreAllMocks()
      company = mine
      expect((await rows(other.services.db, 'SELECT 1 FROM entries WHERE visit_id = ?', [visit])).length).toBe(
        JSON.parse(text).entries.length
      )
    } finally {
      await other.stop()
    }
  })
})

it('what the database refuses for the moment is told to come again, and never a fault', async () => {
  for (const code of ['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_UNKNOWN_COM_ERROR', 'ER_RECORD_FILE_FULL']) {
    const visit = await openAVisit(isolde)
    failCommits(100, code)
    const { status, headers } = await isolde.call('POST', `/visits/${visit}/entries`, {
      entries: [draft(visit, 'note.written', { text: 'once more' })]
    })
    vi.restoreAllMocks()
    expect([code, status, headers.get('retry-after')]).toEqual([code, 503, '2'])
    expect(await kinds(visit)).toEqual(['visit.opened'])
  }
})

it('a rival that holds the home for longer than a lock is waited for loses nobody a line', async () => {
  const visit = await openAVisit(isolde)
  const home = (await row<{ home_id: string }>(company.services.db, 'SELECT home_id FROM visits WHERE id = ?', [
    visit
  ]))!.home_id
  const rival = await mysql.createConnection({ uri: company.database.url })
  await rival.query('START TRANSACTION')
  await rival.query('SELECT * FROM homes WHERE id = ? FOR UPDATE', [home])
  setTimeout(() => void rival.query('COMMIT'), 3_800)
  const { status } = await isolde.call('POST', `/visits/${visit}/entries`, {
    entries: [draft(visit, 'brief.set', { set: { phone: '555-0177' } })]
  })
  await rival.end()
  expect(status).toBe(200)
  expect((await stored(visit)).at(-1)).toMatchObject({ kind: 'brief.set', body: { set: { phone: '555-0177' } } })
}, 40_000)

it('statements go to the database one by one', async () => {
  await expect(company.services.db.query('SELECT 1; SELECT 2')).rejects.toMatchObject({ code: 'ER_PARSE_ERROR' })
})

it('a head that somebody else moved is not moved from where it no longer stands', async () => {
  const visit = await openAVisit(isolde)
  const { db } = company.services
  const { moveHead } = await import('../src/db/visits')
  const { transactionOn } = await import('../src/db/pool')
  await expect(
    transactionOn(db, null, (_, __, last) => {
      last(moveHead(visit, 7, 8, '0'.repeat(64), null))
      return Promise.resolve()
    })
  ).rejects.toMatchObject({ code: 'PASADO_NOT_TOUCHED' })
  expect(await stored(visit)).toHaveLength(1)
})
