import type { Context } from 'koa'
import { isMigrated } from '../db/migrate'
import { companyFact } from '../db/company-facts'
import type { Services } from '../services'

/** Whether a call asks how this process is: /healthz and /readyz, without a log-in. */
export function isHealthCall({ method, path }: Context): boolean {
  return (method === 'GET' || method === 'HEAD') && (path === '/healthz' || path === '/readyz')
}

/** Answers whether this process is alive, or ready to be sent calls: its database there and migrated, its key the company's. */
export async function tellHealth(context: Context, services: Services): Promise<void> {
  context.type = 'json'
  context.set('Cache-Control', 'no-store')
  const checks = context.path === '/healthz' ? {} : await readiness(services)
  const ready = Object.values(checks).every((check) => check === 'ok')
  context.status = ready ? 200 : 503
  if (!ready) context.set('Retry-After', '2')
  context.body = JSON.stringify({ status: ready ? 'ok' : 'not ready', ...checks })
}

const PATIENCE_MS = 2_000

async function readiness({ db, keys, stopping }: Services): Promise<Record<string, string>> {
  const checks: Record<string, string> = {
    process: stopping ? 'stopping' : 'ok',
    database: 'away',
    migrations: 'unknown',
    key: 'unknown'
  }
  const look = async () => {
    const migrated = await isMigrated(db)
    const print = await companyFact(db, 'key-print')
    Object.assign(checks, {
      database: 'ok',
      migrations: migrated ? 'ok' : 'behind',
      key: print === keys.check ? 'ok' : 'another company’s'
    })
  }
  await Promise.race([look(), new Promise((resolve) => setTimeout(resolve, PATIENCE_MS).unref())]).catch(
    () => undefined
  )
  return { ...checks }
}
