import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { chainProblem } from '@pasado/core/record/chain'
import { allCounted } from '@pasado/testing/counted'
import { demoVisits } from '@pasado/demo/all'
import { entriesAfter } from '@pasado/server/archive/archived'
import { rows } from '@pasado/server/db/pool'
import { servicesOn } from '@pasado/testing/company'
import { freePort, ownMariaDb } from '@pasado/testing/database'
import { loadCompany, loadVisits } from './load-demo'

const root = join(import.meta.dirname, '..')
const started: ChildProcess[] = []
const folders: string[] = []

/** Without what the test runner sets: what is built under it would be a build for trying things out. */
const plain = {
  ...process.env,
  NODE_ENV: undefined,
  VITEST: undefined,
  NODE_OPTIONS: undefined,
  npm_lifecycle_event: undefined
}

beforeAll(() => {
  const { status, stderr } = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/build-interface.ts'], {
    cwd: root,
    encoding: 'utf8',
    env: plain
  })
  if (status !== 0) throw new Error(stderr)
}, 120_000)
afterAll(() => {
  for (const child of started) child.kill('SIGKILL')
  for (const folder of folders) rmSync(folder, { recursive: true, force: true })
})

/** Starts a command of ours and collects what it says. */
function begin(command: string, words: string[], settings: Record<string, string>) {
  const child = spawn(command, words, {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...plain, LOG_LEVEL: 'error', ...settings }
  })
  started.push(child)
  let said = ''
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (text: Buffer) => {
      said += text.toString()
    })
  const until = async (words: string | null, ms = 90_000) => {
    const end = Date.now() + ms
    while (Date.now() < end) {
      if (words === null ? child.exitCode !== null || child.signalCode !== null : said.includes(words)) return
      if (words !== null && child.exitCode !== null) break
      await new Promise((resolve) => setTimeout(resolve, 50))
    }
    throw new Error(`${words ?? 'its end'} did not come; it said:\n${said}`)
  }
  return { child, until, said: () => said }
}

/** Processes whose command line names this folder. */
const runningOn = (folder: string) =>
  readdirSync('/proc')
    .filter((pid) => /^\d+$/.test(pid))
    .flatMap((pid) => {
      try {
        return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(folder) ? [pid] : []
      } catch {
        return []
      }
    })

/** A database that ends without having been told to is started again, and served from. */
async function comesBack(npm: ReturnType<typeof begin>, data: string): Promise<void> {
  const address = /http:\/\/127\.0\.0\.1:\d+/.exec(npm.said())![0]
  const pid = () => Number(readFileSync(join(data, 'mariadb.pid'), 'utf8'))
  const before = pid()
  process.kill(before, 'SIGKILL')
  await npm.until('it is started again')
  const ready = () => fetch(`${address}/readyz`).then(({ status }) => status)
  await expect.poll(ready, { timeout: 60_000, interval: 200 }).toBe(200)
  expect(pid()).not.toBe(before)
}

describe('starting', () => {
  it('two at once on one empty database: one fills it, both serve all of it', async () => {
    const database = await ownMariaDb()
    try {
      const settings = async () => ({
        DATABASE_URL: database.url,
        KEY_FILE: join(database.folder, 'key'),
        DATA_DIR: database.folder,
        PORT: String(await freePort()),
        HOST: '127.0.0.1',
        DEMO: 'on'
      })
      const both = [
        begin(process.execPath, ['scripts/run.mjs', 'scripts/start.ts'], await settings()),
        begin(process.execPath, ['scripts/run.mjs', 'scripts/start.ts'], await settings())
      ]
      await Promise.all(both.map((item) => item.until('Pasado is at')))
      expect(both.filter((candidate) => candidate.said().includes('Loading the demo company')).length).toBe(1)
      for (const process of both) {
        const address = /http:\/\/127\.0\.0\.1:\d+/.exec(process.said())![0]
        expect((await fetch(`${address}/readyz`)).status).toBe(200)
      }
      const services = await servicesOn(database.url, join(database.folder, 'key'))
      expect((await rows(services.db, 'SELECT id FROM visits')).length).toBe(demoVisits().length)
      await services.db.end()
      for (const process of both) process.child.kill('SIGTERM')
      await Promise.all(both.map((item) => item.until(null, 20_000)))
      expect(both.map(({ child }) => child.exitCode)).toEqual([0, 0])
    } finally {
      await database.drop()
    }
  }, 150_000)

  it('npm start that is told to end by SIGTERM, or told so while it starts, leaves nothing running', async () => {
    const folder = mkdtempSync(join(root, '.data', 'started-'))
    folders.push(folder)
    for (const when of ['its database runs', 'Pasado is at'] as const) {
      const data = join(folder, when === 'Pasado is at' ? 'whole' : 'early')
      const npm = begin('npm', ['start'], {
        DATABASE_URL: '',
        DATA_DIR: data,
        PORT: String(await freePort()),
        DB_PORT: String(await freePort()),
        HOST: '127.0.0.1',
        DEMO: 'off'
      })
      if (when === 'Pasado is at') await npm.until(when)
      else await expect.poll(() => existsSync(join(data, 'mariadb.pid')), { timeout: 60_000, interval: 50 }).toBe(true)
      expect(runningOn(data).length).toBeGreaterThan(0)
      if (when === 'Pasado is at') await comesBack(npm, data)
      npm.child.kill('SIGTERM')
      await expect.poll(() => runningOn(data), { timeout: 60_000, interval: 200 }).toEqual([])
    }
  }, 200_000)
})

describe('a backup', () => {
  /** The commands of docs/running.md under this heading. */
  const commandsOf = (what: string) => {
    const block = new RegExp(`\`\`\`sh\\n   # ${what}\\n([\\s\\S]*?)\`\`\``).exec(
      readFileSync(join(root, 'docs/running.md'), 'utf8')
    )![1]!
    return block
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean)
  }
  const carryOut = (what: string, folder: string, database: { folder: string; url: string }) => {
    for (const command of commandsOf(what)) {
      const { status, stderr } = spawnSync('bash', ['-c', command], {
        cwd: root,
        encoding: 'utf8',
        env: {
          ...process.env,
          DATABASE_URL: database.url,
          KEY_FILE: join(database.folder, 'key'),
          PASADO_PASSPHRASE: 'demo: tide table behind the door',
          BACKUPS: join(folder, 'backups'),
          BACKUP: join(
            folder,
            'backups',
            readdirSync(folder).length ? readdirSync(join(folder, 'backups')).at(-1)! : ''
          ),
          KEYS: join(folder, 'keys')
        }
      })
      if (status !== 0) throw new Error(`${command}\n${stderr}`)
    }
  }

  it('taken and put back as docs/running.md tells starts, with every line, secret and verdict', async () => {
    const [from, to] = [await ownMariaDb(), await ownMariaDb()]
    const folder = mkdtempSync(join(root, '.data', 'backup-'))
    folders.push(folder)
    try {
      const before = await servicesOn(from.url, join(from.folder, 'key'))
      await loadCompany(before, new Date())
      await loadVisits(before, demoVisits().slice(0, 4), new Date())
      // Figures follow a moment later: what is backed up has them.
      await before.followUp.caughtUp(10_000)
      await allCounted(before.db)
      carryOut('backup', folder, from)
      carryOut('restore', folder, to)
      expect(existsSync(join(to.folder, 'key'))).toBe(true)
      const after = await servicesOn(to.url, join(to.folder, 'key'))
      const everything = async ({ db }: typeof before) =>
        Promise.all(
          ['entries', 'visits', 'sealed_verdicts', 'vault_secrets', 'homes', 'findings', 'users'].map((table) =>
            rows(db, `SELECT * FROM ${table} ORDER BY 1, 2`)
          )
        )
      expect(await everything(after)).toEqual(await everything(before))
      for (const { id } of await rows<{ id: string }>(after.db, 'SELECT id FROM visits')) {
        expect(chainProblem(await entriesAfter(after.db, id, 0))).toBeNull()
        expect((await after.vault.openAll(after.db, id)).length).toBe(
          (await before.vault.openAll(before.db, id)).length
        )
      }
      await before.db.end()
      await after.db.end()
    } finally {
      await from.drop()
      await to.drop()
    }
  }, 120_000)
})
