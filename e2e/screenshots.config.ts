import tests from './playwright.config'

// The whole browser, as people have it: its text is drawn a little finer than that of the one without a screen.
const launchOptions = { ...tests.use?.launchOptions, executablePath: '/usr/bin/chromium' }

/** The browser tests' own server and settings, for taking the pictures of the README. */
export default {
  ...tests,
  workers: 1,
  projects: [{ name: 'screenshots', testMatch: 'screenshots.ts' }],
  use: { ...tests.use, launchOptions }
}
