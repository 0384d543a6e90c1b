import { expect, test, type Page } from '@playwright/test'
import { choose, enter, logIn, newVisit, routerStays, saved, stage } from '@pasado/testing/browser-steps'

/** Takes a box of one model into the visit, all of it there. */
async function unpack(page: Page, model: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a box', exact: true }).click()
  await page.getByRole('textbox', { name: 'Find a model' }).fill(model)
  await page.getByRole('button', { name: new RegExp(model) }).click()
  await page.getByRole('button', { name: 'All of it is here' }).click()
  await expect(page.getByRole('button', { name: `${model}: read its label` })).toBeVisible()
}

/** Draws a cable from port to port by the keyboard, and says which VLANs it carries. */
async function cable(page: Page, from: string, to: string, vlans: string | null): Promise<void> {
  const map = page.getByRole('group', { name: 'Port map' })
  for (const port of [from, to]) await map.getByRole('button', { name: `${port}, free` }).press('Enter')
  const chosen = page.getByRole('region', { name: 'The cable that is chosen' })
  await expect(chosen).toContainText(`${from} – ${to}`)
  if (vlans !== null) await chosen.getByRole('button', { name: vlans, exact: true }).first().click()
}

/** Adds a segment with its range, its VLAN and the gateway’s pool in it. */
async function range(page: Page, name: string, use: string, cidr: string, vlan: string | null): Promise<void> {
  await page.getByRole('button', { name: 'Add a segment' }).click()
  const added = page.getByRole('region', { name: 'Segment ' }).last()
  await enter(added, 'Segment', name)
  const segment = page.getByRole('region', { name: `Segment ${name}`, exact: true })
  await enter(segment, 'Range', cidr)
  await choose(segment, 'For', use)
  if (vlan !== null) {
    await segment.getByRole('textbox', { name: 'VLAN' }).fill(vlan)
    await segment.getByRole('textbox', { name: 'VLAN' }).blur()
  }
  await segment.getByRole('button', { name: 'Add its DHCP pool' }).click()
  const pool = segment.getByRole('group', { name: `DHCP pool of ${name}` })
  await pool.getByRole('combobox', { name: 'DHCP server' }).selectOption('C3')
  await enter(pool, 'Pool from', cidr.replace('0/24', '100'))
  await enter(pool, 'Pool to', cidr.replace('0/24', '199'))
}

/** Records somebody who was seen on a unit, with which address, and from whom. */
async function seen(page: Page, unit: string, address: string, server: string): Promise<void> {
  await page.getByRole('button', { name: `Prove the path of ${unit}` }).click()
  const path = page.getByRole('form', { name: `Path of ${unit}` })
  await path.getByRole('textbox', { name: 'Clients before' }).fill('0')
  await path.getByRole('textbox', { name: 'Clients after' }).fill('1')
  await path.getByRole('textbox', { name: 'Address' }).fill(address)
  await path.getByRole('combobox', { name: 'Given by' }).selectOption(server)
  await path.getByRole('button', { name: 'Record what was seen' }).click()
}

test('a second range comes to the access point where every cable carries its VLAN, and whoever joins lands in it', async ({
  page
}) => {
  await logIn(page, 'isolde')
  await newVisit(page, 'Marram School', '3 Quay Yard')
  await test.step('a gateway, a switch and an access point', async () => {
    await stage(page, 'Kit')
    for (const model of ['C3', 'Bobbin 8', 'Spindle']) await unpack(page, model)
    await page.getByRole('button', { name: /^C3/ }).first().click()
    await choose(page, 'Role here', 'gateway')
  })
  await test.step('two ranges, one in a VLAN; the network lands in that', async () => {
    await stage(page, 'Configure')
    await range(page, 'Home', 'home', '192.168.1.0/24', null)
    await range(page, 'Class', 'office', '192.168.20.0/24', '20')
    await page.getByRole('tab', { name: /Wi-Fi/ }).click()
    await page.getByRole('button', { name: 'Add the home’s network' }).click()
    await enter(page, 'Name (SSID)', 'Anchor Staff')
    await choose(page, 'For', 'office')
    await page.getByRole('combobox', { name: 'Lands in' }).selectOption('Class')
  })
  const docket = page.getByRole('complementary', { name: 'Docket' })
  await expect(docket).toContainText('How Spindle hangs on the rest is not recorded')
  await test.step('cables that carry it', async () => {
    await stage(page, 'Connect')
    await cable(page, 'C3, 1', 'Bobbin 8, Up', '20 Class')
    await cable(page, 'Bobbin 8, 1', 'Spindle, Network and power', 'none')
    await expect(docket).toContainText('VLAN 20 does not come to Spindle')
    await page.getByRole('button', { name: '20 Class' }).first().click()
    await expect(docket).not.toContainText('VLAN 20')
  })
  await test.step('whoever joins has an address of that range, or it breaks', async () => {
    await stage(page, 'Prove')
    await page.getByRole('tab', { name: /Units/ }).click()
    await seen(page, 'Spindle', '192.168.1.120', 'C3')
    await expect(docket).toContainText(/192\.168\.1\.120/)
    await seen(page, 'Spindle', '192.168.20.120', 'C3')
    await expect(page.getByText('1 on it after 0, with 192.168.20.120 from C3.')).toBeVisible()
  })
  await saved(page)
})

test('a router that was made an access point gave nobody an address: whoever joins has it from the one that stays', async ({
  page
}) => {
  await logIn(page, 'isolde')
  await newVisit(page, 'Tamsin Cove', '8 Rope Walk')
  await test.step('the router that stays', async () => {
    await routerStays(page, 'Marlin 7')
  })
  await test.step('an old router of theirs, an access point from now on', async () => {
    await stage(page, 'Kit')
    await page.getByRole('button', { name: 'Add a used unit' }).click()
    await page.getByRole('textbox', { name: 'Find a model' }).fill('Weir')
    await page.getByRole('button', { name: /Weir/ }).click()
    await choose(page, 'Role here', 'access point')
    await stage(page, 'Configure')
    await page.getByRole('tab', { name: /Logins/ }).click()
    await choose(page, 'Its DHCP server', 'off')
    await page.getByRole('tab', { name: /Wi-Fi/ }).click()
    await page.getByLabel('The home’s name on the air').fill('Turnstone')
    await page.getByRole('button', { name: 'Record these networks' }).click()
    await expect(page.getByRole('button', { name: 'These are recorded' })).toBeVisible()
  })
  const docket = page.getByRole('complementary', { name: 'Docket' })
  await test.step('what cannot be is not believed', async () => {
    await stage(page, 'Prove')
    await page.getByRole('tab', { name: /Units/ }).click()
    await seen(page, 'Weir 300', '192.168.1.23', 'Weir 300')
    await expect(docket).toContainText('Weir 300 is noted as giving the address, and its DHCP server is recorded off')
    await seen(page, 'Weir 300', '192.168.1.23', 'Marlin 7')
    await expect(page.getByText('1 on it after 0, with 192.168.1.23 from Marlin 7.')).toBeVisible()
    await expect(docket).not.toContainText('Weir 300: proof of path')
  })
  await saved(page)
})
