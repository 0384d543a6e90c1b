import { readFileSync } from 'node:fs'

const LOOK_MS = 500

/**
 * Comes true once this process is told to end: by a signal, however early, or because the npm that began it has ended. Npm does
 * not always pass on what it is told itself.
 */
export function whenStopped(): Promise<string> {
  return new Promise((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.once(signal, () => resolve(signal))
    const npm = process.env.npm_lifecycle_event === undefined ? null : npmAbove(process.ppid)
    if (npm === null) return
    const timer = setInterval(() => {
      if (startOf(npm.pid) === npm.start) return
      clearInterval(timer)
      resolve('npm has ended')
    }, LOOK_MS)
    timer.unref()
  })
}

/** The npm among the processes above this one, with when it started: a pid may be given out again. */
function npmAbove(pid: number): { pid: number; start: string } | null {
  for (let at = pid; at > 1;) {
    const start = startOf(at)
    if (start === null) return null
    if (/(^|[/\0 ])npm([ \0]|-cli|$)/.test(read(`/proc/${at}/cmdline`) ?? '')) return { pid: at, start }
    at = Number(
      read(`/proc/${at}/stat`)!
        .replace(/^.*\) /s, '')
        .split(' ')[1]
    )
  }
  return null
}

/** When a process started, in ticks since the machine did; null where there is none of this pid. */
function startOf(pid: number): string | null {
  const stat = read(`/proc/${pid}/stat`)
    ?.replace(/^.*\) /s, '')
    .split(' ')
  return !stat || stat[0] === 'Z' ? null : stat[19]!
}

function read(file: string): string | null {
  try {
    return readFileSync(file, 'utf8')
  } catch {
    return null
  }
}
