import { expect, test, type Page } from '@playwright/test'
import { logIn, newVisit, pageOf, saved, stage } from '@pasado/testing/browser-steps'
import { labelPicture } from './label-pictures'

/** A box is unpacked, and its unit chosen, its label still to be read. */
async function unpack(page: Page, model: RegExp, unit: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a box', exact: true }).click()
  await page.getByRole('button', { name: model }).first().click()
  await page.getByRole('button', { name: 'All of it is here' }).click()
  await page.getByRole('button', { name: `${unit}: read its label` }).click()
  await page.getByRole('button', { name: 'Read its label' }).click()
}

/** Shows a secret of a unit as a technician would, and gives its value. */
async function shown(page: Page, label: string): Promise<string> {
  await page.getByRole('button', { name: `Show: ${label}` }).click()
  await page.getByRole('button', { name: 'checking it' }).click()
  const group = page.getByRole('group', { name: label })
  await expect(group.getByRole('button', { name: 'Hide' })).toBeVisible()
  return (await group.locator('.exact').innerText()).trim()
}

test.describe('a label', () => {
  test('is read from a photo, one field corrected, and the record holds what is printed', async ({ page }) => {
    test.setTimeout(120_000)
    const { file, printed } = await labelPicture('ostrel-heron', 201, 'worn')
    await logIn(page, 'isolde')
    await newVisit(page, 'Label Trial', '1 Sticker Lane')
    await stage(page, 'Kit')
    await unpack(page, /^Ostrel Heron 1 × Heron router/, 'Heron')
    await page.getByLabel('Take or choose a photo').setInputFiles(file)
    const sheet = page.getByRole('dialog')
    await expect(sheet.getByRole('button', { name: /^Take over/ })).toBeVisible({ timeout: 60_000 })
    await expect(sheet.getByText('certain, from its QR code').first()).toBeVisible()
    await expect(sheet.getByRole('textbox', { name: 'Network key' })).toHaveValue(printed.key!)
    await expect(sheet.getByRole('textbox', { name: 'Network name' })).toHaveValue(printed.ssid!)
    // A person corrects what the print left in doubt, whatever it was.
    await sheet.getByRole('textbox', { name: 'Serial' }).fill('misread')
    await expect(sheet.getByText('as you typed it')).toBeVisible()
    for (const [label, value] of [
      ['Serial', printed.serial],
      ['MAC address', printed.mac],
      ['Setup code', printed.setupCode!]
    ] as const)
      await sheet.getByRole('textbox', { name: label }).fill(value)
    await sheet.getByRole('button', { name: 'Take over 5 values' }).click()
    await expect(sheet).toBeHidden()
    await saved(page)
    await expect(page.getByRole('textbox', { name: 'Serial' })).toHaveValue(printed.serial)
    await expect(page.getByRole('textbox', { name: 'MAC address' })).toHaveValue(printed.mac)
    await expect(page.getByRole('button', { name: 'Open: photo of the label' })).toBeVisible({ timeout: 20_000 })
    expect(await shown(page, 'Network key')).toBe(printed.key)
    expect(await shown(page, 'Setup code')).toBe(printed.setupCode)
    await page.reload()
    await expect(page.getByRole('textbox', { name: 'Serial' })).toHaveValue(printed.serial)
    await page.getByRole('button', { name: 'Open: photo of the label' }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'checking it' }).click()
    await expect(page.getByRole('img', { name: 'The photo' })).toBeVisible()
  })

  test('that is no picture says so; one pasted as text is understood', async ({ page }) => {
    await logIn(page, 'isolde')
    await newVisit(page, 'Paste Trial', '2 Sticker Lane')
    await stage(page, 'Kit')
    await unpack(page, /^Quillet Reed/, 'Reed')
    await page
      .getByLabel('Take or choose a photo')
      .setInputFiles({ name: 'label.svg', mimeType: 'image/svg+xml', buffer: Buffer.from('not a picture') })
    await expect(page.getByRole('alert')).toContainText('not a picture')
    await page.getByRole('button', { name: 'Paste its text' }).click()
    await page
      .getByLabel('Everything that stands on the label')
      .fill(
        'Quillet Reed\nSN: QR24L6703   MAC: 00-00-5E-00-53-F4\nWi-Fi name: Reed_EXT53F4   Wi-Fi key: democdef3479\nUser: admin  Password: demo-abc123'
      )
    await page.getByRole('button', { name: 'Find the values' }).click()
    await page.getByRole('button', { name: 'Take over 5 values' }).click()
    await expect(page.getByRole('textbox', { name: 'MAC address' })).toHaveValue('00:00:5e:00:53:f4')
    await expect(page.getByRole('button', { name: 'Show: Login' })).toBeVisible()
  })

  test('of a unit that lives at another home is called out, and its move recorded', async ({ page }) => {
    await logIn(page, 'isolde')
    const there = { serial: 'HE4-7777-ACDE', mac: '02:00:5e:77:00:01' }
    for (const street of ['3 Sticker Lane', '4 Sticker Lane']) {
      await newVisit(page, 'Twin Trial', street)
      await stage(page, 'Kit')
      await unpack(page, /^Ostrel Heron 1 × Heron router/, 'Heron')
      await page.getByRole('button', { name: 'Paste its text' }).click()
      await page
        .getByLabel('Everything that stands on the label')
        .fill(`Ostrel Heron\nS/N ${there.serial}\nMAC ${there.mac}`)
      await page.getByRole('button', { name: 'Find the values' }).click()
      await page.getByRole('dialog').getByRole('checkbox', { name: 'Take over: MAC address' }).check()
      await page.getByRole('button', { name: 'Take over 2 values' }).click()
      await saved(page)
    }
    const called = page.getByRole('group', { name: 'Recorded at another home' })
    await expect(called).toContainText('3 Sticker Lane')
    await called.getByRole('button', { name: 'It was really brought from there' }).click()
    await called.getByRole('textbox', { name: 'Why is it here now?' }).fill('The customer moved house.')
    await called.getByRole('button', { name: 'Record the move' }).click()
    await expect(called).toHaveCount(0)
  })
})

test('a photo of a unit is captioned, kept without the server, and sent when it is back', async ({
  page,
  context,
  browser
}) => {
  const { file } = await labelPicture('quillet-eel', 7, 'clean')
  await logIn(page, 'isolde')
  const address = await newVisit(page, 'Photo Trial', '5 Sticker Lane')
  await stage(page, 'Kit')
  await page.getByRole('button', { name: 'Add a used unit' }).click()
  await page.getByRole('button', { name: /^Oldmere Weir/ }).click()
  await saved(page)
  await context.setOffline(true)
  await page.getByLabel('Add a photo').setInputFiles(file)
  await page.getByLabel('What does it show?').fill('On the beam, cable from below')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('Kept here, waits for the server')).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByRole('button', { name: 'Open: On the beam, cable from below' })).toBeVisible({
    timeout: 45_000
  })
  const other = await pageOf(browser, 'wenna', `${new URL(address).pathname.replace('brief', 'kit')}`)
  const picture = other.getByRole('img', { name: 'On the beam, cable from below' })
  await expect(picture).toBeVisible()
  expect(await picture.evaluate((image: HTMLImageElement) => image.decode().then(() => image.naturalWidth > 100))).toBe(
    true
  )
  await other.context().close()
})

test('a lead edits a model, sees what it does to open visits, publishes it, and a technician moves to it', async ({
  page,
  browser
}) => {
  await logIn(page, 'isolde')
  await newVisit(page, 'Version Trial', '6 Sticker Lane')
  await stage(page, 'Kit')
  await page.getByRole('button', { name: 'Add a box', exact: true }).click()
  await page.getByRole('button', { name: /^Karstine Lintel/ }).click()
  await page.getByRole('button', { name: 'All of it is here' }).click()
  await saved(page)
  const lead = await pageOf(browser, 'wenna', '/catalogue/karstine-lintel/edit?part=prompts')
  await lead.getByRole('button', { name: 'Add: prompt' }).click()
  await expect(lead.getByRole('complementary', { name: 'What is wrong' })).toContainText('prompts[0].text')
  await lead.getByRole('textbox', { name: 'What it asks' }).fill('Share line statistics')
  await lead.getByRole('button', { name: 'Publish …' }).click()
  await expect(lead.getByRole('dialog')).toContainText('1 visit has units of it')
  await lead.getByRole('button', { name: 'Publish version 2' }).click()
  await expect(lead.getByRole('heading', { name: 'Karstine Lintel' })).toBeVisible()
  await expect(lead.getByRole('combobox', { name: 'Version' })).toHaveValue('2')
  await lead.context().close()
  await page.reload()
  await page
    .getByRole('button', { name: /^Lintel/ })
    .last()
    .click()
  await page.getByRole('button', { name: 'See what changed' }).click()
  await expect(page.getByRole('dialog')).toContainText('prompts · prompt-1 added')
  await page.getByRole('button', { name: 'Move to version 2' }).click()
  await expect(page.getByText('this visit began with')).toHaveCount(0)
})
