import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    // The server's tests wait for the database most of the time: a second worker gets on with the others.
    maxWorkers: 2,
    projects: [
      { test: { name: 'core', include: ['core/test/**/*.test.ts', 'cli/test/**/*.test.ts', 'demo/test/**/*.test.ts', 'scripts/**/*.test.ts'], testTimeout: 20_000 } },
      { test: { name: 'server', include: ['server/test/**/*.test.ts'], testTimeout: 60_000, hookTimeout: 120_000, fileParallelism: false } },
      { test: { name: 'web', include: ['web/test/**/*.test.{ts,tsx}'], environment: 'jsdom', testTimeout: 20_000 } }
    ]
  }
})
