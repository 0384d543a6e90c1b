import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { logIn, stage } from './steps'

const folder = join(import.meta.dirname, '../docs/screenshots')
const phone = { width: 390, height: 844 }

async function shoot(page: Page, name: string): Promise<void> {
  await page.evaluate(() => document.fonts.ready)
  await page.waitForTimeout(400)
  await page.screenshot({ path: join(folder, `${name}.png`) })
}

async function open(page: Page, street: string): Promise<void> {
  await page.goto('/')
  await page.getByRole('button', { name: 'Everybody’s' }).click()
  await page.getByRole('link', { name: new RegExp(street) }).click()
  await expect(page.getByRole('navigation', { name: 'Strand' })).toBeVisible()
}

test.use({ reducedMotion: 'reduce' } as never)

test('daylight', async ({ page }) => {
  await logIn(page, 'isolde')
  await expect(page.getByText('4 Lantern Rise')).toBeVisible()
  await shoot(page, 'day')
  await open(page, '4 Lantern Rise')
  await stage(page, 'Kit')
  await shoot(page, 'kit')
  await stage(page, 'Start up')
  await page.getByRole('button', { name: /Loft point/ }).first().click()
  await page.getByRole('radio', { name: 'blue' }).click()
  await page.getByRole('radio', { name: 'slow pulse' }).click()
  await page.getByRole('button', { name: 'Start the wait of step 3' }).click()
  await shoot(page, 'start-up')
  await page.getByRole('button', { name: /^End the wait/ }).click()
  await open(page, '9 Ferryslip Terrace')
  await stage(page, 'Configure')
  await shoot(page, 'configure-addresses')
  await page.getByRole('tab', { name: /Wi-Fi/ }).click()
  await shoot(page, 'configure-wifi')
  await open(page, '11 Chandler Row')
  await stage(page, 'Hand over')
  await shoot(page, 'hand-over')
  await open(page, '22 Dulse Road')
  await stage(page, 'Sign off')
  await shoot(page, 'sign-off')
  await page.goto('/homes')
  await page.getByLabel('Find a home').fill('skerrow')
  await expect(page.getByText('by town').first()).toBeVisible()
  await shoot(page, 'homes')
  await page.getByLabel('Find a home').fill('ferryslip')
  await page.getByRole('link', { name: /9 Ferryslip Terrace/ }).click()
  await expect(page.getByText(/sealed \d/)).toBeVisible()
  await shoot(page, 'home')
  await page.goto('/catalogue')
  await expect(page.getByRole('link', { name: /Brackwater L2/ })).toBeVisible()
  await shoot(page, 'catalogue')
  await page.getByRole('link', { name: /Brackwater L2/ }).click()
  await page.getByRole('group', { name: 'States and moves' }).getByRole('button', { name: 'the line is training' }).click()
  await shoot(page, 'model')
})

test('cupboard, and on a phone', async ({ browser }) => {
  const context = await browser.newContext({ colorScheme: 'dark', reducedMotion: 'reduce' })
  const page = await context.newPage()
  await logIn(page, 'wenna')
  await open(page, '4 Lantern Rise')
  await stage(page, 'Start up')
  await page.getByRole('button', { name: /Lamp-room point/ }).first().click()
  await shoot(page, 'start-up-cupboard')
  await page.setViewportSize(phone)
  await shoot(page, 'start-up-phone')
  await page.getByRole('button', { name: 'Docket' }).click()
  await shoot(page, 'docket-phone')
  await context.close()
})
