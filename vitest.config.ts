import { join } from 'node:path'
import { defineConfig } from 'vitest/config'

/** A test that hangs is ended; how fast a machine is decides nothing. */
const testTimeout = 60_000

const web = {
  environment: 'jsdom',
  testTimeout,
  setupFiles: ['web/test/setup.ts'],
  alias: { 'idb-keyval': join(import.meta.dirname, 'web/test/idb.ts') }
}
/** Tests that load their modules anew, or put another in the place of one, want a worker of their own; to the others one world serves. */
const alone = [
  'web/src/app/{api,api-calls,offline-copy,read}.test.{ts,tsx}',
  'web/src/outbox/outbox.test.ts',
  'web/src/visit/frame/Photos.test.tsx',
  'web/src/visit/session/session.test.ts',
  'web/src/visit/stages/kit/LabelSheet.test.tsx',
  'web/src/visit/stages/place/PlanWork.test.tsx',
  'web/src/workers/asking.test.tsx'
]

export default defineConfig({
  test: {
    // One worker a core, and one more for what waits for a database or another process. What keeps no state in its modules is loaded once a worker, not once a file: the core, and the server, whose state is in its database.
    maxWorkers: 3,
    projects: [
      {
        test: {
          name: 'core',
          include: [
            'core/test/**/*.test.ts',
            'cli/test/**/*.test.ts',
            'demo/test/**/*.test.ts',
            'scripts/**/*.test.ts'
          ],
          testTimeout,
          isolate: false
        }
      },
      {
        test: {
          name: 'server',
          include: ['server/test/**/*.test.ts'],
          globalSetup: 'testing/one-mariadb.ts',
          testTimeout,
          hookTimeout: 120_000,
          isolate: false
        }
      },
      { test: { ...web, name: 'web', include: ['web/src/**/*.test.{ts,tsx}'], exclude: alone, isolate: false } },
      { test: { ...web, name: 'web, alone', include: alone } }
    ]
  }
})
