import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { integrityProblems, readRecordFile } from '@pasado/core/documents/record-file'
import { digestOf } from '@pasado/core/values/canonical'
import type { Entry, Placed } from '@pasado/core/record/entry'
import { reduce } from '@pasado/core/record/reduce'
import { readSealCode, sealCode, sealSignatureHolds } from '@pasado/core/record/seal'

const folder = join(import.meta.dirname, '../../testing/before-outbox/sealed')
const digests = JSON.parse(readFileSync(join(folder, 'digests.json'), 'utf8')) as Record<
  string,
  { visit: string; record: string; sealed: string; entries: number }
>
const textOf = (name: string) => gunzipSync(readFileSync(join(folder, `${name}.json.gz`))).toString('utf8')

describe('visits that were sealed before', () => {
  it('are twelve of many kinds', () => {
    expect(
      readdirSync(folder)
        .filter((name) => name.endsWith('.gz'))
        .map((name) => name.slice(0, -8))
        .sort()
    ).toEqual(Object.keys(digests).sort())
    expect(Object.keys(digests)).toHaveLength(12)
    const kinds = new Set(
      Object.keys(digests).flatMap((name) => readRecordFile(textOf(name)).entries.map(({ kind }) => kind))
    )
    for (const kind of [
      'thing.removed',
      'thing.restored',
      'wait.started',
      'wait.ended',
      'waiver.granted',
      'waiver.withdrawn',
      'photo.added',
      'conflict.settled',
      'visit.handed',
      'standard.moved',
      'secret.shown',
      'fault.found',
      'path.seen',
      'check.booked'
    ])
      expect(kinds).toContain(kind)
  })

  it.each(Object.entries(digests))(
    '%s: verifies, and its record is the same to the last octet',
    (name, { visit, record, sealed, entries }) => {
      const text = textOf(name)
      const file = readRecordFile(text)
      expect(integrityProblems(file, text)).toEqual([])
      expect([file.visit, file.entries.length, file.verdicts]).toEqual([visit, entries, undefined])
      const all = file.entries as Entry[]
      expect(digestOf(reduce(all as Placed[]))).toBe(record)
      const at = all.findIndex(({ kind }) => kind === 'sealed')
      expect(digestOf(reduce(all.slice(0, at) as Placed[]))).toBe(sealed)
      const seal = (all[at] as Entry<'sealed'>).body
      const code = readSealCode(sealCode(visit, seal))!
      expect(code).toEqual({ visit, seal })
      expect(sealSignatureHolds(visit, code.seal, file.publicKey!)).toBe(true)
    }
  )
})
