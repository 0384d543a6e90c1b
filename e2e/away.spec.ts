import { expect, test, type Page } from '@playwright/test'
import { enter, logIn, saved } from '@pasado/testing/browser-steps'

test.use({ serviceWorkers: 'allow' })

/** What is taken along on this device, by its names. */
const taken = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<string[]>((resolve) => {
        const opening = indexedDB.open('pasado-taken')
        opening.onsuccess = () => {
          if (!opening.result.objectStoreNames.contains('copies')) {
            opening.result.close()
            resolve([])
            return
          }
          const asking = opening.result.transaction('copies').objectStore('copies').getAllKeys()
          asking.onsuccess = () => {
            opening.result.close()
            resolve(asking.result.map(String))
          }
        }
      })
  )

test('without a connection the program starts, the day and its visits are there, and what is written is sent later', async ({
  page,
  context
}) => {
  await logIn(page, 'isolde')
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => true))
  const visit = (await page
    .getByRole('link', { name: /9 Ferryslip Terrace/ })
    .first()
    .getAttribute('href'))!.split('/')[2]!
  await expect
    .poll(() => taken(page))
    .toEqual(expect.arrayContaining(['catalogue', 'day mine', 'me', `visit ${visit}`]))

  await context.setOffline(true)
  await page.goto('/')
  await expect(page.getByRole('alert')).toContainText(
    /The server cannot be reached just now.*This is the day as of \d\d:\d\d; \d+ of its \d+ visits are on this device/
  )
  await page
    .getByRole('link', { name: /9 Ferryslip Terrace/ })
    .first()
    .click()
  await expect(page.getByRole('status').filter({ hasText: /no connection · as of \d\d:\d\d/ })).toBeVisible()
  await expect(page.getByRole('complementary', { name: 'Docket' })).toContainText('between here and sign-off')
  await enter(page, 'Paid for, down', '120')
  await expect(page.getByRole('status').filter({ hasText: 'not saved yet · 1 kept here' })).toBeVisible()
  await page.reload()
  await expect(page.getByRole('textbox', { name: 'Paid for, down' })).toHaveValue('120')
  for (const stage of ['Place', 'Configure', 'Prove']) {
    await page
      .getByRole('navigation', { name: 'Strand' })
      .getByRole('link', { name: new RegExp(stage) })
      .click()
    await expect(page.getByRole('heading', { level: 2 }).first()).toBeVisible()
  }

  await context.setOffline(false)
  await saved(page)
  await page.goto('/')
  await expect(page.getByRole('alert')).toHaveCount(0)
  await page.getByRole('button', { name: /Isolde Marram/ }).click()
  await page.getByRole('menuitem', { name: 'Log out', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Log in' })).toBeVisible()
  await expect.poll(() => taken(page)).toEqual([])
})
