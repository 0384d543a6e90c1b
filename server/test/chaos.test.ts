import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { startMariaDb } from '../../scripts/mariadb'
import { Burst } from '@pasado/testing/burst'
import { companyOn, servicesOn } from '@pasado/testing/company'
import { freePort, ownMariaDb } from '@pasado/testing/database'
import { whatWasLost } from '@pasado/testing/held'
import { serverProcess } from '@pasado/testing/server-process'

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

it('two servers on one database, each killed, and the database killed and standing still: nothing that was acknowledged is lost, doubled or out of step', async () => {
  const company = await companyOn(ownMariaDb)
  const { database } = company
  const key = join(database.folder, 'key')
  const ports = [await freePort(), await freePort()]
  const servers = await Promise.all(ports.map((port) => serverProcess(database.url, key, port)))
  let current = { kill: database.kill }
  try {
    const burst = new Burst(
      servers.map(({ address }) => address),
      8
    )
    await burst.begin()
    await pause(2_000)
    for (const at of [0, 1]) {
      servers[at]!.child.kill('SIGKILL')
      await pause(500)
      servers[at] = await serverProcess(database.url, key, ports[at])
      await pause(1_500)
    }
    const pid = Number(readFileSync(join(database.folder, 'mariadb.pid'), 'utf8'))
    process.kill(pid, 'SIGSTOP')
    await pause(3_000)
    process.kill(pid, 'SIGCONT')
    await pause(1_000)
    await current.kill()
    await pause(1_000)
    current = await startMariaDb(database.folder, database.port)
    await pause(2_000)
    await burst.end()
    expect(burst.acknowledged.length).toBeGreaterThan(100)
    expect([...burst.outcomes.keys()].filter((outcome) => /^[45]/.test(outcome) && outcome !== '503')).toEqual([])
    const services = await servicesOn(database.url, key)
    expect(await whatWasLost(services, burst.acknowledged, burst.visits)).toEqual([])
    await services.followUp.close()
    await services.db.end()
  } finally {
    for (const { child } of servers) child.kill('SIGKILL')
    await company.running.close().catch(() => undefined)
    await current.kill()
    await database.drop().catch(() => undefined)
  }
}, 120_000)
