import { expect, test } from '@playwright/test'
import { logIn, stage } from '@pasado/testing/browser-steps'

test('homes are narrowed by what stands there and how a rule came out; a home tells what stands there now', async ({
  page
}) => {
  await logIn(page, 'petroc', '/homes')
  await page.getByLabel('Model that stands there').selectOption({ label: 'Quillet Reed' })
  await expect(page.getByRole('list', { name: 'Homes found' }).getByRole('listitem').first()).toBeVisible()
  await expect(page.getByLabel('It runs')).toBeEnabled()
  await page.getByLabel('It runs').selectOption('1.12')
  await page.getByRole('combobox', { name: 'Rule' }).selectOption('firm-minimum')
  // The list is what was asked for last only once its answer is there.
  const narrowed = page.waitForResponse(
    (response) => /outcome=waived/.test(response.url()) && /firmware=1.12/.test(response.url())
  )
  await page.getByLabel('came out').selectOption('waived')
  const { homes } = (await (await narrowed).json()) as { homes: unknown[] }
  await expect(page.getByRole('list', { name: 'Homes found' }).getByRole('listitem')).toHaveCount(homes.length)
  await page.getByRole('list', { name: 'Homes found' }).getByRole('link').first().click()
  const now = page.getByRole('region', { name: 'What stands there now' })
  await expect(now.getByRole('list', { name: 'Units' })).toContainText('Quillet Reed')
  await expect(now).toContainText('The update stops at 80 %')
  await page.goto('/homes?q=nobody-of-that-name')
  await expect(page.getByText(/No home is found by that/)).toBeVisible()
})

test('two revisions of a home: the last visit with this one, then this one as found and as left', async ({ page }) => {
  await logIn(page, 'wenna', '/homes?q=ferryslip')
  await page.getByRole('link', { name: /9 Ferryslip Terrace/ }).click()
  await page.getByRole('link', { name: 'What changed' }).click()
  await expect(page.getByRole('article', { name: 'Cellar node', exact: true })).toContainText('new')
  await expect(
    page.getByRole('list', { name: 'The plan before and after' }).getByRole('img', { name: /Cellar.*: Cellar node/ })
  ).toBeVisible()
  await expect(page.getByText(/not looked at again yet/)).toBeVisible()
  await page.getByRole('button', { name: 'Exchange' }).click()
  await expect(page.getByRole('article', { name: 'Cellar node', exact: true })).toContainText('gone')
  const sealed = (await page.getByRole('combobox', { name: 'To', exact: true }).locator('option').allTextContents())
    .filter((candidate) => candidate.includes('as left'))
    .at(-1)!
  await page.getByRole('combobox', { name: 'To', exact: true }).selectOption({ label: sealed })
  await page
    .getByRole('combobox', { name: 'From', exact: true })
    .selectOption({ label: sealed.replace('as left', 'as found') })
  await expect(page).toHaveURL(/from=[0-9a-f-]+\.found&to=[0-9a-f-]+\.left/)
  await expect(page.getByRole('region', { name: 'What changed' }).getByRole('article').first()).toBeVisible()
})

test('the customer’s pack as a page: the link is sent, the code told; without the code it stays shut, and it can be ended', async ({
  page,
  browser
}) => {
  test.setTimeout(90_000)
  await logIn(page, 'isolde')
  await page.getByRole('button', { name: 'Everybody’s' }).click()
  await page
    .getByRole('link', { name: /22 Dulse Road/ })
    .first()
    .click()
  await stage(page, 'Hand over')
  const box = page.getByRole('region', { name: 'The pack as a page' })
  await box.getByRole('button', { name: 'Make a link' }).click()
  const address = (await box.getByText(/\/pack#/).textContent())!
  const code = (await box
    .getByText(/Code, to be told by voice/)
    .locator('b')
    .textContent())!
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } })
  const customer = await context.newPage()
  const asked: string[] = []
  customer.on('request', (request) => asked.push(request.url()))
  await customer.goto(address)
  const field = customer.getByLabel(/The code that you were told/)
  await field.fill(code.replace(/\d/g, (digit) => String((Number(digit) + 1) % 10)))
  await customer.getByRole('button', { name: /Open/ }).click()
  await expect(customer.getByRole('alert')).toContainText('4 tries are left')
  await field.fill(code)
  await customer.getByRole('button', { name: /Open/ }).click()
  await expect(customer.getByRole('heading', { name: 'Your home network' })).toBeVisible()
  await expect(customer.getByRole('region', { name: 'For your home' })).toContainText('Tidepool')
  await expect(customer.getByRole('region', { name: 'For your home' }).getByRole('img', { name: 'QR' })).toBeVisible()
  const token = address.split('#')[1]!
  expect(asked.filter((url) => url.replace(/#.*/, '').includes(token))).toEqual([])
  await page.reload()
  await stage(page, 'Hand over')
  await expect(box.getByText(/opened \d/)).toBeVisible()
  await box.getByRole('button', { name: /^End the link/ }).click()
  await expect(box.getByText(/opened \d/)).toHaveCount(0)
  await customer.reload()
  await customer.getByLabel(/The code that you were told/).fill(code)
  await customer.getByRole('button', { name: /Open/ }).click()
  await expect(customer.getByRole('alert')).toContainText('This link has ended')
  await context.close()
})

test('how rules come out: which are waived most, by month and model, and the homes behind a figure', async ({
  page
}) => {
  await logIn(page, 'wenna', '/standard')
  await page.getByRole('link', { name: 'How rules come out' }).click()
  const rules = page.getByRole('region', { name: 'Rules' })
  await rules.getByRole('button', { name: /Firmware approved/i }).click()
  const locator = page.getByRole('region', { name: /firmware approved/i })
  await expect(locator.getByRole('table').last()).toContainText('Quillet Reed')
  await locator.getByText('The same as a table').click()
  await expect(locator.getByRole('table').first()).toContainText(/20\d\d-\d\d/)
  await locator.getByRole('link', { name: 'Homes where it is waived' }).click()
  await expect(page.getByRole('list', { name: 'Homes found' }).getByRole('listitem').first()).toBeVisible()
})
