import { defineConfig } from '@playwright/test'

/** The first port of the servers that the browser tests start for themselves. */
const PORT = Number(process.env.E2E_PORT ?? 4290)

/** The port of the company that one browser after another of the same place in the row works in, its database on the next one. */
export const portOf = (place: number) => PORT + 2 * place

export default defineConfig({
  testDir: '.',
  outputDir: `../.data/browser-results-${PORT}`,
  fullyParallel: false,
  // Each in a company of its own: a browser waits more than it works.
  workers: 2,
  retries: 0,
  timeout: 90_000,
  expect: { timeout: 10_000 },
  globalSetup: './global-setup.ts',
  // The views are looked at first, as the demo company begins.
  projects: [
    { name: 'views', testMatch: 'views.spec.ts' },
    { name: 'work', testMatch: '*.spec.ts', testIgnore: 'views.spec.ts' }
  ],
  use: {
    baseURL: `http://127.0.0.1:${portOf(Number(process.env.TEST_PARALLEL_INDEX ?? 0))}`,
    viewport: { width: 1280, height: 800 },
    actionTimeout: 20_000,
    // The program kept on the device is a matter of its own test: in the others every part comes from the server.
    serviceWorkers: 'block',
    contextOptions: { reducedMotion: 'reduce' },
    locale: 'en-GB',
    timezoneId: 'UTC',
    // Secrets are on some screens: no picture or trace of a failed test is kept.
    screenshot: 'off',
    trace: 'off',
    launchOptions: {
      // Without the parts of a browser that nobody sees: a tenth of its work.
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        // Text as wide as on a screen of today: the shell would round each sign to whole points.
        '--font-render-hinting=none',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync'
      ]
    }
  }
})
