import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { choiceAnswers, choiceNames } from '@pasado/core/record/answers'
import { lampColours, lampPatterns } from '@pasado/core/catalogue/look'
import { passphraseOf } from '@pasado/core/work/wifi/passphrase'
import { packWords } from '@pasado/core/documents/pack-words'
import { packContentOf } from '@pasado/core/documents/pack-content'
import { packPdf } from '../src/documents/pack'
import { catalogue, complete, home, idOf, node, router, type Log } from '@pasado/testing/logbook'

const folder = mkdtempSync(join(tmpdir(), 'pasado-pack-'))
let made = 0
async function textOf(log: Log): Promise<string> {
  const record = log.record()
  const values = new Map(
    Object.values(record.networks).flatMap((network) => {
      const secret = passphraseOf(record, network)
      return secret ? [[secret.ref, 'demo-plover-42'] as const] : []
    })
  )
  const file = join(folder, `${made++}.pdf`)
  writeFileSync(
    file,
    await packPdf(packContentOf({ record, catalogue, values, company: { name: 'Tern & Tideway', phone: '555-0100' } }))
  )
  return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' })
}

it('in Spanish nothing of the pack is English but names: headings, lamps, what to do, choices, the foot of the page', async () => {
  const log = complete().write('brief.set', { set: { language: 'es', telephone: true } })
  for (const choice of choiceNames) log.write('choice.answered', { choice, answer: choiceAnswers[choice][0]! })
  const text = await textOf(log)
  for (const said of [
    'La red de su casa',
    'Razorbill',
    'demo-plover-42',
    'Todo va bien',
    'blanca, fija',
    'No hay internet',
    'El primer día',
    'Sin llamadas en un apagón',
    'Actualizaciones automáticas',
    '1 de'
  ])
    expect(text).toContain(said)
  for (const english of ['Join it', 'All is well', 'steady', 'no internet', 'What you chose', 'power cut', ' of '])
    expect(text).not.toContain(english)
})

it('every colour, pattern, choice and answer has its word in each language', () => {
  for (const words of Object.values(packWords)) {
    for (const colour of lampColours)
      for (const pattern of lampPatterns) expect(words.look({ colour, pattern })).not.toMatch(/undefined/)
    for (const choice of choiceNames) {
      expect(words.choices[choice]).toBeTruthy()
      for (const answer of choiceAnswers[choice]) expect(words.answers[answer], answer).toBeTruthy()
    }
  }
  const keys = (value: object) => Object.keys(value).sort()
  expect(keys(packWords.es)).toEqual(keys(packWords.en))
})

it('draws where units stand, says when a mesh is looked at again, and gives an extender’s network its shared passphrase', async () => {
  const ground = idOf('ground')
  const log = complete()
    .write('storey.set', { id: ground, set: { name: 'Ground floor', floorM: 0, heightM: 2.5 } })
    .write('room.set', {
      id: idOf('r1'),
      set: { name: 'Parlour', storey: ground, x: 0, y: 0, widthM: 6, depthM: 4, complained: true }
    })
    .write('unit.set', { id: router, set: { storey: ground, x: 1, y: 2 } })
    .write('unit.set', { id: node, set: { storey: ground, x: 5, y: 2 } })
    .write('unit.set', {
      id: idOf('reed'),
      set: { name: 'Landing extender', model: 'quillet-reed', modelVersion: 1, role: 'extender' }
    })
    .write('network.set', {
      id: idOf('ext'),
      set: {
        ssid: 'Razorbill-ext',
        use: 'main',
        bands: ['2.4'],
        security: 'wpa2-wpa3',
        segment: home,
        extender: idOf('reed')
      }
    })
  const text = await textOf(log)
  expect(text).toContain('Parlour')
  expect(text).not.toContain('✗')
  expect(text).toMatch(/We\s+look at it again on\s+Tuesday/)
  expect(text).toMatch(/Razorbill-ext[\s\S]*demo-plover-42/)
  expect(text).not.toContain('not kept by us')
})
