import { describe, expect, it } from 'vitest'
import { undoingOf } from '@pasado/core/history/slips'
import type { EntryKind } from '@pasado/core/record/entries/all'
import { preparedSecret, secretFor } from '@pasado/core/record/record'
import { packDigest } from '@pasado/core/record/seal'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { evaluate, type Finding } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { passphraseOf } from '@pasado/core/work/wifi/passphrase'
import { things } from '@pasado/core/record/things/all'
import { catalogue, complete, idOf, network, node, opened, type Log } from '@pasado/testing/logbook'

const standard = nextDraft(firstStandard)
const judge = (log: Log) => evaluate(log.folded(), catalogue, standard)
const saidOf = (log: Log, rule: string): Finding[] => judge(log).filter((finding) => finding.rule === rule)
const outcomesOf = (log: Log, rule: string) => saidOf(log, rule).map(({ outcome }) => outcome)

/** A passphrase that is to be typed in later, under the reference `later`. */
function prepare(log: Log, name: string | null = 'Gannet'): Log {
  if (name !== null) log.write('network.set', { id: network, set: { preparedName: name } })
  return log.prepared(network, idOf('later'))
}
const typeIn = (log: Log, more = {}) => log.write('secret.typed-in', { ref: idOf('later') }, more)

describe('a name and a passphrase that are prepared', () => {
  it('change nothing that was proven, and nothing that is printed', () => {
    const before = complete()
    const after = prepare(complete())
    expect(judge(after)).toEqual(judge(before))
    expect(packDigest(after.record())).toBe(packDigest(before.record()))
    expect(passphraseOf(after.record(), after.record().networks[network]!)?.ref).not.toBe(idOf('later'))
  })

  it('are a change from the line at which they are typed in', () => {
    const log = prepare(complete())
    expect(outcomesOf(log, 'prove-path')).toEqual(['holds'])
    typeIn(log)
    expect(secretFor(log.record(), 'wifi-passphrase', network)?.ref).toBe(idOf('later'))
    expect(preparedSecret(log.record(), 'wifi-passphrase', network)).toBeNull()
    expect(outcomesOf(log, 'addr-applied')).toEqual(['unproven'])
    expect(saidOf(log, 'prove-rooms')[0]).toMatchObject({ outcome: 'unproven', wasProven: true })
    expect(saidOf(log, 'prove-rooms')[0]!.evidence).toMatch(/passphrase of Razorbill was changed since/i)
  })

  it('do not undo what was proven after they were typed in', () => {
    const log = typeIn(prepare(complete(), null))
    log.write('measurement.set', {
      id: idOf('mst'),
      set: { runs: [{ downMbps: 210, upMbps: 48, idleMs: 14 }], dbm: -58 }
    })
    expect(outcomesOf(log, 'prove-rooms')).toEqual(['holds'])
  })

  it('are prepared again, and what was proven stands, where whoever pressed it takes it back as never so', () => {
    const log = typeIn(prepare(complete(), null))
    const before = prepare(complete(), null)
    const entry = log.entries.at(-1)!
    for (const { kind, body } of undoingOf(log.folded().history, entry)!) log.write(kind as EntryKind, body as never)
    expect(preparedSecret(log.record(), 'wifi-passphrase', network)?.ref).toBe(idOf('later'))
    expect(secretFor(log.record(), 'wifi-passphrase', network)).toEqual(
      secretFor(before.record(), 'wifi-passphrase', network)
    )
    // What may have been typed in wants these proofs again.
    const others = (judged: Finding[]) =>
      judged.filter(({ rule }) => rule !== 'prove-path' && rule !== 'prove-rejoined')
    expect(others(judge(log))).toEqual(others(judge(before)))
    // Typed in for good it is a change like any.
    expect(outcomesOf(typeIn(log), 'prove-rooms')).toEqual(['unproven'])
  })

  it('are the only secrets that go out of use so: no other does by such a line, and one that waits stays as it is', () => {
    const before = complete()
    const { ref } = secretFor(before.record(), 'wifi-passphrase', network)!
    const log = complete().write('secret.typed-in', { ref, prepared: true })
    expect(secretFor(log.record(), 'wifi-passphrase', network)?.ref).toBe(ref)
    expect(judge(log)).toEqual(judge(before))
    const waiting = prepare(complete(), null)
    const same = judge(waiting)
    waiting.write('secret.typed-in', { ref: idOf('later'), prepared: true })
    expect(judge(waiting)).toEqual(same)
    expect(preparedSecret(waiting.record(), 'wifi-passphrase', network)?.ref).toBe(idOf('later'))
  })

  it('are not prepared again once another passphrase was put in their place', () => {
    const log = typeIn(prepare(complete(), null))
    const entry = log.entries.at(-1)!
    log.secret('wifi-passphrase', 'network', network, { print: 'a-third' })
    expect(undoingOf(log.folded().history, entry)).toBeNull()
  })

  it('are told of who typed them in without knowing of the proof', () => {
    const log = prepare(complete(), null)
    const { seq } = log.entries.find(({ kind }) => kind === 'measurement.set')!
    typeIn(log, { from: idOf('tablet'), base: seq - 1, by: { id: idOf('x'), name: 'Corin Sedge', role: 'technician' } })
    expect(saidOf(log, 'prove-rooms')[0]!.evidence).toMatch(/which came first is not known/)
  })

  it('of a network that has no other are unproven, and say why', () => {
    const log = opened()
      .write('network.set', {
        id: network,
        set: { use: 'main', bands: ['5'], security: 'wpa3', preparedName: 'Gannet' }
      })
      .write('unit.set', { id: node, set: { model: 'ostrel-heron', modelVersion: 1, role: 'router' } })
    prepare(log, null)
    expect(saidOf(log, 'wifi-name')[0]).toMatchObject({
      outcome: 'unproven',
      evidence: 'Gannet is prepared, and not typed in yet.'
    })
    expect(saidOf(log, 'wifi-passphrase')[0]).toMatchObject({
      outcome: 'unproven',
      evidence: 'Its passphrase is prepared, and not typed in yet.'
    })
    log.write('network.set', { id: network, set: { ssid: 'Gannet', preparedName: null } })
    typeIn(log)
    expect(outcomesOf(log, 'wifi-name')).toEqual(['holds'])
    expect(outcomesOf(log, 'wifi-passphrase')).toEqual(['holds'])
  })

  it('typed in after another was kept are what is in use; said twice, they are so from the first time', () => {
    const log = prepare(complete(), null).secret('wifi-passphrase', 'network', network, { print: 'a third' })
    typeIn(log)
    const said = log.entries.length
    typeIn(log)
    expect(secretFor(log.record(), 'wifi-passphrase', network)).toMatchObject({ ref: idOf('later'), seq: said })
  })

  it('that were never typed in do not go along to the next visit', () => {
    const facts = prepare(complete()).record().networks[network]!.facts
    expect(facts.preparedName).toBe('Gannet')
    expect(things.network.carriesOver?.(facts)).not.toHaveProperty('preparedName')
  })
})
