import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'

const root = join(import.meta.dirname, '..')
const bin = (name: string) => join(root, 'node_modules/.bin', name)
const reports = mkdtempSync(join(root, '.data', 'reports-'))

interface Count {
  passed: number
  failed: number
}

/** Runs a program to its end with its output shown. @returns its exit status */
function run(name: string, command: string, words: string[], environment: Record<string, string> = {}): Promise<number> {
  console.log(`\n── ${name}`)
  const began = Date.now()
  return new Promise((resolve) => {
    const child = spawn(command, words, { cwd: root, stdio: 'inherit', env: { ...process.env, ...environment } })
    child.once('error', () => resolve(1))
    child.once('exit', (status) => {
      console.log(`   ${status === 0 ? 'done' : 'FAILED'} in ${((Date.now() - began) / 1000).toFixed(1)} s`)
      resolve(status ?? 1)
    })
  })
}

/** A step that is one check. */
async function check(name: string, command: string, words: string[]): Promise<Count> {
  return (await run(name, command, words)) === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 }
}

/** A step with a report of its tests; one that ends badly without naming a failed test counts as one. */
async function tests(name: string, command: string, words: string[], environment: Record<string, string>, read: () => Count): Promise<Count> {
  const status = await run(name, command, words, environment)
  let count: Count
  try {
    count = read()
  } catch {
    count = { passed: 0, failed: 0 }
  }
  return status !== 0 && count.failed === 0 ? { ...count, failed: 1 } : count
}

function vitestCount(file: string): Count {
  const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(file, 'utf8')) as { numPassedTests: number; numFailedTests: number }
  return { passed: numPassedTests, failed: numFailedTests }
}

function playwrightCount(file: string): Count {
  const { stats } = JSON.parse(readFileSync(file, 'utf8')) as { stats: { expected: number; unexpected: number; flaky: number } }
  return { passed: stats.expected, failed: stats.unexpected + stats.flaky }
}

async function main(): Promise<Count> {
  const counts: Count[] = []
  for (const part of ['core', 'server', 'web', 'e2e']) counts.push(await check(`types: ${part}`, bin('tsc'), ['-p', part]))
  counts.push(await check('lint', bin('eslint'), ['.']))
  counts.push(await check('arrows', bin('depcruise'), ['--config', '.dependency-cruiser.cjs', 'core/src', 'server/src', 'web/src', 'cli/src', 'demo/src', 'scripts']))
  const unit = join(reports, 'unit.json')
  counts.push(await tests('unit and integration', bin('vitest'), ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`], {}, () => vitestCount(unit)))
  const browser = join(reports, 'browser.json')
  counts.push(await tests('browser', bin('playwright'), ['test', '--config', 'e2e/playwright.config.ts', '--reporter=list,json'], { PLAYWRIGHT_JSON_OUTPUT_FILE: browser }, () => playwrightCount(browser)))
  return counts.reduce((sum, one) => ({ passed: sum.passed + one.passed, failed: sum.failed + one.failed }))
}

const { passed, failed } = await main()
rmSync(reports, { recursive: true, force: true })
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed ? 1 : 0)
