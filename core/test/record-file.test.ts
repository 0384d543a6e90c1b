import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ed25519 } from '@noble/curves/ed25519.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import { describe, expect, it } from 'vitest'
import { Refusal } from '@pasado/core/values/problem'
import {
  integrityProblems,
  makeRecordFile,
  modelsUsed,
  printRecordFile,
  readRecordFile,
  type RecordFile
} from '@pasado/core/documents/record-file'
import { chained, chainStart } from '@pasado/core/record/chain'
import type { Entry, Placed } from '@pasado/core/record/entry'
import type { Body, EntryKind } from '@pasado/core/record/entries/all'
import { fold } from '@pasado/core/history/fold'
import { reduce } from '@pasado/core/record/reduce'
import {
  keyName,
  packDigest,
  readSealCode,
  sealCode,
  sealParts,
  sealSignatureHolds,
  sealText,
  signedDigest
} from '@pasado/core/record/seal'
import { catalogueOf } from '@pasado/core/catalogue/model'
import { digestOf } from '@pasado/core/values/canonical'
import { conflictsOf } from '@pasado/core/history/conflicts'
import { allRules } from '@pasado/core/rules/all'
import { evaluate } from '@pasado/core/rules/evaluate'
import { blocks } from '@pasado/core/rules/weigh'
import { firstRules } from '@pasado/core/rules/first-rules'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { catalogue, complete, idOf, network, router, someone } from '@pasado/testing/logbook'

const secretKey = new Uint8Array(32).fill(7)
const publicKey = bytesToHex(ed25519.getPublicKey(secretKey))

/** Entry ids of a file are UUIDs of version 7. */
const uuid7 = (seq: number) => `019a0000-0000-7000-8000-${String(seq).padStart(12, '0')}`

function chain(placed: readonly Placed[]): Entry[] {
  const entries: Entry[] = []
  for (const entry of placed)
    entries.push(chained(entries.at(-1)?.hash ?? chainStart, { ...entry, id: uuid7(entry.seq) }))
  return entries
}

function next<K extends EntryKind>(entries: readonly Entry[], kind: K, body: Body<K>): Entry {
  const seq = entries.length + 1
  const placed = {
    id: uuid7(seq),
    visit: idOf('visit'),
    at: '2026-01-05T12:00:00.000Z',
    from: idOf('device'),
    base: seq - 1,
    kind,
    body,
    by: someone,
    seq,
    received: '2026-01-05T12:00:00.000Z'
  } as Placed
  return chained(entries.at(-1)!.hash, placed)
}

/** A sealed visit as a file; the seal is whatever a server with this key would set. */
function sealed(): RecordFile {
  const entries = chain(complete().entries)
  const folded = fold(entries)
  const { record } = folded
  const parts = sealParts(
    entries.at(-1)!,
    record,
    firstStandard,
    modelsUsed(record, catalogue),
    evaluate(folded, catalogue, firstStandard),
    keyName(publicKey)
  )
  const signature = bytesToHex(ed25519.sign(utf8ToBytes(sealText(idOf('visit'), parts)), secretKey))
  return makeRecordFile(
    [...entries, next(entries, 'sealed', { ...parts, signature })],
    firstStandard,
    catalogue,
    publicKey,
    { verdicts: evaluate(folded, catalogue, firstStandard) }
  )
}

const problemsOf = (file: RecordFile) => integrityProblems(file).map(({ path }) => path.join('.'))

describe('the lines that verdicts rest on', () => {
  it('stand beside the verdicts, one list each, in their order and under the seal', () => {
    const file = sealed()
    const lines = file.verdicts!.map(() => [2, 3])
    expect(problemsOf({ ...file, because: lines })).toEqual([])
    expect(problemsOf({ ...file, because: lines.slice(1) })).toEqual(['because'])
    expect(problemsOf({ ...file, because: lines.with(4, [3, 2]) })).toEqual(['because.4'])
    expect(problemsOf({ ...file, because: lines.with(5, [file.entries.length]) })).toEqual(['because.5'])
    const { verdicts: _, ...without } = file
    expect(problemsOf({ ...without, because: lines })).toEqual(['verdicts', 'because'])
  })
})

describe('a seal', () => {
  it('of the first kind says nothing of verdicts and verifies; verdicts put beside it are not under it', () => {
    const entries = chain(complete().entries)
    const folded = fold(entries)
    const { record } = folded
    const { verdicts: _, ...parts } = sealParts(
      entries.at(-1)!,
      record,
      firstStandard,
      modelsUsed(record, catalogue),
      [],
      keyName(publicKey)
    )
    const signature = bytesToHex(ed25519.sign(utf8ToBytes(sealText(idOf('visit'), parts)), secretKey))
    const file = makeRecordFile(
      [...entries, next(entries, 'sealed', { ...parts, signature })],
      firstStandard,
      catalogue,
      publicKey,
      { verdicts: evaluate(folded, catalogue, firstStandard) }
    )
    expect([file.verdicts, integrityProblems(file)]).toEqual([undefined, []])
    expect(problemsOf({ ...file, verdicts: [] })).toEqual(['verdicts'])
  })

  it('as its square gives back what was signed, of both kinds; words that objects have by themselves are no kind', () => {
    const { body } = sealed().entries.at(-1) as Entry<'sealed'>
    const { verdicts: _, ...before } = body
    for (const [seal, kind] of [
      [body, 'PASADO.SEAL/2:'],
      [before, 'PASADO.SEAL/1:']
    ] as const) {
      const code = sealCode(idOf('visit'), seal)
      expect(code.startsWith(kind)).toBe(true)
      expect(readSealCode(code)).toEqual({ visit: idOf('visit'), seal })
    }
    for (const text of ['constructor:a:b', '__proto__:a', 'PASADO.SEAL/3:a:b', ''])
      expect(readSealCode(text)).toBeNull()
  })
})

describe('a rule that fails on a record', () => {
  it('is unproven and named, and stops nothing else', () => {
    const log = complete()
    const rule = allRules.find(({ id }) => id === 'prove-path')!
    const judge = rule.judge
    const told: string[] = []
    try {
      rule.judge = () => {
        throw new TypeError('odd')
      }
      const findings = evaluate(log.folded(), catalogue, firstStandard, { onFault: (id) => told.push(id) })
      expect(findings.filter((finding) => finding.rule === 'prove-path')).toMatchObject([
        { outcome: 'unproven', level: 'must', place: { stage: 'prove' } }
      ])
      expect(findings.length).toBeGreaterThan(60)
      expect(told).toEqual(['prove-path'])
    } finally {
      rule.judge = judge
    }
  })
})

describe('a conflict', () => {
  it('is shown with the value that stands, which its author may have changed since without having seen the other', () => {
    const entries = complete().entries
    const last = entries.at(-1)!.seq
    const set = (seq: number, base: number, from: string, name: string, speedDownMbps: number) =>
      ({
        id: uuid7(seq),
        visit: idOf('visit'),
        at: '2026-01-05T12:00:00.000Z',
        from,
        base,
        kind: 'brief.set',
        body: { set: { speedDownMbps } },
        by: { ...someone, name },
        seq,
        received: '2026-01-05T12:00:00.000Z'
      }) as unknown as Placed
    const { record, history } = fold([
      ...entries,
      set(last + 1, last, idOf('corin'), 'Corin', 599),
      set(last + 2, last, idOf('isolde'), 'Isolde', 100),
      set(last + 3, last, idOf('isolde'), 'Isolde', 397)
    ])
    expect(record.conflicts).toHaveLength(1)
    expect(
      conflictsOf(history).map(({ key, values }) => [key, values.map(({ value, by }) => [value, by.name])])
    ).toEqual([
      [
        'brief.brief.speedDownMbps',
        [
          [599, 'Corin'],
          [397, 'Isolde']
        ]
      ]
    ])
  })
})

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
    [
      'an entry altered',
      (file) => {
        ;(file.entries[4] as Entry).received = '2026-01-05T23:00:00.000Z'
      },
      'entries'
    ],
    [
      'an entry taken out',
      (file) => {
        file.entries.splice(3, 1)
      },
      'entries'
    ],
    [
      'the record altered',
      (file) => {
        file.record.brief.facts.phone = '555-0999'
      },
      'record'
    ],
    [
      'the standard altered',
      (file) => {
        file.standard = { ...file.standard, policy: { ...file.standard.policy, leastStrength: 0 } }
      },
      'standard'
    ],
    [
      'a model altered',
      (file) => {
        file.models[0] = { ...file.models[0]!, name: 'Another' }
      },
      'models'
    ],
    [
      'a model left out',
      (file) => {
        file.models.pop()
      },
      'models'
    ],
    [
      'another key',
      (file) => {
        file.publicKey = '11'.repeat(32)
      },
      'publicKey'
    ],
    [
      'no key',
      (file) => {
        file.publicKey = null
      },
      'publicKey'
    ],
    [
      'another visit',
      (file) => {
        file.visit = idOf('other')
      },
      'visit'
    ],
    [
      'a verdict altered',
      (file) => {
        file.verdicts![3] = { ...file.verdicts![3]!, outcome: 'holds', evidence: 'All is well.' }
      },
      'verdicts'
    ],
    [
      'a verdict left out',
      (file) => {
        file.verdicts!.pop()
      },
      'verdicts'
    ],
    [
      'the verdicts left out',
      (file) => {
        delete file.verdicts
      },
      'verdicts'
    ],
    [
      'the print of the verdicts taken out of the seal',
      (file) => {
        delete (file.entries.at(-1) as Entry<'sealed'>).body.verdicts
        delete file.record.seal!.verdicts
        delete file.verdicts
      },
      'entries'
    ]
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
    const verdicts = base.verdicts!
    expect(integrityProblems(makeRecordFile(shown, firstStandard, catalogue, publicKey, { verdicts }))).toEqual([])
    const late = [...shown, next(shown, 'note.written', { text: 'late' })]
    expect(problemsOf(makeRecordFile(late, firstStandard, catalogue, publicKey, { verdicts }))).toEqual([
      `entries.${late.length - 1}`
    ])
  })

  it('a visit that is not sealed has no key in its file', () => {
    const open = makeRecordFile(chain(complete().entries), firstStandard, catalogue, null)
    expect(integrityProblems(open)).toEqual([])
    expect(problemsOf({ ...open, publicKey })).toEqual(['publicKey'])
    expect(problemsOf({ ...open, verdicts: [] })).toEqual(['verdicts'])
  })

  it.each([
    ['{"format":"pasado.record/1","visit"', 'cut short'],
    ['{"format":"pasado.record/2"}', 'is pasado.record/2'],
    ['{"format":"something/1"}', 'this is no record'],
    ['null', 'this is no record']
  ])('%s is refused', (text, said) => {
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
    log
      .write('wait.started', { id: idOf('w'), what: 'boot', usualMin: 1, mostMin: 3 })
      .write('pack.made', { digest: packDigest(log.record()) })
      .write('secret.shown', { ref: idOf('s'), why: 'checking it' })
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
    const findings = evaluate(fold(file.entries), catalogueOf(file.models), file.standard)
    expect(new Set(findings.map(({ rule }) => rule))).toEqual(new Set(firstRules))
    expect(findings.filter(blocks)).toEqual([])
  })
})
