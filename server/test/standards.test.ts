import { afterAll, beforeAll, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { nextDraft } from '@pasado/core/rules/check-standard'
import type { Standard } from '@pasado/core/policy/standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { demoVisits } from '@pasado/demo/all'
import { loadVisits } from '../../scripts/load-demo'
import { rows } from '../src/db/pool'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let wenna: Caller
let isolde: Caller
beforeAll(async () => {
  company = await startCompany()
  wenna = await Caller.as(company.running, 'wenna')
  isolde = await Caller.as(company.running, 'isolde')
})
afterAll(() => company.stop())

type Refused = { title: string; errors: { field: string; detail: string }[] }
const next = (part: Partial<Standard>): Standard => ({
  ...nextDraft(firstStandard),
  note: 'Rooms have to be faster.',
  ...part
})

it('a draft is held against sealed visits, published once by a lead with a reason, and an open visit is moved to it', async () => {
  await loadVisits(
    company.services,
    demoVisits()
      .filter(({ steps }) => steps.some(({ does }) => does === 'seal'))
      .slice(0, 3),
    new Date()
  )
  const harder = next({
    policy: { ...firstStandard.policy, roomMbps: 220, roomShare: 1 },
    levels: { 'place-height': 'off' }
  })
  const { body: effect } = await wenna.call<{
    looked: number
    next: string | null
    changes: { rule: string; was: string; is: string }[]
  }>('POST', '/standards/effect', { standard: harder })
  expect(effect).toMatchObject({ looked: 3, next: null })
  // Rules that came with the program hold in all three: they would have stood in nobody's way.
  expect(new Set(effect.changes.map(({ rule }) => rule))).toEqual(new Set(['prove-rooms', 'place-height']))
  expect(effect.changes.find(({ rule }) => rule === 'prove-rooms')).toMatchObject({ was: 'holds', is: 'breaks, must' })
  expect(effect.changes.find(({ rule }) => rule === 'place-height')).toMatchObject({ is: 'not in force' })

  const visit = await openAVisit(isolde)
  expect((await isolde.call('POST', '/standards', { standard: harder })).status).toBe(403)
  const refused = async (standard: unknown) => {
    const { status, body } = await wenna.call<Refused>('POST', '/standards', { standard })
    return [status, body.errors?.[0]?.detail]
  }
  expect(await refused({ ...harder, note: ' ' })).toEqual([422, 'is missing: say why this version is made'])
  expect(await refused({ ...harder, version: 7 })).toEqual([422, 'must be 2, the next after the newest'])
  expect(await refused({ ...harder, format: 'pasado.standard/9' })).toEqual([
    422,
    expect.stringContaining('later version')
  ])
  expect(await refused({ ...harder, levels: { nonsense: 'must' } })).toEqual([
    422,
    expect.stringContaining('no such rule')
  ])
  expect((await wenna.call('POST', '/standards', { standard: harder })).status).toBe(201)
  expect((await refused(harder))[0]).toBe(422)
  expect(
    (await isolde.call<{ standards: Standard[] }>('GET', '/standards')).body.standards.map(({ version }) => version)
  ).toEqual([2, 1])

  const of = async (id: string) =>
    (await isolde.call<{ standard: Standard }>('GET', `/visits/${id}`)).body.standard.version
  expect(await of(visit)).toBe(1)
  expect(
    (await isolde.call<{ differences: string[] }>('POST', `/visits/${visit}/standard`, { version: 2 })).body.differences
  ).toContain('Height: should → not in force')
  expect(await of(visit)).toBe(2)
  expect((await isolde.call('POST', `/visits/${visit}/standard`, { version: 9 })).status).toBe(404)
  const { body: day } = await isolde.call<{ visits: { id: string }[] }>('GET', '/day?whose=mine')
  expect(day.visits.some(({ id }) => id === visit)).toBe(true)
  // Only the server writes that a visit was moved; a sealed one never is.
  expect(
    (
      await isolde.call('POST', `/visits/${visit}/entries`, {
        entries: [draft(visit, 'standard.moved' as never, { standard: { id: 'house', version: 1 } } as never)]
      })
    ).status
  ).toBe(422)
  const [sealed] = await rows<{ id: string }>(
    company.services.db,
    'SELECT id FROM visits WHERE sealed_at IS NOT NULL LIMIT 1'
  )
  expect((await wenna.call('POST', `/visits/${sealed!.id}/standard`, { version: 2 })).status).toBe(409)
  expect((await wenna.call('POST', `/visits/${uuidv7()}/standard`, { version: 2 })).status).toBe(404)
})
