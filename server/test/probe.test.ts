import { gzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { makeRecordFile, printRecordFile } from '@pasado/core/documents/record-file'
import { catalogueOf } from '@pasado/core/catalogue/model'
import { digestOf } from '@pasado/core/values/canonical'
import { chained, chainStart } from '@pasado/core/record/chain'
import type { Entry, Placed } from '@pasado/core/record/entry'
import { reduce } from '@pasado/core/record/reduce'
import { sealText, signedDigest } from '@pasado/core/record/seal'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { allRules } from '@pasado/core/rules/all'
import type { Standard } from '@pasado/core/policy/standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { demoVisits } from '@pasado/demo/all'
import { isolde as isoldeHerself, wenna as wennaHerself } from '@pasado/demo/company'
import { loadVisits } from '../../scripts/load-demo'
import { companyKeys, signText } from '../src/vault/master-key'
import { Caller, demoModels, draft, startCompany } from '@pasado/testing/company'

/**
 * A probe from outside: everything by HTTP, by the routes that the description names. It tries what must not go through, and
 * never meets a fault.
 */
let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let corin: Caller
let wenna: Caller
let petroc: Caller
let visit: string
const statuses: number[] = []
const problem = (body: unknown) => (body as { title: string }).title

beforeAll(async () => {
  company = await startCompany()
  ;[isolde, corin, wenna, petroc] = (await Promise.all(
    ['isolde', 'corin', 'wenna', 'petroc'].map((login) => Caller.as(company.running, login))
  )) as [Caller, Caller, Caller, Caller]
  for (const caller of [isolde, corin, wenna, petroc]) {
    const call = caller.call.bind(caller)
    caller.call = async (...words) => {
      const answer = await call(...words)
      statuses.push(answer.status)
      return answer as never
    }
  }
  const ready = demoVisits().filter(({ brief }) => brief.street === '22 Dulse Road')
  await loadVisits(company.services, ready, new Date())
  visit = ready.at(-1)!.id
  const standard: Standard = {
    ...nextDraft(firstStandard),
    note: 'Somebody else looks.',
    policy: { ...firstStandard.policy, fourEyes: true }
  }
  expect((await wenna.call('POST', '/standards', { standard })).status).toBe(201)
})
afterAll(async () => {
  expect(statuses.filter((status) => status >= 500)).toEqual([])
  await company.stop()
})

const entriesOf = async (id = visit) =>
  (await isolde.call<{ entries: Entry[] }>('GET', `/visits/${id}/entries?after=0`)).body.entries
const recordOf = async (id = visit) => reduce((await entriesOf(id)) as Placed[])
const write = async (who: Caller, kind: string, body: object, id = visit) =>
  who.call('POST', `/visits/${id}/entries`, {
    entries: [draft(id, kind as never, body as never, { base: (await recordOf(id)).lastSeq })]
  })
const sign = async (who: Caller, as: 'customer' | 'technician', name: string) =>
  write(who, 'signature.given', {
    who: as,
    name,
    strokes: 'M20 110 L60 90 L100 120',
    digest: signedDigest(await recordOf())
  })

it('every route that is tried is one that the description names, with who may call it', async () => {
  const { body } = await isolde.call<{ paths: Record<string, Record<string, { description?: string }>> }>(
    'GET',
    '/openapi.json'
  )
  for (const [path, method, roles] of [
    ['/api/visits/{id}/standard', 'post', 'technician, lead'],
    ['/api/visits/{id}/seal', 'post', 'technician, lead'],
    ['/api/visits/{id}/erase-secrets', 'post', 'lead'],
    ['/api/import', 'post', 'lead'],
    ['/api/keys/{name}/ours', 'post', 'lead']
  ] as const)
    expect(body.paths[path]?.[method]?.description).toBe(`Roles: ${roles}.`)
})

describe('who may say it', () => {
  it('nobody but its technician and leads has a visit checked by another version; an older one is a lead’s, with why', async () => {
    const move = (who: Caller, version: number, more: object = {}) =>
      who.call('POST', `/visits/${visit}/standard`, { version, ...more })
    expect((await move(corin, 2)).status).toBe(403)
    expect((await move(petroc, 2)).status).toBe(403)
    expect((await move(isolde, 2)).status).toBe(200)
    expect((await move(corin, 1)).status).toBe(403)
    expect((await move(isolde, 1)).status).toBe(403)
    expect((await move(isolde, 1, { reason: 'I would rather.' })).status).toBe(403)
    expect((await move(wenna, 1)).status).toBe(409)
    expect((await recordOf()).visit.standard.version).toBe(2)
    expect((await move(wenna, 1, { reason: 'The new figures came after the work.' })).status).toBe(200)
    expect((await entriesOf()).at(-1)).toMatchObject({
      kind: 'standard.moved',
      body: { reason: 'The new figures came after the work.' }
    })
    expect((await move(isolde, 2)).status).toBe(200)
  })

  it('both sign with whoever has the visit, the technician by the name of the account', async () => {
    expect((await sign(corin, 'technician', isoldeHerself.name)).status).toBe(403)
    expect((await sign(corin, 'customer', 'Kelp Farm')).status).toBe(403)
    expect((await sign(wenna, 'technician', isoldeHerself.name)).status).toBe(403)
    expect((await sign(isolde, 'technician', 'Somebody Else')).status).toBe(403)
    expect((await sign(petroc, 'customer', 'Kelp Farm')).status).toBe(403)
    expect((await sign(isolde, 'technician', isoldeHerself.name)).status).toBe(200)
    expect((await sign(isolde, 'customer', 'Kelp Farm')).status).toBe(200)
  })

  it('nobody but its technician or a lead seals it, and with four eyes not before it is approved', async () => {
    const digest = signedDigest(await recordOf())
    expect((await corin.call('POST', `/visits/${visit}/seal`, { digest })).status).toBe(403)
    expect((await petroc.call('POST', `/visits/${visit}/seal`, { digest })).status).toBe(403)
    const refused = await isolde.call('POST', `/visits/${visit}/seal`, { digest })
    expect([refused.status, problem(refused.body)]).toEqual([409, expect.stringContaining('approve')])
  })

  it('a lead who recorded something does not approve, nor one who waived where there is another; nor with a must open', async () => {
    const approve = async (who: Caller) =>
      write(who, 'review.approved', { remark: '', digest: signedDigest(await recordOf()) })
    expect((await approve(isolde)).status).toBe(403)
    expect((await approve(corin)).status).toBe(403)
    const paid = (await recordOf()).brief.facts.speedDownMbps!
    await write(isolde, 'brief.set', { set: { speedDownMbps: null } })
    const early = await approve(wenna)
    expect([early.status, problem(early.body)]).toEqual([409, expect.stringContaining('neither proven nor waived')])
    await write(isolde, 'brief.set', { set: { speedDownMbps: paid } })
    await write(wenna, 'brief.set', { set: { secondContact: 'Harbour office' } })
    await isolde.call('POST', `/visits/${visit}/pack`, {})
    await write(isolde, 'pack.given', { how: 'printed' })
    const own = await approve(wenna)
    expect([own.status, problem(own.body)]).toEqual([403, expect.stringContaining('You recorded something')])
    const { body: added } = await wenna.call<{ id: string; password: string }>('POST', '/people', {
      login: 'tressa',
      name: 'Tressa Vean',
      role: 'lead'
    })
    const tressa = new Caller(company.running.address)
    tressa.outbox = uuidv7()
    await tressa.call('POST', '/session', { login: 'tressa', password: added.password })
    await tressa.call('POST', '/session/password', { current: added.password, wanted: 'cormorant under nine bells' })
    await write(tressa, 'waiver.granted', { rule: 'place-height', reason: 'Seen.' })
    const waived = await approve(tressa)
    expect([waived.status, problem(waived.body)]).toEqual([403, expect.stringContaining('You waived something')])
  })

  it('with four eyes a lead does not waive a must in a visit of their own', async () => {
    await petroc.call('POST', `/visits/${visit}/technician`, { technician: wennaHerself.id, reason: 'She is there.' })
    expect((await write(wenna, 'waiver.granted', { rule: 'kit-identity', reason: 'Mine.' })).status).toBe(403)
    expect((await write(wenna, 'waiver.granted', { rule: 'place-spacing', reason: 'A should.' })).status).toBe(200)
    await wenna.call('POST', `/visits/${visit}/technician`, { technician: isoldeHerself.id, reason: 'Back again.' })
    expect((await write(isolde, 'waiver.granted', { rule: 'kit-identity', reason: 'Please.' })).status).toBe(403)
  })

  it('the office writes the booking and nothing else', async () => {
    expect((await write(petroc, 'brief.set', { set: { phone: '555-0133' } })).status).toBe(200)
    for (const [kind, body] of [
      ['brief.set', { set: { accessLine: 'fibre' } }],
      ['rule.answered', { rule: 'hand-lamp', answer: 'yes' }],
      ['unit.set', { id: uuidv7(), set: { name: 'x' } }]
    ] as const)
      expect((await write(petroc, kind, body)).status).toBe(403)
  })

  it('an outbox is one person’s', async () => {
    const taken = await fetch(`${company.running.address}/api/visits/${visit}/entries`, {
      method: 'POST',
      headers: { cookie: corin.cookie, 'content-type': 'application/json' },
      body: JSON.stringify({
        entries: [draft(visit, 'note.written', { text: 'in her name' }, { from: isolde.outbox, base: 1 })]
      })
    })
    expect(taken.status).toBe(409)
  })

  it('secrets are erased before their day by a lead with why, and only where some are kept', async () => {
    const erase = (who: Caller, body: object, id = visit) => who.call('POST', `/visits/${id}/erase-secrets`, body)
    expect((await erase(petroc, { confirm: 'erase for good', why: 'Asked.' })).status).toBe(403)
    expect((await erase(isolde, { confirm: 'erase for good', why: 'Asked.' })).status).toBe(403)
    expect((await erase(wenna, { confirm: 'erase for good' })).status).toBe(422)
    const empty = uuidv7()
    await isolde.call('POST', '/visits', {
      id: empty,
      home: uuidv7(),
      customer: uuidv7(),
      technician: isoldeHerself.id,
      brief: { customerName: 'Odo Hask', street: '9 Weir Row', town: 'Ness Skerrow' }
    })
    expect((await erase(wenna, { confirm: 'erase for good', why: 'Asked.' }, empty)).status).toBe(409)
    expect(
      (
        await isolde.call('POST', `/visits/${empty}/secrets`, {
          ref: uuidv7(),
          purpose: 'admin-password',
          thing: 'brief',
          id: 'brief',
          origin: 'typed',
          value: 'made-up-kelp-lantern'
        })
      ).status
    ).toBe(201)
    expect((await write(isolde, 'note.written', { text: 'it is made-up-kelp-lantern' }, empty)).status).toBe(422)
  })
})

it('more than ten secrets in an hour want the password again, and the leads are told', async () => {
  const id = uuidv7()
  await isolde.call('POST', '/visits', {
    id,
    home: uuidv7(),
    customer: uuidv7(),
    technician: isoldeHerself.id,
    brief: { customerName: 'Fenn Arbery', street: '11 Weir Row', town: 'Ness Skerrow' }
  })
  const ref = uuidv7()
  await isolde.call('POST', `/visits/${id}/secrets`, {
    ref,
    purpose: 'admin-password',
    thing: 'brief',
    id: 'brief',
    origin: 'typed',
    value: 'made-up-plover-nine'
  })
  const show = () =>
    isolde.call<{ type?: string; value?: string }>('POST', `/visits/${id}/secrets/${ref}/show`, { why: 'checking it' })
  for (let turn = 0; turn < 10; turn++) expect((await show()).status).toBe(200)
  expect((await wenna.call<{ shown: unknown[] }>('GET', '/day?whose=all')).body.shown).toEqual([])
  const stopped = await show()
  expect([stopped.status, stopped.body.type]).toEqual([403, 'urn:pasado:problem:password-again'])
  expect((await isolde.call('POST', `/visits/${id}/photos/${uuidv7()}/show`, { why: 'checking it' })).status).toBe(403)
  expect((await wenna.call<{ shown: { name: string }[] }>('GET', '/day?whose=all')).body.shown).toMatchObject([
    { name: isoldeHerself.name }
  ])
  expect((await isolde.call<{ shown: unknown[] }>('GET', '/day')).body.shown).toEqual([])
  expect((await isolde.call('POST', '/session/again', { password: 'not it' })).status).toBe(422)
  expect((await show()).status).toBe(403)
  expect((await isolde.call('POST', '/session/again', { password: 'skerrow-demo-lantern' })).status).toBe(204)
  expect((await show()).body.value).toBe('made-up-plover-nine')
  expect((await entriesOf(id)).filter(({ kind }) => kind === 'secret.shown')).toHaveLength(11)
})

describe('a file that is taken in', () => {
  /** A visit that nobody here ever saw, sealed by a key made a minute ago, under a standard with every rule off. */
  function forged(): { text: string; id: string; home: string; key: string } {
    const keys = companyKeys(Buffer.alloc(32, 9))
    const standard: Standard = {
      ...firstStandard,
      version: 99,
      levels: Object.fromEntries(allRules.map(({ id }) => [id, 'off' as const]))
    }
    const model = { ...demoModels[0]!, version: 77 }
    const [id, home] = [uuidv7(), uuidv7()]
    const entries: Entry[] = []
    const add = (kind: string, body: object) =>
      entries.push(
        chained(entries.at(-1)?.hash ?? chainStart, {
          id: uuidv7(),
          visit: id,
          at: '2026-01-05T10:00:00.000Z',
          from: uuidv7(),
          base: entries.length,
          kind,
          body,
          by: { id: isoldeHerself.id, name: isoldeHerself.name, role: 'technician' },
          seq: entries.length + 1,
          received: '2026-01-05T10:00:00.000Z'
        } as unknown as Placed)
      )
    add('visit.opened', {
      home,
      customer: uuidv7(),
      technician: { id: isoldeHerself.id, name: isoldeHerself.name },
      standard: { id: 'house', version: 99 },
      startedFrom: null,
      brief: { customerName: 'Nobody Known', street: '1 Nowhere', town: 'Ness Skerrow' }
    })
    add('unit.set', { id: uuidv7(), set: { name: 'Odd', model: model.id, modelVersion: 77 } })
    const record = reduce(entries as Placed[])
    const parts = {
      chain: entries.at(-1)!.hash,
      record: digestOf(record),
      standard: digestOf(standard),
      catalogue: digestOf([model]),
      key: keys.keyName
    }
    add('sealed', { ...parts, signature: signText(keys, sealText(id, parts)) })
    return {
      text: printRecordFile(makeRecordFile(entries, standard, catalogueOf([model]), keys.publicKey)),
      id,
      home,
      key: keys.keyName
    }
  }

  it('puts nothing of its own in force: no standard, model or key; it is marked, with who took it in', async () => {
    const { text, id, home, key } = forged()
    for (const who of [isolde, petroc]) expect((await who.call('POST', '/import', { text })).status).toBe(403)
    expect((await wenna.call('POST', '/import', { text })).status).toBe(201)
    expect((await isolde.call<{ standard: Standard }>('GET', '/standards/newest')).body.standard.version).toBe(2)
    expect(
      (await isolde.call<{ standards: Standard[] }>('GET', '/standards')).body.standards.map(({ version }) => version)
    ).toEqual([2, 1])
    expect(
      (await isolde.call<{ models: { version: number }[] }>('GET', '/catalogue')).body.models.some(
        ({ version }) => version === 77
      )
    ).toBe(false)
    expect(
      (await isolde.call<{ all: { name: string }[] }>('GET', '/keys')).body.all.map(({ name }) => name)
    ).not.toContain(key)
    const seen = await isolde.call<{ foreign: object; standard: Standard; models: { version: number }[] }>(
      'GET',
      `/visits/${id}`
    )
    expect(seen.body).toMatchObject({
      foreign: { by: wennaHerself.name, key: true, standard: true, models: [expect.stringContaining('version 77')] },
      standard: { version: 99 },
      models: [{ version: 77 }]
    })
    // The company's own next version is its own to make.
    const next: Standard = {
      ...nextDraft((await isolde.call<{ standard: Standard }>('GET', '/standards/newest')).body.standard),
      note: 'Once more.'
    }
    expect((await wenna.call('POST', '/standards', { standard: next })).status).toBe(201)
    // A new visit at that home is checked by what is in force here.
    const after = uuidv7()
    const { body: file } = await isolde.call<{ home: { customerId: string } }>('GET', `/homes/${home}`)
    expect(
      (
        await isolde.call('POST', '/visits', {
          id: after,
          home,
          customer: file.home.customerId,
          technician: isoldeHerself.id,
          brief: { customerName: 'Nobody Known', street: '1 Nowhere', town: 'Ness Skerrow' }
        })
      ).status
    ).toBe(201)
    expect((await recordOf(after)).visit.standard.version).toBe(3)
  })

  it('that is open under a standard of its own is read, and gone on with only by one of ours', async () => {
    const { text } = forged()
    const open = JSON.parse(text) as { entries: Entry[]; standard: Standard; models: never[]; visit: string }
    const id = uuidv7()
    const entries: Entry[] = []
    for (const { hash: _, ...item } of open.entries.slice(0, 2))
      entries.push(chained(entries.at(-1)?.hash ?? chainStart, { ...item, id: uuidv7(), visit: id }))
    const unsealed = printRecordFile(makeRecordFile(entries, open.standard, catalogueOf(open.models), null))
    expect((await wenna.call('POST', '/import', { text: unsealed })).status).toBe(201)
    const refused = await write(isolde, 'note.written', { text: 'going on' }, id)
    expect([refused.status, problem(refused.body)]).toEqual([409, expect.stringContaining('not in force here')])
    expect((await corin.call('POST', `/visits/${id}/standard`, { version: 3 })).status).toBe(403)
    expect(
      (
        await wenna.call('POST', `/visits/${id}/standard`, {
          version: 3,
          reason: 'Taken over from the islands’ other company.'
        })
      ).status
    ).toBe(200)
    expect((await write(isolde, 'note.written', { text: 'going on' }, id)).status).toBe(200)
    expect((await recordOf(id)).visit.standard.version).toBe(3)
  })
})

describe('what is asked oddly is told, and never a fault', () => {
  it('the same entry twice, a visit opened three times at once, a reference in two visits', async () => {
    const note = draft(visit, 'note.written', { text: 'twice' }, { base: 1 })
    expect((await isolde.call('POST', `/visits/${visit}/entries`, { entries: [note, note] })).status).toBe(422)
    const opening = {
      id: uuidv7(),
      home: uuidv7(),
      customer: uuidv7(),
      technician: isoldeHerself.id,
      brief: { customerName: 'Brisa Lanyard', street: '12 Quay', town: 'Ness Skerrow' }
    }
    const answers = await Promise.all([1, 2, 3].map(() => isolde.call('POST', '/visits', opening)))
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 200, 201])
    const secret = {
      ref: uuidv7(),
      purpose: 'admin-password',
      thing: 'brief',
      id: 'brief',
      origin: 'typed',
      value: 'made-up-gannet-tar'
    }
    expect((await isolde.call('POST', `/visits/${opening.id}/secrets`, secret)).status).toBe(201)
    expect((await isolde.call('POST', `/visits/${visit}/secrets`, secret)).status).toBe(422)
  })

  it('a thing that names another one that is not there is refused with its field', async () => {
    const { status, body } = await write(isolde, 'pool.set', {
      id: uuidv7(),
      set: { segment: uuidv7(), unit: uuidv7(), from: '10.0.0.5', to: '10.0.0.9' }
    })
    expect([status, (body as { errors: { field: string }[] }).errors.map(({ field }) => field)]).toEqual([
      422,
      ['entries[0].body.set.segment', 'entries[0].body.set.unit']
    ])
    expect((await write(isolde, 'path.seen', { unit: uuidv7(), address: '10.0.0.4' })).status).toBe(422)
  })

  it('a note at a stage that is none, texts beyond ASCII where none belong, and words that objects have by themselves', async () => {
    for (const stage of ['constructor', 'toString', '__proto__', 'nowhere'])
      expect((await write(isolde, 'note.written', { text: 'odd', stage })).status).toBe(422)
    expect((await isolde.call('GET', `/durations?of=${encodeURIComponent('é')}`)).status).toBe(422)
    // As a line from before may hold it.
    await company.services.logbook.write(visit, new Date(), (open) =>
      Promise.resolve(void open.write('note.written', { text: 'odd', stage: 'constructor' }, isoldeHerself))
    )
    expect((await isolde.call('GET', `/visits/${visit}/record.pdf`)).status).toBe(200)
  })
})

describe('before it is known who asks, nothing is read', () => {
  const send = async (path: string, body: Buffer | string, headers: Record<string, string> = {}) => {
    const began = performance.now()
    const response = await fetch(`${company.running.address}${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...headers },
      body: typeof body === 'string' ? body : new Uint8Array(body)
    })
    await response.text()
    statuses.push(response.status)
    return { status: response.status, ms: performance.now() - began }
  }
  const deep = (levels: number) => `{"text":${'['.repeat(levels)}${']'.repeat(levels)}}`

  it('a deep, wide or inflated body is answered at once, on whatever path', async () => {
    const bomb = gzipSync(deep(4_000_000))
    for (const path of ['/api/import', '/api/models/import', '/api/session', '/api/nothing-here', '/x']) {
      const { status, ms } = await send(path, bomb, { 'content-encoding': 'gzip' })
      expect([401, 404, 415]).toContain(status)
      expect(ms).toBeLessThan(1_000)
    }
    expect((await send('/api/import', deep(400_000))).status).toBe(401)
    expect((await send('/api/session', deep(400_000))).status).toBe(413)
    expect((await send('/api/session', deep(200))).status).toBe(400)
  })

  it('from a person neither: what nests too deep is not parsed, what is compressed not inflated, what is too long not read', async () => {
    const as = { cookie: isolde.cookie }
    expect((await send(`/api/visits/${visit}/entries`, deep(100_000), as)).status).toBe(400)
    expect((await send(`/api/visits/${visit}/entries`, `{"entries":[${'{},'.repeat(200_000)}{}]}`, as)).status).toBe(
      400
    )
    expect(
      (await send(`/api/visits/${visit}/entries`, gzipSync('{}'), { ...as, 'content-encoding': 'gzip' })).status
    ).toBe(415)
    expect((await send(`/api/visits/${visit}/entries`, `{"entries":"${'x'.repeat(1_100_000)}"}`, as)).status).toBe(413)
  })

  it('an odd passphrase takes nobody else’s time', async () => {
    const odd = 'p4$$w0rd'.repeat(16)
    let longest = 0
    let going = true
    const others = (async () => {
      while (going) {
        const began = performance.now()
        await isolde.call('GET', '/keys')
        longest = Math.max(longest, performance.now() - began)
      }
    })()
    const kept = await wenna.call('POST', `/visits/${visit}/secrets`, {
      ref: uuidv7(),
      purpose: 'admin-password',
      thing: 'brief',
      id: 'brief',
      origin: 'typed',
      value: odd
    })
    const chosen = await petroc.call('POST', '/session/password', { current: 'skerrow-demo-lantern', wanted: odd })
    going = false
    await others
    expect([kept.status, chosen.status]).toEqual([201, 422])
    expect(longest).toBeLessThan(1_000)
  })
})

describe('tries at a login', () => {
  const tryAt = async (login: string, headers: Record<string, string> = {}) =>
    (await new Caller(company.running.address).call('POST', '/session', { login, password: 'not it at all' }, headers))
      .status

  it('are counted however the login is spelled, and a spelling that is none is nobody’s', async () => {
    const spellings = ['corin', 'CORIN', ' corin', 'corin ', 'Corin', 'cOrin', 'corin', 'coriN']
    for (const login of spellings) expect(await tryAt(login)).toBe(401)
    expect(await tryAt('corin')).toBe(429)
    for (const login of ['córin', 'cｏrin', 'corin\u200b', 'corin\u0000', 'corin\ufeff']) {
      const caller = new Caller(company.running.address)
      expect((await caller.call('POST', '/session', { login, password: 'skerrow-demo-lantern' })).status).toBe(
        login.endsWith('\ufeff') ? 429 : 401
      )
    }
    const limited = await new Caller(company.running.address).call('POST', '/session', {
      login: 'corin',
      password: 'x'
    })
    expect(Number(limited.headers.get('retry-after'))).toBeGreaterThan(0)
  })
})

describe('how a process is', () => {
  it('is told in plain JSON without a log-in', async () => {
    for (const [path, body] of [
      ['/healthz', { status: 'ok' }],
      ['/readyz', { status: 'ok', process: 'ok', database: 'ok', migrations: 'ok', key: 'ok' }]
    ] as const) {
      const response = await fetch(`${company.running.address}${path}`)
      expect([response.status, response.headers.get('content-type'), await response.json()]).toEqual([
        200,
        'application/json; charset=utf-8',
        body
      ])
    }
  })
})
