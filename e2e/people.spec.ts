import { expect, test } from '@playwright/test'
import { logIn, newVisit, pageOf, password } from '@pasado/testing/browser-steps'

test('a lead adds a technician, who comes in with the password that was told and chooses another; later they leave', async ({
  page,
  browser
}) => {
  await logIn(page, 'wenna')
  await page.getByRole('button', { name: /Wenna Tarrow/ }).click()
  await page.getByRole('menuitem', { name: 'People' }).click()
  await page.getByRole('button', { name: 'Add a person' }).click()
  const sheet = page.getByRole('dialog')
  await sheet.getByLabel('Name').fill('Corin Other')
  await expect(sheet.getByLabel('Login')).toHaveValue('corin')
  await sheet.getByRole('button', { name: 'Add' }).click()
  await expect(sheet.getByRole('alert')).toContainText('somebody’s already')
  await sheet.getByLabel('Login').fill('corin.other')
  await sheet.getByRole('button', { name: 'Add' }).click()
  const told = page.getByRole('dialog', { name: 'For Corin Other' })
  const first = await told.getByRole('definition').last().innerText()
  await told.getByRole('button', { name: 'It is told' }).click()
  const line = page.getByRole('list', { name: 'Everybody' }).getByRole('listitem').filter({ hasText: 'Corin Other' })
  await expect(line).toContainText('has still to choose a password')

  const context = await browser.newContext()
  const other = await context.newPage()
  await other.goto('/login?to=/standard')
  await other.getByLabel('Login').fill('corin.other')
  await other.getByLabel('Password').fill(first)
  await other.getByRole('button', { name: 'Log in' }).click()
  await expect(other.getByRole('heading', { name: 'Welcome, Corin Other' })).toBeVisible()
  const choose = async (wanted: string, again = wanted) => {
    await other.getByLabel('Password so far').fill(first)
    await other.getByLabel('New password', { exact: true }).fill(wanted)
    await other.getByLabel('New password once more').fill(again)
    await other.getByRole('button', { name: 'Change it' }).click()
  }
  await choose('gannet walks over slate 7', 'gannet walks over slate 8')
  await expect(other.getByRole('alert')).toContainText('not the same')
  await choose('corin other 1')
  await expect(other.getByRole('alert')).toContainText('guessed too soon')
  await choose('gannet walks over slate 7')
  await expect(other.getByRole('heading', { name: 'The standard' })).toBeVisible()

  await page.reload()
  await expect(line).toContainText('open in 1 browser')
  await page.getByRole('button', { name: 'Change Corin Other' }).click()
  await page.getByRole('button', { name: 'Has left' }).click()
  await expect(line).toContainText(/left \d/)
  await other.goto('/')
  await expect(other.getByRole('button', { name: 'Log in' })).toBeVisible()
  await context.close()

  // The last lead cannot go.
  await page.getByRole('button', { name: 'Change Wenna Tarrow' }).click()
  await page.getByRole('combobox', { name: 'Role' }).selectOption('office')
  await page.getByRole('button', { name: 'Keep this' }).click()
  await expect(page.getByRole('alert')).toContainText('This is the last lead')
  await page.keyboard.press('Escape')
})

test('one’s own password is changed from the menu', async ({ page }) => {
  await logIn(page, 'petroc')
  await page.getByRole('button', { name: /Petroc Lunn/ }).click()
  await page.getByRole('menuitem', { name: 'Change my password' }).click()
  const sheet = page.getByRole('dialog', { name: 'Change my password' })
  await sheet.getByLabel('Password so far').fill('not it at all')
  await sheet.getByLabel('New password', { exact: true }).fill(password)
  await expect(sheet.getByText(/of 4.*3 are wanted/)).toBeVisible()
  await sheet.getByLabel('New password once more').fill(password)
  await sheet.getByRole('button', { name: 'Change it' }).click()
  await expect(sheet.getByRole('alert')).toContainText('It is not your password so far')
})

test('a visit is handed on: it stands in the other’s day, and its logbook says why', async ({ page, browser }) => {
  await logIn(page, 'isolde')
  await newVisit(page, 'Hedra Moyle', '8 Tern Steps')
  await page.getByRole('button', { name: 'Hand it on' }).click()
  const sheet = page.getByRole('dialog', { name: 'Hand this visit on' })
  await sheet.getByRole('button', { name: 'Hand it on' }).click()
  await expect(sheet.getByRole('alert')).toHaveText('Choose who goes on.')
  await sheet.getByRole('combobox', { name: 'Who goes on' }).selectOption('Corin Saltway')
  await sheet.getByRole('button', { name: 'Hand it on' }).click()
  await expect(sheet.getByRole('alert')).toContainText('reason is missing')
  await sheet.getByRole('textbox', { name: 'Why' }).fill('The ferry does not go.')
  await sheet.getByRole('button', { name: 'Hand it on' }).click()
  await expect(page.getByText('Corin Saltway, before Isolde Marram')).toBeVisible()
  await page.getByRole('button', { name: 'Logbook' }).click()
  await expect(page.getByRole('dialog', { name: 'Logbook' })).toContainText(
    'Goes on with Corin Saltway: The ferry does not go.'
  )
  await page.keyboard.press('Escape')

  const corin = await pageOf(browser, 'corin')
  await corin.getByRole('link', { name: /8 Tern Steps/ }).click()
  await expect(corin.getByRole('button', { name: 'Hand it on' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Take it over' })).toBeVisible()
  await corin.context().close()
})
