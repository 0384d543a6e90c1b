import type { Facts } from '@pasado/core/record/facts'
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { secretFor } from '@pasado/core/record/record'
import { changesBetween } from '@pasado/core/documents/changes'
import { evaluate } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { lensSvg } from '../src/documents/pdf'
import sharp from 'sharp'
import { BinaryBitmap, DecodeHintType, HybridBinarizer, QRCodeReader, RGBLuminanceSource } from '@zxing/library'
import { readSealCode, sealSignatureHolds, sealText } from '@pasado/core/record/seal'
import { companyKeys, signText } from '../src/vault/master-key'
import { packContentOf } from '@pasado/core/documents/pack-content'
import { packPdf } from '../src/documents/pack'
import { linesOf } from '../src/because/lines'
import { recordPdf, type RecordParts } from '../src/documents/record-pdf'
import { catalogue, complete, idOf, network, node, opened, router, type Log } from '@pasado/testing/logbook'

const folder = mkdtempSync(join(tmpdir(), 'pasado-pdf-'))
let made = 0

/** What a person reads on a PDF's pages. */
function textOf(pdf: Buffer): string {
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
  const file = join(folder, `${made++}.pdf`)
  writeFileSync(file, pdf)
  return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' })
}

async function pack(log: Log, passphrase = 'demo-plover-and-42-herons'): Promise<string> {
  const record = log.record()
  const ref = secretFor(record, 'wifi-passphrase', network)?.ref
  return textOf(
    await packPdf(
      packContentOf({
        record,
        catalogue,
        values: new Map(ref ? [[ref, passphrase]] : []),
        company: { name: 'Tern & Tideway', phone: '555-0100' }
      })
    )
  )
}

async function recordText(log: Log, more: Partial<RecordParts> = {}): Promise<string> {
  const folded = log.folded()
  return textOf(
    await recordPdf({
      ...folded,
      catalogue,
      standard: firstStandard,
      findings: evaluate(folded, catalogue, firstStandard),
      ...more
    })
  )
}

it('each finding names the lines it rests on; what is not worked out names none', async () => {
  const log = complete()
  const findings = evaluate(log.folded(), catalogue, firstStandard)
  const ask = {
    entries: log.entries,
    findings,
    models: [...catalogue],
    standard: firstStandard,
    now: log.entries.at(-1)!.at,
    forMs: 60_000
  }
  const because = await linesOf(ask, 'of this seal')
  const text = (await recordText(log, { because })).replace(/\s+/g, ' ')
  const at = findings.findIndex(({ rule, subject }) => rule === 'start-good-lamp' && subject?.id === router)
  const [unit, look] = because[at]!
  expect([log.entries[unit! - 1]!.kind, log.entries[look! - 1]!.kind]).toEqual(['unit.set', 'lamp.seen'])
  expect(text).toContain(`Rests on lines ${unit} and ${look}.`)
  expect(await recordText(log)).not.toContain('Rests on')
  // Of a logbook that is sealed it is worked out once.
  expect(await linesOf({ ...ask, findings: [] }, 'of this seal')).toBe(because)
  // What there was no time for is not kept.
  expect((await linesOf({ ...ask, forMs: 0 }, 'of another seal')).every((lines) => lines === null)).toBe(true)
  expect(await linesOf(ask, 'of another seal')).toEqual(because)
})

it('every moment on paper is told in the company’s zone, which is named once', async () => {
  const log = complete()
    .write('note.written', { text: 'Signed and sealed.' }, { at: '2026-07-01T11:05:00+02:00' })
    .write('note.written', { text: 'By the server.' }, { at: '2026-07-01T09:06:00.000Z' })
  const text = await recordText(log, { zone: 'Europe/Berlin' })
  expect(text).toMatch(/1 Jul 2026,\s+11:05/)
  expect(text).toMatch(/1 Jul 2026,\s+11:06/)
  expect(text.match(/Europe\/Berlin/g)).toHaveLength(1)
  expect(text).not.toMatch(/2026-07-01/)
})

describe('the customer’s pack', () => {
  it('holds names and passphrases, places, lamps, and who to call', async () => {
    const text = await pack(complete())
    for (const said of [
      'Your home network',
      'Razorbill',
      'demo-plover-and-42-herons',
      'Hall router',
      'hall',
      'white, steady',
      'Call Tern & Tideway, 555-0100'
    ])
      expect(text).toContain(said)
    expect(text).toMatch(/amber, blinking:\s+no internet/)
    expect(text).not.toContain('No calls in a power cut')
  })

  it.each([8, 40, 63])(
    'a passphrase of %i characters stands on one line, so that no hyphen is taken for a line’s end',
    async (length) => {
      const passphrase = 'ab-'.repeat(30).slice(0, length)
      expect(await pack(complete(), passphrase)).toContain(passphrase)
    }
  )

  it('an open network says so, and one whose passphrase is not kept by us as well', async () => {
    expect(await pack(complete().write('network.set', { id: network, set: { security: 'open' } }))).toContain(
      'anybody can join'
    )
    const log = complete().write('network.set', {
      id: idOf('g'),
      set: { ssid: 'Guests', use: 'guest', security: 'wpa3' }
    })
    expect(await pack(log)).toMatch(/For guests[\s\S]*Guests[\s\S]*not kept by us/)
  })

  it('every network is in it, whatever its use, and one that is sent by two only once', async () => {
    expect(
      await pack(
        complete()
          .write('network.set', { id: idOf('o'), set: { ssid: 'Back Office', use: 'office', security: 'wpa3' } })
          .write('network.set', { id: idOf('q'), set: { ssid: 'Meters', use: 'equipment', security: 'wpa3' } })
      )
    ).toMatch(/For the office[\s\S]*Back Office[\s\S]*For devices[\s\S]*Meters/)
    expect(
      (
        await pack(
          complete().write('network.set', {
            id: idOf('x'),
            set: { ssid: 'Razorbill', use: 'main', security: 'wpa2-wpa3', extender: node }
          })
        )
      ).match(/Razorbill/g)
    ).toHaveLength(1)
  })

  it('holds the logins that are the customer’s, one that is the same once, and none that the company keeps', async () => {
    const log = complete().write('unit.set', { id: node, set: { adminName: 'owner' } })
    const told = async (change: (log: Log) => unknown) => {
      change(log)
      const record = log.record()
      return packContentOf({
        record,
        catalogue,
        values: new Map(
          Object.values(record.secrets).map(({ ref, purpose }) => [
            ref,
            purpose === 'admin-password' ? 'demo-one-for-both' : 'demo-key'
          ])
        ),
        company: { name: 'Tern & Tideway', phone: '555-0100' }
      })
    }
    const both = await told(() => 0)
    expect(both.logins).toEqual([
      { units: ['Hall router'], pages: ['192.168.1.1'], name: null, password: 'demo-one-for-both' },
      { units: ['Study node'], pages: ['192.168.1.20'], name: 'owner', password: 'demo-one-for-both' }
    ])
    expect(textOf(await packPdf(both))).toMatch(/settings of your units[\s\S]*Hall router[\s\S]*demo-one-for-both/)
    expect((await told((item) => item.write('unit.set', { id: node, set: { adminName: null } }))).logins).toMatchObject(
      [{ units: ['Hall router', 'Study node'] }]
    )
    expect(
      (
        await told((item) =>
          item.write('custody.answered', {
            custody: 'company-keeps',
            keeps: ['admin-password'],
            until: '2027-01-31'
          })
        )
      ).logins
    ).toEqual([])
  })

  it('each unit’s own good look is told: what was seen on it, else what goes with its role', () => {
    const well = (log: Log, unit: string) =>
      packContentOf({
        record: log.record(),
        catalogue,
        values: new Map(),
        company: { name: 'Tern & Tideway', phone: '555-0100' }
      })
        .units.find(({ name }) => name === unit)!
        .well.map(({ words }) => words)
    const sluice = (role: Facts<'unit'>['role']) =>
      complete().write('unit.set', {
        id: idOf('sl'),
        set: { name: 'Sluice', model: 'oldmere-sluice', modelVersion: 1, role: role }
      })
    expect(well(sluice('router'), 'Sluice')).not.toEqual(well(sluice('access-point'), 'Sluice'))
    const good = catalogue.get('oldmere-sluice@1')!.states.filter((state) => state.good)
    for (const state of good)
      expect(
        well(sluice('router').write('lamp.seen', { unit: idOf('sl'), lamps: state.lamps }), 'Sluice')
      ).toHaveLength(state.lamps.length)
  })

  it('lamps switched off are dark when all is well', async () => {
    expect(await pack(complete().write('choice.answered', { choice: 'lamp', answer: 'off' }))).toMatch(
      /All is well:\s+dark/
    )
  })

  it('a telephone through the network box comes with its warning', async () => {
    expect(await pack(complete().write('brief.set', { set: { telephone: true } }))).toContain('No calls in a power cut')
  })

  it('a unit taken away is not in it', async () => {
    expect(await pack(complete().write('thing.removed', { thing: 'unit', id: node }))).not.toContain('Study node')
  })
})

describe('the company’s record', () => {
  it('holds every fact and finding, and secrets as dots only', async () => {
    const text = await recordText(complete())
    for (const said of [
      'HE1-1',
      '00:00:5e:00:53:02',
      '192.168.1.0/24',
      '3.1.0',
      'Razorbill',
      '••••••••',
      'wifi-passphrase',
      'Not sealed'
    ])
      expect(text).toContain(said)
    expect(text).not.toContain('demo-')
  })

  it('names who waived what, and why', async () => {
    const text = await recordText(
      complete()
        .write('unit.set', { id: node, set: { firmwareAfter: '2.8.1' } })
        .write('waiver.granted', { rule: 'firm-minimum', reason: 'A second visit is booked.' })
    )
    expect(text.replace(/\s+/g, ' ')).toContain('waived by Isolde Marram: A second visit is booked.')
  })

  it('tells what was measured against its floor, what changed and why, and shows photos but no label', async () => {
    const before = complete().write('unit.set', { id: node, set: { firmwareAfter: '2.8.1' } })
    const after = complete()
      .write('unit.set', { id: node, set: { firmwareAfter: '2.8.1' } })
      .write('unit.set', { id: node, set: { firmwareAfter: '3.1.0' } })
    const revision = (log: Log) => ({ ...log.folded(), catalogue, standard: firstStandard })
    const jpeg = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#888888' } })
      .jpeg()
      .toBuffer()
    const text = (
      await recordText(after, {
        changes: [{ title: 'Since the visit before', changes: changesBetween(revision(before), revision(after)) }],
        photos: [
          { about: 'Study node', caption: 'on its shelf', at: '2026-01-05T09:10:00Z', jpeg },
          { about: 'Study node', caption: null, at: '2026-01-05T09:11:00Z', jpeg: null }
        ]
      })
    ).replace(/\s+/g, ' ')
    for (const said of [
      'Source, by cable',
      '210 Mbit/s',
      '-58 dBm',
      'Floor of a room: 100 Mbit/s',
      'Since the visit before',
      '2.8.1 3.1.0',
      'Study node: on its shelf',
      '1 picture of a label is kept as secrets'
    ])
      expect(text).toContain(said)
  })

  it('the square beside the seal is read off the paper, and its signature is that of the key', async () => {
    const keys = companyKeys(Buffer.alloc(32, 5))
    const hash = 'ab'.repeat(32)
    const parts = { chain: hash, record: hash, standard: hash, catalogue: hash, key: keys.keyName }
    const sealed = complete()
      .write('sealed', { ...parts, signature: signText(keys, sealText(idOf('visit'), parts)) })
      .folded()
    const file = join(folder, 'seal.pdf')
    writeFileSync(file, await recordPdf({ ...sealed, catalogue, standard: firstStandard, findings: [] }))
    // A camera looks many times, from here and there; so does this.
    const texts = await Promise.all(
      [100, 150, 200, 300].map(async (dpi) => {
        execFileSync('pdftoppm', ['-r', String(dpi), '-png', file, join(folder, `seal-${dpi}`)])
        const last = readdirSync(folder)
          .filter((name) => name.startsWith(`seal-${dpi}-`))
          .sort()
          .at(-1)!
        const { data, info } = await sharp(join(folder, last)).greyscale().raw().toBuffer({ resolveWithObject: true })
        const bitmap = new BinaryBitmap(
          new HybridBinarizer(new RGBLuminanceSource(new Uint8ClampedArray(data), info.width, info.height))
        )
        try {
          return new QRCodeReader().decode(bitmap, new Map([[DecodeHintType.TRY_HARDER, true]])).getText()
        } catch {
          return ''
        }
      })
    )
    const read = readSealCode(texts.find((text) => text !== '') ?? '')!
    expect(read).toMatchObject({ visit: idOf('visit'), seal: parts })
    expect(sealSignatureHolds(read.visit, read.seal, keys.publicKey)).toBe(true)
  })

  it('is made to be kept: PDF/A by its own words, every font in it, its language told', async () => {
    const pdf = await recordPdf({ ...complete().folded(), catalogue, standard: firstStandard, findings: [] })
    const raw = pdf.toString('latin1')
    expect(raw).toMatch(/<pdfaid:part>2<\/pdfaid:part>/)
    expect(raw).toMatch(/\/OutputIntents/)
    expect(raw).toMatch(/\/Lang \(en\)/)
    const file = join(folder, 'kept.pdf')
    writeFileSync(file, pdf)
    const fonts = execFileSync('pdffonts', [file], { encoding: 'utf8' }).trim().split('\n').slice(2)
    expect(fonts.length).toBeGreaterThan(1)
    for (const font of fonts) expect(font).toMatch(/ yes yes yes /)
  })

  it('of a visit just opened says what is not recorded', async () => {
    const text = await recordText(opened())
    expect(text).toContain('None recorded.')
    expect(text).toContain('customer: not signed')
  })

  it('a sealed one carries its seal on every page', async () => {
    const hash = 'ab'.repeat(32)
    const text = await recordText(
      complete().write('sealed', {
        chain: hash,
        record: hash,
        standard: hash,
        catalogue: hash,
        key: '0123456789abcdef',
        signature: 'cd'.repeat(64)
      })
    )
    const pages = text.split('\f').filter((page) => page.trim())
    for (const page of pages) expect(page).toContain('key 0123456789abcdef')
  })
})

it('a lens of two colours is drawn in two halves, and an unknown colour dark', () => {
  expect(lensSvg('orange/green').match(/fill="#[0-9A-F]{6}"/g)).toHaveLength(3)
  expect(lensSvg('octarine')).toContain('#3B3542')
})
