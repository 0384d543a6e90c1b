import { spawn } from 'node:child_process'
import { join } from 'node:path'

/** Runs a command that works on the database itself, beside the servers. @returns its exit status */
export function besideServer(
  command: 'archive' | 'backup' | 'restore' | 'keys' | 'demo-homes',
  words: readonly string[]
): Promise<number> {
  const root = join(import.meta.dirname, '../..')
  // Paths are meant from where the command is given.
  const child = spawn(process.execPath, [join(root, 'scripts/run.mjs'), `scripts/${command}.ts`, ...words], {
    stdio: 'inherit'
  })
  return new Promise((resolve) => child.once('exit', (status) => resolve(status ?? 1)))
}
