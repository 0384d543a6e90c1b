import { chromium } from '@playwright/test'
const [,, base, out, ...rest] = process.argv
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox'] })
const shot = async (login: string, path: string, name: string, o: { w?: number; h?: number; dark?: boolean; tab?: string; full?: boolean; click?: string[] } = {}) => {
  const context = await browser.newContext({ viewport: { width: o.w ?? 1280, height: o.h ?? 800 }, colorScheme: o.dark ? 'dark' : 'light' })
  const page = await context.newPage()
  await page.goto('http://127.0.0.1:4480/')
  await page.getByLabel('Login').fill(login)
  await page.getByLabel('Password').fill('skerrow-demo-lantern')
  await page.getByRole('button', { name: 'Log in' }).click()
  await page.waitForTimeout(800)
  await page.goto('http://127.0.0.1:4480' + path)
  await page.waitForTimeout(1500)
  if (o.tab) await page.getByRole('tab', { name: new RegExp(o.tab) }).click()
  for (const c of o.click ?? []) await page.getByRole('button', { name: c }).first().click()
  await page.waitForTimeout(1200)
  await page.screenshot({ path: `/tmp/shots/${name}.png`, fullPage: o.full ?? false })
  await context.close()
}
const jobs = JSON.parse(rest.join(' ') || process.env.JOBS!)
for (const [login, path, name, o] of jobs) await shot(login, path, name, o)
await browser.close()
