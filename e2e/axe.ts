import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from '@playwright/test'
import type { AxeResults, RunOptions } from 'axe-core'

const source = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/** What axe is asked of a page: all, its colours only, or all but those; and what is not looked at. */
export interface AxeQuestion {
  colours: 'only' | 'not' | 'too'
  /** CSS selectors of parts that are left out. */
  except: readonly string[]
}

/**
 * What axe finds wrong with a page, a line a rule with the first three places. It is put into each page once, and works out
 * only what is broken, not what holds.
 */
export async function axeFaults(page: Page, { colours, except }: AxeQuestion): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(source)
  const options: RunOptions = {
    resultTypes: ['violations'],
    ...(colours === 'only' ? { runOnly: ['color-contrast'] } : {}),
    ...(colours === 'not' ? { rules: { 'color-contrast': { enabled: false } } } : {})
  }
  return page.evaluate(
    async ({ exclude, options }) => {
      const { axe } = window as unknown as {
        axe: { run: (context: { exclude: string[] }, options: RunOptions) => Promise<AxeResults> }
      }
      const { violations } = await axe.run({ exclude }, options)
      return violations.map(
        ({ id, nodes }) =>
          `${id}: ${nodes
            .map(({ target }) => target.join(' '))
            .slice(0, 3)
            .join(' | ')}`
      )
    },
    { exclude: [...except], options }
  )
}
