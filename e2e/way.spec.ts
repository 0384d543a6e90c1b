import { readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import { v7 as uuidv7 } from 'uuid'
import { logIn, pageOf } from '@pasado/testing/browser-steps'

test('the way through a day: how far it is typed once, a better order taken over, the day as a calendar', async ({
  page,
  browser
}) => {
  test.setTimeout(90_000)
  const office = await pageOf(browser, 'petroc', '/day/ways')
  await office.getByRole('button', { name: 'Add hours for Great Skerrow' }).click()
  await office.getByRole('textbox', { name: 'From' }).fill('05:00')
  await office.getByRole('textbox', { name: 'To' }).fill('04:00')
  await office.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(office.getByRole('alert')).toContainText('must be later than its beginning')
  await office.getByLabel('Minutes within Little Skerrow').fill('7')
  await office.getByLabel('Minutes within Little Skerrow').press('Enter')
  await office.reload()
  await expect(office.getByLabel('Minutes within Little Skerrow')).toHaveValue('7')
  await office.context().close()

  await test.step('Early in the morning: what was to begin by now is no longer moved.', async () => {
    await page.clock.setFixedTime(new Date(new Date().setUTCHours(6, 0, 0, 0)))
  })
  const { way, first, back } =
    await test.step('A day of her own: four homes on three isles, in an order that goes to and fro.', async () => {
      await logIn(page, 'wenna')
      const { person } = (await (await page.request.get('/api/session')).json()) as { person: { id: string } }
      const midnight = new Date(new Date().toISOString().slice(0, 10)).getTime()
      for (const [at, [street, town]] of (
        [
          ['1 Ebb Way', 'Great Skerrow'],
          ['2 Ebb Way', 'Ness Skerrow'],
          ['3 Ebb Way', 'Great Skerrow'],
          ['4 Ebb Way', 'Little Skerrow']
        ] as const
      ).entries()) {
        const sent = await page.request.post('/api/visits', {
          data: {
            id: uuidv7(),
            home: uuidv7(),
            customer: uuidv7(),
            technician: person.id,
            brief: {
              customerName: `Tidal ${at}`,
              street,
              town,
              plannedAt: new Date(midnight + (9 + at * 2) * 3_600_000).toISOString()
            }
          }
        })
        expect(sent.status()).toBe(201)
      }
      await page.reload()
      await page.getByRole('button', { name: 'Mine' }).click()
      const way = page.getByRole('region', { name: 'The way through the day' })
      await expect(way.getByText(/Back/)).toBeVisible({ timeout: 20_000 })
      const first = way.getByRole('textbox', { name: /^Minutes from the depot/ })
      await first.fill('ages')
      await first.press('Enter')
      await expect(way.getByRole('alert')).toContainText('Whole minutes')
      const back = await way.getByText(/^Back/).textContent()
      await first.fill('200')
      await first.press('Enter')
      await expect(way.getByText(/min late/).first()).toBeVisible()
      return { way, first, back }
    })
  await test.step('Ferries that end too early make it a day that cannot be done', async () => {
    const office2 = await pageOf(browser, 'petroc', '/day/ways')
    await office2.getByRole('button', { name: 'Take 08:00 to 18:00 of Ness Skerrow out' }).click()
    await office2.getByRole('button', { name: 'Add hours for Ness Skerrow' }).click()
    await office2.getByRole('textbox', { name: 'From' }).fill('05:00')
    await office2.getByRole('textbox', { name: 'To' }).fill('05:01')
    await office2.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(office2.getByText('05:00 to 05:01')).toBeVisible()
    await page.reload()
    await page.getByRole('button', { name: 'Mine' }).click()
    await expect(way.getByText('In no order can this day be done')).toBeVisible({ timeout: 20_000 })
    await office2.getByRole('button', { name: 'Take 05:00 to 05:01 of Ness Skerrow out' }).click()
    await expect(office2.getByText('05:00 to 05:01')).toHaveCount(0)
    await office2.context().close()
    await page.reload()
    await page.getByRole('button', { name: 'Mine' }).click()
    await first.fill('15')
    await first.press('Enter')
    await expect(way.getByText(back!.slice(0, 10)).first()).toBeVisible()
    const better = way.getByRole('region', { name: 'A better order' })
    const order = await better.getByRole('listitem').allTextContents()
    await better.getByRole('button', { name: 'Set these times' }).click()
    await expect(better.getByRole('group', { name: 'Move these visits?' })).toContainText('said yes')
    await better.getByRole('button', { name: 'Yes: move them' }).click()
    await expect(better).toHaveCount(0, { timeout: 20_000 })
    const today = page.getByRole('region', { name: 'Today' })
    await expect(today.getByRole('link').first()).toContainText(order[0]!.slice(0, 5))
    const file = page.waitForEvent('download')
    await page.getByRole('button', { name: 'As calendar' }).click()
    const text = readFileSync(await (await file).path(), 'utf8')
    expect(text).toMatch(/^BEGIN:VCALENDAR[\s\S]*BEGIN:VEVENT[\s\S]*END:VCALENDAR\s*$/)
  })
})
