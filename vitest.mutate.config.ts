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
  test: { include: ['core/test/**/*.test.ts'], testTimeout: 20_000 }
})
