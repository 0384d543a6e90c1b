import { expect, test } from '@playwright/test'
import { choose, enter, logIn, newVisit, pageOf, saved } from '@pasado/testing/browser-steps'

test('two browsers on one visit see each other, and settle what both set', async ({ page, browser }) => {
  await logIn(page, 'isolde')
  const address = await newVisit(page, 'Keziah Brandle', '5 Cockle Row')
  const path = new URL(address).pathname
  const other = await pageOf(browser, 'corin', path)

  // Who has it not reads it, and writes once they joined.
  await expect(other.getByRole('textbox', { name: 'Paid for, down' })).toBeDisabled()
  await other.getByRole('button', { name: 'Join it' }).click()
  await other.getByRole('textbox', { name: 'Why' }).fill('Two pairs of hands.')
  await other.getByRole('button', { name: 'Join', exact: true }).click()
  await enter(page, 'Paid for, down', '150')
  await expect(other.getByRole('textbox', { name: 'Paid for, down' })).toHaveValue('150', { timeout: 2_500 })
  await choose(other, 'Access line', 'fibre')
  await expect(page.getByRole('radio', { name: 'fibre' })).toBeChecked({ timeout: 2_500 })

  // Both set the street number of the second contact while one of them has no connection.
  await other.context().setOffline(true)
  await enter(other, 'Second way to reach them', 'Sister, 555-0161')
  await expect(other.getByRole('status').filter({ hasText: 'not saved yet' })).toBeVisible()
  await enter(page, 'Second way to reach them', 'Brother, 555-0162')
  await saved(page)
  await other.context().setOffline(false)
  await saved(other)

  const conflict = page.getByRole('group', { name: 'Conflict: Second way to reach them' })
  await expect(conflict).toBeVisible()
  await expect(other.getByRole('group', { name: 'Conflict: Second way to reach them' })).toBeVisible()
  await expect(page.getByRole('complementary', { name: 'Docket' }).getByText(/Two set/)).toBeVisible()
  await conflict.getByRole('button', { name: 'Keep Brother, 555-0162' }).click()
  for (const screen of [page, other]) {
    await expect(screen.getByRole('group', { name: /^Conflict/ })).toHaveCount(0)
    await expect(screen.getByRole('textbox', { name: 'Second way to reach them' })).toHaveValue('Brother, 555-0162')
  }
  await other.context().close()
})

test('what is written while the server is away is kept on the device and sent later, also after a reload', async ({
  page
}) => {
  await logIn(page, 'isolde')
  await newVisit(page, 'Wilmot Grail', '21 Pebble Bank')
  await page.route('**/entries', (route) => (route.request().method() === 'POST' ? route.abort() : route.continue()))
  await enter(page, 'Paid for, down', '75')
  await expect(page.getByRole('status').filter({ hasText: 'not saved yet · 1 kept here' })).toBeVisible()
  await expect(page.getByRole('textbox', { name: 'Paid for, down' })).toHaveValue('75')
  await page.reload()
  await expect(page.getByRole('textbox', { name: 'Paid for, down' })).toHaveValue('75')
  await page.unroute('**/entries')
  await saved(page)
  await page.reload()
  await expect(page.getByRole('textbox', { name: 'Paid for, down' })).toHaveValue('75')
})

test('a note that holds a secret is refused, and what was written is not lost', async ({ page }) => {
  await logIn(page, 'isolde')
  await newVisit(page, 'Damaris Yeo', '2 Lugger Way')
  await expect(page.getByRole('heading', { name: 'Brief' })).toBeVisible()
  await page.keyboard.press('6')
  await page.getByRole('tab', { name: /Wi-Fi/ }).click()
  await page.getByRole('button', { name: 'Add the home’s network' }).click()
  await enter(page, 'Name (SSID)', 'Turnstone')
  await page.getByRole('button', { name: 'Type one: Passphrase of Turnstone' }).click()
  await page.getByRole('textbox', { name: 'Passphrase of Turnstone' }).fill('demo-secret-in-a-note')
  await page.getByRole('button', { name: 'Put into the vault' }).click()
  await expect(page.getByRole('button', { name: 'Show: Passphrase of Turnstone' })).toBeVisible()
  await page.keyboard.press('1')
  await page.getByRole('textbox', { name: 'Note' }).fill('The key is demo-secret-in-a-note, told on the phone.')
  await page.getByRole('button', { name: 'Write it down' }).click()
  const notice = page.getByRole('alert')
  await expect(notice).toContainText('holds a secret of this visit')
  await expect(notice).toContainText('told on the phone')
  // Shown on request, with the reason logged.
  await page
    .getByRole('navigation', { name: 'Strand' })
    .getByRole('link', { name: /Configure/ })
    .click()
  await page.getByRole('tab', { name: /Wi-Fi/ }).click()
  await page.getByRole('button', { name: 'Show: Passphrase of Turnstone' }).click()
  await page.getByRole('button', { name: 'checking it' }).click()
  await expect(page.getByText('demo-secret-in-a-note', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Hide' }).click()
  await page.getByRole('button', { name: 'Logbook' }).click()
  await expect(page.getByRole('dialog', { name: 'Logbook' })).toContainText('A secret shown: checking it')
})

test('a visit can be worked with the keyboard alone', async ({ page }) => {
  await logIn(page, 'isolde')
  await newVisit(page, 'Barnaby Thole', '13 Coble Street')
  await expect(page.getByRole('heading', { name: 'Brief' })).toBeVisible()
  await page.keyboard.press('2')
  // Brief has one too.
  await expect(page.getByRole('heading', { name: 'Kit', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Add a box', exact: true }).focus()
  await page.keyboard.press('Enter')
  await page.keyboard.type('Lintel')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'All of it is here' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Lintel: read its label' })).toBeVisible()
  await page.getByRole('button', { name: 'Add a used unit' }).focus()
  await page.keyboard.press('Enter')
  await page.keyboard.type('Sill')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Name' })).toBeFocused()
  await page.keyboard.press('Control+A')
  await page.keyboard.type('Cellar modem')
  await page.keyboard.press('Tab')
  await expect(page.getByRole('heading', { name: 'Cellar modem' })).toBeVisible()
  await page.getByRole('heading', { name: 'Cellar modem' }).click()
  await page.keyboard.press('u')
  await expect(page.getByRole('heading', { name: 'Sill' })).toBeVisible()
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('d')
  await expect(page.getByRole('dialog', { name: 'Docket' })).toBeVisible()
})

test('anything can be done from one field: a view, a home, a unit, a mend, a wait, wherever one stands', async ({
  page
}) => {
  await logIn(page, 'isolde')
  await expect(page.getByText('9 Ferryslip Terrace').first()).toBeVisible()
  const sheet = page.getByRole('dialog', { name: 'Do anything' })
  const say = async (words: string, offer: RegExp) => {
    await page.keyboard.press('Control+k')
    await expect(sheet.getByRole('combobox', { name: 'Do anything' })).toBeFocused()
    await page.keyboard.type(words)
    // A street is found twice, as a visit at once and as a home a moment later.
    await expect(sheet.getByRole('option', { name: offer, selected: true })).toBeVisible()
    await page.keyboard.press('Enter')
    await expect(sheet).toBeHidden()
  }
  await page.keyboard.press('Control+k')
  await expect(sheet.getByRole('combobox')).toBeFocused()
  await page.keyboard.type('a thing nobody does')
  await expect(sheet.getByText('Nothing is called that.')).toBeVisible()
  await page.keyboard.press('Escape')
  await say('bench fir', /Bench: Firmware/)
  await expect(page).toHaveURL(/bench\/firmware/)
  await say('ferrysl', /9 Ferryslip Terrace/)
  await expect(page).toHaveURL(/visit\/.*brief/)
  // From within a field as well.
  await page.getByRole('textbox', { name: 'Telephone' }).focus()
  await say('cellar firmware app', /Cellar node: firmware approved/)
  await expect(
    page.getByRole('listitem', { name: 'Firmware of Cellar node' }).getByRole('textbox', { name: 'After' })
  ).toBeFocused()
  await say('logb', /Logbook/)
  await expect(page.getByRole('dialog', { name: 'Logbook' })).toBeVisible()
  // Over another sheet it is not called up: what was begun there stays.
  await page.keyboard.press('Control+k')
  await expect(sheet).toBeHidden()
  await page.keyboard.press('Escape')
  await say('conn', /^Connect/)
  await expect(page).toHaveURL(/\/connect/)
  await say('oskerry', /9 Ferryslip Terrace, Great Skerrow/)
  await expect(page).toHaveURL(/\/homes\//)
})
