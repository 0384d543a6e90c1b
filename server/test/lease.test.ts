import mysql from 'mysql2/promise'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { underLease } from '../src/db/lease'
import { emptyDatabase } from '@pasado/testing/database'

let database: Awaited<ReturnType<typeof emptyDatabase>>
beforeAll(async () => {
  database = await emptyDatabase()
})
afterAll(() => database.drop())

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
const held = async () => {
  const connection = await mysql.createConnection({ uri: database.url })
  const [rows] = await connection.query('SELECT * FROM leases')
  await connection.end()
  return rows as { holder: string; beat: number }[]
}

it('one at a time has it, the others are told once that they wait, and it is given back', async () => {
  let now = 0
  let most = 0
  let told = 0
  await Promise.all(
    Array.from({ length: 5 }, () =>
      underLease(database.url, { name: 'work', onWait: () => told++ }, async (_, stillHeld) => {
        most = Math.max(most, ++now)
        await pause(120)
        stillHeld()
        now--
      })
    )
  )
  expect([most, told]).toEqual([1, 4])
  expect(await held()).toEqual([])
})

it('is given back where the work fails, and says who waits in vain that it does', async () => {
  await expect(underLease(database.url, { name: 'work' }, () => Promise.reject(new Error('it broke')))).rejects.toThrow(
    'it broke'
  )
  await underLease(database.url, { name: 'work' }, async () => {
    await expect(underLease(database.url, { name: 'work', waitMs: 300 }, () => Promise.resolve())).rejects.toThrow(
      /another process has been setting up/
    )
    // Another name is another lease.
    await underLease(database.url, { name: 'other' }, () => Promise.resolve())
  })
})

it('one whose holder was cut off is taken over at once, and the holder is told before its next step', async () => {
  let stopped: unknown = null
  let isCut = () => {}
  const cut = new Promise<void>((resolve) => {
    isCut = resolve
  })
  const first = underLease(database.url, { name: 'cut' }, async (connection, stillHeld) => {
    const [[row]] = (await connection.query("SELECT connection FROM leases WHERE name = 'cut'")) as unknown as [
      [{ connection: number }]
    ]
    const admin = await mysql.createConnection({ uri: database.url })
    await admin.query(`KILL ${row.connection}`)
    await admin.end()
    isCut()
    await pause(3_500)
    try {
      stillHeld()
    } catch (error) {
      stopped = error
    }
  })
  await cut
  const began = performance.now()
  let worked = false
  await underLease(database.url, { name: 'cut' }, () => {
    worked = true
    return Promise.resolve()
  })
  expect(worked).toBe(true)
  expect(performance.now() - began).toBeLessThan(5_000)
  await first
  expect(stopped).toBeInstanceOf(Error)
})
