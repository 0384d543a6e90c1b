import { chromium } from '@playwright/test'
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' })
const base = 'http://127.0.0.1:4480'
const [login, path, sel] = process.argv.slice(2)
const page = await browser.newPage({ viewport: { width: 1280, height: 900 } })
await page.goto(base + '/login')
await page.getByLabel('Login').fill(login!)
await page.getByLabel('Password').fill('skerrow-demo-lantern')
await page.getByRole('button', { name: 'Log in' }).click()
await page.waitForURL(base + '/')
await page.goto(base + path!)
await page.waitForTimeout(3000)
if (sel === 'plan') { await page.getByRole('button', { name: /^(Run plan|Plan)$/ }).locator('visible=true').click(); await page.waitForTimeout(700) }
if (sel === 'order') { await page.getByRole('tab', { name: /In order/ }).or(page.getByRole('link', { name: /In order/ })).or(page.getByRole('button', { name: /In order/ })).first().click(); await page.waitForTimeout(900) }
console.log(await page.locator(sel === 'plan' ? '[role=dialog]' : 'body').innerText())
await browser.close()
