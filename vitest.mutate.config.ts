import { join } from 'node:path'
import { defineConfig } from 'vitest/config'

/** The tests of core by themselves: what faults put into its files are tried on. The copies that hold the faults are meant, not the packages they are copied from. */
export default defineConfig({
  resolve: {
    alias: ['core', 'demo'].map((part) => ({
      find: new RegExp(`^@pasado/${part}/`),
      replacement: `${join(import.meta.dirname, part, 'src')}/`
    }))
  },
  // One world for all files: loading core anew for each takes longer than its tests. Properties are tried few times: what examples do not see, they seldom do.
  test: {
    include: ['core/test/**/*.test.ts'],
    exclude: ['core/test/each-sentence.test.ts'],
    testTimeout: 20_000,
    isolate: false,
    env: { LEFT_OUT_RUNS: '8', NEVER_BETTER_RUNS: '5', JUDGED_RUNS: '3' }
  }
})
