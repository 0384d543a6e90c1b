import { execFileSync, spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { checkAll } from '@pasado/server/logbook/check-all'
import { Caller, draft, openAVisit, servicesOn } from '@pasado/testing/company'
import { ownMariaDb } from '@pasado/testing/database'
import { serverProcess } from '@pasado/testing/server-process'

/*
 * The server of the release before beside that of today, on one database: as it is while one process after another is upgraded.
 */
const root = join(import.meta.dirname, '..')
const released = [...readFileSync(join(root, 'docs/releases.md'), 'utf8').matchAll(/^\| \d+ \| `([0-9a-f]{40})` \|/gm)]
const commit = released.at(-1)![1]!
const isHere = spawnSync('git', ['cat-file', '-e', `${commit}^{commit}`], { cwd: root }).status === 0

/** The program of a commit with the packages of today, in a folder of its own. */
function programOf(folder: string): void {
  execFileSync('git', ['worktree', 'add', '--detach', '--force', folder, commit], { cwd: root, stdio: 'ignore' })
  const [packages, ours] = [join(root, 'node_modules'), join(folder, 'node_modules')]
  mkdirSync(join(ours, '@pasado'), { recursive: true })
  for (const name of readdirSync(packages))
    if (name !== '@pasado' && !name.startsWith('.')) symlinkSync(join(packages, name), join(ours, name))
  // Its own parts, not those of today.
  for (const name of readdirSync(join(packages, '@pasado')))
    symlinkSync(join(folder, name), join(ours, '@pasado', name))
}

const FILL = `import { demoVisits } from '@pasado/demo/all'
import { loadCompany, loadVisits } from './scripts/load-demo'
import { servicesOn } from './testing/company'
const services = await servicesOn(process.env.DATABASE_URL!, process.env.KEY_FILE!)
await loadCompany(services, new Date())
await loadVisits(services, demoVisits().slice(0, 3), new Date())
process.exit(0)
`

describe.skipIf(!isHere)('the release before', () => {
  let database: Awaited<ReturnType<typeof ownMariaDb>>
  let folder: string
  let keyFile: string
  const children: ChildProcess[] = []

  /** A server of the release before, on the database. */
  const before = async (): Promise<string> => {
    const child = spawn(process.execPath, ['--import', 'tsx', 'testing/serve-process.ts'], {
      cwd: folder,
      env: { ...process.env, DATABASE_URL: database.url, KEY_FILE: keyFile, PORT: '0' },
      stdio: ['ignore', 'pipe', 'inherit']
    })
    children.push(child)
    return new Promise<string>((resolve, reject) => {
      child.stdout.once('data', (text: Buffer) => resolve(text.toString().trim()))
      child.once('exit', (status) => reject(new Error(`the server of the release before ended with ${status}`)))
    })
  }

  beforeAll(async () => {
    database = await ownMariaDb()
    keyFile = join(database.folder, 'key')
    mkdirSync(join(root, '.data'), { recursive: true, mode: 0o700 })
    folder = mkdtempSync(join(root, '.data', 'release-'))
    programOf(folder)
    writeFileSync(join(folder, 'fill.ts'), FILL)
    const { status, stderr } = spawnSync(process.execPath, ['--import', 'tsx', 'fill.ts'], {
      cwd: folder,
      env: { ...process.env, DATABASE_URL: database.url, KEY_FILE: keyFile },
      encoding: 'utf8'
    })
    if (status !== 0) throw new Error(stderr)
  }, 120_000)

  afterAll(async () => {
    for (const child of children) child.kill('SIGKILL')
    execFileSync('git', ['worktree', 'remove', '--force', folder], { cwd: root, stdio: 'ignore' })
    rmSync(folder, { recursive: true, force: true })
    await database.drop()
  })

  it('serves beside that of today: each writes on what the other wrote, and shows its secrets', async () => {
    const old = await before()
    const { child, address: today } = await serverProcess(database.url, keyFile)
    children.push(child)
    const callers = [await Caller.at(old, 'isolde'), await Caller.at(today, 'isolde')] as const
    const visits = [await openAVisit(callers[0]), await openAVisit(callers[1])]
    for (let at = 0; at < 12; at++)
      for (const visit of visits) {
        const entry = draft(visit, 'unit.set', { id: uuidv7(), set: { name: `Unit ${at}` } })
        const { status, text } = await callers[at % 2]!.call('POST', `/visits/${visit}/entries`, { entries: [entry] })
        expect([status, text]).toEqual([expect.toSatisfy((code: number) => code < 300), expect.any(String)])
      }
    for (const [at, visit] of visits.entries()) {
      const [ref, value] = [uuidv7(), `demo-lantern-on-the-quay-${at}`]
      const secret = { ref, purpose: 'wifi-passphrase', thing: 'network', id: uuidv7(), origin: 'typed', value }
      expect((await callers[at]!.call('POST', `/visits/${visit}/secrets`, secret)).status).toBeLessThan(300)
      for (const caller of callers)
        expect(
          (await caller.call('POST', `/visits/${visit}/secrets/${ref}/show`, { why: 'checking it' })).body
        ).toEqual({
          value
        })
    }
    for (const address of [old, today]) expect((await fetch(`${address}/readyz`)).status).toBe(200)
    for (const caller of callers)
      for (const path of ['/visits?when=today', '/homes?q=a', '/catalogue'])
        expect([path, (await caller.call('GET', path)).status < 500]).toEqual([path, true])
    const services = await servicesOn(database.url, keyFile)
    expect(await services.followUp.caughtUp(5_000)).not.toBe(false)
    expect(await checkAll(services.logbook)).toEqual([])
    await services.followUp.close()
    await services.db.end()
  }, 120_000)

  it('starts on the tables of today, should one be ended during the upgrade', async () => {
    expect((await fetch(`${await before()}/readyz`)).status).toBe(200)
  }, 60_000)
})
