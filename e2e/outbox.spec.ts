import { spawn, spawnSync } from 'node:child_process'
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { chromium, expect, test, type Page } from '@playwright/test'
import { startMariaDb } from '../scripts/mariadb'
import { restoreDatabaseOfBefore } from '@pasado/testing/database-of-before'
import { enter, logIn, newVisit, pageOf, password, saved } from '@pasado/testing/browser-steps'

const root = join(import.meta.dirname, '..')
const keptFrom = join(root, 'testing/before-outbox')

/** Posts to a visit do not arrive; everything else does. */
const cutOff = (page: Page) =>
  page
    .context()
    .route(/\/api\/visits\/[^/]+\/(?:entries|photos|secrets)$/, (route) =>
      route.request().method() === 'POST' ? route.abort() : route.continue()
    )
const joined = (page: Page) => page.context().unrouteAll({ behavior: 'ignoreErrors' })

test('what one person could not send waits through their log-out and another’s work, and goes in their own name', async ({
  page
}) => {
  await logIn(page, 'isolde')
  const url = await newVisit(page, 'Brisa Lanyard', '14 Outbox Row')
  const visit = new URL(url).pathname.split('/')[2]!
  await saved(page)
  await cutOff(page)
  await enter(page, 'Second way to reach them', 'Aunt, 555-0161')
  await expect(page.getByRole('status').filter({ hasText: 'not saved yet · 1 kept here' })).toBeVisible()

  await page.goto('/')
  await expect(
    page.getByRole('status').filter({ hasText: '1 line waits on this device to be sent: 14 Outbox Row (1).' })
  ).toBeVisible()
  await page.getByRole('button', { name: /Isolde Marram/ }).click()
  await page.getByRole('menuitem', { name: 'Log out', exact: true }).click()
  const asked = page.getByRole('dialog', { name: 'Not everything is sent' })
  await expect(asked).toContainText('1 line waits to be sent (14 Outbox Row (1)), and goes when you next log in here.')
  await asked.getByRole('button', { name: 'Log out all the same' }).click()
  await expect(
    page.getByRole('status').filter({ hasText: '1 line of Isolde Marram waits on this device' })
  ).toBeVisible()

  await joined(page)
  await logIn(page, 'corin', new URL(url).pathname)
  await saved(page)
  await expect(page.getByRole('textbox', { name: 'Second way to reach them' })).toHaveValue('')
  await expect(
    page.getByRole('status').filter({ hasText: '1 line of Isolde Marram waits on this device' })
  ).toBeVisible()
  await page.getByRole('button', { name: /Corin Saltway/ }).click()
  await page.getByRole('menuitem', { name: 'Log out', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Log in' })).toBeVisible()

  // From the Day, without opening the visit.
  await logIn(page, 'isolde')
  await expect
    .poll(async () => {
      const { entries } = (await (await page.request.get(`/api/visits/${visit}/entries?after=1`)).json()) as {
        entries: { by: { name: string }; body: { set?: { secondContact?: string } } }[]
      }
      return entries
        .filter(({ body }) => body.set?.secondContact)
        .map(({ by, body }) => [by.name, body.set!.secondContact])
    })
    .toEqual([['Isolde Marram', 'Aunt, 555-0161']])
})

test('what was refused while nobody looked is told in every view, also after a reload, until it is put away', async ({
  page,
  browser
}) => {
  await logIn(page, 'isolde')
  const visit = new URL(await newVisit(page, 'Odo Hask', '15 Outbox Row')).pathname.split('/')[2]!
  await saved(page)
  // The very password that somebody puts into the vault meanwhile.
  await cutOff(page)
  const lead = await pageOf(browser, 'wenna')
  await lead.request.post(`/api/visits/${visit}/secrets`, {
    data: {
      ref: '019a0000-0000-7000-8000-0000000000e1',
      purpose: 'provider-login',
      thing: 'brief',
      id: 'brief',
      origin: 'typed',
      value: 'made-up-tern-lantern-9'
    }
  })
  await page.getByRole('textbox', { name: 'Note' }).fill('It is made-up-tern-lantern-9, as told.')
  // The page is left in the very moment the line is written.
  await page.getByRole('button', { name: 'Write it down' }).evaluate((button: HTMLButtonElement) => {
    button.click()
    location.assign('/')
  })
  await page.waitForURL(({ pathname }) => pathname === '/')
  await joined(page)
  const told = page.getByRole('alert').filter({ hasText: 'This was not taken' })
  await expect(told).toContainText('15 Outbox Row')
  await expect(told).toContainText('holds a secret of this visit')
  await page.reload()
  await expect(told).toContainText('You wrote: “It is made-up-tern-lantern-9, as told.”')
  await page.goto('/homes')
  await expect(told).toBeVisible()
  await told.getByRole('button', { name: 'Put away' }).click()
  await expect(told).toHaveCount(0)
  await page.reload()
  await expect(page.getByRole('heading', { name: 'Homes' })).toBeVisible()
  await expect(told).toHaveCount(0)
})

test('a browser and a database of before: what an earlier version could not send is sent by this one, lines and photos', async () => {
  test.setTimeout(150_000)
  const { port, written } = JSON.parse(readFileSync(join(keptFrom, 'browser-profile.json'), 'utf8')) as {
    port: number
    written: { visit: string; texts: string[] }[]
  }
  const work = mkdtempSync(join(root, '.data', 'before-'))
  const database = await startMariaDb(join(work, 'db'), port + 1)
  await restoreDatabaseOfBefore(database.url, join(work, 'key'))
  chmodSync(join(work, 'key'), 0o600)
  const server = spawn(process.execPath, ['scripts/run.mjs', 'testing/serve-process.ts'], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: {
      ...process.env,
      DATABASE_URL: database.url,
      KEY_FILE: join(work, 'key'),
      PORT: String(port),
      HOST: '127.0.0.1',
      WEB_ROOT: join(root, 'web/dist')
    }
  })
  try {
    await new Promise<void>((resolve, reject) => {
      server.stdout.once('data', () => resolve())
      server.once('exit', () => reject(new Error('the server ended')))
    })
    expect(spawnSync('tar', ['-xzf', join(keptFrom, 'browser-profile.tar.gz'), '-C', work]).status).toBe(0)
    const context = await chromium.launchPersistentContext(work, {
      executablePath: '/usr/bin/chromium-headless-shell',
      serviceWorkers: 'block',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync'
      ]
    })
    try {
      const page = context.pages()[0]!
      await page.goto(`http://127.0.0.1:${port}/login`)
      await expect(
        page.getByRole('status').filter({ hasText: /4 lines and 2 photos of Isolde Marram wait on this device/ })
      ).toBeVisible()
      await page.getByLabel('Login').fill('isolde')
      await page.getByLabel('Password').fill(password)
      await page.getByRole('button', { name: 'Log in' }).click()
      await page.waitForURL((to) => to.pathname === '/')
      for (const { visit, texts } of written) {
        const arrived = async () => {
          const { entries } = (await (
            await page.request.get(`http://127.0.0.1:${port}/api/visits/${visit}/entries?after=0`)
          ).json()) as {
            entries: {
              kind: string
              by: { name: string }
              body: { set?: { secondContact?: string }; ref?: string; about?: { id: string } }
            }[]
          }
          return {
            texts: entries.flatMap(({ body }) =>
              texts.includes(body.set?.secondContact ?? '') ? [body.set!.secondContact] : []
            ),
            photos: entries.filter(({ kind, body }) => kind === 'photo.added' && body.about?.id === 'brief').length
          }
        }
        await expect.poll(arrived, { timeout: 30_000 }).toEqual({ texts, photos: 1 })
      }
      await expect(page.getByText(/wait on this device/)).toHaveCount(0)
    } finally {
      await context.close()
    }
  } finally {
    server.kill('SIGKILL')
    await database.kill()
    rmSync(work, { recursive: true, force: true })
  }
})
