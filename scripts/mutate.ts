import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'

/*
 * Puts faults into files of core, one at a time, and tells which of them no test sees: npm run mutate -- FILES
 * A run takes minutes a file, so it is no part of the tests.
 */
const root = join(import.meta.dirname, '..')
const files = process.argv.slice(2)
const unknown = files.filter((file) => !file.startsWith('core/src/') || !existsSync(join(root, file)))
if (files.length === 0 || unknown.length) {
  console.error(
    unknown.length
      ? `Not files of core: ${unknown.join(', ')}. Name them from the root, such as core/src/values/ipv4.ts.`
      : 'Name at least one file of core, such as core/src/values/ipv4.ts.'
  )
  process.exit(1)
}
const { status } = spawnSync(join(root, 'node_modules/.bin/stryker'), ['run', '--mutate', files.join(',')], {
  cwd: root,
  stdio: 'inherit'
})
process.exit(status ?? 1)
