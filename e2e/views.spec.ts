import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { logIn, stage } from '@pasado/testing/browser-steps'
import { axeFaults } from './axe'

const sizes = [
  { width: 1280, height: 800 },
  { width: 390, height: 844 }
]

/**
 * axe finds nothing, and nothing is wider than the screen. What another light or size has been asked already is not asked again:
 * in the dark colours only, on a phone all but colours, on a phone in the dark the width alone. On a wide screen in daylight colours
 * everywhere, and all else where a view is laid out in another way than on a phone.
 */
const laidOutAnew = new Set([
  'day',
  'Kit',
  'Place',
  'Connect',
  'practice',
  'Start up',
  'Configure',
  'Sign off',
  'model'
])

const aroundStages = ['aside[aria-label="Docket"]', 'header', 'nav[aria-label="Strand"]', 'footer']

async function isSound(page: Page, name: string): Promise<void> {
  const { dark, small } = await page.evaluate(() => ({
    dark: matchMedia('(prefers-color-scheme: dark)').matches,
    small: innerWidth < 1000
  }))
  // What stands around every stage of a visit is asked once, at its first.
  const around = /\/visit\/[0-9a-f]/.test(page.url()) && name !== 'Brief' ? aroundStages : []
  const anew = laidOutAnew.has(name)
  if (!small)
    expect.soft(await axeFaults(page, { colours: dark || !anew ? 'only' : 'too', except: around }), name).toEqual([])
  else if (!dark) expect.soft(await axeFaults(page, { colours: 'not', except: around }), name).toEqual([])
  const overflow = await page.evaluate(
    () => document.documentElement.scrollWidth - document.documentElement.clientWidth
  )
  expect.soft(overflow, `${name} is wider than the screen`).toBeLessThanOrEqual(0)
}

for (const colorScheme of ['light', 'dark'] as const) {
  for (const viewport of sizes) {
    test(`every view is sound in ${colorScheme} at ${viewport.width} × ${viewport.height}`, async ({ browser }) => {
      test.setTimeout(480_000)
      const context = await browser.newContext({ viewport, colorScheme, reducedMotion: 'reduce' })
      const page = await context.newPage()
      await page.goto('/login')
      await expect(page.getByRole('heading', { name: 'Pasado' })).toBeVisible()
      await isSound(page, 'login')
      await logIn(page, 'wenna')
      await expect(page.getByText('9 Ferryslip Terrace').first()).toBeVisible()
      await isSound(page, 'day')
      await page.getByRole('button', { name: /The way of Isolde/ }).click()
      await expect(page.getByRole('region', { name: 'The way through the day' }).getByText(/Back/)).toBeVisible({
        timeout: 20_000
      })
      await isSound(page, 'day')
      await page.goto('/visit/new')
      await expect(page.getByRole('button', { name: 'Open the visit' })).toBeVisible()
      await isSound(page, 'new visit')
      await page.goto('/homes')
      await page.getByLabel('Find a home').fill('ferry')
      await expect(page.getByText('by street')).toBeVisible()
      await isSound(page, 'homes')
      await page.getByRole('link', { name: /9 Ferryslip Terrace/ }).click()
      await expect(page.getByText(/sealed \d/).first()).toBeVisible()
      await isSound(page, 'home')
      await page.getByRole('link', { name: 'What changed' }).click()
      await expect(page.getByRole('region', { name: 'What changed' })).toBeVisible()
      await isSound(page, 'comparison')
      await page.goto('/standard/figures')
      await expect(page.getByRole('region', { name: 'Rules' })).toBeVisible()
      await isSound(page, 'figures')
      await page.goto('/day/ways')
      await expect(page.getByRole('region', { name: 'How far it is' })).toBeVisible()
      await isSound(page, 'ways')
      await page.goto('/parts')
      await expect(page.getByRole('region', { name: 'Passphrase, judged' })).toBeVisible({ timeout: 30_000 })
      await isSound(page, 'parts')
      await page.getByRole('button', { name: 'Open a sheet' }).click()
      await expect(page.getByRole('dialog', { name: 'A sheet' })).toBeVisible()
      await isSound(page, 'parts')
      await page.goto('/people')
      await expect(page.getByRole('list', { name: 'Everybody' })).toContainText('Corin Saltway')
      await isSound(page, 'people')
      await page.goto('/pack#guessed')
      await expect(page.getByRole('button', { name: /Open/ })).toBeVisible()
      await isSound(page, 'pack page, shut')
      await page.goto('/catalogue')
      await expect(page.getByRole('link', { name: /Brackwater L2/ })).toBeVisible()
      await isSound(page, 'catalogue')
      await page.getByRole('link', { name: /Brackwater L2/ }).click()
      await expect(page.getByRole('heading', { name: 'Brackwater L2' })).toBeVisible()
      await isSound(page, 'model')
      await page.goto('/bench/link')
      await expect(page.getByText('Where it goes')).toBeVisible()
      await isSound(page, 'bench')
      await page.goto('/practice')
      await page.getByRole('button', { name: 'Go in' }).first().click()
      await expect(page.getByRole('heading', { name: 'What happened' })).toBeVisible()
      // Its clock stands still, so that what is asked of the page is asked of one page.
      await page.getByRole('radio', { name: 'stop' }).click()
      await isSound(page, 'practice')
      for (const part of ['lamps', 'moves', 'box']) {
        await page.goto(`/catalogue/brackwater-l2/edit?part=${part}`)
        await expect(page.getByRole('heading', { name: 'Nothing is wrong with it' })).toBeVisible()
        await isSound(page, `model editor, ${part}`)
      }
      await page.goto('/homes?q=ferry')
      await page.getByRole('link', { name: /9 Ferryslip Terrace/ }).click()
      await page
        .getByRole('link', { name: /19 open|\d+ open/ })
        .first()
        .click()
      for (const name of [
        'Brief',
        'Kit',
        'Place',
        'Connect',
        'Start up',
        'Configure',
        'Prove',
        'Hand over',
        'Sign off'
      ]) {
        await stage(page, name)
        await expect(page.getByRole('heading', { level: 2 }).first()).toBeVisible()
        await isSound(page, name)
        if (name === 'Kit') {
          await page
            .getByRole('button', { name: /Ostrel Tern/ })
            .first()
            .click()
          await isSound(page, 'box')
          await page
            .getByRole('button', { name: /label read/ })
            .first()
            .click()
          await page.getByRole('button', { name: 'Read its label' }).click()
          await page.getByRole('button', { name: 'Paste its text' }).click()
          await page
            .getByLabel('Everything that stands on the label')
            .fill('Ostrel Tern\nS/N TE1-1234-ACDE\nMAC 00:00:5E:00:53:99\nSetup code DEMO-1234-ACDE')
          await page.getByRole('button', { name: 'Find the values' }).click()
          await isSound(page, 'label')
          await page.keyboard.press('Escape')
        }
        if (name === 'Sign off') {
          await page.getByRole('button', { name: /^\d+ holds$/ }).click()
          const what = page.getByRole('dialog', { name: 'What holds' })
          await what.getByText('Rests on', { exact: true }).first().click()
          await expect(what.locator('ol li').first()).toBeVisible()
          await isSound(page, 'what holds')
          await page.keyboard.press('Escape')
        }
        const partsOf = {
          Configure: ['Wi-Fi', 'Channels', 'Logins', 'Firmware', 'Compare'],
          Prove: ['Units', 'Home', 'Find the fault']
        }[name]
        for (const part of partsOf ?? []) {
          await page.getByRole('tab', { name: new RegExp(part) }).click()
          await isSound(page, part)
        }
      }
      await page.getByRole('button', { name: 'Logbook' }).click()
      await expect(page.getByRole('dialog', { name: 'Logbook' })).toBeVisible()
      await isSound(page, 'logbook')
      await page.keyboard.press('Escape')
      await page.keyboard.press('Control+k')
      await expect(page.getByRole('dialog', { name: 'Do anything' }).getByRole('option').first()).toBeVisible()
      await isSound(page, 'do anything')
      // By its home: another test may have approved it by now, and then it no longer waits in the Day.
      await page.goto('/homes?q=slipway')
      await page.getByRole('link', { name: /1 Slipway Hard/ }).click()
      await page
        .getByRole('link', { name: /\d+ open/ })
        .first()
        .click()
      await page.waitForURL(/\/visit\//)
      await page.goto(page.url().replace(/visit\/([^/]+).*/, 'review/$1'))
      await expect(page.getByRole('region', { name: 'Differences from the plan' })).toBeVisible()
      await isSound(page, 'review')
      await page.goto('/standard')
      await expect(page.getByRole('heading', { name: 'The standard' })).toBeVisible()
      await isSound(page, 'standard')
      await context.close()
    })
  }
}

test('homes are found by name, street, serial and MAC address', async ({ page }) => {
  await logIn(page, 'petroc', '/homes')
  const find = page.getByLabel('Find a home')
  for (const [wanted, by] of [
    ['oskerry', 'by name'],
    ['ferrysl', 'by street'],
    ['00:00:5e:00:53:21', 'by MAC address']
  ] as const) {
    await find.fill(wanted)
    await expect(page.getByRole('link', { name: /9 Ferryslip Terrace/ })).toContainText(by)
  }
  await page.getByRole('link', { name: /9 Ferryslip Terrace/ }).click()
  await page
    .getByRole('link', { name: /sealed/ })
    .last()
    .click()
  await expect(page.getByRole('heading', { name: /^Sealed \d/ })).toBeVisible()
})

test('the docket leads to the very field that mends', async ({ page }) => {
  await logIn(page, 'isolde')
  await page.getByRole('link', { name: /9 Ferryslip Terrace/ }).click()
  const docket = page.getByRole('complementary', { name: 'Docket' })
  await docket.getByRole('button', { name: /Cellar node: address 192\.169/ }).click()
  await expect(page.getByRole('textbox', { name: 'Address of Cellar node' })).toBeFocused()
  await docket.getByRole('button', { name: /Cellar node: firmware approved/ }).click()
  await expect(
    page.getByRole('listitem', { name: 'Firmware of Cellar node' }).getByRole('textbox', { name: 'After' })
  ).toBeFocused()
})

test('the first load is under 200 kB, and the API’s answers are not compressed', async ({ page }) => {
  const client = await page.context().newCDPSession(page)
  await client.send('Network.enable')
  // What ships with the program; the day's own data grow with the company.
  let octets = 0
  const data = new Set<string>()
  client.on('Network.requestWillBeSent', ({ requestId, request }) => {
    if (new URL(request.url).pathname.startsWith('/api/')) data.add(requestId)
  })
  client.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (!data.has(requestId)) octets += encodedDataLength
  })
  await logIn(page, 'isolde')
  await expect(page.getByText('4 Lantern Rise').first()).toBeVisible()
  const fonts = await page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .filter(({ name }) => name.endsWith('.woff2'))
      .reduce((sum, entry) => sum + (entry as PerformanceResourceTiming).transferSize, 0)
  )
  expect(octets - fonts).toBeLessThan(200_000)
  const answer = await page.request.get('/api/session', { headers: { 'accept-encoding': 'gzip, br' } })
  expect(answer.headers()['content-encoding']).toBeUndefined()
})

test('what is worked out beside the screen and breaks off is told of, and works again at the next try', async ({
  page
}) => {
  await logIn(page, 'wenna', '/bench/qr')
  await page
    .context()
    .route(/strength\.worker/, (route) =>
      route.fulfill({ contentType: 'text/javascript', body: 'throw new Error("broken")' })
    )
  await page.getByRole('textbox', { name: 'Passphrase' }).fill('demo-plover-42')
  await expect(page.getByRole('alert')).toContainText('How strong a passphrase is could not be worked out here')
  await page.context().unroute(/strength\.worker/)
  await page.getByRole('button', { name: 'Put away' }).click()
  await page.getByRole('textbox', { name: 'Passphrase' }).fill('demo-plover-43')
  await expect(page.getByText('4 of 4')).toBeVisible()
  await expect(page.getByRole('alert')).toHaveCount(0)
})

test('a model acts out each of its states, and a lead publishes its next version with the faults told as it is typed', async ({
  page
}) => {
  await logIn(page, 'wenna', '/catalogue')
  await page.getByLabel('Find a model').fill('lattice')
  await page.getByRole('link', { name: /Fenmarrow Lattice 3/ }).click()
  const front = page.getByRole('group', { name: 'Front of Lattice 3' })
  await expect(front.getByRole('img', { name: 'green, steady' })).toBeVisible()
  const states = page.getByRole('group', { name: 'States and moves' })
  for (const [meaning, look] of [
    ['ready to pair', 'blue, slow pulse'],
    ['updating', 'blue and white, in turn'],
    ['no internet', 'red, steady']
  ] as const) {
    await states.getByRole('button', { name: meaning }).click()
    await expect(front.getByRole('img', { name: look })).toBeVisible()
  }
  const saving = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as JSON' }).click()
  const model = JSON.parse(readFileSync(await (await saving).path(), 'utf8')) as {
    version: number
    states: { state: string; good: boolean }[]
    moves: { from: string; to: string }[]
  }
  await page.goto('/catalogue')
  await page.getByRole('button', { name: 'Take in models' }).click()
  const text = page.getByLabel('The models as JSON')
  await text.fill(JSON.stringify({ ...model, version: 2, moves: model.moves.filter(({ to }) => to !== 'well') }))
  await expect(page.getByRole('dialog')).toContainText('no move leads to well')
  await expect(page.getByRole('button', { name: 'Publish it' })).toBeDisabled()
  await text.fill(JSON.stringify({ ...model, version: 2 }))
  await page.getByRole('button', { name: 'Publish it' }).click()
  await expect(page.getByText('Published: fenmarrow-lattice-3, version 2.')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('link', { name: /Fenmarrow Lattice 3.*version 2/ })).toBeVisible()
})

test('the wheel never scrolls the program away', async ({ page }) => {
  await logIn(page, 'isolde')
  await page
    .getByRole('link', { name: /4 Lantern Rise/ })
    .first()
    .click()
  for (const name of ['Brief', 'Kit', 'Place', 'Hand over']) {
    await stage(page, name)
    await expect(page.getByRole('main')).toBeVisible()
    await page.mouse.move(600, 500)
    for (let at = 0; at < 12; at++) await page.mouse.wheel(0, 600)
    await page.waitForTimeout(150)
    expect([name, await page.evaluate(() => [window.scrollY, document.documentElement.scrollHeight])]).toEqual([
      name,
      [0, 800]
    ])
  }
})
