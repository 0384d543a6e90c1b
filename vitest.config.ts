import { defineConfig } from 'vitest/config'

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
          testTimeout: 20_000,
          isolate: false
        }
      },
      {
        test: {
          name: 'server',
          include: ['server/test/**/*.test.ts'],
          testTimeout: 60_000,
          hookTimeout: 120_000,
          isolate: false
        }
      },
      { test: { name: 'web', include: ['web/test/**/*.test.{ts,tsx}'], environment: 'jsdom', testTimeout: 20_000 } }
    ]
  }
})
