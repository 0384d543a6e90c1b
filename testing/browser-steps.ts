import { expect, type Browser, type Locator, type Page, type Response } from '@playwright/test'

export const password = 'skerrow-demo-lantern'

/** Logs in as one of the demo people. */
export async function logIn(page: Page, login: 'isolde' | 'corin' | 'wenna' | 'petroc', to = '/'): Promise<void> {
  await page.goto(`/login?to=${encodeURIComponent(to)}`)
  await page.getByLabel('Login').fill(login)
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Log in' }).click()
  await page.waitForURL((url) => url.pathname !== '/login')
}

/** A page of somebody else, in a browser of their own. */
export async function pageOf(
  browser: Browser,
  login: 'isolde' | 'corin' | 'wenna' | 'petroc',
  to = '/'
): Promise<Page> {
  const context = await browser.newContext()
  const page = await context.newPage()
  await logIn(page, login, to)
  return page
}

/** Types into a field and leaves it. */
export async function enter(place: Page | Locator, label: string, value: string): Promise<void> {
  const field = place.getByRole('textbox', { name: label, exact: true })
  await field.fill(value)
  await field.press('Enter')
  await field.blur()
}

/** Presses one of a few chips. */
export async function choose(place: Page | Locator, group: string, answer: string): Promise<void> {
  await place
    .getByRole('radiogroup', { name: group, exact: true })
    .getByRole('radio', { name: answer, exact: true })
    .click()
}

/** Goes to a stage by the strand. */
export async function stage(page: Page, name: string): Promise<void> {
  await page
    .getByRole('navigation', { name: 'Strand' })
    .getByRole('link', { name: new RegExp(`^\\d ${name}:`) })
    .click()
}

/** Waits until everything that was written is on the server. */
export async function saved(page: Page): Promise<void> {
  await expect(page.getByRole('status').filter({ hasText: /^saved|^sealed/ })).toBeVisible()
}

/** Puts a typed secret into the vault. */
export async function typeSecret(place: Page | Locator, label: string, value: string): Promise<void> {
  await place.getByRole('button', { name: `Type one: ${label}` }).click()
  await place.getByRole('textbox', { name: label }).fill(value)
  await place.getByRole('button', { name: 'Put into the vault' }).click()
  await expect(place.getByRole('button', { name: `Show: ${label}` })).toBeVisible()
}

/** Opens a new visit for a new customer and gives its address. */
export async function newVisit(page: Page, customer: string, street: string): Promise<string> {
  await page.goto('/')
  await page.getByRole('link', { name: 'New visit' }).click()
  await page.getByLabel('Customer').fill(customer)
  await page.getByLabel('Telephone').fill('555-0199')
  await page.getByLabel('Street').fill(street)
  await page.getByLabel('Town or island').fill('Ness Skerrow')
  await page.getByLabel('Country').selectOption('Skerrow Isles')
  await page.getByRole('button', { name: 'Open the visit' }).click()
  await page.waitForURL(/\/visit\/[0-9a-f-]{36}\/brief/)
  return page.url()
}

/** Says under Brief that the customer’s router stays, and gives the addresses from 192.168.1.1. */
export async function routerStays(page: Page, makeModel: string): Promise<void> {
  await choose(page, 'Access line', 'existing router stays')
  const theirs = page.getByRole('form', { name: 'Record the router that stays' })
  await theirs.getByRole('combobox', { name: 'Make and model' }).fill(makeModel)
  await theirs.getByRole('textbox', { name: 'Address' }).fill('192.168.1.1')
  await choose(theirs, 'Gives addresses', 'Yes')
  await theirs.getByRole('button', { name: 'It stays' }).click()
}

/** A new visit with a router and two nodes out of one box, at the Kit stage. */
export async function visitWithTrio(page: Page, customer: string, street: string): Promise<void> {
  await newVisit(page, customer, street)
  await stage(page, 'Kit')
  await page.getByRole('button', { name: 'Add a box', exact: true }).click()
  await page.getByRole('button', { name: /set of router and two Terns/ }).click()
  await page.getByRole('button', { name: 'All of it is here' }).click()
  await saved(page)
}

/** The answer to a secret that was to be kept. */
const isKeeping = (response: Response) =>
  response.request().method() === 'POST' && /\/secrets$/.test(new URL(response.url()).pathname)

/** Binds the visit to a house and takes the labels of its units into the record. */
export async function practise(
  page: Page,
  house: string,
  units: readonly string[]
): Promise<{ visit: string; house: string }> {
  const visit = new URL(page.url()).pathname.split('/')[2]!
  await page.getByText('Practise this visit on a simulated house').click()
  await page.getByRole('button', { name: house }).click()
  await page.waitForURL(/\/practice\/.*visit=/)
  const back = page.url()
  await page.getByRole('link', { name: 'Back to the visit' }).click()
  await stage(page, 'Kit')
  for (const unit of units) {
    // The login on it goes to the server by itself, beside the lines: whoever leaves the page before breaks it off.
    const kept = page.waitForResponse(isKeeping).catch(() => null)
    const label = page.waitForResponse((response) => response.url().endsWith('/label'))
    await page.getByRole('button', { name: `${unit}: take its label` }).click()
    const { login } = (await (await label).json()) as { login: unknown }
    if (login) await kept
  }
  await expect(page.getByRole('region', { name: 'From the simulated house' })).toHaveCount(0)
  await saved(page)
  return { visit, house: back }
}
