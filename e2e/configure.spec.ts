import { BinaryBitmap, HybridBinarizer, QRCodeReader, RGBLuminanceSource } from '@zxing/library'
import sharp from 'sharp'
import { expect, test } from '@playwright/test'
import { enter, logIn, newVisit, saved, stage, visitWithTrio } from '@pasado/testing/browser-steps'

test('a range with a clash that is mended, a pool that is moved, clients pasted, a conversion worked out', async ({
  page
}) => {
  test.setTimeout(120_000)
  await logIn(page, 'isolde')
  await newVisit(page, 'Range Trial', '1 Range Lane')
  await stage(page, 'Kit')
  await page.getByRole('button', { name: 'Add a used unit' }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /Weir 300/ })
    .click()
  await enter(page, 'Name', 'Old router')
  await page
    .getByRole('radiogroup', { name: 'Role' })
    .getByRole('radio', { name: /access point/i })
    .click()
  await saved(page)
  await stage(page, 'Configure')
  const conversion = page.getByRole('region', { name: 'Conversion of Old router' })
  await expect(conversion).toContainText('Record the main router’s range first')
  await page.getByRole('button', { name: 'Add a segment' }).click()
  await enter(page, 'Range', '192.168.70.0/24')
  await enter(page, 'Gateway', '192.168.70.1')
  await page.getByRole('button', { name: 'Add its DHCP pool' }).click()

  await test.step('Worked out: the address that is free, and the steps', async () => {
    await expect(conversion).toContainText('192.168.70.254')
    await conversion.getByRole('button', { name: 'Record 192.168.70.254 for it' }).click()
    await expect(
      conversion
        .getByRole('list', { name: 'Steps for Old router' })
        .getByRole('listitem')
        .filter({ hasText: 'Own address 192.168.70.254' })
    ).toContainText('recorded')
  })

  await test.step('A pool that would swallow it says so before it is moved', async () => {
    await page.getByRole('button', { name: 'Move or grow it' }).click()
    const move = page.getByRole('group', { name: 'Move or grow the pool' })
    await move.getByLabel('to', { exact: true }).fill('192.168.70.254')
    await expect(move).toContainText('This would then be wrong')
    await expect(move).toContainText('192.168.70.254 may be handed to another device')
    await move.getByLabel('to', { exact: true }).fill('192.168.70.220')
    await expect(move).toContainText('121 addresses. Nothing else changes.')
    await move.getByRole('button', { name: 'Do it' }).click()
    await expect(page.getByRole('textbox', { name: 'Pool to' })).toHaveValue('192.168.70.220')
  })

  await test.step('Clients pasted: one clashes, and is mended', async () => {
    await page.getByText('What is on it: paste the router’s list of clients').click()
    await page
      .getByRole('textbox', { name: 'List of clients' })
      .fill(
        'Name\tIP\tMAC\nScale\t192.168.70.254\t02:00:5e:10:00:40\nPrinter\t192.168.70.140\t02:00:5e:10:00:41\nBuoy\t10.9.9.9'
      )
    await expect(page.getByRole('row', { name: /Buoy/ })).toContainText('outside this range')
    await expect(page.getByRole('row', { name: /Scale.*192\.168\.70\.254/ })).toContainText('recorded')
    await page.getByRole('button', { name: 'Record 192.168.70.140 as fixed' }).click()
    const printer = page.getByRole('listitem', { name: 'Address of Printer' })
    await expect(printer.getByRole('textbox', { name: 'Address', exact: true })).toHaveValue('192.168.70.140')
    await enter(printer, 'Address', '192.168.70.254')
    const docket = page.getByRole('complementary', { name: 'Docket' })
    await expect(docket.getByText(/192\.168\.70\.254/).first()).toBeVisible()
    await enter(printer, 'Address', '192.168.70.140')
    await saved(page)
  })
})

test('channels are planned against neighbours from a list, recorded, and a slip is told', async ({ page }) => {
  test.setTimeout(120_000)
  await logIn(page, 'isolde')
  await visitWithTrio(page, 'Channel Trial', '1 Channel Lane')
  await stage(page, 'Configure')
  await page.getByRole('tab', { name: /Channels/ }).click()
  const put = (text: string) =>
    page
      .getByLabel('From a list (CSV)')
      .setInputFiles({ name: 'heard.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  await put('band_ghz;channel\n2,4;1')
  await expect(page.getByRole('alert')).toContainText('the column signal_dbm is missing')
  await put(
    'signal_dbm;band_ghz;channel;busy_percent\n-50;2,4;1;80\n-50;2,4;11;80\n-40;5;36;90\n-45;5;44;90\n-93;5;200;1\n'
  )
  await expect(page.getByText('4 networks noted').or(page.getByText('5 networks noted'))).toBeVisible()
  await expect(page.getByText(/and no plan loses less/)).toBeVisible({ timeout: 20_000 })
  await page.getByRole('button', { name: 'Record the plan' }).click()
  await expect(page.getByRole('button', { name: 'The plan is recorded' })).toBeVisible({ timeout: 20_000 })
  await expect(page.getByText(/As set now/)).toBeVisible({ timeout: 20_000 })
  const heron = page.getByRole('combobox', { name: 'Channel of Heron, 2.4 GHz' })
  await expect(heron).toHaveValue(/^(1|6|11)$/)
  await expect(page.getByRole('tab', { name: /Channels/ })).not.toContainText('open')

  // The same spectrum for two that hear each other is told
  const [router, node] = [
    page.getByRole('combobox', { name: 'Channel of Heron, 2.4 GHz' }),
    page.getByRole('combobox', { name: /^Channel of Tern.*2\.4 GHz/ }).first()
  ]
  await node.selectOption(await router.inputValue())
  await expect(page.getByRole('complementary', { name: 'Docket' })).toContainText('share spectrum at 2.4 GHz')
})

test('a QR on the bench gives back the name and the passphrase; the other pages reckon', async ({ page }) => {
  await logIn(page, 'isolde', '/bench/qr')
  await page.getByRole('textbox', { name: /^Name/ }).fill('Gull; "two" 🐦')
  await page.getByRole('textbox', { name: 'Passphrase' }).fill('pässword-demo')
  await expect(page.getByRole('alert')).toContainText('Passphrase')
  await page.getByRole('textbox', { name: 'Passphrase' }).fill('demo-kelp,harbour:42')
  await expect(page.getByText(/: \d of 4/)).toBeVisible({ timeout: 15_000 })
  await expect(page.getByText('on one graphics card')).toBeVisible()
  const picture = await page.getByRole('img', { name: /^QR code to join/ }).screenshot()
  const { data, info } = await sharp(picture).resize(720).greyscale().raw().toBuffer({ resolveWithObject: true })
  const read = new QRCodeReader().decode(
    new BinaryBitmap(new HybridBinarizer(new RGBLuminanceSource(new Uint8ClampedArray(data), info.width, info.height)))
  )
  expect(read.getText()).toBe('WIFI:T:WPA;S:Gull\\; \\"two\\" 🐦;P:demo-kelp\\,harbour\\:42;;')
  await page.goto('/bench/addresses')
  await expect(page.getByText('is free', { exact: true })).toBeVisible()
  await expect(page.getByText(/camera/).last()).toBeVisible()
  await page.goto('/bench/firmware')
  await page.getByLabel('Model').selectOption({ label: 'Ostrel Heron' })
  await expect(page.getByText(/2\.8\.1 → 3\.0\.2 → 3\.1\.0/)).toBeVisible()
  await page.goto('/bench/channels')
  await expect(page.getByText('Choose the country.')).toBeVisible()
  await page.getByLabel('Country').selectOption('Skerrow Isles')
  await expect(page.getByText('No choice loses less: proven.')).toBeVisible({ timeout: 20_000 })
  await page.getByLabel('Own radios').fill('0')
  await expect(page.getByRole('alert')).toContainText('must be a whole number from 1 to 8')
  await page.getByRole('link', { name: /^Rate/ }).click()
  await expect(page.getByText('Mbit/s on the air').first()).toBeVisible()
})

test('networks are named by the school, an old device gets one apart, and a unit’s dump is held against what is wanted', async ({
  page
}) => {
  test.setTimeout(120_000)
  await logIn(page, 'isolde')
  await visitWithTrio(page, 'Name Trial', '1 Name Lane')
  await stage(page, 'Configure')
  await page.getByRole('tab', { name: /Wi-Fi/ }).click()
  const names = page.getByRole('region', { name: 'Names by the school' })
  const base = names.getByLabel('The home’s name on the air')
  await base.fill('Name Trial')
  await expect(names.getByRole('alert')).toContainText('who lives here')
  await base.fill('Turnstone ')
  await expect(names.getByRole('alert')).toContainText('blank at an end')
  await base.fill('Turnstone 🐦')
  await expect(names.getByRole('list', { name: 'Proposed networks' }).getByRole('listitem')).toHaveCount(1)
  const devices = page.getByRole('region', { name: 'The customer’s devices' })
  await devices.getByRole('button', { name: 'Add a device: Printer' }).click()
  await devices.getByRole('combobox', { name: 'Can do at best' }).selectOption({ label: 'WPA with TKIP' })
  await expect(devices.getByRole('status')).toContainText('Printer cannot join that')
  await expect(names.getByRole('listitem').filter({ hasText: 'Turnstone 🐦-old' })).toContainText('kept apart')
  await names.getByRole('button', { name: 'Record these networks' }).click()
  await expect(names.getByRole('button', { name: 'These are recorded' })).toBeVisible()
  await expect(page.getByRole('region', { name: /^Network / })).toHaveCount(2)
  await saved(page)

  await page.getByRole('tab', { name: /Compare/ }).click()
  const heron = page.getByRole('region', { name: 'Read from Heron', exact: true })
  await heron.getByLabel('Dump of Heron').setInputFiles({
    name: 'heron.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('device.firmware=2.8.1\nwifi.ssid=OSTREL-FF\nmode=router\nmode=bridge\n')
  })
  await expect(heron.getByRole('alert')).toContainText('mode')
  await expect(heron.getByRole('row', { name: /Network name Turnstone 🐦 Turnstone 🐦 OSTREL-FF/ })).toContainText(
    'mend it on the unit'
  )
  await expect(heron.getByRole('row', { name: /Firmware/ })).toContainText('mend it on the unit')
})
