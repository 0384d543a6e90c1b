import { expect, test } from '@playwright/test'
import { labelFilm } from './label-pictures'
import { logIn, newVisit, saved, stage } from '@pasado/testing/browser-steps'

const { file, printed } = await labelFilm('fenmarrow-lattice-3', 77, 'clean')

test.use({
  permissions: ['camera'],
  launchOptions: {
    executablePath: '/usr/bin/chromium-headless-shell',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--no-first-run',
      '--use-fake-device-for-media-stream',
      '--use-fake-ui-for-media-stream',
      `--use-file-for-fake-video-capture=${file}`
    ]
  }
})

test('a label held before the camera is read by itself, and the record holds what is printed', async ({ page }) => {
  test.setTimeout(120_000)
  await logIn(page, 'corin')
  await newVisit(page, 'Camera Trial', '7 Sticker Lane')
  await stage(page, 'Kit')
  await page.getByRole('button', { name: 'Add a box', exact: true }).click()
  await page.getByRole('button', { name: /^Fenmarrow Lattice 3 1 ×/ }).click()
  await page.getByRole('button', { name: 'All of it is here' }).click()
  await page.getByRole('button', { name: 'Lattice 3: read its label' }).click()
  await page.getByRole('button', { name: 'Read its label' }).click()
  await page.getByRole('button', { name: 'Point the camera at it' }).click()
  // Its QR code comes into sight: nothing is pressed.
  const sheet = page.getByRole('dialog')
  await expect(sheet.getByRole('button', { name: /^Take over/ })).toBeVisible({ timeout: 60_000 })
  await expect(sheet.getByRole('textbox', { name: 'Serial' })).toHaveValue(printed.serial)
  await expect(sheet.getByText('certain, from its QR code').first()).toBeVisible()
  await sheet.getByRole('textbox', { name: 'Network key' }).fill(printed.key!)
  await sheet.getByRole('textbox', { name: 'Network name' }).fill(printed.ssid!)
  await sheet.getByRole('button', { name: /^Take over/ }).click()
  await saved(page)
  await expect(page.getByRole('textbox', { name: 'Serial' })).toHaveValue(printed.serial)
  await expect(page.getByRole('textbox', { name: 'MAC address' })).toHaveValue(printed.mac)
  await expect(page.getByRole('textbox', { name: 'Network name' })).toHaveValue(printed.ssid!)
  await expect(page.getByRole('button', { name: 'Show: Setup code' })).toBeVisible()
})
