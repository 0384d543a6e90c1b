import { spawn, type ChildProcessWithoutNullStreams } from 'node:child_process'
import { databaseAddress } from '../db/hosts'

/** A program of Debian's mariadb-client on a database; the password is in no list of processes. */
export function clientOn(program: string, url: string, words: readonly string[]): ChildProcessWithoutNullStreams {
  const { hosts, user, password } = databaseAddress.parse(url)
  const { host, port } = hosts[0]!
  return spawn(
    program,
    ['--no-defaults', `--host=${host}`, `--port=${port}`, '--protocol=tcp', `--user=${user}`, ...words],
    { env: { ...process.env, MYSQL_PWD: password, TZ: 'UTC' }, stdio: 'pipe' }
  )
}

/**
 * Waits for all that works together on one stream. Where one ends, the others find their pipe broken: told is what the programs say first.
 * @throws Error
 */
export async function together(programs: readonly Promise<void>[], streams: readonly Promise<void>[]): Promise<void> {
  const outcomes = await Promise.allSettled([...programs, ...streams])
  const failed = outcomes.find((outcome) => outcome.status === 'rejected')
  if (failed) throw failed.reason
}

/** Waits until a program ends. @throws Error with what it said where it did not end well */
export function endedWell(program: string, child: ChildProcessWithoutNullStreams): Promise<void> {
  let said = ''
  child.stderr.on('data', (chunk: Buffer) => (said = (said + chunk.toString()).slice(-2_000)))
  return new Promise((resolve, reject) => {
    child.once('error', (error: NodeJS.ErrnoException) =>
      reject(error.code === 'ENOENT' ? new Error(`${program} is not there; install Debian's mariadb-client`) : error)
    )
    child.once('close', (status) =>
      status === 0 ? resolve() : reject(new Error(`${program} ended with ${status}:\n${said.trim()}`))
    )
  })
}
