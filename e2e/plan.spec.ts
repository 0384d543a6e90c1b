import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { choose, enter, logIn, newVisit, saved, stage, visitWithTrio } from '@pasado/testing/browser-steps'

/** Draws a rectangle on the plan, from one share of its picture to another. */
async function draw(page: Page, from: [number, number], to: [number, number]): Promise<void> {
  const box = (await page.getByRole('group', { name: 'Plan of the storey' }).boundingBox())!
  await page.mouse.move(box.x + box.width * from[0], box.y + box.height * from[1])
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * to[0], box.y + box.height * to[1], { steps: 6 })
  await page.mouse.up()
}

async function click(page: Page, at: [number, number]): Promise<void> {
  const box = (await page.getByRole('group', { name: 'Plan of the storey' }).boundingBox())!
  await page.mouse.click(box.x + box.width * at[0], box.y + box.height * at[1])
}

test('a home of two storeys is drawn from nothing, units are placed and moved, and the figures follow', async ({
  page
}) => {
  test.setTimeout(120_000)
  await logIn(page, 'isolde')
  await visitWithTrio(page, 'Plan Trial', '1 Plan Lane')
  await stage(page, 'Place')

  await test.step('Drawn, and typed', async () => {
    await page.getByRole('button', { name: 'Add a storey' }).click()
    await choose(page, 'Tool', 'rooms')
    await draw(page, [0.3, 0.2], [0.45, 0.7])
    await enter(page, 'Name of the room', 'Hall')
    await expect(page.getByRole('button', { name: /^Hall, / })).toBeVisible()
    await choose(page, 'Tool', 'choose and move')
    await page.getByRole('group', { name: 'Plan of the storey' }).click({ position: { x: 5, y: 5 } })
    await page.getByRole('textbox', { name: 'Room', exact: true }).fill('Study')
    await page.getByRole('textbox', { name: 'Width, m' }).fill('6,5')
    await page.getByRole('textbox', { name: 'Depth, m' }).fill('4')
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(page.getByRole('button', { name: 'Study, 6.5 by 4 metres' })).toBeVisible()
    await page.getByText('Walls, storeys and ceilings').click()
    await page.getByRole('combobox', { name: 'Inner walls' }).selectOption('granite')
    await enter(page, 'Thickness, inner', '600')
    await page.getByRole('button', { name: 'Add a storey' }).click()
    await choose(page, 'Tool', 'rooms')
    await draw(page, [0.35, 0.25], [0.6, 0.75])
    await enter(page, 'Name of the room', 'Loft')
  })

  const { figure, before } = await test.step('A unit is put in, and what reaches each room is told', async () => {
    await choose(page, 'Storey', 'Ground floor')
    await choose(page, 'Tool', 'units')
    const hall = (await page.getByRole('button', { name: /^Hall, / }).boundingBox())!
    await page.mouse.click(hall.x + hall.width / 2, hall.y + hall.height / 2)
    const rooms = page.getByRole('region', { name: 'Rooms' })
    await expect(rooms.getByRole('button', { name: /Study.*dBm/ })).toBeVisible()
    const figure = async (name: string) =>
      Number(/(-\d+) dBm/.exec(await rooms.getByRole('button', { name: new RegExp(name) }).innerText())![1])
    const before = await figure('Study')
    expect(before).toBeLessThan(await figure('Hall'))
    return { figure, before }
  })

  await test.step('Dragged towards the study, the study gets more', async () => {
    await choose(page, 'Tool', 'choose and move')
    const unit = (await page.getByRole('button', { name: 'Unit Heron' }).boundingBox())!
    const study = (await page.getByRole('button', { name: /^Study, / }).boundingBox())!
    await page.mouse.move(unit.x + unit.width / 2, unit.y + unit.height * 0.7)
    await page.mouse.down()
    await page.mouse.move(study.x + study.width / 2, study.y + study.height / 2, { steps: 8 })
    await page.mouse.up()
    await expect.poll(() => figure('Study')).toBeGreaterThan(before)
    await saved(page)
    await page.reload()
    await expect(page.getByRole('button', { name: 'Unit Heron' })).toBeVisible()
    expect(await figure('Study')).toBeGreaterThan(before)
  })

  await test.step('By the keyboard alone', async () => {
    await page.getByRole('button', { name: 'Unit Heron' }).focus()
    await page.keyboard.press('ArrowLeft')
    await page.keyboard.press('ArrowLeft')
    await saved(page)
  })

  await test.step('Readings: one that no home gives is asked about, plausible ones tighten the prediction', async () => {
    const readings = page.getByRole('region', { name: 'Readings' })
    await readings.getByLabel('Read in').selectOption({ label: 'Hall' })
    await readings.getByLabel('Signal, dBm').fill('20')
    await readings.getByRole('button', { name: 'Write it down' }).click()
    await expect(readings.getByRole('alert')).toContainText('signals are below zero')
    await readings.getByLabel('Signal, dBm').fill('-109')
    await readings.getByRole('button', { name: 'Write it down' }).click()
    await expect(readings.getByRole('alert')).toContainText('weaker than the way explains')
    await readings.getByRole('button', { name: 'Take out the reading: Hall' }).click()
    const band = async () => Number(/± (\d+) dBm/.exec(await readings.innerText())?.[1] ?? 6)
    const byTheBook = { Hall: await figure('Hall'), Study: await figure('Study') }
    for (const room of ['Hall', 'Study', 'Hall', 'Study', 'Hall', 'Study'] as const) {
      await readings.getByLabel('Read in').selectOption({ label: room })
      await readings.getByLabel('Signal, dBm').fill(String(byTheBook[room] + 6))
      await readings.getByRole('button', { name: 'Write it down' }).click()
      await expect(readings.getByRole('status')).toBeVisible()
    }
    expect(await band()).toBeLessThan(6)
    await expect(readings.getByRole('status')).toContainText('From 6 readings')
  })

  await test.step('Places are searched among outlets', async () => {
    await choose(page, 'Tool', 'outlets')
    await click(page, [0.4, 0.5])
    await page.getByRole('button', { name: 'Find the places' }).click()
    await expect(page.getByRole('list', { name: 'Proposals' }).getByRole('listitem').first()).toBeVisible({
      timeout: 20_000
    })
  })
})

test('a wall by itself, a door, stairs, a cable and a reading at a point; the plan goes out and comes back', async ({
  page
}) => {
  test.setTimeout(120_000)
  await logIn(page, 'isolde')
  await visitWithTrio(page, 'File Trial', '2 Plan Lane')
  await stage(page, 'Place')
  await page.getByRole('button', { name: 'Add a storey' }).click()
  for (const [name, width] of [
    ['Hall', '4'],
    ['Study', '5']
  ] as const) {
    await page.getByRole('group', { name: 'Plan of the storey' }).click({ position: { x: 5, y: 5 } })
    await page.getByRole('textbox', { name: 'Room', exact: true }).fill(name)
    await page.getByRole('textbox', { name: 'Width, m' }).fill(width)
    await page.getByRole('textbox', { name: 'Depth, m' }).fill('4')
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(page.getByRole('button', { name: new RegExp(`^${name}, `) })).toBeVisible()
  }

  const { picture, chosen } = await test.step('One wall by itself, and a door in it, by the keyboard', async () => {
    const picture = page.getByRole('group', { name: 'Plan of the storey' })
    const chosen = page.getByRole('region', { name: 'What is chosen' })
    await picture.getByRole('button', { name: 'Inner wall, 4.0 m, plasterboard 100 mm' }).focus()
    await chosen.getByLabel('Of', { exact: true }).selectOption('granite')
    await chosen.getByLabel('Thickness, mm').fill('0')
    await chosen.getByLabel('Thickness, mm').press('Enter')
    await expect(chosen.getByRole('alert')).toContainText('must be above 0')
    await chosen.getByLabel('Thickness, mm').fill('500')
    await chosen.getByLabel('Thickness, mm').press('Enter')
    await expect(picture.getByRole('button', { name: 'Inner wall, 4.0 m, granite 500 mm' })).toBeVisible()
    await chosen.getByRole('button', { name: 'a door' }).click()
    await expect(picture.getByRole('button', { name: 'door, 0.9 m' })).toBeVisible()
    return { picture, chosen }
  })

  const hall = await test.step('Sockets put into the middles of rooms, and a cable between them', async () => {
    await page.getByRole('button', { name: /^Hall, / }).focus()
    await chosen.getByRole('button', { name: 'network socket' }).click()
    await page.getByRole('button', { name: /^Study, / }).focus()
    await chosen.getByRole('button', { name: 'network socket' }).click()
    await choose(page, 'Tool', 'cables')
    await picture.getByRole('button', { name: 'Network socket' }).first().click()
    await picture.getByRole('button', { name: 'Network socket' }).nth(1).click()
    await expect(picture.getByRole('button', { name: 'Network socket, with a cable' })).toHaveCount(1)
    await choose(page, 'Tool', 'stairs')
    const hall = (await page.getByRole('button', { name: /^Hall, / }).boundingBox())!
    await page.mouse.move(hall.x + hall.width * 0.6, hall.y + hall.height * 0.1)
    await page.mouse.down()
    await page.mouse.move(hall.x + hall.width * 0.9, hall.y + hall.height * 0.8, { steps: 4 })
    await page.mouse.up()
    await expect(picture.getByRole('button', { name: 'Stairs' })).toBeVisible()
    return hall
  })

  await test.step('A unit, and a reading at a point', async () => {
    await choose(page, 'Tool', 'units')
    await page.mouse.click(hall.x + hall.width * 0.25, hall.y + hall.height / 2)
    await choose(page, 'Shown', 'who serves')
    await expect(page.getByText('Which unit serves, 5 GHz:')).toBeVisible()
    await choose(page, 'Tool', 'readings')
    const study = (await page.getByRole('button', { name: /^Study, / }).boundingBox())!
    await page.mouse.click(study.x + study.width * 0.7, study.y + study.height * 0.3)
    const readings = page.getByRole('region', { name: 'Readings' })
    await expect(readings.getByLabel('Read in')).toHaveValue(/.+/)
    await readings.getByLabel('Signal, dBm').fill('-58')
    await readings.getByRole('button', { name: 'Write it down' }).click()
    await expect(readings.getByRole('row', { name: /Study.*at \d/ })).toBeVisible()
    await saved(page)
  })

  await test.step('Files: out, and into another visit; a table with a column missing is told by its line', async () => {
    await page.getByText('Files: the plan and its readings').click()
    const download = async (name: string) => {
      const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name }).click()])
      return file
    }
    const plan = await (await download('Plan as JSON')).path()
    expect((await download('This storey as SVG')).suggestedFilename()).toBe('plan-2-plan-lane.svg')
    const png = readFileSync(await (await download('This storey as PNG')).path())
    expect(png.subarray(1, 4).toString()).toBe('PNG')
    const csv = readFileSync(await (await download('Readings as CSV')).path(), 'utf8')
    expect(csv.split('\n')[0]).toBe('room,unit,band_ghz,signal_dbm,x_m,y_m')
    const put = async (label: string, name: string, text: string | Buffer) =>
      page.getByLabel(label).setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })
    await put('Readings from CSV', 'a.csv', 'room,unit,band_ghz\nHall,Heron,5\n')
    await expect(page.getByText('the column signal_dbm is missing')).toBeVisible()
    await put('Readings from CSV', 'b.csv', csv)
    await expect(page.getByText('1 reading written down.')).toBeVisible()
    await put(
      'Draw from a plan file',
      'c.json',
      '{"format":"pasado.plan/1","storeys":[{"name":"G","floorM":0,"heightM":2.5,"rooms":[{"name":"Moor","x":1000,"y":0,"widthM":4,"depthM":4}]}]}'
    )
    await expect(page.getByText('must be at most 300 m')).toBeVisible()
    await newVisit(page, 'File Trial Two', '3 Plan Lane')
    await stage(page, 'Place')
    await page.getByText('Files: the plan and its readings').click()
    await put('Draw from a plan file', 'plan.json', readFileSync(plan))
    await expect(page.getByRole('button', { name: 'Study, 5 by 4 metres' })).toBeVisible()
    await expect(picture.getByRole('button', { name: 'Network socket, with a cable' })).toHaveCount(1)
    await expect(picture.getByRole('button', { name: 'door, 0.9 m' })).toBeVisible()
  })
})

test('the demo homes look like homes: every room with its figure, and what the plan breaks stands in the docket', async ({
  page
}) => {
  await logIn(page, 'isolde')
  await page
    .getByRole('link', { name: /4 Lantern Rise/ })
    .first()
    .click()
  await stage(page, 'Place')
  for (const room of ['Hall', 'Kitchen', 'Parlour', 'Study', 'Lamp room', 'Bedroom', 'Loft room'])
    await expect(
      page
        .getByRole('region', { name: 'Rooms' })
        .getByRole('button', { name: new RegExp(`^${room}`) })
        .first()
    ).toBeVisible()
  await expect(page.getByRole('complementary', { name: 'Docket' })).toContainText('no cable leads there')
})
