import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { changePerson, endAllSessions, lockPerson, type ListedPerson } from '../src/db/people'
import { passwordFault } from '../src/http/session'
import { Caller, demoPassword, demoPeople, startCompany } from '@pasado/testing/company'

interface ProblemBody {
  type: string
  title: string
  errors?: { field: string; detail: string }[]
}

const lines: string[] = []
let company: Awaited<ReturnType<typeof startCompany>>
let wenna: Caller
let isolde: Caller
beforeAll(async () => {
  company = await startCompany({ log: (line) => lines.push(line) })
  ;[wenna, isolde] = await Promise.all([Caller.as(company.running, 'wenna'), Caller.as(company.running, 'isolde')])
})
afterAll(() => company.stop())

const own = 'gannet walks over slate 7'
const listed = async () => (await wenna.call<{ people: ListedPerson[] }>('GET', '/people')).body.people
const idOf = async (login: string) => (await listed()).find((listedPerson) => listedPerson.login === login)!.id
async function add(login: string, name: string, role = 'technician') {
  const { status, body } = await wenna.call<{ id: string; password: string }>('POST', '/people', { login, name, role })
  expect(status).toBe(201)
  return body
}
async function logIn(login: string, password: string) {
  const caller = new Caller(company.running.address)
  const { status, body } = await caller.call<{ person: { mustChoose: boolean } }>('POST', '/session', {
    login,
    password
  })
  return { caller, status, person: body.person }
}

describe('somebody new', () => {
  it('comes in with the password that was told, and can do nothing before another is chosen', async () => {
    const { password } = await add('morwenna', 'Morwenna Pyle')
    const { caller, person } = await logIn('morwenna', password)
    expect(person.mustChoose).toBe(true)
    expect((await caller.call<ProblemBody>('GET', '/day')).body).toMatchObject({
      type: 'urn:pasado:problem:choose-password',
      status: 403
    })
    expect((await caller.call('POST', '/session/password', { current: password, wanted: own })).status).toBe(204)
    expect((await caller.call('GET', '/day')).status).toBe(200)
    expect((await caller.call<{ person: object }>('GET', '/session')).body.person).toMatchObject({
      login: 'morwenna',
      mustChoose: false
    })
    expect((await logIn('morwenna', password)).status).toBe(401)
    expect((await logIn('morwenna', own)).status).toBe(200)
    expect((await listed()).find(({ login }) => login === 'morwenna')).toMatchObject({
      mustChoose: false,
      sessions: 2,
      openVisits: 0,
      leftAt: null
    })
    const { body } = await wenna.call<{ technicians: { name: string }[] }>('GET', '/technicians')
    expect(body.technicians.map(({ name }) => name)).toContain('Morwenna Pyle')
  })

  it('needs a login of their own, and a name', async () => {
    const taken = await wenna.call<ProblemBody>('POST', '/people', {
      login: 'corin',
      name: 'Another Corin',
      role: 'office'
    })
    expect([taken.status, taken.body.errors![0]]).toEqual([
      422,
      expect.objectContaining({ field: 'login', detail: expect.stringContaining('corin2') as string })
    ])
    const wrong = await wenna.call<ProblemBody>('POST', '/people', { login: 'Big Name', name: ' ', role: 'boss' })
    expect(wrong.body.errors!.map(({ field }) => field).sort()).toEqual(['login', 'name', 'role'])
  })

  it('is added and seen by leads alone', async () => {
    expect((await isolde.call('GET', '/people')).status).toBe(403)
    expect((await isolde.call('POST', '/people', { login: 'x1', name: 'X One', role: 'lead' })).status).toBe(403)
    expect((await isolde.call('POST', `/people/${await idOf('corin')}/password`, {})).status).toBe(403)
  })
})

describe('one’s own password', () => {
  it('is changed by who knows the one so far; every other session ends', async () => {
    const [here, there] = [await Caller.as(company.running, 'petroc'), await Caller.as(company.running, 'petroc')]
    const wrong = await here.call<ProblemBody>('POST', '/session/password', { current: 'not it', wanted: own })
    expect([wrong.status, wrong.body.errors![0]!.field]).toEqual([422, 'current'])
    const weak = await here.call<ProblemBody>('POST', '/session/password', {
      current: demoPassword,
      wanted: 'petroc lunn 1'
    })
    expect([weak.status, weak.body.errors![0]!.field]).toEqual([422, 'wanted'])
    expect((await here.call('POST', '/session/password', { current: demoPassword, wanted: own })).status).toBe(204)
    expect((await here.call('GET', '/day')).status).toBe(200)
    expect((await there.call('GET', '/day')).status).toBe(401)
  })

  it.each([
    ['short', 'has 5 characters'],
    [own, 'is the one you have'],
    ['aaaaaaaaaaaaaaa', 'guessed too soon'],
    ['isoldemarram', 'guessed too soon'],
    ['cormorant under nine bells', null]
  ])('%s: %s', async (wanted, says) => {
    const fault = await passwordFault(wanted, own, ['isolde', 'Isolde Marram'])
    if (says === null) expect(fault).toBeNull()
    else expect(fault).toContain(says)
  })

  it('cannot be tried without end', async () => {
    const { password } = await add('trier', 'Trier Once')
    const { caller } = await logIn('trier', password)
    const statuses: number[] = []
    for (let turn = 0; turn < 9; turn++)
      statuses.push((await caller.call('POST', '/session/password', { current: `guess ${turn}`, wanted: own })).status)
    expect([statuses[0], statuses.at(-1)]).toEqual([422, 429])
  })
})

describe('who works here', () => {
  const change = (id: string, body: object) => wenna.call<ProblemBody>('POST', `/people/${id}`, body)

  it('one who forgot gets a new password, and is logged out everywhere', async () => {
    const { id, password } = await add('tamsin', 'Tamsin Oar')
    const { caller } = await logIn('tamsin', password)
    await caller.call('POST', '/session/password', { current: password, wanted: own })
    const renewed = await wenna.call<{ password: string }>('POST', `/people/${id}/password`, {})
    expect((await caller.call('GET', '/day')).status).toBe(401)
    expect((await logIn('tamsin', own)).status).toBe(401)
    expect((await logIn('tamsin', renewed.body.password)).person.mustChoose).toBe(true)
    const self = await wenna.call<ProblemBody>('POST', `/people/${await idOf('wenna')}/password`, {})
    expect([self.status, self.body.errors![0]!.detail]).toEqual([422, expect.stringContaining('yourself')])
  })

  it('one who has left comes in no more, is sent nowhere, and may come back', async () => {
    const id = await idOf('corin')
    const corin = await Caller.as(company.running, 'corin')
    expect((await change(id, { name: 'Corin Saltway', role: 'technician', left: true })).status).toBe(204)
    expect((await corin.call('GET', '/day')).status).toBe(401)
    expect((await logIn('corin', demoPassword)).status).toBe(401)
    const visit = await wenna.call<ProblemBody>('POST', '/visits', {
      id: uuidv7(),
      home: uuidv7(),
      customer: uuidv7(),
      technician: id,
      brief: { customerName: 'Cressa Oakum', street: '6 Trawl Street', town: 'Ness Skerrow' }
    })
    expect([visit.status, visit.body.errors![0]!.field]).toEqual([422, 'technician'])
    expect((await listed()).at(-1)).toMatchObject({ login: 'corin', leftAt: expect.any(String) as string, sessions: 0 })
    await change(id, { name: 'Corin Saltway', role: 'technician', left: false })
    expect((await logIn('corin', demoPassword)).status).toBe(200)
  })

  it('the last lead stays one, also where two leads go at once', async () => {
    const id = await idOf('wenna')
    for (const body of [
      { name: 'Wenna Tarrow', role: 'office', left: false },
      { name: 'Wenna Tarrow', role: 'lead', left: true }
    ])
      expect((await change(id, body)).body).toMatchObject({ type: 'urn:pasado:problem:last-lead' })
    const other = await idOf('isolde')
    await change(other, { name: 'Isolde Marram', role: 'lead', left: false })
    const [first, second] = [await company.services.db.getConnection(), await company.services.db.getConnection()]
    try {
      await first.beginTransaction()
      await second.beginTransaction()
      expect((await lockPerson(first, id)).otherLeads).toBe(1)
      let waits = true
      const locking = lockPerson(second, other).finally(() => {
        waits = false
      })
      await new Promise((resolve) => setTimeout(resolve, 200))
      expect(waits).toBe(true)
      await changePerson(first, id, { name: 'Wenna Tarrow', role: 'technician', leftAt: null })
      await first.commit()
      expect((await locking).otherLeads).toBe(0)
    } finally {
      await second.rollback()
      first.release()
      second.release()
    }
  })
})

it('who logged out is out at once, and within a second where another process was told', async () => {
  const { db } = company.services
  const [here, there] = [await Caller.as(company.running, 'corin'), await Caller.as(company.running, 'corin')]
  const isIn = async (caller: Caller) => (await caller.call('GET', '/day')).status === 200
  expect([await isIn(here), await isIn(there)]).toEqual([true, true])
  const cookie = here.cookie
  expect((await here.call('DELETE', '/session')).status).toBe(204)
  here.cookie = cookie
  expect([await isIn(here), await isIn(there)]).toEqual([false, true])
  // As another process does it: this one hears nothing.
  await endAllSessions(db, demoPeople.find(({ login }) => login === 'corin')!.id)
  await expect.poll(() => isIn(there), { timeout: 2_000, interval: 100 }).toBe(false)
})

it('no password is in the log', () => {
  expect(lines.length).toBeGreaterThan(20)
  for (const secret of [own, demoPassword, 'guess 3']) expect(lines.join('\n')).not.toContain(secret)
  expect(demoPeople.length).toBeGreaterThan(3)
})
