import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { chainProblem } from '@pasado/core/record/chain'
import { entry, type Entry } from '@pasado/core/record/entry'
import { visitRecord } from '@pasado/core/record/record'
import { allRoutes } from '../src/http/routes/all'
import { Caller, demoModels, demoPassword, draft, openAVisit, otherDevice, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let wenna: Caller
let petroc: Caller
const log: string[] = []

beforeAll(async () => {
  company = await startCompany({ log: (line) => log.push(line) })
  isolde = await Caller.as(company.running, 'isolde')
  wenna = await Caller.as(company.running, 'wenna')
  petroc = await Caller.as(company.running, 'petroc')
})
afterAll(() => company.stop())

interface ProblemBody {
  type: string
  errors?: { pointer: string; field: string; detail: string }[]
}
const post = (caller: Caller, visit: string, entries: unknown) =>
  caller.call<ProblemBody & { receipts: { id: string; seq: number; hash: string }[] }>(
    'POST',
    `/visits/${visit}/entries`,
    { entries }
  )

describe('people', () => {
  it('a session is an HttpOnly cookie, SameSite=Lax', async () => {
    const caller = new Caller(company.running.address)
    const { headers } = await caller.call('POST', '/session', { login: 'isolde', password: demoPassword })
    expect(headers.getSetCookie()[0]).toMatch(/; path=\/;.*samesite=lax; httponly/i)
  })

  it('behind TLS the cookie is Secure', async () => {
    const { Sessions } = await import('../src/http/session')
    const set: unknown[] = []
    const context = {
      state: { address: '127.0.0.9' },
      secure: false,
      cookies: { set: (...words: unknown[]) => set.push(words[2]) }
    }
    await new Sessions(company.services.db, true).logIn(context as never, 'petroc', demoPassword)
    expect(set[0]).toMatchObject({ secure: true, httpOnly: true, sameSite: 'lax' })
  })

  it('logging out everywhere ends every session', async () => {
    const person = await Caller.as(company.running, 'corin')
    const two = await Caller.as(company.running, 'corin')
    expect((await person.call('DELETE', '/sessions')).status).toBe(204)
    for (const caller of [person, two]) expect((await caller.call('GET', '/day')).status).toBe(401)
  })

  it('a wrong password is refused, and after too many tries the right one as well, by whichever process', async () => {
    const caller = new Caller(company.running.address)
    for (let attempt = 0; attempt < 8; attempt++)
      expect((await caller.call('POST', '/session', { login: 'corin', password: 'wrong' })).status).toBe(401)
    const { status, body } = await caller.call<ProblemBody>('POST', '/session', {
      login: 'corin',
      password: demoPassword
    })
    expect([status, body.type]).toEqual([429, 'urn:pasado:problem:too-many-tries'])
  })

  it('every route but those for anyone needs a session', async () => {
    const stranger = new Caller(company.running.address)
    for (const route of allRoutes.filter(({ roles }) => roles !== 'anyone')) {
      const { status } = await stranger.call(
        route.method.toUpperCase(),
        route.path.replace(/:\w+/g, uuidv7()),
        route.method === 'get' ? undefined : {}
      )
      expect(status, `${route.method} ${route.path}`).toBe(401)
    }
  })

  it('a technician cannot waive, a lead can, the office writes the booking and nothing else', async () => {
    const visit = await openAVisit(isolde)
    const waiver = () => [draft(visit, 'waiver.granted', { rule: 'brief-contact', reason: 'Told by telephone.' })]
    expect((await post(isolde, visit, waiver())).status).toBe(403)
    expect((await post(petroc, visit, [draft(visit, 'brief.set', { set: { speedDownMbps: 10 } })])).status).toBe(403)
    expect(
      (await post(petroc, visit, [draft(visit, 'choice.answered', { choice: 'guest', answer: 'yes' })])).status
    ).toBe(403)
    expect((await post(petroc, visit, [draft(visit, 'brief.set', { set: { phone: '555-0101' } })])).status).toBe(200)
    expect((await post(wenna, visit, waiver())).status).toBe(200)
  })

  it('a page of another site cannot write', async () => {
    const { status } = await isolde.call(
      'POST',
      '/session',
      { login: 'isolde', password: demoPassword },
      { origin: 'http://elsewhere.example.org' }
    )
    expect(status).toBe(403)
    for (const origin of ['null', 'nonsense'])
      expect(
        (await isolde.call('POST', '/session', { login: 'isolde', password: demoPassword }, { origin })).status
      ).toBe(403)
  })

  it('a stream ends after a while, and does not begin again for who logged out meanwhile', async () => {
    const { LiveFeed } = await import('../src/http/live')
    const feed = new LiveFeed(company.services.db, () => undefined, 50)
    const stream = feed.listen(uuidv7(), 0)
    let heard = ''
    stream.on('data', (octets: Buffer) => (heard += octets.toString()))
    await new Promise((resolve) => stream.once('close', resolve))
    feed.close()
    // Without this the program would take the stream for dead.
    expect(heard).toContain('event: beat\ndata: ')
    const leaving = await Caller.as(company.running, 'petroc')
    const visit = await openAVisit(isolde)
    await leaving.call('DELETE', '/session')
    expect((await leaving.call('GET', `/visits/${visit}/events?after=1`)).status).toBe(401)
  })
})

describe('entries', () => {
  it('are chained without a gap, and the same one sent twice is taken once', async () => {
    const visit = await openAVisit(isolde)
    const drafts = Array.from({ length: 5 }, (_, at) => draft(visit, 'note.written', { text: `line ${at}` }))
    const first = await post(isolde, visit, drafts)
    const again = await post(isolde, visit, drafts)
    expect(first.status).toBe(200)
    expect(again.body.receipts).toEqual(first.body.receipts)
    const { body } = await isolde.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)
    expect(body.entries.map(({ seq }) => seq)).toEqual([1, 2, 3, 4, 5, 6])
    expect(chainProblem(body.entries)).toBeNull()
    expect(body.entries.every((candidate) => entry.safeParse(candidate).success)).toBe(true)
  })

  it('another entry under a taken id is refused', async () => {
    const visit = await openAVisit(isolde)
    const note = draft(visit, 'note.written', { text: 'first' })
    await post(isolde, visit, [note])
    expect((await post(isolde, visit, [{ ...note, body: { text: 'second' } }])).status).toBe(409)
  })

  it('written by eight at once are all there, each once', async () => {
    const visit = await openAVisit(isolde)
    const ids: string[] = []
    await Promise.all(
      Array.from({ length: 8 }, async () => {
        for (let at = 0; at < 10; at++) {
          const note = draft(visit, 'note.written', { text: 'at once' })
          ids.push(note.id)
          expect((await post(isolde, visit, [note])).status).toBe(200)
        }
      })
    )
    const { body } = await isolde.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)
    expect(body.entries.map(({ seq }) => seq)).toEqual(Array.from({ length: 81 }, (_, at) => at + 1))
    expect(new Set(body.entries.map(({ id }) => id))).toEqual(new Set([body.entries[0]!.id, ...ids]))
    expect(chainProblem(body.entries)).toBeNull()
  })

  it('one that is not acceptable is named by its field, and none of its batch is written', async () => {
    const visit = await openAVisit(isolde)
    const unit = uuidv7()
    const { status, body, headers } = await post(isolde, visit, [
      draft(visit, 'note.written', { text: 'fine' }),
      draft(visit, 'unit.set', { id: unit, set: { mac: '01:00:5e:90:10:00' } }),
      draft(visit, 'network.set', { id: unit, set: { ssid: 'Kelp House and all of its outhouses' } }),
      draft(visit, 'segment.set', { id: unit, set: { cidr: '192.168.1.7/24' } })
    ])
    expect(status).toBe(422)
    expect(headers.get('content-type')).toContain('application/problem+json')
    expect(body.errors!.map(({ pointer }) => pointer)).toEqual([
      '/entries/1/body/set/mac',
      '/entries/2/body/set/ssid',
      '/entries/3/body/set/cidr'
    ])
    expect(body.errors!.map(({ detail }) => detail)).toEqual([
      expect.stringContaining('multicast'),
      expect.stringContaining('at most 32'),
      expect.stringContaining('192.168.1.0/24')
    ])
    expect((await isolde.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)).body.entries).toHaveLength(1)
  })

  it.each([
    ['an unknown field', { surprise: true }, 'is not a field'],
    ['a wrong type', { at: 12 }, 'must be text'],
    ['an unknown kind', { kind: 'unit.exploded' }, 'kind'],
    ['a kind that only the server writes', { kind: 'sealed', body: {} }, 'kind'],
    ['a line of the future', { base: 999 }, 'the logbook ends at line']
  ])('%s is refused', async (_, change, said) => {
    const visit = await openAVisit(isolde)
    const { status, body } = await post(isolde, visit, [{ ...draft(visit, 'note.written', { text: 'x' }), ...change }])
    expect(status).toBe(422)
    expect(JSON.stringify(body.errors)).toContain(said)
  })

  it('malformed JSON, text over its length and a body over 1 MB are refused', async () => {
    const visit = await openAVisit(isolde)
    expect((await isolde.call('POST', `/visits/${visit}/entries`, '{"entries": [')).status).toBe(400)
    expect((await post(isolde, visit, [draft(visit, 'brief.set', { set: { street: 'x'.repeat(200) } })])).status).toBe(
      422
    )
    expect(
      (await isolde.call('POST', `/visits/${visit}/entries`, JSON.stringify({ entries: ['x'.repeat(1_100_000)] })))
        .status
    ).toBe(413)
  })

  it('two devices that set one field unseen raise a conflict; the later stands until it is settled', async () => {
    const visit = await openAVisit(isolde)
    await post(isolde, visit, [draft(visit, 'brief.set', { set: { phone: '555-0111' } })])
    await post(wenna, visit, [draft(visit, 'brief.set', { set: { phone: '555-0122' } }, { from: otherDevice })])
    const { record } = await company.services.logbook.states.at(company.services.db, visit, 3)
    expect(record.brief.facts.phone).toBe('555-0122')
    expect(record.conflicts).toMatchObject([
      { field: 'phone', earlier: { value: '555-0111' }, later: { value: '555-0122' } }
    ])
    await post(isolde, visit, [
      draft(visit, 'conflict.settled', { thing: 'brief', id: 'brief', field: 'phone', keep: 'earlier' }, { base: 3 })
    ])
    const settled = (await company.services.logbook.states.at(company.services.db, visit, 4)).record
    expect([settled.conflicts, settled.brief.facts.phone]).toEqual([[], '555-0111'])
  })

  it('reach another process’s listeners within two seconds', async () => {
    const { servicesOn } = await import('@pasado/testing/company')
    const { serve } = await import('../src/server')
    const other = await serve(await servicesOn(company.database.url, `${company.database.folder}/key`))
    try {
      const visit = await openAVisit(isolde)
      const response = await fetch(`${other.address}/api/visits/${visit}/events?after=1`, {
        headers: { cookie: isolde.cookie }
      })
      const reader = response.body!.getReader()
      const sent = Date.now()
      await post(isolde, visit, [draft(visit, 'note.written', { text: 'heard elsewhere' })])
      let heard = ''
      while (!heard.includes('heard elsewhere')) heard += new TextDecoder().decode((await reader.read()).value)
      expect(Date.now() - sent).toBeLessThan(2_000)
      await reader.cancel()
    } finally {
      await other.close()
    }
  })
})

describe('secrets', () => {
  const value = 'demo-plover-and-42-herons'
  const secretOf = (thing: string, more: Record<string, unknown> = {}) => ({
    ref: uuidv7(),
    purpose: 'wifi-passphrase',
    thing: 'network',
    id: thing,
    origin: 'typed',
    security: 'wpa',
    value,
    ...more
  })

  it('are in the vault only: in no entry, answer, export or log line; each showing is logged', async () => {
    const visit = await openAVisit(isolde)
    const network = uuidv7()
    await post(isolde, visit, [draft(visit, 'network.set', { id: network, set: { ssid: 'Plover' } })])
    const secret = secretOf(network, { value: 'demo-unsaid-and-42-cormorants' })
    const kept = await isolde.call('POST', `/visits/${visit}/secrets`, secret)
    expect(kept.status).toBe(201)
    const shown = await isolde.call<{ value: string }>('POST', `/visits/${visit}/secrets/${secret.ref}/show`, {
      why: 'checking it'
    })
    expect(shown.body.value).toBe(secret.value)
    const visitText = (await isolde.call('GET', `/visits/${visit}`)).text
    const exported = (await isolde.call('GET', `/visits/${visit}/export`)).text
    expect(visitText).toContain('"secret.shown"')
    for (const text of [visitText, exported, kept.text, log.join('\n')]) expect(text).not.toContain(secret.value)
    const [stored] = await company.services.db.query('SELECT sealed_value FROM vault_secrets WHERE id = ?', [
      secret.ref
    ])
    expect((stored as { sealed_value: Buffer }[])[0]!.sealed_value.includes(secret.value)).toBe(false)
  })

  it('a passphrase of 7 characters is refused without being said again', async () => {
    const visit = await openAVisit(isolde)
    const { status, text } = await isolde.call(
      'POST',
      `/visits/${visit}/secrets`,
      secretOf(uuidv7(), { value: 'seven77' })
    )
    expect(status).toBe(422)
    expect(text).toContain('at least 8')
    expect(text).not.toContain('seven77')
  })

  it('a passphrase that is prepared says so in the logbook, is in use once it is typed in, and is the only one that is', async () => {
    const visit = await openAVisit(isolde)
    const network = uuidv7()
    await post(isolde, visit, [draft(visit, 'network.set', { id: network, set: { preparedName: 'Plover' } })])
    const secret = secretOf(network, { prepared: true, value: 'demo-plover-in-the-bay-7' })
    const kept = await isolde.call('POST', `/visits/${visit}/secrets`, secret)
    expect(kept.body).toMatchObject({ assessed: { holdsName: false } })
    const wrong = await isolde.call('POST', `/visits/${visit}/secrets`, {
      ...secretOf(network, { prepared: true }),
      purpose: 'admin-password'
    })
    expect([wrong.status, wrong.text.includes('Wi-Fi passphrases only')]).toEqual([422, true])
    // A name that nothing sends tells nobody anything; the one that is typed in does.
    await post(isolde, visit, [
      draft(visit, 'network.set', { id: network, set: { ssid: 'Plover', preparedName: null } }, { base: 3 }),
      draft(visit, 'secret.typed-in', { ref: secret.ref }, { base: 3 })
    ])
    const { body } = await isolde.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)
    expect(body.entries.map(({ kind }) => kind)).toEqual([
      'visit.opened',
      'network.set',
      'secret.kept',
      'network.set',
      'secret.typed-in',
      'secret.assessed'
    ])
    expect(body.entries.at(-1)).toMatchObject({ body: { assessed: { holdsName: true } } })
  })

  it('a name given later that stands in the passphrase is found out', async () => {
    const visit = await openAVisit(isolde)
    const network = uuidv7()
    await post(isolde, visit, [draft(visit, 'network.set', { id: network, set: { ssid: 'Something' } })])
    await isolde.call('POST', `/visits/${visit}/secrets`, secretOf(network))
    await post(isolde, visit, [draft(visit, 'network.set', { id: network, set: { ssid: 'Plover' } }, { base: 3 })])
    const { body } = await isolde.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)
    expect(body.entries.at(-1)).toMatchObject({ kind: 'secret.assessed', body: { assessed: { holdsName: true } } })
  })

  it('the same password at another home is told apart by a keyed print', async () => {
    const keepAdmin = async () => {
      const visit = await openAVisit(isolde)
      const { body } = await isolde.call<{ assessed: { usedElsewhere: boolean; print: string } }>(
        'POST',
        `/visits/${visit}/secrets`,
        {
          ref: uuidv7(),
          purpose: 'admin-password',
          thing: 'unit',
          id: uuidv7(),
          origin: 'typed',
          value: 'demo-reused-37-lanterns'
        }
      )
      return body.assessed
    }
    const [first, second] = [await keepAdmin(), await keepAdmin()]
    expect([first.usedElsewhere, second.usedElsewhere]).toEqual([false, true])
    expect(first.print).not.toBe(second.print)
  })

  it('erased ones are gone for good', async () => {
    const visit = await openAVisit(isolde)
    const secret = secretOf(uuidv7())
    await isolde.call('POST', `/visits/${visit}/secrets`, secret)
    expect(
      (await petroc.call('POST', `/visits/${visit}/erase-secrets`, { confirm: 'erase for good', why: 'Asked.' })).status
    ).toBe(403)
    expect((await wenna.call('POST', `/visits/${visit}/erase-secrets`, { confirm: 'erase for good' })).status).toBe(422)
    expect(
      (
        await wenna.call('POST', `/visits/${visit}/erase-secrets`, {
          confirm: 'erase for good',
          why: 'The customer asked for it.'
        })
      ).status
    ).toBe(204)
    expect(
      (await isolde.call('POST', `/visits/${visit}/secrets/${secret.ref}/show`, { why: 'checking it' })).status
    ).toBe(410)
  })

  it('an entry that holds one is refused, and a secret that stands in a note as well', async () => {
    const visit = await openAVisit(isolde)
    await isolde.call('POST', `/visits/${visit}/secrets`, secretOf(uuidv7()))
    const { status, text } = await post(isolde, visit, [draft(visit, 'note.written', { text: `it is ${value}` })])
    expect(status).toBe(422)
    expect(text).not.toContain(value)
    await post(isolde, visit, [draft(visit, 'note.written', { text: 'the old one was demo-curlew-17-boats' })])
    expect(
      (await isolde.call('POST', `/visits/${visit}/secrets`, secretOf(uuidv7(), { value: 'demo-curlew-17-boats' })))
        .status
    ).toBe(422)
  })

  it('one that is a unit’s name, a place or a network’s name already is refused; a key that is the serial on the label is not', async () => {
    const visit = await openAVisit(isolde)
    const unit = uuidv7()
    await post(isolde, visit, [
      draft(visit, 'unit.set', {
        id: unit,
        set: { name: 'Lantern-Room-77', place: 'under the eaves', serial: 'SN4471-9920' }
      }),
      draft(visit, 'network.set', { id: uuidv7(), set: { ssid: 'Stormwatch-55' } })
    ])
    const keep = (value: string, purpose: string) =>
      isolde.call<ProblemBody>('POST', `/visits/${visit}/secrets`, {
        ref: uuidv7(),
        purpose,
        thing: 'unit',
        id: unit,
        origin: 'typed',
        value
      })
    for (const value of ['Lantern-Room-77', 'under the eaves', 'Stormwatch-55']) {
      const { status, text } = await keep(value, 'admin-password')
      expect([status, text.includes(value)]).toEqual([422, false])
    }
    expect((await keep('SN4471-9920', 'label-key')).status).toBe(201)
    expect(
      (await post(isolde, visit, [draft(visit, 'unit.set', { id: unit, set: { serial: 'SN4471-9920' } })])).status
    ).toBe(200)
    expect(
      (await post(isolde, visit, [draft(visit, 'unit.set', { id: unit, set: { name: 'SN4471-9920' } })])).status
    ).toBe(422)
  })
})

it('a lead publishes the next version of a model; faults, a wrong version and other roles are refused', async () => {
  const heron = demoModels.find(({ id }) => id === 'ostrel-heron')!
  const next = { ...heron, version: 2, name: 'Heron II' }
  const publish = (caller: Caller, model: unknown) => caller.call<ProblemBody>('POST', '/models', { model })
  expect((await publish(isolde, next)).status).toBe(403)
  expect((await publish(wenna, { ...next, version: 3 })).body.errors).toMatchObject([{ pointer: '/model/version' }])
  expect((await publish(wenna, { ...next, start: 'asleep' })).body.errors?.[0]?.pointer).toBe('/model/start')
  expect((await publish(wenna, { ...next, surprise: 1 })).body.errors).toMatchObject([{ pointer: '/model/surprise' }])
  expect((await publish(wenna, next)).status).toBe(201)
  const { body } = await isolde.call<{ models: { id: string; version: number }[] }>('GET', '/catalogue')
  expect(body.models.filter(({ id }) => id === heron.id).map(({ version }) => version)).toEqual([1, 2])
})

it('the record of a live visit is one by its schema', async () => {
  const visit = await openAVisit(isolde)
  const unit = uuidv7()
  await post(isolde, visit, [
    draft(visit, 'unit.set', { id: unit, set: { model: 'ostrel-heron', modelVersion: 1, name: 'Hall' } }),
    draft(visit, 'lamp.seen', { unit, lamps: [{ lamp: 'status', colour: 'white', pattern: 'solid' }] }),
    draft(visit, 'choice.answered', { choice: 'lamp', answer: 'off' })
  ])
  const { record } = await company.services.logbook.states.at(company.services.db, visit, 4)
  expect(visitRecord.safeParse(record).error?.issues ?? []).toEqual([])
})

it('the description of the API names every route', async () => {
  const { body } = await isolde.call<{ openapi: string; paths: Record<string, Record<string, unknown>> }>(
    'GET',
    '/openapi.json'
  )
  expect(body.openapi).toBe('3.1.0')
  const described = allRoutes.map(({ method, path, name, answer }) => {
    const found = body.paths[`/api${path.replace(/:(\w+)/g, '{$1}')}`]?.[method] as {
      operationId: string
      responses: Record<string, { content?: Record<string, unknown> }>
    }
    expect(found, `${method} ${path}`).toBeDefined()
    expect(found.operationId).toBe(name)
    const told = Object.entries(found.responses).find(([status]) => /^2/.test(status))![1]
    expect(told.content === undefined, `${name} says what it answers`).toBe(answer === 'nothing')
    return found.operationId
  })
  expect(new Set(described).size).toBe(allRoutes.length)
})

it('an answer that its contract does not say is a fault, not an answer', async () => {
  const listed = allRoutes.find(({ name }) => name === 'listTechnicians')!
  const run = listed.run
  listed.run = () => Promise.resolve({ json: { technicians: [{ id: 'nobody', name: 'Nobody' }] } })
  try {
    expect((await isolde.call('GET', '/technicians')).status).toBe(500)
  } finally {
    listed.run = run
  }
})
