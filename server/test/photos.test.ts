import { deflateSync } from 'node:zlib'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { reduce } from '@pasado/core/record/reduce'
import type { Entry, Placed } from '@pasado/core/record/entry'
import { rows } from '../src/db/pool'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let wenna: Caller
let petroc: Caller
const lines: string[] = []
beforeAll(async () => {
  company = await startCompany({ log: (line) => lines.push(line) })
  ;[isolde, wenna, petroc] = (await Promise.all(
    ['isolde', 'wenna', 'petroc'].map((login) => Caller.as(company.running, login))
  )) as [Caller, Caller, Caller]
})
afterAll(() => company.stop())

/** A picture of this size; taken with a camera that writes down where it was. */
const picture = (width = 640, height = 480) =>
  sharp({ create: { width, height, channels: 3, background: '#888' } })
    .withExif({ IFD0: { Make: 'Made-up camera' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '49/1 57/1 0/1' } })
    .jpeg()
    .toBuffer()

async function send(
  caller: Caller,
  visit: string,
  octets: Buffer,
  fields: Record<string, string> = {},
  type = 'image/jpeg'
) {
  const form = new FormData()
  for (const [name, value] of Object.entries({ ref: uuidv7(), thing: 'stage', about: 'kit', ...fields }))
    form.append(name, value)
  form.append('photo', new Blob([new Uint8Array(octets)], { type }), 'photo.jpg')
  const response = await fetch(`${company.running.address}/api/visits/${visit}/photos`, {
    method: 'POST',
    headers: { cookie: caller.cookie },
    body: form
  })
  return {
    status: response.status,
    body: (await response.json()) as { ref: string; errors?: { field: string; detail: string }[] }
  }
}

const show = (caller: Caller, visit: string, ref: string, more = '') =>
  fetch(`${company.running.address}/api/visits/${visit}/photos/${ref}${more}`, { headers: { cookie: caller.cookie } })
async function recordOf(visit: string) {
  const { body } = await isolde.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)
  return { record: reduce(body.entries as Placed[]), entries: body.entries }
}

/** A PNG whose head promises so many pixels; its one row of octets is all there is. */
function promisedPng(width: number, height: number): Buffer {
  const chunk = (name: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(name), data])
    const crc = Buffer.alloc(4)
    let value = 0xffffffff
    for (const octet of body) {
      value ^= octet
      for (let bit = 0; bit < 8; bit++) value = value & 1 ? (value >>> 1) ^ 0xedb88320 : value >>> 1
    }
    crc.writeUInt32BE((value ^ 0xffffffff) >>> 0)
    const length = Buffer.alloc(4)
    length.writeUInt32BE(data.length)
    return Buffer.concat([length, body, crc])
  }
  const head = Buffer.alloc(13)
  head.writeUInt32BE(width, 0)
  head.writeUInt32BE(height, 4)
  head.set([8, 0, 0, 0, 0], 8)
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(width + 1))),
    chunk('IEND', Buffer.alloc(0))
  ])
}

describe('photos', () => {
  it('are drawn anew: at most 2048 pixels long, with nothing of where they were taken', async () => {
    const visit = await openAVisit(isolde)
    const sent = await picture(3000, 1500)
    expect(sent.includes('Made-up camera')).toBe(true)
    const { status, body } = await send(isolde, visit, sent, { caption: 'The cupboard before' })
    expect(status).toBe(201)
    const response = await show(isolde, visit, body.ref)
    expect([response.status, response.headers.get('content-type'), response.headers.get('cache-control')]).toEqual([
      200,
      'image/jpeg',
      'no-store'
    ])
    const kept = Buffer.from(await response.arrayBuffer())
    const about = await sharp(kept).metadata()
    expect([about.width, about.height, about.exif, kept.includes('Made-up camera')]).toEqual([
      2048,
      1024,
      undefined,
      false
    ])
    expect(
      (await sharp(Buffer.from(await (await show(isolde, visit, body.ref, '?size=small')).arrayBuffer())).metadata())
        .width
    ).toBe(360)
    const { record } = await recordOf(visit)
    expect(Object.values(record.photos!)).toMatchObject([
      { ref: body.ref, caption: 'The cupboard before', label: false, width: 2048, about: { thing: 'stage', id: 'kit' } }
    ])
  })

  it('sent twice under one reference are kept once', async () => {
    const visit = await openAVisit(isolde)
    const ref = uuidv7()
    const octets = await picture()
    expect([
      (await send(isolde, visit, octets, { ref })).status,
      (await send(isolde, visit, octets, { ref })).status
    ]).toEqual([201, 201])
    expect((await recordOf(visit)).entries.filter(({ kind }) => kind === 'photo.added')).toHaveLength(1)
  })

  it.each<[string, () => Promise<Buffer> | Buffer, number, string]>([
    [
      'an SVG',
      () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>'),
      422,
      'send JPEG, PNG or WebP'
    ],
    ['a text', () => Buffer.from('no picture'), 422, 'send JPEG, PNG or WebP'],
    ['a PDF', () => Buffer.from('%PDF-1.7\n%…'), 422, 'is PDF, not a photo'],
    [
      'a GIF',
      () =>
        sharp({ create: { width: 4, height: 4, channels: 3, background: '#fff' } })
          .gif()
          .toBuffer(),
      422,
      'is GIF, not a photo'
    ],
    ['one that unpacks to a billion pixels', () => promisedPng(40_000, 30_000), 422, '60 million pixels'],
    ['one cut short', async () => (await picture(900, 900)).subarray(0, 400), 422, 'take it again'],
    [
      'one over 12 MB',
      () => Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), Buffer.alloc(12 * 1024 * 1024)]),
      413,
      'larger than 12 MB'
    ]
  ])('%s is refused, and said to be', async (_, octets, status, said) => {
    const visit = await openAVisit(isolde)
    const answer = await send(isolde, visit, await octets())
    expect([answer.status, answer.body.errors?.[0]?.field]).toEqual([status, 'photo'])
    expect(answer.body.errors![0]!.detail).toContain(said)
    expect((await recordOf(visit)).record.photos).toBeUndefined()
  })

  it('about a unit that is not there, on a sealed visit’s stead, or by the office are refused', async () => {
    const visit = await openAVisit(isolde)
    const octets = await picture()
    expect((await send(isolde, visit, octets, { thing: 'unit', about: uuidv7() })).body.errors![0]).toMatchObject({
      field: 'about.id'
    })
    expect((await send(petroc, visit, octets)).status).toBe(403)
    expect((await send(new Caller(company.running.address), visit, octets)).status).toBe(401)
    expect((await show(new Caller(company.running.address), visit, uuidv7())).status).toBe(401)
    expect((await send(isolde, uuidv7(), octets)).status).toBe(404)
    const bare = await fetch(`${company.running.address}/api/visits/${visit}/photos`, {
      method: 'POST',
      headers: { cookie: isolde.cookie, 'content-type': 'image/jpeg' },
      body: new Uint8Array(octets)
    })
    expect(bare.status).toBe(415)
  })

  it('of another visit are not served under this one', async () => {
    const [visit, other] = [await openAVisit(isolde), await openAVisit(isolde)]
    const { body } = await send(isolde, visit, await picture())
    expect((await show(isolde, other, body.ref)).status).toBe(404)
  })

  it('a caption that holds a secret is refused, at once and afterwards', async () => {
    const visit = await openAVisit(isolde)
    const unit = uuidv7()
    await isolde.call('POST', `/visits/${visit}/entries`, {
      entries: [draft(visit, 'unit.set', { id: unit, set: { name: 'Router' } })]
    })
    await isolde.call('POST', `/visits/${visit}/secrets`, {
      ref: uuidv7(),
      purpose: 'label-key',
      thing: 'unit',
      id: unit,
      origin: 'label',
      value: 'demo-lobster-77'
    })
    const refusedOne = await send(isolde, visit, await picture(), { caption: 'key is demo-lobster-77' })
    expect(refusedOne.body.errors![0]!.field).toBe('caption')
    const { body } = await send(isolde, visit, await picture())
    const later = await isolde.call('POST', `/visits/${visit}/entries`, {
      entries: [draft(visit, 'photo.captioned', { ref: body.ref, caption: 'demo-lobster-77' })]
    })
    expect(later.status).toBe(422)
    const fine = await isolde.call('POST', `/visits/${visit}/entries`, {
      entries: [
        draft(visit, 'photo.captioned', { ref: body.ref, caption: 'On the shelf' }),
        draft(visit, 'photo.removed', { ref: body.ref })
      ]
    })
    expect(fine.status).toBe(200)
    expect(Object.values((await recordOf(visit)).record.photos!)[0]).toMatchObject({
      caption: 'On the shelf',
      removedSeq: expect.any(Number)
    })
    expect(lines.join('\n')).not.toContain('demo-lobster-77')
  })

  it('of labels are secrets: sealed at rest, shown on request and logged, gone when erased', async () => {
    const visit = await openAVisit(isolde)
    const { body } = await send(isolde, visit, await picture(), { label: 'yes' })
    expect((await show(isolde, visit, body.ref)).status).toBe(404)
    const [stored] = await rows<{ picture: Buffer; small: Buffer | null }>(
      company.services.db,
      'SELECT picture, small FROM photos WHERE ref = ?',
      [body.ref]
    )
    expect([stored!.picture.subarray(0, 2).toString('hex') === 'ffd8', stored!.small]).toEqual([false, null])
    const shown = await fetch(`${company.running.address}/api/visits/${visit}/photos/${body.ref}/show`, {
      method: 'POST',
      headers: { cookie: isolde.cookie, 'content-type': 'application/json' },
      body: JSON.stringify({ why: 'checking it' })
    })
    expect((await sharp(Buffer.from(await shown.arrayBuffer())).metadata()).width).toBe(640)
    expect((await recordOf(visit)).entries.at(-1)).toMatchObject({
      kind: 'secret.shown',
      body: { ref: body.ref, why: 'checking it' }
    })
    await wenna.call('POST', `/visits/${visit}/erase-secrets`, {
      confirm: 'erase for good',
      why: 'The customer asked for it.'
    })
    const gone = await isolde.call('POST', `/visits/${visit}/photos/${body.ref}/show`, { why: 'checking it' })
    expect(gone.status).toBe(410)
    expect(
      (
        await rows<{ octets: number }>(
          company.services.db,
          'SELECT LENGTH(picture) AS octets FROM photos WHERE ref = ?',
          [body.ref]
        )
      )[0]!.octets
    ).toBe(0)
  })
})
