import { readFileSync } from 'node:fs'
import { inflateSync } from 'node:zlib'
import * as fontkit from 'fontkit'
import { describe, expect, it } from 'vitest'
import { packContentOf } from '@pasado/core/documents/pack-content'
import { evaluate } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { forPaper, isOnPaper, isPrinted, withBlanksShown } from '@pasado/core/values/on-paper'
import { faces, ownRanges } from '../src/documents/faces'
import { packPdf } from '../src/documents/pack'
import { recordPdf } from '../src/documents/record-pdf'
import { catalogue, complete, idOf, network, node, study, type Log } from '@pasado/testing/logbook'

const held = (file: string) => {
  const font = fontkit.create(readFileSync(file)) as fontkit.Font
  return (codePoint: number) => font.hasGlyphForCodePoint(codePoint)
}
const every = (files: string[]) => {
  const all = files.map(held)
  return (codePoint: number) => all.every((has) => has(codePoint))
}

/** How often a document draws the sign for what a face does not hold: glyph 0 in the text that it shows. */
function missingSigns(pdf: Buffer): number {
  let count = 0
  for (let at = pdf.indexOf('stream\n'); at >= 0; at = pdf.indexOf('stream\n', at + 1)) {
    if (pdf.subarray(at - 3, at).toString() === 'end') continue
    let text: string
    try {
      text = inflateSync(pdf.subarray(at + 7)).toString('latin1')
    } catch {
      continue
    }
    for (const [, shown] of text.matchAll(/\[([^\]]*)\] ?TJ/g))
      for (const [, hex] of shown!.matchAll(/<([0-9a-f]*)>/gi))
        for (let glyph = 0; glyph < hex!.length; glyph += 4) if (hex!.slice(glyph, glyph + 4) === '0000') count++
  }
  return count
}

const pack = (log: Log) =>
  packPdf(
    packContentOf({
      record: log.record(),
      catalogue,
      values: new Map(),
      company: { name: 'Tern & Tideway', phone: '555-0100' }
    })
  )
const record = (log: Log) => {
  const folded = log.folded()
  return recordPdf({
    ...folded,
    catalogue,
    standard: firstStandard,
    findings: evaluate(folded, catalogue, firstStandard)
  })
}
const called = (name: string, more: Record<string, unknown> = {}) =>
  complete()
    .write('network.set', { id: network, set: { ssid: name, ...more } })
    .write('brief.set', { set: { customerName: name } })
    .write('unit.set', { id: node, set: { name, place: name } })
    .write('note.written', { text: `${name}: agreed` })
    .write('storey.set', { id: idOf('ground'), set: { name, floorM: 0, heightM: 2.5 } })
    .write('room.set', { id: study, set: { name, storey: idOf('ground'), x: 0, y: 0, widthM: 4, depthM: 4 } })
    .write('unit.set', { id: node, set: { storey: idOf('ground'), x: 1, y: 1 } })

describe('the faces of documents', () => {
  it('hold all that paper is said to show, in every one that is used for it', () => {
    const wide = every([faces.Wide.normal, faces.Wide.bold, faces.WideMono.normal, faces.WideMono.bold])
    const ours = every([...Object.values(faces.Sans), ...Object.values(faces.Mono)])
    const missing: string[] = []
    for (let codePoint = 0x20; codePoint < 0x3000; codePoint++) {
      if (isPrinted(codePoint) && !wide(codePoint)) missing.push(codePoint.toString(16))
      if (ownRanges.some(([first, last]) => codePoint >= first && codePoint <= last) && !ours(codePoint))
        missing.push(`own ${codePoint.toString(16)}`)
    }
    expect(missing).toEqual([])
    for (const name of ['Дом Анны', 'Σπίτι της Άννας', 'Łódź Černý', 'Café Ñandú'])
      expect([name, isOnPaper(name)]).toEqual([name, true])
    for (const name of ['家族ネット', 'نت العائلة', '📶']) expect([name, isOnPaper(name)]).toEqual([name, false])
  })

  it.each(['Razorbill', 'Дом Анны', 'Σπίτι', 'Łódź', '家族ネット📶', 'نت العائلة'])(
    'draw no sign for a missing one, whatever is called %s',
    async (name) => {
      expect(missingSigns(await pack(called(name)))).toBe(0)
      expect(missingSigns(await record(called(name)))).toBe(0)
    },
    30_000
  )

  it('what no face holds is told by its code point; a transcription stands in its place', async () => {
    expect(forPaper('家 Oakum')).toBe('[U+5BB6] Oakum')
    const content = (log: Log) =>
      packContentOf({ record: log.record(), catalogue, values: new Map(), company: { name: 'T', phone: '5' } })
    expect(content(called('家族', { transcription: 'Kazoku' })).networks[0]).toMatchObject({
      ssid: '家族',
      transcription: 'Kazoku'
    })
    expect(content(called('Дом', { transcription: 'Dom' })).networks[0]).not.toHaveProperty('transcription')
    expect(content(called('家').write('brief.set', { set: { nameOnPaper: 'Ie' } }))).toMatchObject({
      customer: '家',
      customerOnPaper: 'Ie'
    })
  })

  it('blanks at the ends of a name are shown', () =>
    expect([' lead', 'trail ', 'a b', '  both '].map(withBlanksShown)).toEqual(['␣lead', 'trail␣', 'a b', '␣␣both␣']))
})
