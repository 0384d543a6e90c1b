import { spawnSync } from 'node:child_process'
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'

/*
 * Puts faults into core, one at a time, and tells which of them no test sees: npm run mutate -- FILES AND FOLDERS
 * With --one-of=8 before them only one stretch of lines of eight is tried, the same each time, and no tables: a folder whole takes hours.
 * A run takes minutes a file, so it is no part of the tests.
 */
const root = join(import.meta.dirname, '..')
/** So many lines are tried or left out together. */
const STRETCH = 12
const oneOf = Number(/^--one-of=(\d+)$/.exec(process.argv[2] ?? '')?.[1] ?? 1)
const asked = process.argv.slice(oneOf > 1 ? 3 : 2)
const unknown = asked.filter((path) => !path.startsWith('core/src/') || !existsSync(join(root, path)))
if (asked.length === 0 || unknown.length) {
  console.error(
    unknown.length
      ? `Not in core: ${unknown.join(', ')}. Name them from the root, such as core/src/values/ipv4.ts.`
      : 'Name at least one file or folder of core, such as core/src/values/ipv4.ts.'
  )
  process.exit(1)
}

const filesIn = (path: string): string[] =>
  statSync(join(root, path)).isDirectory()
    ? readdirSync(join(root, path)).flatMap((name) => filesIn(`${path}/${name}`))
    : [path]

/** The stretches of a file whose turn it is. */
function stretchesOf(file: string, turn: { at: number }): string[] {
  const lines = readFileSync(join(root, file), 'utf8').split('\n').length
  const starts = Array.from({ length: Math.ceil(lines / STRETCH) }, (_, at) => 1 + at * STRETCH)
  return starts
    .filter(() => turn.at++ % oneOf === 0)
    .map((from) => `${file}:${from}-${Math.min(from + STRETCH - 1, lines)}`)
}

const files = asked.flatMap(filesIn)
const turn = { at: 0 }
const tried = oneOf > 1 ? files.flatMap((file) => stretchesOf(file, turn)) : files
// What is reckoned once as a file is loaded would run every test for each fault.
const options = oneOf > 1 ? ['--ignoreStatic'] : []
const { status } = spawnSync(
  join(root, 'node_modules/.bin/stryker'),
  ['run', ...options, '--mutate', tried.join(',')],
  {
    cwd: root,
    stdio: 'inherit'
  }
)
process.exit(status ?? 1)
