import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { join } from 'node:path'

const root = join(import.meta.dirname, '..')

/**
 * The demo company by the start command, on a port and a data directory of its own, its database on the port after it.
 * @returns what stops it
 */
export async function startedCompany(port: number): Promise<() => Promise<void>> {
  const data = mkdtempSync(join(root, '.data', 'browser-'))
  const child = spawn(process.execPath, ['scripts/run.mjs', 'scripts/start.ts'], {
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
