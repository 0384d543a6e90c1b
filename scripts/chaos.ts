import { spawn } from 'node:child_process'
import { existsSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { text } from 'node:stream/consumers'
import { pino } from 'pino'
import { readConfig } from '@pasado/server/config'
import { restore } from '@pasado/server/backup/restore'
import { settleSecrets } from '@pasado/server/backup/settle-secrets'
import { makeServices } from '@pasado/server/server'
import { Burst } from '@pasado/testing/burst'
import { whatWasLost } from '@pasado/testing/held'
import { buildInterface } from './build-interface'
import { Cluster } from './cluster/cluster'
import { startMariaDb } from './mariadb'

/*
 * npm run chaos: a cluster on this machine, many people who write, and one thing after another that goes wrong. At the end what was acknowledged
 * is held against what is stored. --minutes=30 goes round and round for so long.
 */
const minutes = Number(/^--minutes=(\d+)$/.exec(process.argv[2] ?? '')?.[1] ?? 0)
const folder = process.env.DATA_DIR ?? join(import.meta.dirname, '../.data/chaos')
const pause = (s: number) => new Promise((resolve) => setTimeout(resolve, s * 1_000))

const cluster = new Cluster(folder, Number(process.env.CLUSTER_PORT ?? 4700))
const node = (at: number) => cluster.nodes[at]!
const burst = new Burst([cluster.address], 12, 3)
/** So many megabytes the node that is written to has, where it may have a disk of its own. */
const DISK_MB = 700
const hasOwnDisk = !existsSync(join(folder, 'db1')) && node(0).ownDisk(DISK_MB)

const keysFile = join(folder, 'keys.sealed')
const sealedBy = { passphrase: 'demo: chaos keeps nothing to itself' }
/** What was acknowledged as each backup began, by its folder. */
const backups: { folder: string; acknowledged: number }[] = []

/** Runs a command beside the servers, on the cluster. @throws Error with what it said */
async function command(script: string, ...words: string[]): Promise<void> {
  const child = spawn(process.execPath, [join(import.meta.dirname, 'run.mjs'), `scripts/${script}.ts`, ...words], {
    stdio: 'pipe',
    env: {
      ...process.env,
      DATABASE_URL: script === 'rotate-key' ? cluster.maintenanceUrl : cluster.runningUrl,
      MIGRATE_URL: cluster.maintenanceUrl,
      KEY_FILE: join(folder, 'master-key'),
      DATA_DIR: folder,
      PASADO_PASSPHRASE: sealedBy.passphrase
    }
  })
  const said = Promise.all([text(child.stdout), text(child.stderr)])
  const status = await new Promise((resolve) => child.once('close', resolve))
  if (status !== 0) throw new Error(`${script}: ${(await said).join('')}`)
}

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
  ],
  [
    'the node that is written to is cut off from the others, and put back',
    async () => {
      await node(0).cutOff(true)
      await pause(8)
      await node(0).cutOff(false)
      await node(0).ready()
    }
  ],
  [
    'the disk of the node that is written to is full for 8 s',
    async () => {
      if (!hasOwnDisk) return
      const giveBack = cluster.fill(0)
      await pause(8)
      giveBack()
      if (!node(0).isRunning) await node(0).start(false)
      await node(0).ready()
    }
  ],
  [
    'the clock of a process is three days ahead, that of a node three days behind',
    async () => {
      await cluster.stopServer(2)
      await cluster.startServer(2, '+3d')
      await node(2).tell('SIGTERM')
      await node(2).start(false, undefined, '-3d')
      await pause(8)
      await cluster.stopServer(2)
      await cluster.startServer(2)
      await node(2).tell('SIGTERM')
      await node(2).start(false)
    }
  ],
  [
    'a backup, and the keys that wrap data keys changed',
    async () => {
      const before = burst.acknowledged.length
      await command('backup', join(folder, 'backups'), '--keys', keysFile)
      const all = readdirSync(join(folder, 'backups')).sort()
      backups.push({ folder: join(folder, 'backups', all.at(-1)!), acknowledged: before })
      await command('keys', 'renew', '--now')
    }
  ],
  [
    'the master key changed, with every process stopped',
    async () => {
      for (const at of [0, 1, 2]) await cluster.stopServer(at)
      await command('rotate-key')
      for (const at of [0, 1, 2]) await cluster.startServer(at)
      // The keys of the copy before are no more.
      await command('backup', join(folder, 'backups-after'), '--keys', keysFile)
    }
  ]
]

/** Puts a backup into a MariaDB of its own. @returns what is not there of all that was acknowledged before it was begun */
async function missingFrom({ folder: backup, acknowledged }: (typeof backups)[number]): Promise<string[]> {
  const apart = join(folder, 'put-back')
  const database = await startMariaDb(apart, Number(process.env.CLUSTER_PORT ?? 4700) + 90)
  const keyFile = join(apart, 'master-key')
  const { sheet, keys } = await restore({
    url: database.url,
    folder: backup,
    keysFile,
    to: sealedBy,
    keyFile,
    epochFile: `${keyFile}.epochs`
  })
  const services = await servicesOf({ DATABASE_URL: database.url, KEY_FILE: keyFile })
  await settleSecrets(services, keys, sheet.at)
  const lost = await whatWasLost(services, burst.acknowledged.slice(0, acknowledged), burst.visits)
  await services.followUp.close()
  await services.db.end()
  await database.stop()
  return lost
}

const servicesOf = (settings: Record<string, string>) =>
  makeServices(readConfig({ ...settings, LOG_LEVEL: 'error' }), pino({ level: 'error' }))

await buildInterface()
try {
  await cluster.start((what) => console.log(what))
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
  const services = await servicesOf({
    DATABASE_URL: cluster.firstNodeUrl,
    KEY_FILE: join(folder, 'master-key')
  })
  const lost = await whatWasLost(services, burst.acknowledged, burst.visits)
  await services.followUp.close()
  await services.db.end()
  const nodes = await cluster.differences()
  const missing = await missingFrom(backups.at(-1)!)
  console.log(
    `${burst.acknowledged.length} entries acknowledged; ${lost.length === 0 ? 'none lost, none twice, every chain whole, every list as a rebuild makes it' : lost.join('\n')}; the nodes ${nodes.length === 0 ? 'hold the same' : `differ in ${nodes.join(', ')}`}; of the ${backups.at(-1)!.acknowledged} that were acknowledged before the last backup ${missing.length === 0 ? 'none is missing where it was put back' : missing.join('\n')}`
  )
  await cluster.stop()
  node(0).takeDisk()
  process.exit(lost.length + nodes.length + missing.length === 0 ? 0 : 1)
} catch (error) {
  console.error((error as Error).stack)
  cluster.kill()
  node(0).takeDisk()
  process.exit(1)
}
