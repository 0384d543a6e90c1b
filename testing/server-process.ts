import { spawn, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'

/** A server in a process of its own, on a database that is there; port 0 takes a free one. */
export async function serverProcess(
  url: string,
  keyFile: string,
  port = 0
): Promise<{ child: ChildProcess; address: string }> {
  const child = spawn(process.execPath, [join(import.meta.dirname, '../scripts/run.mjs'), 'testing/serve-process.ts'], {
    env: { ...process.env, DATABASE_URL: url, KEY_FILE: keyFile, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit']
  })
  const address = await new Promise<string>((resolve, reject) => {
    child.stdout.once('data', (text: Buffer) => resolve(text.toString().trim()))
    child.once('exit', () => reject(new Error('the server process ended')))
  })
  return { child, address }
}
