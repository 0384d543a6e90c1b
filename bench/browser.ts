import { chromium, type Page } from '@playwright/test'
import { logIn } from '@pasado/testing/browser-steps'
import { startedCompany } from '@pasado/testing/started-company'
import { machine } from './machine'
import { report } from './timing'

/** A task that is longer keeps a press waiting so that people notice, ms. */
const MOST_MS = 50
/** So many times slower than this machine, as a phone is. */
const THROTTLE = 4
const PORT = 4710

/** The longest tasks of a page since the last look, ms, longest first. */
const longTasks = (page: Page): Promise<number[]> =>
  page.evaluate(() => {
    const kept = window as unknown as { longTasks: number[] }
    return kept.longTasks.splice(0).sort((a, b) => b - a)
  })

/** So many times a field is left. */
const LEAVES = 5
/** For so long after a press it is looked what the page does, ms. */
const SETTLE_MS = 5000

/** Presses something, or leaves it with something typed, as the page itself would: what a test asks of a page keeps that busy too. */
async function quietly(page: Page, selector: string, what: 'click' | 'leave'): Promise<void> {
  const isDone = await page.evaluate(
    ([wanted, act]) => {
      const element = document.querySelector<HTMLInputElement>(wanted)
      if (!element) return false
      if (act === 'click') element.click()
      else {
        element.focus()
        // By the setter of the element itself: React hears of a change only so.
        Reflect.set(HTMLInputElement.prototype, 'value', `${element.value}x`, element)
        element.dispatchEvent(new Event('input', { bubbles: true }))
        element.blur()
      }
      return true
    },
    [selector, what] as const
  )
  if (!isDone) throw new Error(`${selector} is not on the page`)
  await page.waitForTimeout(SETTLE_MS)
}

function told(what: string, tasks: readonly number[]): void {
  const longest = tasks[0] ?? 0
  report(
    `${what}, in a browser ${THROTTLE} × slower (baseline: ${MOST_MS} ms a task)`,
    tasks.length === 0
      ? `no task over ${MOST_MS} ms`
      : `longest task ${longest.toFixed(0)} ms, ${(longest / MOST_MS).toFixed(1)} times; ${tasks.length} over ${MOST_MS} ms`
  )
}

/** Opening visits and leaving fields, as far as the main thread is busy with them. */
async function benchBrowser(): Promise<void> {
  const stop = await startedCompany(PORT)
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' })
  try {
    const context = await browser.newContext({ baseURL: `http://127.0.0.1:${PORT}` })
    await context.addInitScript(() => {
      const kept = window as unknown as { longTasks: number[] }
      kept.longTasks = []
      new PerformanceObserver((list) =>
        kept.longTasks.push(...list.getEntries().map(({ duration }) => duration))
      ).observe({ entryTypes: ['longtask'] })
    })
    const page = await context.newPage()
    await logIn(page, 'isolde')
    await page.getByRole('heading', { level: 1 }).waitFor()
    const slow = await context.newCDPSession(page)
    await slow.send('Emulation.setCPUThrottlingRate', { rate: THROTTLE })
    await page.waitForTimeout(SETTLE_MS)
    await longTasks(page)
    for (const [street, id] of [
      ['22 Dulse Road', '019a0000-d142-7439-8266-3cc2554a59f5'],
      ['4 Lantern Rise', '019a0000-a887-709f-8857-904df0be69d2']
    ] as const) {
      await quietly(page, `a[href*="${id}"]`, 'click')
      told(`opening a visit (${street})`, await longTasks(page))
      await quietly(page, 'nav a[href*="/brief"]', 'click')
      told('going to the Brief', await longTasks(page))
      const left: number[] = []
      for (let at = 0; at < LEAVES; at++) {
        await quietly(page, 'main input:not([type]), main input[type=text]', 'leave')
        left.push((await longTasks(page))[0] ?? 0)
      }
      // Of several, as the first runs code that was never run; the one in the middle.
      told(
        `leaving a field of it, of ${LEAVES} times the middle one`,
        left
          .sort((a, b) => a - b)
          .slice(LEAVES >> 1, (LEAVES >> 1) + 1)
          .filter((ms) => ms > 0)
      )
      await page.goto('/')
      await page.waitForTimeout(SETTLE_MS)
      await longTasks(page)
    }
  } finally {
    await browser.close()
    await stop()
  }
}

console.log(`${machine()}, Node.js ${process.version}\n`)
await benchBrowser()
process.exit(0)
