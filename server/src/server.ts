import { existsSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import pino, { type Logger } from 'pino'
import { epochFileOf, type Config } from './config'
import { companyFact, noteCompanyFact } from './db/company-facts'
import { grantRunning } from './db/grants'
import { underLease } from './db/lease'
import { migrate, noteRebuilt } from './db/migrate'
import { openPool, type Db } from './db/pool'
import { anyKey } from './db/vault-keys'
import { Reads } from './db/reads'
import { Sparing } from './db/sparing'
import { addSealKey } from './db/seal-keys'
import { makeApp } from './http/app'
import { LiveFeed } from './http/live'
import { FollowUp } from './logbook/follow-up'
import { listVerdicts } from './logbook/list-verdicts'
import { JudgingThread } from './judging/thread'
import { Logbook } from './logbook/logbook'
import { Metrics, serveMetrics } from './metrics'
import type { Services } from './services'
import { rebuildProjections } from './logbook/rebuild'
import { companyKeys, masterKeyFrom, type CompanyKeys } from './vault/master-key'
import { opensWhatIsKept } from './vault/rotate'
import { keepErasing } from './vault/erase-due'
import { EpochStore } from './vault/epoch-store'
import { mustHaveEpochs, renewEpochs } from './vault/epochs'
import { Vault } from './vault/vault'

const DAY_MS = 24 * 3_600_000

/** A server that is running. */
export interface Running {
  services: Services
  address: string
  close: () => Promise<void>
}

/**
 * Puts together everything that routes use: the database is migrated, and what a migration wants made anew is.
 * @throws Error where the master key is not this company's
 */
export async function makeServices(config: Config, log: Logger = pino({ level: config.LOG_LEVEL })): Promise<Services> {
  const setUp = config.MIGRATE_URL ?? config.DATABASE_URL
  const { rebuild } = await migrate(setUp, () =>
    log.warn('another process is setting up the database; this one waits for it')
  )
  if (config.MIGRATE_URL) await grantRunning(config.MIGRATE_URL, config.DATABASE_URL)
  const db = openPool(config.DATABASE_URL)
  try {
    const isNew = (await companyFact(db, 'key-print')) === null && (await anyKey(db)) === null
    const keys = await keysOf(db, config)
    const epochs = new EpochStore(epochFileOf(config), keys.wrap)
    const hasEpochs = await mustHaveEpochs(db, epochs)
    // In one of before older programs may run beside this one, and could not open what is wrapped in an epoch.
    if (isNew && config.KEY_NODES === '')
      await renewEpochs({ db, url: setUp, store: epochs, mayBegin: true, beginFirst: true })
    else if (!hasEpochs)
      log.warn(
        'the keys of secrets have no epoch yet, so copies of what is erased can be opened: run npx pasado keys renew, once no older Pasado runs on this database'
      )
    const vault = new Vault(keys, epochs)
    const logbook = new Logbook(db, vault, keys, (rule, error) =>
      log.error({ rule, problem: (error as Error).name }, 'a rule could not judge a record; it is unproven there')
    )
    if (rebuild) await underLease(setUp, { name: 'rebuild', waitMs: DAY_MS }, () => makeAnew(logbook, setUp, log))
    const live = new LiveFeed(db, (error) =>
      log.warn({ code: (error as { code?: string }).code }, 'news could not be read from the database')
    )
    const thread =
      config.JUDGE_THREAD === '1'
        ? new JudgingThread(config.DATABASE_URL, (rule, problem) =>
            log.error({ rule, problem }, 'a rule could not judge a record; it is unproven there')
          )
        : null
    const followUp = new FollowUp(
      db,
      (visit) => (thread ? thread.judge(visit) : listVerdicts(logbook, visit)),
      (error) => log.warn({ code: (error as { code?: string }).code }, 'a visit could not be judged; it is tried again')
    )
    const metrics = new Metrics(db, live)
    logbook.onWritten = (visit, added) => {
      void live.poll()
      followUp.note(visit)
      metrics.noteShown(added.filter(({ kind }) => kind === 'secret.shown').length)
    }
    return {
      config,
      db,
      reads: new Reads(db, config.READ_URL ?? null),
      keys,
      epochs,
      vault,
      logbook,
      followUp,
      judging: thread,
      live,
      metrics,
      log,
      sparing: new Sparing(),
      stopping: false
    }
  } catch (error) {
    await db.end()
    throw error
  }
}

/** The company's keys. A database that knows another master key's print is another company's, or its key file is not here. */
async function keysOf(db: Db, config: Config): Promise<CompanyKeys> {
  const known = await companyFact(db, 'key-print')
  if (known !== null && !config.MASTER_KEY && !existsSync(config.KEY_FILE))
    throw new Error(
      `KEY_FILE: there is no key file ${config.KEY_FILE}, but this database has a company already. Copy its key file there; a new one would open nothing.`
    )
  const keys = companyKeys(
    config.MASTER_KEY ? Buffer.from(config.MASTER_KEY, 'hex') : await masterKeyFrom(config.KEY_FILE)
  )
  const stands =
    known ??
    ((await opensWhatIsKept(db, keys, epochFileOf(config)))
      ? await noteCompanyFact(db, 'key-print', keys.check)
      : 'another')
  if (stands !== keys.check)
    throw new Error(
      `${config.MASTER_KEY ? 'MASTER_KEY' : `KEY_FILE ${config.KEY_FILE}`}: is not the master key of this database's company; put the right one there. Nothing was changed.`
    )
  await addSealKey(db, keys.keyName, keys.publicKey)
  return keys
}

/** Every projection anew, with a word now and then; once for all processes. */
async function makeAnew(logbook: Logbook, setUp: string, log: Logger): Promise<void> {
  if (!(await migrate(setUp)).rebuild) return
  let told = Date.now()
  await rebuildProjections(logbook, (done, of) => {
    if (Date.now() - told < 5_000) return
    told = Date.now()
    log.warn({ done, of }, 'making the lists anew after an upgrade')
  })
  await noteRebuilt(setUp)
}

/** Longer than a proxy or a browser keeps a connection that nothing goes over: one that is ended here just as a call begins on it fails that call. */
const KEPT_MS = 65_000

/** Starts serving. @returns once it listens */
export async function serve(services: Services): Promise<Running> {
  const { config } = services
  const answer = makeApp(services).callback()
  const server = createServer((request, response) => void answer(request, response))
  server.keepAliveTimeout = KEPT_MS
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(config.PORT, config.HOST, resolve)
  })
  const { port } = server.address() as AddressInfo
  const stopErasing = keepErasing(services)
  const stopMetrics =
    config.METRICS_PORT === undefined ? null : await serveMetrics(services.metrics, config.METRICS_PORT)
  return {
    services,
    address: `http://${config.HOST}:${port}`,
    close: async () => {
      stopErasing()
      await close(server, services)
      await stopMetrics?.()
    }
  }
}

/** Ends serving: nobody who calls in time is cut off, and what is under way is answered. */
async function close(server: Server, services: Services): Promise<void> {
  const { DRAIN_S, DRAIN_LIMIT_S } = services.config
  // From here on a proxy is told that this process goes, and each answer ends its connection.
  services.stopping = true
  services.live.close()
  await new Promise((resolve) => setTimeout(resolve, DRAIN_S * 1_000))
  await new Promise<void>((resolve) => {
    server.close(() => resolve())
    server.closeIdleConnections()
    setTimeout(() => server.closeAllConnections(), DRAIN_LIMIT_S * 1_000).unref()
  })
  await services.followUp.close()
  await services.judging?.end()
  await services.reads.close()
  await services.db.end()
}
