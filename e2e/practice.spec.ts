import { expect, test, type Page } from '@playwright/test'
import { choose, logIn, newVisit, practise, saved, stage } from '@pasado/testing/browser-steps'

const unitButton = (page: Page, name: string) =>
  page.getByRole('list', { name: 'Units of the house' }).getByRole('button', { name: new RegExp(`${name}`) })
const work = (page: Page, name: string) => page.getByRole('region', { name, exact: true })

/** Goes to a unit of the house and does something at it. */
async function at(page: Page, name: string, button: string | RegExp): Promise<void> {
  await unitButton(page, name).click()
  await work(page, name).getByRole('button', { name: button }).click()
}

/** Lets the house run until an event says something. */
async function until(page: Page, name: string, says: string): Promise<void> {
  const line = page
    .getByRole('list', { name: 'Events, newest first' })
    .getByRole('listitem')
    .filter({ hasText: `${name}: ${says}` })
  await expect(async () => {
    if ((await line.count()) === 0) {
      await page.getByRole('button', { name: 'To what happens next' }).click({ timeout: 1000 })
      expect(await line.count()).toBeGreaterThan(0)
    }
  }).toPass({ timeout: 40_000, intervals: [150] })
}

async function putIn(page: Page, cable: string, a: string, b: string): Promise<void> {
  await page.getByRole('combobox', { name: `${cable}, one end` }).selectOption({ label: a })
  await page.getByRole('combobox', { name: `${cable}, other end` }).selectOption({ label: b })
  await page.getByRole('listitem').filter({ hasText: cable }).getByRole('button', { name: 'Put it in' }).click()
}

/** Logs what a lamp does, and gives what it means. */
async function logLamp(page: Page, visit: string, unit: string, colour: string, pattern: string): Promise<string> {
  await page.goto(`/visit/${visit}/start`)
  await page
    .getByRole('main')
    .getByRole('button', { name: new RegExp(`${unit}`) })
    .first()
    .click()
  await choose(page, 'Colour', colour)
  await choose(page, 'Pattern', pattern)
  const lamps = page.getByRole('region', { name: 'Lamps' })
  const meaning = await lamps.innerText()
  await lamps.getByRole('button', { name: 'Log it' }).click()
  await saved(page)
  return meaning
}

test('a gateway, a router and two nodes are commissioned in the simulated house, a bad cable found by its lamps', async ({
  page
}) => {
  test.setTimeout(180_000)
  await logIn(page, 'isolde')
  await newVisit(page, 'Practice Trial', '1 Practice Lane')
  const { visit, house } = await practise(page, 'Mesh on a coax gateway', [
    'Gateway',
    'Router',
    'Kitchen node',
    'Loft node'
  ])

  await test.step('The line, and the gateway activated', async () => {
    await page.goto(house)
    await choose(page, 'Speed', 'stop')
    await putIn(page, 'Coax 1', 'the line’s outlet', 'Gateway, Cable')
    await at(page, 'Gateway', 'Plug it in')
    await until(page, 'Gateway', 'looking for the line')
    await at(page, 'Gateway', 'Activate at the provider')
    await until(page, 'Gateway', 'online, all is well')
  })

  await test.step('The router by the first cable that comes to hand: it is the bad one', async () => {
    await putIn(page, 'Network cable 1', 'Gateway, 1', 'Router, Internet')
    await at(page, 'Router', 'Plug it in')
    await until(page, 'Router', 'ready to set up')
    await at(page, 'Router', 'Set up by the app')
    await until(page, 'Router', 'no internet')
    expect(await logLamp(page, visit, 'Router', 'amber', 'blinks')).toContain('Check the cable to the modem')
    await page.goto(house)
    await choose(page, 'Speed', 'stop')
    await page
      .getByRole('listitem')
      .filter({ hasText: 'Network cable 1' })
      .getByRole('button', { name: 'Take it out' })
      .click()
    await putIn(page, 'Network cable 2', 'Gateway, 1', 'Router, Internet')
    await expect(page.getByText('link at 1000 Mbit/s')).toBeVisible()
    await until(page, 'Router', 'online, all is well')
  })

  await test.step('Two nodes by their buttons', async () => {
    for (const node of ['Kitchen node', 'Loft node']) {
      await at(page, node, 'Plug it in')
      await until(page, node, 'ready to set up')
      await at(page, 'Router', 'Sync for 1 s')
      await at(page, node, 'Sync for 1 s')
      await until(page, node, 'online, all is well')
    }
    await unitButton(page, 'Loft node').click()
    await work(page, 'Loft node').getByLabel('Carry it to').selectOption('Sail loft')
    await until(page, 'Loft node', 'starting')
    await page.getByRole('link', { name: 'Back to the visit' }).click()

    // What was done is recorded: cable and its speed, method, presses, lamps; read from a unit, the record is corrected by it
    await stage(page, 'Connect')
    const map = page.getByRole('group', { name: 'Port map' })
    await page.getByRole('button', { name: 'outlet of the line' }).click()
    await map.getByRole('button', { name: 'Line outlet, Line, free' }).press('Enter')
    await map.getByRole('button', { name: 'Gateway, Cable, free' }).press('Enter')
    await map.getByRole('button', { name: 'Gateway, 1, free' }).press('Enter')
    await map.getByRole('button', { name: 'Router, Internet, free' }).press('Enter')
    await choose(page, 'Category', 'Cat 6')
    await page.getByRole('button', { name: '1 Gbit/s' }).click()
    await expect(page.getByText('Every cable is as it is to be')).toBeVisible()
    await saved(page)
    await page.goto(`/visit/${visit}/start`)
    await page
      .getByRole('main')
      .getByRole('button', { name: /Kitchen node/ })
      .first()
      .click()
    await choose(page, 'Setup method', 'the Sync buttons')
    const method = page.getByRole('region', { name: 'Setup method' })
    await method.getByRole('button', { name: 'I see it' }).click()
    await method.getByRole('button', { name: 'Pressed on Router' }).click()
    await expect(page.getByRole('list', { name: 'Waits' })).toContainText('pairing window')
    await method.getByRole('button', { name: 'Sync pressed here, on Kitchen node' }).click()
    await method.getByRole('button', { name: 'I see it' }).click()
    await expect(page.getByText('Every step of the Sync buttons is done')).toBeVisible()
    await page.getByRole('button', { name: 'Read from the unit' }).click()
    await page.getByRole('button', { name: 'Take Address from the unit' }).waitFor()
    await expect(page.getByText('device.firmware')).toBeAttached()
    await page.keyboard.press('r')
    await expect(
      page.getByRole('dialog', { name: 'Run plan' }).getByRole('list', { name: 'Tasks in their order' })
    ).toContainText('Sign off')
  })
})

test('an old router is made an access point in the house: its second DHCP server is flagged until it is off', async ({
  page
}) => {
  test.setTimeout(150_000)
  await logIn(page, 'isolde')
  await newVisit(page, 'Practice Trial Two', '2 Practice Lane')
  const { visit, house } = await practise(page, 'An old router made an access point', ['Gateway', 'Old router'])
  await page.goto(house)
  await choose(page, 'Speed', 'stop')
  await at(page, 'Old router', 'Plug it in')
  await until(page, 'Old router', 'running, nothing in the WAN port')
  await putIn(page, 'Network cable 1', 'Gateway, 2', 'Old router, 1')
  await at(page, 'Old router', /^Open its page/)
  await expect(work(page, 'Its own pages')).toContainText('Addresses are given by Gateway and Old router')

  const read =
    await test.step('What the unit tells stands in the record as measured, and the cable is flagged there as well', async () => {
      await page.getByRole('link', { name: 'Back to the visit' }).click()
      const read = async () => {
        await page.goto(`/visit/${visit}/start`)
        await page
          .getByRole('main')
          .getByRole('button', { name: /Old router/ })
          .first()
          .click()
        await page.getByRole('button', { name: /^Read (from the unit|it again)$/ }).click()
      }
      await read()
      await page.getByRole('button', { name: 'Take DHCP server from the unit' }).click()
      await page
        .getByRole('main')
        .getByRole('button', { name: /Gateway/ })
        .first()
        .click()
      await page.getByRole('button', { name: 'Read from the unit' }).click()
      await page.getByRole('button', { name: 'Take DHCP server from the unit' }).click()
      await stage(page, 'Connect')
      const map = page.getByRole('group', { name: 'Port map' })
      await map.getByRole('button', { name: 'Gateway, 2, free' }).press('Enter')
      await map.getByRole('button', { name: 'Old router, 1, free' }).press('Enter')
      await page.getByRole('button', { name: '1 Gbit/s' }).click()
      const wrong = page.getByRole('region', { name: 'What is wrong' })
      await expect(wrong).toContainText('It joins two DHCP servers on one network: Gateway and Old router')
      await saved(page)
      return read
    })

  await test.step('Converted on its own pages: applied page by page, then restarted', async () => {
    await page.goto(house)
    await choose(page, 'Speed', 'stop')
    await at(page, 'Old router', /^Open its page/)
    const pages = work(page, 'Its own pages')
    await pages.getByLabel('Address', { exact: true }).fill('192.168.20.254')
    await pages.getByLabel('DHCP server').selectOption('off')
    await pages.getByRole('button', { name: 'Apply Addresses' }).click()
    await pages.getByRole('combobox', { name: /^Mode/ }).selectOption('access-point')
    await pages.getByRole('button', { name: 'Apply Mode' }).click()
    await expect(pages.getByText('Takes effect after a restart.').first()).toBeVisible()
    await pages.getByRole('button', { name: 'Leave its pages' }).click()
    await work(page, 'Old router').getByRole('button', { name: 'Reset (pin) for 3 s' }).click()
    await page.getByRole('button', { name: 'To what happens next' }).click()
    await at(page, 'Old router', /Open its page at 192.168.20.254/)
    await expect(pages).not.toContainText('Addresses are given by')
    await page.getByRole('link', { name: 'Back to the visit' }).click()
    await read()
    await page.getByRole('button', { name: 'Take DHCP server from the unit' }).click()
    await saved(page)
  })

  await test.step('The house is listened to for the neighbours’ networks', async () => {
    await page.goto(`/visit/${visit}/configure?part=channels`)
    await page.getByRole('button', { name: 'Listen in the simulated house' }).click()
    await expect(page.getByText('6 networks heard in the simulated house')).toBeVisible()
    await saved(page)
    await stage(page, 'Connect')
    await expect(page.getByText('Every cable is as it is to be')).toBeVisible()
  })
})
