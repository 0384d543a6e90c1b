import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { secretFor } from '@pasado/core/record/record'
import { evaluate } from '@pasado/core/standard/evaluate'
import { firstStandard } from '@pasado/core/standard/standard'
import { lensSvg } from '../src/documents/pdf'
import { packContentOf } from '@pasado/core/pack/content'
import { packPdf } from '../src/documents/pack'
import { recordPdf } from '../src/documents/record-pdf'
import { catalogue, complete, idOf, network, node, opened, type Log } from '../../core/test/fixture'

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
  return textOf(await packPdf(packContentOf({ record, catalogue, values: new Map(ref ? [[ref, passphrase]] : []), company: { name: 'Tern & Tideway', phone: '555-0100' } })))
}

async function recordText(log: Log): Promise<string> {
  const record = log.record()
  return textOf(await recordPdf(record, evaluate(record, catalogue, firstStandard), catalogue))
}

describe('the customer’s pack', () => {
  it('holds names and passphrases, places, lamps, and who to call', async () => {
    const text = await pack(complete())
    for (const said of ['Your home network', 'Razorbill', 'demo-plover-and-42-herons', 'Hall router', 'hall', 'white, steady', 'Call Tern & Tideway, 555-0100']) expect(text).toContain(said)
    expect(text).toMatch(/amber, blinking:\s+no internet/)
    expect(text).not.toContain('No calls in a power cut')
  })

  it.each([8, 40, 63])('a passphrase of %i characters stands on one line, so that no hyphen is taken for a line’s end', async (length) => {
    const passphrase = 'ab-'.repeat(30).slice(0, length)
    expect(await pack(complete(), passphrase)).toContain(passphrase)
  })

  it('an open network says so, and one whose passphrase is not kept by us as well', async () => {
    expect(await pack(complete().write('network.set', { id: network, set: { security: 'open' } }))).toContain('anybody can join')
    const log = complete().write('network.set', { id: idOf('g'), set: { ssid: 'Guests', use: 'guest', security: 'wpa3' } })
    expect(await pack(log)).toMatch(/For guests[\s\S]*Guests[\s\S]*not kept by us/)
  })

  it('a network of the office or of equipment is not the customer’s guests’ to join from the fridge', async () => {
    expect(await pack(complete().write('network.set', { id: idOf('o'), set: { ssid: 'Back Office', use: 'office', security: 'wpa3' } }))).not.toContain('Back Office')
  })

  it('lamps switched off are dark when all is well', async () => {
    expect(await pack(complete().write('choice.answered', { choice: 'lamp', answer: 'off' }))).toMatch(/All is well:\s+dark/)
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
    for (const said of ['HE1-1', '00:00:5e:00:53:02', '192.168.1.0/24', '3.1.0', 'Razorbill', '••••••••', 'wifi-passphrase', 'Not sealed']) expect(text).toContain(said)
    expect(text).not.toContain('demo-')
  })

  it('names who waived what, and why', async () => {
    const text = await recordText(complete().write('unit.set', { id: node, set: { firmwareAfter: '2.8.1' } }).write('waiver.granted', { rule: 'firm-minimum', reason: 'A second visit is booked.' }))
    expect(text.replace(/\s+/g, ' ')).toContain('waived by Isolde Marram: A second visit is booked.')
  })

  it('of a visit just opened says what is not recorded', async () => {
    const text = await recordText(opened())
    expect(text).toContain('None recorded.')
    expect(text).toContain('customer: not signed')
  })

  it('a sealed one carries its seal on every page', async () => {
    const hash = 'ab'.repeat(32)
    const text = await recordText(complete().write('sealed', { chain: hash, record: hash, standard: hash, catalogue: hash, key: '0123456789abcdef', signature: 'cd'.repeat(64) }))
    const pages = text.split('\f').filter((page) => page.trim())
    for (const page of pages) expect(page).toContain('key 0123456789abcdef')
  })
})

it('a lens of two colours is drawn in two halves, and an unknown colour dark', () => {
  expect(lensSvg('orange/green').match(/fill="#[0-9A-F]{6}"/g)).toHaveLength(3)
  expect(lensSvg('octarine')).toContain('#3B3542')
})
