import { join } from 'node:path'
import { readConfig } from '@pasado/server/config'
import { makeServices } from '@pasado/server/server'
import type { Services } from '@pasado/server/services'
import { startMariaDb } from './mariadb'

/** The company's database for a command beside the server: the one DATABASE_URL names, else the one of this folder, started where it does not run yet. */
export async function openCompany(): Promise<{ services: Services; close: () => Promise<void> }> {
  const dataFolder = process.env.DATA_DIR ?? join(import.meta.dirname, '../.data')
  const local = process.env.DATABASE_URL ? null : await startMariaDb(dataFolder, Number(process.env.DB_PORT ?? 4181))
  const services = await makeServices(
    readConfig({
      KEY_FILE: join(dataFolder, 'master-key'),
      // What a command writes is judged by itself.
      JUDGE_THREAD: '0',
      ...process.env,
      DATABASE_URL: process.env.DATABASE_URL ?? local!.url
    })
  )
  return {
    services,
    close: async () => {
      await services.followUp.close()
      await services.db.end()
      if (local && !local.wasRunning) await local.stop()
    }
  }
}
