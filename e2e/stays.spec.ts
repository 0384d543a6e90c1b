import { expect, test } from '@playwright/test'
import { choose, logIn, newVisit, routerStays, saved, stage } from '@pasado/testing/browser-steps'

test('an extender is paired by button with the customer’s router, which stays and gives its address', async ({
  page
}) => {
  await logIn(page, 'isolde')
  await newVisit(page, 'Barnaby Thole', '17 Coble Street')
  await routerStays(page, 'Marlin 7')
  await expect(page.getByRole('region', { name: 'What stays here' })).toContainText('192.168.1.1 · gives addresses')

  await stage(page, 'Kit')
  await page.getByRole('button', { name: 'Add a box', exact: true }).click()
  await page.getByRole('textbox', { name: 'Find a model' }).fill('Reed')
  await page.getByRole('button', { name: /Quillet Reed/ }).click()
  await page.getByRole('button', { name: 'All of it is here' }).click()
  await page.getByRole('button', { name: 'Reed: read its label' }).click()
  await choose(page, 'Role here', 'extender')

  await stage(page, 'Start up')
  await choose(page, 'Setup method', 'the Join buttons')
  await page.getByRole('button', { name: /^(I see it|Done)$/ }).click()
  await page.getByRole('button', { name: 'Pressed on Marlin 7' }).click()
  await page.getByRole('button', { name: /pressed here, on Reed/ }).click()
  await expect(page.getByText(/The second press came \d+ s after the first/)).toBeVisible()

  await stage(page, 'Configure')
  await page.getByRole('tab', { name: /Wi-Fi/ }).click()
  await page.getByLabel('The home’s name on the air').fill('Turnstone')
  await page.getByRole('button', { name: 'Record these networks' }).click()
  await expect(page.getByRole('button', { name: 'These are recorded' })).toBeVisible()

  await stage(page, 'Prove')
  await page.getByRole('tab', { name: /Units/ }).click()
  await page.getByRole('button', { name: 'Prove the path of Reed' }).click()
  const path = page.getByRole('form', { name: 'Path of Reed' })
  await path.getByRole('textbox', { name: 'Clients before' }).fill('0')
  await path.getByRole('textbox', { name: 'Clients after' }).fill('1')
  await path.getByRole('textbox', { name: 'Address' }).fill('192.168.1.23')
  await path.getByRole('combobox', { name: 'Given by' }).selectOption('Marlin 7')
  await path.getByRole('button', { name: 'Record what was seen' }).click()
  await expect(page.getByText('1 on it after 0, with 192.168.1.23 from Marlin 7.')).toBeVisible()
  await saved(page)
})
