import { join } from 'node:path'
import { pino } from 'pino'
import { readConfig } from '@pasado/server/config'
import { makeServices } from '@pasado/server/server'
import { Burst } from '@pasado/testing/burst'
import { whatWasLost } from '@pasado/testing/held'
import { buildInterface } from './build-interface'
import { Cluster } from './cluster/cluster'

/*
 * npm run chaos: a cluster on this machine, many people who write, and one thing after another that goes wrong. At the end what was acknowledged
 * is held against what is stored. --minutes=30 goes round and round for so long.
 */
const minutes = Number(/^--minutes=(\d+)$/.exec(process.argv[2] ?? '')?.[1] ?? 0)
const folder = process.env.DATA_DIR ?? join(import.meta.dirname, '../.data/chaos')
const pause = (s: number) => new Promise((resolve) => setTimeout(resolve, s * 1_000))

const cluster = new Cluster(folder, Number(process.env.CLUSTER_PORT ?? 4700))
const node = (at: number) => cluster.nodes[at]!

/** What goes wrong, in words, and how it is brought about and mended. */
const events: readonly (readonly [string, () => Promise<unknown>])[] = [
  ['nothing', () => pause(8)],
  [
    'a process is killed, and started again',
    async () => {
      await cluster.stopServer(0, 'SIGKILL')
      await pause(3)
      await cluster.startServer(0)
    }
  ],
  [
    'every process is told to end, one after another, and started again',
    async () => {
      for (const at of [0, 1, 2]) {
        await cluster.stopServer(at)
        await cluster.startServer(at)
      }
    }
  ],
  [
    'the node that is written to stands still for 8 s',
    async () => {
      await node(0).tell('SIGSTOP')
      await pause(8)
      await node(0).tell('SIGCONT')
      await pause(6)
    }
  ],
  [
    'the node that is written to is killed, and comes back',
    async () => {
      await node(0).tell('SIGKILL')
      await pause(6)
      await node(0).start(false)
    }
  ],
  [
    'another node is killed, loses its data, and is made anew',
    async () => {
      await node(2).tell('SIGKILL')
      cluster.empty(2)
      await pause(2)
      await node(2).start(false)
    }
  ],
  [
    'two nodes are killed: no quorum; both come back',
    async () => {
      await Promise.all([1, 2].map((at) => node(at).tell('SIGKILL')))
      await pause(8)
      await Promise.all([1, 2].map((at) => node(at).start(false)))
      await node(0).ready()
    }
  ]
]

await buildInterface()
try {
  await cluster.start((what) => console.log(what))
  const burst = new Burst([cluster.address], 12, 3)
  await burst.begin()
  const until = Date.now() + minutes * 60_000
  do {
    for (const [what, happens] of events) {
      const before = burst.acknowledged.length
      await happens()
      await pause(4)
      console.log(`| ${what} | ${burst.acknowledged.length - before} | ${burst.told()} |`)
    }
  } while (Date.now() < until)
  await burst.end()
  const services = await makeServices(
    readConfig({
      DATABASE_URL: cluster.runningUrl,
      MIGRATE_URL: cluster.maintenanceUrl,
      KEY_FILE: join(folder, 'master-key'),
      LOG_LEVEL: 'error'
    }),
    pino({ level: 'error' })
  )
  const lost = await whatWasLost(services, burst.acknowledged, burst.visits)
  await services.followUp.close()
  await services.db.end()
  const nodes = await cluster.differences()
  console.log(
    `${burst.acknowledged.length} entries acknowledged; ${lost.length === 0 ? 'none lost, none twice, every chain whole, every list as a rebuild makes it' : lost.join('\n')}; the nodes ${nodes.length === 0 ? 'hold the same' : `differ in ${nodes.join(', ')}`}`
  )
  await cluster.stop()
  process.exit(lost.length + nodes.length === 0 ? 0 : 1)
} catch (error) {
  console.error((error as Error).stack)
  cluster.kill()
  process.exit(1)
}
