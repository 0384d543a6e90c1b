import { chromium, type Page } from 'playwright-core'
const b = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' })
const at = 'http://127.0.0.1:4480'
async function login(who: string, w = 1280, h = 800): Promise<Page> {
  const c = await b.newContext({ viewport: { width: w, height: h } })
  const p = await c.newPage()
  await p.goto(at)
  await p.getByLabel('Login').fill(who)
  await p.getByLabel('Password').fill('skerrow-demo-lantern')
  await p.getByRole('button', { name: 'Log in' }).click()
  await p.waitForTimeout(3000)
  return p
}
for (const [id, who] of [['019a0000-d142-7439-8266-3cc2554a59f5','isolde'],['019a0000-8831-74f5-8de9-eaea914af81e','corin'],['019a0000-782a-7bb1-85cc-7102343a82d3','corin']]) {
const p = await login(who!)
await p.goto(at + '/visit/' + id + '/prove'); await p.waitForTimeout(4000)
console.log(id, (await p.getByText(/On its way/).allInnerTexts()).join('\n'))
if (who==='isolde') { for (const s of (await p.getByText('The way, link by link').all()).slice(0, 3)) await s.click(); await p.getByText('The way, link by link').first().scrollIntoViewIfNeeded().catch(()=>{}); await p.screenshot({ path: '/tmp/v1.png' }) }
}
await b.close()
