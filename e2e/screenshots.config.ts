import tests from './playwright.config'

/** The same set-up as the tests, taking the pictures for the README. */
export default { ...tests, testMatch: 'screenshots.ts' }
