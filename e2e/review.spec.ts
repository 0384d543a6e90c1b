import { expect, test } from '@playwright/test'
import { choose, logIn, pageOf, saved } from '@pasado/testing/browser-steps'

test('a lead drafts the standard, sees what it would have said of sealed visits, publishes it; an open visit is moved to it', async ({
  page,
  browser
}) => {
  test.setTimeout(150_000)
  await logIn(page, 'wenna', '/standard')
  await page.getByRole('button', { name: 'Draft the next version' }).click()
  // Rules that came with the program are in the next version by themselves.
  await expect(page.getByRole('region', { name: 'What changes' })).toContainText('What was done: not known → must')
  await page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('button', { name: /^Prove/ })
    .click()
  const added = page.getByLabel('Most latency added, ms')
  await added.fill('2000')
  await expect(page.getByText('must be from 0 to 1000')).toBeVisible()
  await added.fill('2')
  await page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('button', { name: /^Hand over/ })
    .click()
  await page.getByRole('button', { name: 'Add a rule of the house' }).click()
  await expect(page.getByRole('region', { name: 'What is wrong' })).toContainText('write the question')
  await page.getByLabel('Question').fill('Is the packaging taken along?')
  await page.getByRole('region', { name: 'Rules of the house' }).getByLabel('Level').selectOption('note')
  await expect(page.getByRole('region', { name: 'What changes' })).toContainText('Most latency added: 20 → 2 ms')

  const sheet = await test.step('The draft outlives leaving the page', async () => {
    await page.goto('/')
    await page.goto('/standard')
    await expect(page.getByText(/Version 2, a draft on this device/)).toBeVisible()
    await page.getByRole('button', { name: 'Publish …' }).click()
    const sheet = page.getByRole('dialog')
    await expect(sheet.getByRole('status')).toContainText(
      /Of the last \d+ sealed visits [1-9]\d* would have been judged otherwise/,
      { timeout: 60_000 }
    )
    await sheet.getByText(/^Room/).first().click()
    await expect(sheet.getByText(/holds → breaks, must/).first()).toBeVisible()
    await sheet.getByRole('button', { name: 'Not yet' }).click()
    return sheet
  })

  await test.step('Too hard: mended to what is meant, then published with a reason', async () => {
    await page
      .getByRole('navigation', { name: 'Stages' })
      .getByRole('button', { name: /^Prove/ })
      .click()
    await added.fill('25')
    await page.getByRole('button', { name: 'Publish …' }).click()
    await expect(sheet.getByRole('status')).toContainText('0 would have been judged otherwise', { timeout: 60_000 })
    await sheet.getByRole('button', { name: 'Publish version 2' }).click()
    await expect(sheet.getByRole('alert')).toContainText('note is missing')
    await sheet.getByLabel('Why this version').fill('Packaging was left behind twice.')
    await sheet.getByRole('button', { name: 'Publish version 2' }).click()
    await expect(page.getByText(/Version 2, in force. Packaging was left behind twice./)).toBeVisible()
    await expect(page.getByRole('region', { name: 'Versions' })).toContainText(
      'New rule of ours: Is the packaging taken along?'
    )

    const isolde = await pageOf(browser, 'isolde')
    await isolde
      .getByRole('link', { name: /18 Slate Walk/ })
      .first()
      .click()
    await isolde.getByRole('button', { name: 'What differs' }).click()
    await isolde.getByRole('button', { name: 'Check this visit by version 2' }).click()
    await expect(isolde.getByText(/is checked by version 1/)).toHaveCount(0)
    await isolde.keyboard.press('8')
    await choose(isolde, 'Is the packaging taken along?', 'Yes')
    await saved(isolde)
    await isolde.context().close()
  })
})

test('a visit in review is judged on one page: waived until a day, sent back with a remark, approved', async ({
  page,
  browser
}) => {
  test.setTimeout(120_000)
  await logIn(page, 'wenna')
  await page
    .getByRole('region', { name: 'Waits for your review' })
    .getByRole('link', { name: /1 Slipway Hard/ })
    .click()
  await expect(page.getByRole('heading', { name: '2 in the way' })).toBeVisible()
  await expect(page.getByRole('region', { name: 'Measured' })).toContainText('The source gives')
  const planned = page
    .getByRole('region', { name: 'Differences from the plan' })
    .getByRole('article', { name: 'Loft extender' })
  await expect(planned).toContainText('Quillet Rush')
  await expect(planned).toContainText('loft landing')
  await expect(planned).toContainText('loft socket')
  await page.getByRole('button', { name: 'Waive: Loft extender: firmware approved' }).click()
  await page.getByLabel('Reason').fill('The maker sends a fixed version.')
  await page.getByLabel('Put right by').fill('2027-01-31')
  await page.getByRole('button', { name: 'Waive this rule' }).click()
  await expect(page.getByText(/Waived by Wenna Tarrow until 2027-01-31/)).toBeVisible()
  await page.getByRole('button', { name: 'Send it back' }).click()
  await expect(page.getByRole('alert')).toContainText('A remark is missing')
  await page.getByLabel('Remark').fill('Please put the extender higher.')
  await page.getByRole('button', { name: 'Send it back' }).click()
  await expect(page.getByText(/Wenna Tarrow sent it back/)).toBeVisible()
  const corin = await pageOf(browser, 'corin')
  await expect(corin.getByRole('link', { name: /1 Slipway Hard/ }).first()).toContainText('back from review')
  await corin.context().close()
  await page.getByRole('button', { name: 'Approve what is here' }).click()
  await expect(page.getByText(/Wenna Tarrow approved it/)).toBeVisible()
})

test('a firmware with a hole leads from the catalogue to the homes that run it, a list to call and a visit to book', async ({
  page
}) => {
  await logIn(page, 'petroc', '/catalogue/ostrel-tern')
  await page.getByRole('link', { name: 'Which homes run which version' }).click()
  await expect(page.getByRole('checkbox', { name: /3\.0\.0.*withdrawn/ })).toBeChecked()
  const call = page.getByRole('region', { name: 'To call' })
  await expect(call).toContainText('9 Ferryslip Terrace')
  await expect(call).toContainText('555-0117')
  const downloading = page.waitForEvent('download')
  await call.getByRole('button', { name: 'As CSV' }).click()
  const { readFileSync } = await import('node:fs')
  expect(readFileSync(await (await downloading).path(), 'utf8')).toMatch(
    /9 Ferryslip Terrace,Great Skerrow,Bram Oskerry,555-0117,Cellar node/
  )
  await call.getByRole('link', { name: 'Book a visit at 9 Ferryslip Terrace' }).click()
  await expect(page.getByLabel('Customer')).toHaveValue('Bram Oskerry')
})
