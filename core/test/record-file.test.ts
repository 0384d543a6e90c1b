import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ed25519 } from '@noble/curves/ed25519.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import { describe, expect, it } from 'vitest'
import { Refusal } from '@pasado/core/calc/refusal'
import { integrityProblems, makeRecordFile, modelsUsed, printRecordFile, readRecordFile, type RecordFile } from '@pasado/core/formats/record-file'
import { chained, chainStart } from '@pasado/core/record/chain'
import type { Body, Entry, EntryKind, Placed } from '@pasado/core/record/entry'
import { reduce } from '@pasado/core/record/reduce'
import { keyName, packDigest, sealParts, sealSignatureHolds, sealText, signedDigest } from '@pasado/core/record/seal'
import { catalogueOf } from '@pasado/core/catalogue/model'
import { digestOf } from '@pasado/core/record/canonical'
import { blocks, evaluate } from '@pasado/core/standard/evaluate'
import { firstRules } from '@pasado/core/standard/rule-names'
import { firstStandard } from '@pasado/core/standard/standard'
import { catalogue, complete, idOf, network, router, someone } from './fixture'

const secretKey = new Uint8Array(32).fill(7)
const publicKey = bytesToHex(ed25519.getPublicKey(secretKey))

/** Entry ids of a file are UUIDs of version 7. */
const uuid7 = (seq: number) => `019a0000-0000-7000-8000-${String(seq).padStart(12, '0')}`

function chain(placed: readonly Placed[]): Entry[] {
  const entries: Entry[] = []
  for (const one of placed) entries.push(chained(entries.at(-1)?.hash ?? chainStart, { ...one, id: uuid7(one.seq) }))
  return entries
}

function next<K extends EntryKind>(entries: readonly Entry[], kind: K, body: Body<K>): Entry {
  const seq = entries.length + 1
  const placed = { id: uuid7(seq), visit: idOf('visit'), at: '2026-01-05T12:00:00.000Z', from: idOf('device'), base: seq - 1, kind, body, by: someone, seq, received: '2026-01-05T12:00:00.000Z' } as Placed
  return chained(entries.at(-1)!.hash, placed)
}

/** A sealed visit as a file; the seal is whatever a server with this key would set. */
function sealed(): RecordFile {
  const entries = chain(complete().entries)
  const record = reduce(entries as Placed[])
  const parts = sealParts(entries.at(-1)!, record, firstStandard, modelsUsed(record, catalogue), evaluate(record, catalogue, firstStandard), keyName(publicKey))
  const signature = bytesToHex(ed25519.sign(utf8ToBytes(sealText(idOf('visit'), parts)), secretKey))
  return makeRecordFile([...entries, next(entries, 'sealed', { ...parts, signature })], firstStandard, catalogue, publicKey, null, evaluate(record, catalogue, firstStandard))
}

const problemsOf = (file: RecordFile) => integrityProblems(file).map(({ path }) => path.join('.'))

describe('a record file', () => {
  it('reads back what was printed, and nothing is wrong with it', () => {
    const text = printRecordFile(sealed())
    const read = readRecordFile(text)
    expect(printRecordFile(read)).toBe(text)
    expect(integrityProblems(read, text)).toEqual([])
  })

  it('holds the models that its units name, and no others', () => {
    expect(sealed().models.map(({ id }) => id)).toEqual(['ostrel-heron', 'ostrel-tern'])
  })

  it.each<[string, (file: RecordFile) => void, string]>([
    ['an entry altered', (file) => { (file.entries[4] as Entry).received = '2026-01-05T23:00:00.000Z' }, 'entries'],
    ['an entry taken out', (file) => { file.entries.splice(3, 1) }, 'entries'],
    ['the record altered', (file) => { file.record.brief.facts.phone = '555-0999' }, 'record'],
    ['the standard altered', (file) => { file.standard = { ...file.standard, policy: { ...file.standard.policy, leastStrength: 0 } } }, 'standard'],
    ['a model altered', (file) => { file.models[0] = { ...file.models[0]!, name: 'Another' } }, 'models'],
    ['a model left out', (file) => { file.models.pop() }, 'models'],
    ['another key', (file) => { file.publicKey = '11'.repeat(32) }, 'publicKey'],
    ['no key', (file) => { file.publicKey = null }, 'publicKey'],
    ['another visit', (file) => { file.visit = idOf('other') }, 'visit']
  ])('%s is found out', (_, change, where) => {
    const file = structuredClone(sealed())
    change(file)
    expect(problemsOf(file).some((path) => path.startsWith(where))).toBe(true)
  })

  it('a seal that another key signed does not hold', () => {
    const file = structuredClone(sealed())
    const seal = (file.entries.at(-1) as Entry<'sealed'>).body
    expect(sealSignatureHolds(file.visit, seal, publicKey)).toBe(true)
    expect(sealSignatureHolds(file.visit, { ...seal, chain: '0'.repeat(64) }, publicKey)).toBe(false)
    expect(sealSignatureHolds(idOf('other'), seal, publicKey)).toBe(false)
    expect(sealSignatureHolds(file.visit, { ...seal, signature: 'zz' }, publicKey)).toBe(false)
  })

  it('after the seal only the showing and erasing of secrets may follow', () => {
    const base = sealed()
    const shown = [...(base.entries as Entry[])]
    shown.push(next(shown, 'secret.shown', { ref: idOf('s'), why: 'telling the customer' }))
    shown.push(next(shown, 'secrets.erased', { refs: [] }))
    expect(integrityProblems(makeRecordFile(shown, firstStandard, catalogue, publicKey))).toEqual([])
    const late = [...shown, next(shown, 'note.written', { text: 'late' })]
    expect(problemsOf(makeRecordFile(late, firstStandard, catalogue, publicKey))).toEqual([`entries.${late.length - 1}`])
  })

  it('a visit that is not sealed has no key in its file', () => {
    const open = makeRecordFile(chain(complete().entries), firstStandard, catalogue, null)
    expect(integrityProblems(open)).toEqual([])
    expect(problemsOf({ ...open, publicKey })).toEqual(['publicKey'])
  })

  it.each([['{"format":"pasado.record/1","visit"', 'cut short'], ['{"format":"pasado.record/2"}', 'is pasado.record/2'], ['{"format":"something/1"}', 'this is no record'], ['null', 'this is no record']])('%s is refused', (text, said) => {
    expect(() => readRecordFile(text)).toThrow(Refusal)
    expect(() => readRecordFile(text)).toThrow(said)
  })

  it('an unknown field is refused at any depth', () => {
    const file = JSON.parse(printRecordFile(sealed())) as { record: { brief: { facts: Record<string, unknown> } } }
    file.record.brief.facts.mood = 'good'
    expect(() => readRecordFile(JSON.stringify(file))).toThrow('record.brief.facts.mood')
  })
})

describe('digests', () => {
  it('what is signed changes with any fact, but not with waits, signatures or the pack being made again', () => {
    const log = complete()
    const digest = signedDigest(log.record())
    log.write('wait.started', { id: idOf('w'), what: 'boot', usualMin: 1, mostMin: 3 }).write('pack.made', { digest: packDigest(log.record()) }).write('secret.shown', { ref: idOf('s'), why: 'checking it' })
    expect(signedDigest(log.record())).toBe(digest)
    log.write('unit.set', { id: router, set: { heightM: 1.3 } })
    expect(signedDigest(log.record())).not.toBe(digest)
  })

  it('what a pack is made from changes with a name, a place, a choice or a passphrase', () => {
    const changes: ((log: ReturnType<typeof complete>) => unknown)[] = [
      (log) => log.write('network.set', { id: network, set: { ssid: 'Guillemot' } }),
      (log) => log.write('unit.set', { id: router, set: { place: 'attic' } }),
      (log) => log.write('choice.answered', { choice: 'guest', answer: 'no' }),
      (log) => log.secret('wifi-passphrase', 'network', network, { print: 'new' })
    ]
    const before = packDigest(complete().record())
    for (const change of changes) {
      const log = complete()
      change(log)
      expect(packDigest(log.record())).not.toBe(before)
    }
    expect(packDigest(complete().write('note.written', { text: 'no matter' }).record())).toBe(before)
  })
})

describe('a record sealed before there were boxes and photos', () => {
  const text = readFileSync(join(import.meta.dirname, 'fixtures/sealed-by-46-rules.json'), 'utf8')

  it('still proves itself', () => {
    const file = readRecordFile(text)
    expect(integrityProblems(file, text)).toEqual([])
    expect(digestOf(reduce(file.entries.slice(0, -1) as Placed[]))).toBe(file.record.seal!.record)
  })

  it('is judged by the rules of its time', () => {
    const file = readRecordFile(text)
    const findings = evaluate(file.record, catalogueOf(file.models), file.standard)
    expect(new Set(findings.map(({ rule }) => rule))).toEqual(new Set(firstRules))
    expect(findings.filter(blocks)).toEqual([])
  })
})
