import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { demoVisits } from '@pasado/demo/all'
import { loadVisits } from '../../scripts/load-demo'
import { rows } from '../src/db/pool'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let petroc: Caller
beforeAll(async () => {
  company = await startCompany()
  isolde = await Caller.as(company.running, 'isolde')
  petroc = await Caller.as(company.running, 'petroc')
  await loadVisits(
    company.services,
    demoVisits().filter(
      ({ technician, plannedAtMin }) => technician.name === 'Isolde Marram' && plannedAtMin >= -3 * 24 * 60
    ),
    new Date()
  )
})
afterAll(() => company.stop())

type Plan = {
  estimates: { visit: string; likelyMin: number; cautiousMin: number; load: string[] }[]
  travel: { a: string; b: string; minutes: number }[]
  windows: { town: string; fromMin: number; toMin: number }[]
}
const mine = async () =>
  (
    await isolde.call<{ visits: { id: string; town: string; home: string; plannedAt: string }[] }>(
      'GET',
      '/day?whose=mine'
    )
  ).body.visits

describe('what planning a day needs', () => {
  it('estimates by the run plan, what goes out, ways and ferries; reckoned anew only when the visit has moved on', async () => {
    const visits = await mine()
    const ask = async () =>
      (await isolde.call<Plan>('GET', `/day/plan?visits=${visits.map(({ id }) => id).join(',')}`)).body
    const plan = await ask()
    expect(plan.estimates.map(({ visit }) => visit).sort()).toEqual(visits.map(({ id }) => id).sort())
    expect(plan.estimates.every(({ likelyMin, cautiousMin }) => likelyMin <= cautiousMin)).toBe(true)
    expect(plan.estimates.some(({ likelyMin }) => likelyMin > 10)).toBe(true)
    expect(plan.estimates.flatMap(({ load }) => load).join(' ')).toContain('Brackwater C3')
    expect(plan.travel).toContainEqual({ a: 'town Great Skerrow', b: 'town Little Skerrow', minutes: 35 })
    expect(plan.windows).toContainEqual({ town: 'Ness Skerrow', fromMin: 480, toMin: 1080 })
    const kept = () =>
      rows<{ visit_id: string; seq: number }>(
        company.services.db,
        'SELECT visit_id, seq FROM estimates ORDER BY visit_id'
      )
    const before = await kept()
    expect(await ask()).toEqual(plan)
    expect(await kept()).toEqual(before)
    const { id } = visits[0]!
    await isolde.call('POST', `/visits/${id}/entries`, {
      entries: [draft(id, 'note.written', { text: 'The tide is in.' })]
    })
    await ask()
    const moved = (await kept()).find(({ visit_id }) => visit_id === id)!
    expect(moved.seq).toBe(before.find(({ visit_id }) => visit_id === id)!.seq + 1)
  })

  it('as many visits as the day lists can be planned, and those that are gone are left out', async () => {
    const [item] = await mine()
    const ids = (count: number) => [item!.id, ...Array.from({ length: count - 1 }, () => uuidv7())].join(',')
    expect(
      (await isolde.call<Plan>('GET', `/day/plan?visits=${ids(200)}`)).body.estimates.map(({ visit }) => visit)
    ).toEqual([item!.id])
    expect((await isolde.call('GET', `/day/plan?visits=${ids(201)}`)).status).toBe(422)
  })

  it('a way is typed once and good for both directions; one that makes no sense is refused with its field', async () => {
    const [first, other] = (await mine()).map(({ home }) => `home ${home}`)
    expect((await isolde.call('POST', '/ways/travel', { a: other, b: first, minutes: 17 })).status).toBe(204)
    const visits = await mine()
    const { body } = await isolde.call<Plan>('GET', `/day/plan?visits=${visits.map(({ id }) => id).join(',')}`)
    expect(body.travel.filter(({ a, b }) => [a, b].includes(first!) && [a, b].includes(other!))).toMatchObject([
      { minutes: 17 }
    ])
    await isolde.call('POST', '/ways/travel', { a: first, b: other, minutes: null })
    for (const [sent, field] of [
      [{ a: 'depot', b: first, minutes: 601 }, 'minutes'],
      [{ a: 'nowhere', b: first, minutes: 1 }, 'a'],
      [{ a: first, b: first, minutes: 1 }, 'b']
    ] as const) {
      expect((await isolde.call('POST', '/ways/travel', sent)).body).toMatchObject({ status: 422, errors: [{ field }] })
    }
  })

  it('ferry hours are the office’s to set; hours that end before they begin or lie over each other are refused', async () => {
    expect(
      (
        await petroc.call('POST', '/ways/windows', {
          town: 'Great Skerrow',
          windows: [
            { fromMin: 300, toMin: 600 },
            { fromMin: 700, toMin: 900 }
          ]
        })
      ).status
    ).toBe(204)
    expect((await petroc.call<{ windows: unknown[]; towns: string[] }>('GET', '/ways')).body).toMatchObject({
      towns: expect.arrayContaining(['Ness Skerrow']) as string[],
      windows: expect.arrayContaining([{ town: 'Great Skerrow', fromMin: 700, toMin: 900 }]) as unknown[]
    })
    for (const windows of [
      [{ fromMin: 600, toMin: 300 }],
      [
        { fromMin: 300, toMin: 600 },
        { fromMin: 600, toMin: 700 }
      ],
      [{ fromMin: 0, toMin: 1441 }]
    ])
      expect((await petroc.call('POST', '/ways/windows', { town: 'Great Skerrow', windows })).status).toBe(422)
    expect((await isolde.call('POST', '/ways/windows', { town: 'Great Skerrow', windows: [] })).status).toBe(403)
    await petroc.call('POST', '/ways/windows', { town: 'Great Skerrow', windows: [] })
  })

  it('of two who change a town’s hours from what they saw, one after the other or at once, none’s are lost without a word', async () => {
    const town = 'Little Skerrow'
    const [morning, noon, evening] = [
      { fromMin: 300, toMin: 400 },
      { fromMin: 600, toMin: 700 },
      { fromMin: 900, toMin: 1000 }
    ]
    const set = async (windows: unknown[], before: unknown[]) =>
      (await petroc.call('POST', '/ways/windows', { town, windows, before })).status
    const standing = async () =>
      (await petroc.call<{ windows: { town: string; fromMin: number }[] }>('GET', '/ways')).body.windows
        .filter((window) => window.town === town)
        .map(({ fromMin }) => fromMin)
        .sort((a, b) => a - b)
    await petroc.call('POST', '/ways/windows', { town, windows: [] })
    expect(await set([morning], [])).toBe(204)
    expect(await set([noon], [])).toBe(409)
    expect(await standing()).toEqual([300])
    // Sent twice, it is so already.
    expect(await set([morning], [])).toBe(204)
    expect(await set([morning, noon], [morning])).toBe(204)
    expect(await set([morning], [noon, morning])).toBe(204)
    const at = await Promise.all([set([morning, noon], [morning]), set([morning, evening], [morning])])
    expect(at.sort()).toEqual([204, 409])
    expect(await standing()).toHaveLength(2)
    await petroc.call('POST', '/ways/windows', { town, windows: [] })
    expect(await standing()).toEqual([])
  })
})

it('the calendar is one that a calendar reads: events with their times, lines as RFC 5545 wants them, and nobody’s telephone', async () => {
  const visit = await openAVisit(isolde, {
    plannedAt: '2030-05-06T09:30:00+02:00',
    phone: '555-0199',
    street: '77 A very long street name, with a comma; and a semicolon that has to be escaped'
  })
  // A check of its own: those of the demo are over in the evening.
  const inHours = (hours: number) => new Date(Date.now() + hours * 3_600_000).toISOString()
  await isolde.call('POST', `/visits/${visit}/entries`, {
    entries: [draft(visit, 'check.booked', { id: uuidv7(), from: inHours(1), to: inHours(4) })]
  })
  const { text, headers } = await isolde.call('GET', '/day/calendar?whose=mine')
  expect(headers.get('content-type')).toContain('text/calendar')
  expect(text.startsWith('BEGIN:VCALENDAR\r\nVERSION:2.0\r\n')).toBe(true)
  expect(text.trimEnd().endsWith('END:VCALENDAR')).toBe(true)
  for (const line of text.split('\r\n')) expect(Buffer.byteLength(line), line).toBeLessThanOrEqual(75)
  const whole = text.replace(/\r\n[ \t]/g, '')
  const event = whole.split('BEGIN:VEVENT').find((candidate) => candidate.includes(`${visit}@pasado`))!
  expect(event).toContain('DTSTART:20300506T073000Z')
  expect(event).toMatch(/DTEND:20300506T\d{6}Z/)
  expect(event).toContain('name\\, with a comma\\; and')
  expect(whole).not.toMatch(/555-0/)
  const { body } = await isolde.call<{ visits: { plannedAt: string | null }[]; checks: unknown[] }>(
    'GET',
    '/day?whose=mine'
  )
  expect(body.checks.length).toBeGreaterThan(0)
  expect(whole.split('BEGIN:VEVENT').length - 1).toBe(
    body.visits.filter(({ plannedAt }) => plannedAt).length + body.checks.length
  )
})
