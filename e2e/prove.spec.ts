import { expect, test, type Page } from '@playwright/test'
import {
  choose,
  enter,
  logIn,
  newVisit,
  pageOf,
  practise,
  saved,
  stage,
  visitWithTrio
} from '@pasado/testing/browser-steps'

const room = (page: Page, name: string) => page.getByRole('listitem', { name: `Room ${name}`, exact: true })

/** Types a run into the form that is open. */
async function typeRun(page: Page, figures: Record<string, string>): Promise<void> {
  const form = page.getByRole('form', { name: 'A run' })
  for (const [label, value] of Object.entries(figures)) await form.getByLabel(label, { exact: true }).fill(value)
  await form.getByRole('button', { name: 'Record this run' }).click()
}

test('rooms are measured by hand, from a list and against the source that ships; what looks wrong is asked about', async ({
  page
}) => {
  test.setTimeout(150_000)
  await logIn(page, 'isolde')
  await visitWithTrio(page, 'Speed Trial', '1 Speed Lane')
  await stage(page, 'Brief')
  await enter(page, 'Paid for, down', '300')
  await page.keyboard.press('m')
  await page.getByRole('button', { name: 'Measure the source' }).click()
  const source = page.getByRole('region', { name: 'Source' })
  await typeRun(page, { 'Latency idle, ms': '-3', 'Down, Mbit/s': '37' })
  await expect(source.getByRole('alert')).toContainText('a latency is never negative')
  await typeRun(page, { 'Latency idle, ms': '9', 'Down, Mbit/s': '37' })
  await expect(page.getByRole('alertdialog')).toContainText('Are these MB/s? Then it is 296 Mbit/s.')
  await page.getByRole('button', { name: 'Yes, take it so' }).click()
  await expect(source).toContainText('296 Mbit/s down')
  await expect(source).toContainText('99 % of what is paid for')

  await test.step('Against the source that ships: a real transfer', async () => {
    await source.getByRole('button', { name: 'Measure from here' }).click()
    await expect(source).toContainText('against our stand-in source', { timeout: 90_000 })
    await page.getByRole('button', { name: /^Take this measurement out/ }).click()
    await expect(source).toContainText('296 Mbit/s down')
  })

  await test.step('Rooms by name; a list with a slip in it; the same list again', async () => {
    await page.getByLabel('Another room').fill('Kitchen')
    await page.getByRole('button', { name: 'Put it on the list' }).click()
    await page.getByLabel('Another room').fill('Loft')
    await page.keyboard.press('Enter')
    const list = {
      name: 'rooms.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(
        'room;band_ghz;signal_dbm;down_mbps;up_mbps;idle_ms\nKitchen;5;-55;210;40;14\nKitchen;5;-55;214;41;13\nKitchen;5;-55;30;41;13\nkitchen;5;-55;212;40;14\nCellar;5;-70;10;1;30'
      )
    }
    await page.getByLabel('From a list (CSV)').setInputFiles(list)
    await expect(page.getByRole('alert')).toContainText('Line 6: there is no room “Cellar”')
    await expect(room(page, 'Kitchen')).toContainText('Median of 4 runs; run 3 stands apart and is counted')
    await expect(room(page, 'Kitchen').getByRole('img', { name: 'holds', exact: true })).toBeVisible()
    await page.getByLabel('From a list (CSV)').setInputFiles(list)
    await expect(page.getByText('rooms.csv was read already. It is not taken twice.')).toBeVisible()
  })

  await test.step('By hand: too slow, and below what its signal carries', async () => {
    await page.getByRole('button', { name: 'Measure Loft' }).click()
    await page.getByLabel('Connected to').selectOption({
      label: (await page.getByLabel('Connected to').getByRole('option', { name: /Heron/ }).first().textContent()) ?? ''
    })
    await page.getByRole('radio', { name: '5 GHz' }).click()
    await typeRun(page, { 'Signal, dBm': '-52', 'Down, Mbit/s': '48', 'Latency idle, ms': '17' })
    await expect(room(page, 'Loft')).toContainText('48 Mbit/s down is below 100')
    await expect(room(page, 'Loft')).toContainText('not a matter of reach')
    await expect(page.getByRole('complementary', { name: 'Docket' })).toContainText('Loft: room')
    await saved(page)
  })
})

test('a room fails, the fault is found in the simulated house and mended, every room holds, and a check is booked and done', async ({
  page,
  browser
}) => {
  test.setTimeout(200_000)
  await logIn(page, 'isolde')
  await newVisit(page, 'Fault Trial', '1 Fault Lane')
  await enter(page, 'Paid for, down', '300')
  const { visit, house } = await practise(page, 'Nothing in the shed', ['Gateway', 'Router', 'Shed node'])
  await stage(page, 'Prove')
  for (const name of ['Hall', 'Rope walk', 'Shed']) {
    await page.getByLabel('Another room').fill(name)
    await page.keyboard.press('Enter')
  }
  await page.getByRole('button', { name: 'Measure in the simulated house' }).click()
  await expect(room(page, 'Hall').getByRole('img', { name: 'holds', exact: true })).toBeVisible()
  await expect(room(page, 'Shed').getByRole('img', { name: 'breaks', exact: true })).toBeVisible()

  const mend = await test.step('A conversation of taps, each answered by looking in the house', async () => {
    await page.getByRole('tab', { name: /Find the fault/ }).click()
    await page.getByLabel('What does not work').selectOption({ label: 'Shed node' })
    await page.getByLabel('In which room').selectOption({ label: 'Shed' })
    await page.getByRole('button', { name: 'Find the fault', exact: true }).click()
    const next = page.getByRole('group', { name: 'Look at this next' })
    const mend = page.getByRole('group', { name: 'Mend this' })
    await expect(next.or(mend)).toBeVisible()
    for (let turn = 0; turn < 12 && (await next.isVisible()); turn++) {
      const asks = await next.getByRole('heading').innerText()
      await next.getByRole('button', { name: 'Look in the house' }).click()
      await expect(mend.or(next.filter({ hasNotText: asks }))).toBeVisible()
    }
    await expect(mend).toContainText('Its radio is off')
    await page
      .getByRole('region', { name: 'Causes' })
      .getByRole('button', { name: /Its radio is off/ })
      .click()
    await expect(page.getByRole('region', { name: 'Causes' })).toContainText('For it')
    await saved(page)
    return mend
  })

  await test.step('Mended in the house', async () => {
    await page.goto(house)
    await choose(page, 'Speed', 'stop')
    await page
      .getByRole('list', { name: 'Units of the house' })
      .getByRole('button', { name: /Shed node/ })
      .click()
    await page
      .getByRole('region', { name: 'Shed node', exact: true })
      .getByRole('button', { name: /^Open its page/ })
      .click()
    const pages = page.getByRole('region', { name: 'Its own pages', exact: true })
    await pages.getByLabel('Radio').selectOption('on')
    await pages.getByRole('button', { name: 'Apply Wi-Fi' }).click()
    await page.getByRole('link', { name: 'Back to the visit' }).click()
    await page.goto(`/visit/${visit}/prove?part=fault`)
    await mend.getByRole('button', { name: 'Mended: it works now' }).click()
    await expect(page.getByRole('region', { name: 'Faults found' })).toContainText(
      'Its radio is off, Shed node, Shed: mended, and it works.'
    )
  })

  await test.step('Proven again: every room holds, the path of the node too', async () => {
    await page.getByRole('tab', { name: /Rooms/ }).click()
    await page.getByRole('button', { name: 'Measure in the simulated house' }).click()
    for (const name of ['Hall', 'Rope walk', 'Shed'])
      await expect(room(page, name).getByRole('img', { name: 'holds', exact: true })).toBeVisible()
    await page.getByRole('tab', { name: /Units/ }).click()
    await page.getByRole('button', { name: 'Read the path of Shed node from the house' }).click()
    await expect(page.getByRole('listitem', { name: 'Proof of Shed node' })).toContainText(
      'no range of this home is recorded'
    )
    await stage(page, 'Configure')
    await page.getByRole('button', { name: 'Add a segment' }).click()
    await enter(page, 'Range', '192.168.50.0/24')
    await page.getByRole('button', { name: 'Add its DHCP pool' }).click()
    await page.getByRole('combobox', { name: 'DHCP server' }).selectOption({ label: 'Router' })
    // Nobody has said yet what network could have been joined.
    await stage(page, 'Prove')
    await page.getByRole('tab', { name: /Units/ }).click()
    await expect(page.getByRole('listitem', { name: 'Proof of Shed node' })).toContainText('no network of this home')
    await stage(page, 'Configure')
    await page.getByRole('tab', { name: /Wi-Fi/ }).click()
    await page.getByLabel('The home’s name on the air').fill('Turnstone')
    await page.getByRole('button', { name: 'Record these networks' }).click()
    await stage(page, 'Prove')
    await page.getByRole('tab', { name: /Units/ }).click()
    // Who serves which range was said after it: whoever was seen may have been served by another.
    await expect(page.getByRole('listitem', { name: 'Proof of Shed node' })).toContainText('was set since')
    await page.getByRole('button', { name: 'Read the path of Shed node from the house' }).click()
    await expect(page.getByRole('listitem', { name: 'Proof of Shed node' })).toContainText('1 on it after 0')
  })

  await test.step('The look when it has settled: booked, in the day, done', async () => {
    await page.getByRole('tab', { name: /Home/ }).click()
    await page.getByRole('button', { name: 'Book 4 hours from then' }).click()
    await expect(page.getByRole('region', { name: 'Check when settled' })).toContainText('it stands in the day then')
    await saved(page)
    await page.goto('/')
    await page
      .getByRole('region', { name: 'Checks due' })
      .getByRole('link', { name: /1 Fault Lane/ })
      .click()
    await page.getByLabel('Signal, dBm in Shed now').fill('-79')
    await page.getByLabel('Down, Mbit/s in Shed now').fill('60')
    await expect(room(page, 'Shed')).toContainText('-79 dBm is below -67 dBm')
    await page.getByLabel('Down, Mbit/s in Hall now').fill('290')
    await page.getByRole('button', { name: 'The check is done' }).click()
    await expect(page.getByText(/^.*Done .* by Isolde Marram/)).toBeVisible()
    await expect(room(page, 'Hall')).toContainText('As it was.')
    const office = await pageOf(browser, 'petroc')
    await expect(office.getByRole('link', { name: /1 Fault Lane/ }).first()).toBeVisible()
    await expect(
      office.getByRole('region', { name: 'Checks due' }).getByRole('link', { name: /1 Fault Lane/ })
    ).toHaveCount(0)
    await office.context().close()
  })
})
