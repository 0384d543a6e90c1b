import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import type { FullConfig } from '@playwright/test'
import { startedCompany } from '@pasado/testing/started-company'
import { portOf } from './playwright.config'

const root = join(import.meta.dirname, '..')

/** Starts the real thing, by the start command: a company for each browser, on ports and a data directory of its own. */
export default async function globalSetup({ workers }: FullConfig): Promise<() => Promise<void>> {
  // Once, before several would; in a process of its own, whose settings are not those of the tests.
  const { status } = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/build-interface.ts'], {
    cwd: root,
    stdio: 'inherit'
  })
  if (status !== 0) throw new Error('the interface could not be built')
  const companies = await Promise.all(Array.from({ length: workers }, (_, place) => startedCompany(portOf(place))))
  return async () => {
    await Promise.all(companies.map((stop) => stop()))
  }
}
