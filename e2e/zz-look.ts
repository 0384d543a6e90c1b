import { chromium } from '@playwright/test'
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' })
const base = 'http://127.0.0.1:4480'
const shot = process.argv[2]!
const [login, path, w, h, dark, act] = process.argv.slice(3)
const page = await browser.newPage({ viewport: { width: Number(w ?? 1280), height: Number(h ?? 800) }, colorScheme: dark === 'dark' ? 'dark' : 'light' })
await page.goto(base + '/login')
await page.getByLabel('Login').fill(login!)
await page.getByLabel('Password').fill('skerrow-demo-lantern')
await page.getByRole('button', { name: 'Log in' }).click()
await page.waitForURL(base + '/')
await page.goto(base + path!)
await page.waitForTimeout(2500)
if (dark === 'dark') await page.keyboard.press('t')
if (act === 'plan') await page.getByRole('button', { name: /^(Run plan|Plan)$/ }).locator('visible=true').click()
if (act === 'docket') await page.getByRole('button', { name: 'Docket' }).locator('visible=true').click()
await page.waitForTimeout(1200)
await page.screenshot({ path: `/tmp/${shot}.png` })
await browser.close()
