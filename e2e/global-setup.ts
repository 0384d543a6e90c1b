import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { PORT } from './playwright.config'

const root = join(import.meta.dirname, '..')

/** Starts the real thing, by the start command, on ports and a data directory of its own. */
export default async function globalSetup(): Promise<() => Promise<void>> {
  const data = mkdtempSync(join(root, '.data', 'browser-'))
  const child = spawn(process.execPath, ['--import', 'tsx', 'scripts/start.ts'], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: {
      ...process.env,
      DATABASE_URL: '',
      DATA_DIR: data,
      PORT: String(PORT),
      DB_PORT: String(PORT + 1),
      HOST: '127.0.0.1',
      DEMO: 'on',
      LOG_LEVEL: 'error',
      CHECK_ANSWERS: '1'
    }
  })
  let said = ''
  const ready = new Promise<void>((resolve, reject) => {
    const hear = (text: Buffer) => {
      said += text.toString()
      if (said.includes('Pasado is at')) resolve()
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
    child.once('exit', () => reject(new Error(`the start command ended:\n${said}`)))
  })
  await ready
  process.env.E2E_DATA = data
  return async () => {
    const ended = new Promise((resolve) => child.once('exit', resolve))
    child.kill('SIGINT')
    await ended
    rmSync(data, { recursive: true, force: true })
  }
}
