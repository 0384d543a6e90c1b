import { spawn, spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import type { FullConfig } from '@playwright/test'
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
  const companies = await Promise.all(Array.from({ length: workers }, (_, place) => startCompany(portOf(place))))
  return async () => {
    await Promise.all(companies.map((stop) => stop()))
  }
}

/** @returns what stops it */
async function startCompany(port: number): Promise<() => Promise<void>> {
  const data = mkdtempSync(join(root, '.data', 'browser-'))
  const child = spawn(process.execPath, ['--import', 'tsx', 'scripts/start.ts'], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: {
      ...process.env,
      DATABASE_URL: '',
      DATA_DIR: data,
      PORT: String(port),
      DB_PORT: String(port + 1),
      HOST: '127.0.0.1',
      DEMO: 'on',
      LOG_LEVEL: 'error',
      CHECK_ANSWERS: '1'
    }
  })
  let said = ''
  await new Promise<void>((resolve, reject) => {
    const hear = (text: Buffer) => {
      said += text.toString()
      if (said.includes('Pasado is at')) resolve()
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
    child.once('exit', () => reject(new Error(`the start command ended:\n${said}`)))
  })
  return async () => {
    const ended = new Promise((resolve) => child.once('exit', resolve))
    child.kill('SIGINT')
    await ended
    rmSync(data, { recursive: true, force: true })
  }
}
