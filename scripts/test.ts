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
function run(
  name: string,
  command: string,
  words: string[],
  environment: Record<string, string> = {}
): Promise<number> {
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

/** A step that is one check. What it says is shown once it has ended, so that checks beside each other do not talk over each other. */
function check(name: string, command: string, words: string[]): Promise<Count> {
  const began = Date.now()
  return new Promise((resolve) => {
    // At the lowest priority: the tests beside them wait for nobody.
    const child = spawn('nice', ['-n', '19', command, ...words], { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
    let said = ''
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (text: Buffer) => {
        said += text.toString()
      })
    const end = (status: number) => {
      console.log(
        `\n── ${name}\n${said}   ${status === 0 ? 'done' : 'FAILED'} in ${((Date.now() - began) / 1000).toFixed(1)} s`
      )
      resolve(status === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 })
    }
    child.once('error', () => end(1))
    child.once('close', (status) => end(status ?? 1))
  })
}

/** Checks one after another. */
async function lane(checks: readonly [name: string, command: string, words: string[]][]): Promise<Count[]> {
  const counts: Count[] = []
  for (const [name, command, words] of checks) counts.push(await check(name, command, words))
  return counts
}

/** A step with a report of its tests; one that ends badly without naming a failed test counts as one. */
async function tests(
  name: string,
  command: string,
  words: string[],
  environment: Record<string, string>,
  read: () => Count
): Promise<Count> {
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
  const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(file, 'utf8')) as {
    numPassedTests: number
    numFailedTests: number
  }
  return { passed: numPassedTests, failed: numFailedTests }
}

function playwrightCount(file: string): Count {
  const { stats } = JSON.parse(readFileSync(file, 'utf8')) as {
    stats: { expected: number; unexpected: number; flaky: number }
  }
  return { passed: stats.expected, failed: stats.unexpected + stats.flaky }
}

async function main(): Promise<Count> {
  // All that needs nobody runs beside the tests, from the first to the last, at what they leave of the machine.
  const counts: Count[] = []
  // By the compiler that is written for the machine, a third of the work; eslint reads the types by the one in JavaScript.
  const tsc = join(root, 'node_modules/typescript-native/bin/tsc')
  const types = (part: string): [string, string, string[]] => [
    `types: ${part}`,
    process.execPath,
    [tsc, '-p', part, '--checkers', '1']
  ]
  const checks = lane([
    // The longest first: it is not to be what all else waits for.
    ['lint', bin('eslint'), ['.']],
    types('core'),
    types('server'),
    types('web'),
    types('e2e'),
    ['format', bin('prettier'), ['--check', '--log-level', 'warn', '.']],
    ['unused', bin('knip'), []],
    ['twins', process.execPath, ['--import', 'tsx', 'scripts/twins.ts']],
    [
      'arrows',
      bin('depcruise'),
      ['--config', '.dependency-cruiser.cjs', 'core/src', 'server/src', 'web/src', 'cli/src', 'demo/src', 'scripts']
    ]
  ])
  const unit = join(reports, 'unit.json')
  counts.push(
    await tests(
      'unit and integration',
      bin('vitest'),
      ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`],
      {},
      () => vitestCount(unit)
    )
  )
  const browser = join(reports, 'browser.json')
  counts.push(
    await tests(
      'browser',
      bin('playwright'),
      ['test', '--config', 'e2e/playwright.config.ts', '--reporter=list,json'],
      { PLAYWRIGHT_JSON_OUTPUT_FILE: browser },
      () => playwrightCount(browser)
    ),
    ...(await checks)
  )
  return counts.reduce((sum, count) => ({ passed: sum.passed + count.passed, failed: sum.failed + count.failed }))
}

const { passed, failed } = await main()
rmSync(reports, { recursive: true, force: true })
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed ? 1 : 0)
