import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import pino, { type Logger } from 'pino'
import type { Config } from './config'
import { migrate } from './db/migrate'
import { openPool } from './db/pool'
import { addSealKey } from './db/seal-keys'
import { makeApp } from './http/app'
import { LiveFeed } from './http/live'
import { Logbook } from './logbook/logbook'
import type { Services } from './services'
import { companyKeys, masterKeyFrom } from './vault/master-key'
import { keepErasing } from './vault/erase-due'
import { Vault } from './vault/vault'

/** A server that is running. */
export interface Running {
  services: Services
  address: string
  close: () => Promise<void>
}

/** Puts together everything that routes use, on a database that is migrated. */
export async function makeServices(config: Config, log: Logger = pino({ level: config.LOG_LEVEL })): Promise<Services> {
  await migrate(config.DATABASE_URL)
  const keys = companyKeys(config.MASTER_KEY ? Buffer.from(config.MASTER_KEY, 'hex') : await masterKeyFrom(config.KEY_FILE))
  const db = openPool(config.DATABASE_URL)
  await addSealKey(db, keys.keyName, keys.publicKey)
  const vault = new Vault(keys)
  const logbook = new Logbook(db, vault, keys)
  const live = new LiveFeed(db, (error) => log.warn({ code: (error as { code?: string }).code }, 'news could not be read from the database'))
  logbook.onWritten = () => void live.poll()
  return { config, db, keys, vault, logbook, live, log }
}

/** Starts serving. @returns once it listens */
export async function serve(services: Services): Promise<Running> {
  const { config } = services
  const server = createServer(makeApp(services).callback())
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(config.PORT, config.HOST, resolve)
  })
  const { port } = server.address() as AddressInfo
  const stopErasing = keepErasing(services)
  return { services, address: `http://${config.HOST}:${port}`, close: () => { stopErasing(); return close(server, services) } }
}

async function close(server: Server, services: Services): Promise<void> {
  services.live.close()
  await new Promise<void>((resolve) => {
    server.close(() => resolve())
    server.closeIdleConnections()
    setTimeout(() => server.closeAllConnections(), 2_000).unref()
  })
  await services.db.end()
}
