import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { demoHouses } from '@pasado/demo/houses'
import { rows } from '../src/db/pool'
import { readUnit, type UnitSilent } from '../src/simulators/read-unit'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
const lines: string[] = []
beforeAll(async () => {
  company = await startCompany({ log: (line) => lines.push(line) })
  isolde = await Caller.as(company.running, 'isolde')
})
afterAll(() => company.stop())

const [, conversion] = demoHouses
const old = conversion!.units.find(({ id }) => id === 'old')!

async function houseUp(): Promise<string> {
  const id = uuidv7()
  expect((await isolde.call('POST', '/houses', { id, definition: conversion })).status).toBe(201)
  return id
}

describe('a simulated house', () => {
  it('is put up once, played on in order, and read back whole, without its logins', async () => {
    const id = await houseUp()
    await isolde.call('POST', '/houses', { id, definition: conversion })
    expect(
      (
        await isolde.call('POST', `/houses/${id}/actions`, {
          after: 0,
          actions: [
            { at: 1, do: 'plug', unit: 'old' },
            { at: 200, do: 'wait' }
          ]
        })
      ).body
    ).toEqual({ count: 2 })
    expect(
      (await isolde.call('POST', `/houses/${id}/actions`, { after: 0, actions: [{ at: 1, do: 'wait' }] })).status
    ).toBe(409)
    const { text, body } = await isolde.call<{ actions: unknown[] }>('GET', `/houses/${id}`)
    expect(body.actions).toHaveLength(2)
    expect(text).not.toContain(old.login!.password)
    expect((await isolde.call('GET', `/houses/${uuidv7()}`)).status).toBe(404)
    const bad = await isolde.call<{ errors: { field: string; detail: string }[] }>('POST', `/houses/${id}/actions`, {
      after: 2,
      actions: [{ at: 1, do: 'press', unit: 'old', button: 'reset', seconds: -1 }]
    })
    expect([bad.status, bad.body.errors[0]!.detail]).toEqual([422, 'must be 0 or more'])
  })

  it('its units’ pages ask for their login over HTTP, and tell once they run', async () => {
    const id = await houseUp()
    const address = `${company.running.address}/stand-ins/houses/${id}/units/old/status`
    const why = async (login: Parameters<typeof readUnit>[1]) => {
      try {
        return await readUnit(address, login)
      } catch (error) {
        return (error as UnitSilent).why
      }
    }
    expect((await fetch(address)).headers.get('www-authenticate')).toContain('Basic')
    expect(await why(null)).toBe('login')
    expect(await why({ ...old.login!, password: 'demo-wrong' })).toBe('login')
    expect(await why(old.login!)).toBe('silent')
    await isolde.call('POST', `/houses/${id}/actions`, {
      after: 0,
      actions: [
        { at: 0, do: 'plug', unit: 'old' },
        { at: 240, do: 'wait' }
      ]
    })
    expect(await why(old.login!)).toMatchObject({
      'device.serial': old.serial,
      'lan.address': '192.168.1.1',
      'dhcp.server': 'on'
    })
  })

  it('a visit that is bound to it reads a unit with the login of its label; without one it says what to record', async () => {
    const house = await houseUp()
    await isolde.call('POST', `/houses/${house}/actions`, {
      after: 0,
      actions: [
        { at: 0, do: 'plug', unit: 'old' },
        { at: 240, do: 'wait' }
      ]
    })
    const visit = await openAVisit(isolde)
    const unit = uuidv7()
    const read = () =>
      isolde.call<{ values: Record<string, string>; title: string; detail: string }>(
        'POST',
        `/visits/${visit}/units/${unit}/read`,
        {}
      )
    expect((await read()).status).toBe(409)
    await isolde.call('POST', `/visits/${visit}/entries`, {
      entries: [
        draft(visit, 'unit.set', {
          id: unit,
          set: { name: 'Old router', model: 'oldmere-weir', modelVersion: 1, serial: old.serial }
        }),
        draft(visit, 'house.bound', { house })
      ]
    })
    expect(JSON.stringify((await read()).body)).toContain('refuses the login')
    expect(
      (
        await isolde.call('POST', `/visits/${visit}/secrets`, {
          ref: uuidv7(),
          purpose: 'label-login',
          thing: 'unit',
          id: unit,
          origin: 'label',
          value: `${old.login!.user} / ${old.login!.password}`
        })
      ).status
    ).toBeLessThan(300)
    expect((await read()).body.values).toMatchObject({
      'device.model': 'Weir 300',
      'device.mac': old.mac,
      mode: 'router'
    })
    expect(lines.join('')).not.toContain(old.login!.password)
  })
})

describe('what past waits took', () => {
  it('is gathered by model and task, newest first, and found by its index', async () => {
    const visit = await openAVisit(isolde)
    const unit = uuidv7()
    const task = `step:${unit}:app:0`
    const wait = uuidv7()
    const at = (minutes: number) => ({ at: new Date(Date.now() - 3600_000 + minutes * 60_000).toISOString() })
    await isolde.call('POST', `/visits/${visit}/entries`, {
      entries: [
        draft(visit, 'unit.set', { id: unit, set: { model: 'ostrel-heron', modelVersion: 1 } }),
        draft(visit, 'wait.started', { id: wait, what: 'until starting', unit, task, usualMin: 2, mostMin: 4 }, at(0)),
        draft(visit, 'wait.ended', { id: wait }, at(3))
      ]
    })
    const { body } = await isolde.call<{ durations: unknown[] }>(
      'GET',
      `/durations?of=${encodeURIComponent('ostrel-heron step:app:0')}&of=nothing`
    )
    expect(body.durations).toEqual([{ of: 'ostrel-heron step:app:0', count: 1, least: 3, usual: 3, most: 3 }])
    // The interface writes the end of a wait by itself, as one entry alone.
    const alone = uuidv7()
    await isolde.call('POST', `/visits/${visit}/entries`, {
      entries: [
        draft(
          visit,
          'wait.started',
          { id: alone, what: 'restart', unit, task: `restart:${unit}`, usualMin: 2, mostMin: 4 },
          at(10)
        )
      ]
    })
    await isolde.call('POST', `/visits/${visit}/entries`, {
      entries: [draft(visit, 'wait.ended', { id: alone }, at(12))]
    })
    expect(await rows(company.services.db, 'SELECT minutes FROM durations WHERE wait_id = ?', [alone])).toEqual([
      { minutes: 2 }
    ])
    const [plan] = await rows<{ key: string; type: string }>(
      company.services.db,
      "EXPLAIN SELECT minutes FROM durations WHERE of_what = 'x' ORDER BY ended_at DESC LIMIT 200"
    )
    expect([plan!.key, plan!.type]).toEqual(['by_what', 'ref'])
  })
})
