import { describe, expect, it } from 'vitest'
import { packDigest, sealText, type SealedParts } from '@pasado/core/record/seal'
import type { VisitRecord } from '@pasado/core/record/record'
import { nextErasure, secretsLeft } from '@pasado/core/work/erasure/erasure'
import { complete, idOf, network, node, router } from '@pasado/testing/logbook'

const SEALED = '2026-01-05T12:00:00.000Z'
const DAYS = 30

/** The complete visit, sealed, with who keeps its secrets. */
function sealed(custody: Record<string, unknown> | null, more: Partial<VisitRecord> = {}): VisitRecord {
  const log = complete()
  if (custody) log.write('custody.answered', custody as { custody: 'company-keeps' })
  return { ...log.record(), seal: { at: SEALED } as unknown as VisitRecord['seal'], ...more }
}
const refsOf = (record: VisitRecord, purpose?: string) =>
  Object.values(record.secrets)
    .filter((secret) => purpose === undefined || secret.purpose === purpose)
    .map(({ ref }) => ref)
    .sort()

describe('what is erased next', () => {
  it('is nothing of a visit that is open, of one without a secret, and of one whose secrets are gone', () => {
    expect(nextErasure(complete().record(), DAYS)).toBeNull()
    expect(nextErasure(sealed(null, { secrets: {} }), DAYS)).toBeNull()
    expect(nextErasure(sealed(null, { secretsErased: true }), DAYS)).toBeNull()
    expect(secretsLeft(sealed(null, { secretsErased: true }))).toEqual([])
  })

  it.each([
    ['nobody answered', null, '2026-02-04T12:00:00.000Z'],
    ['after the standard’s days', { custody: 'erase-after-30-days' }, '2026-02-04T12:00:00.000Z'],
    ['only the customer keeps them', { custody: 'customer-only-now' }, SEALED],
    // The whole of the last day is theirs, wherever on the earth it ends.
    ['we keep all of them until a day', { custody: 'company-keeps', until: '2026-03-01' }, '2026-03-02T12:00:00.000Z']
  ])('all of them: %s', (_, custody, at) => {
    const record = sealed(custody)
    expect(nextErasure(record, DAYS)).toEqual({ at, refs: refsOf(record), kept: [] })
  })

  it('is never what we keep without an end', () => {
    expect(nextErasure(sealed({ custody: 'company-keeps' }), DAYS)).toBeNull()
    expect(nextErasure(sealed({ custody: 'company-keeps', keeps: [] }), DAYS)).toBeNull()
  })

  it('of those that we keep some of are the others after the usual days, and what we keep on its own day, whichever comes first', () => {
    const keeps = ['admin-password']
    const forLong = sealed({ custody: 'company-keeps', keeps, until: '2026-06-01' })
    const [ours, others] = [
      refsOf(forLong, 'admin-password'),
      refsOf(forLong).filter((ref) => !refsOf(forLong, 'admin-password').includes(ref))
    ]
    expect(ours.length * others.length).toBeGreaterThan(0)
    expect(nextErasure(forLong, DAYS)).toEqual({ at: '2026-02-04T12:00:00.000Z', refs: others, kept: ours })
    const shortly = sealed({ custody: 'company-keeps', keeps, until: '2026-01-10' })
    expect(nextErasure(shortly, DAYS)).toEqual({ at: '2026-01-11T12:00:00.000Z', refs: ours, kept: others })
    // Both on one moment: all of it.
    const both = sealed({ custody: 'company-keeps', keeps, until: '2026-02-03' })
    expect(nextErasure(both, DAYS)).toEqual({ at: '2026-02-04T12:00:00.000Z', refs: refsOf(both), kept: [] })
    // What was erased before is not erased again; where only ours are left, their day is next.
    const secrets = Object.fromEntries(
      Object.entries(forLong.secrets).map(([ref, secret]) => [
        ref,
        others.includes(ref) ? { ...secret, erasedAt: SEALED } : secret
      ])
    )
    expect(nextErasure({ ...forLong, secrets }, DAYS)).toEqual({ at: '2026-06-02T12:00:00.000Z', refs: ours, kept: [] })
    expect(nextErasure({ ...sealed({ custody: 'company-keeps', keeps }), secrets }, DAYS)).toBeNull()
    const gone = Object.fromEntries(
      Object.entries(forLong.secrets).map(([ref, secret]) => [
        ref,
        ours.includes(ref) ? { ...secret, erasedAt: SEALED } : secret
      ])
    )
    expect(nextErasure({ ...forLong, secrets: gone }, DAYS)).toEqual({
      at: '2026-02-04T12:00:00.000Z',
      refs: others,
      kept: []
    })
  })

  it('of a cancelled visit is all of it after the usual days, and of one that was sealed after all as who keeps them was answered', () => {
    const cancelled = complete().write('visit.cancelled', { reason: 'Nobody there.' }).record()
    const from = Date.parse(cancelled.visit.cancelled!.at)
    expect(nextErasure(cancelled, DAYS)).toEqual({
      at: new Date(from + DAYS * 24 * 3_600_000).toISOString(),
      refs: refsOf(cancelled),
      kept: []
    })
    expect(nextErasure({ ...cancelled, seal: { at: SEALED } as unknown as VisitRecord['seal'] }, 1)!.at).toBe(
      '2026-01-06T12:00:00.000Z'
    )
  })
})

describe('what a digest is of', () => {
  it('the text under a seal says its kind: with verdicts it is the second', () => {
    const parts = { chain: 'a', record: 'b', standard: 'c', catalogue: 'd', key: 'e' } as SealedParts
    expect(JSON.parse(sealText('visit', parts))).toEqual({ format: 'pasado.seal/1', visit: 'visit', ...parts })
    expect(JSON.parse(sealText('visit', { ...parts, verdicts: 'f' }))).toEqual({
      format: 'pasado.seal/2',
      visit: 'visit',
      ...parts,
      verdicts: 'f'
    })
  })

  it.each([
    [
      'where a unit’s page is',
      true,
      () => complete().write('host.set', { id: idOf('hn'), set: { address: '192.168.1.21' } })
    ],
    [
      'the address of a printer',
      false,
      () => complete().write('host.set', { id: idOf('hx'), set: { name: 'Printer', address: '192.168.1.30' } })
    ],
    ['a name', true, () => complete().write('network.set', { id: network, set: { ssid: 'Guillemot' } })],
    [
      'a name that is prepared',
      false,
      () => complete().write('network.set', { id: network, set: { preparedName: 'Guillemot' } })
    ],
    ['a new passphrase', true, () => complete().secret('wifi-passphrase', 'network', network)],
    ['one that is prepared', false, () => complete().prepared(network, idOf('later'))],
    ['a unit that was taken out', true, () => complete().write('thing.removed', { thing: 'unit', id: node })],
    [
      'a lamp that was looked at',
      false,
      () =>
        complete().write('lamp.seen', { unit: router, lamps: [{ lamp: 'status', colour: 'white', pattern: 'solid' }] })
    ],
    [
      'when the home is looked at again',
      true,
      () => complete().write('check.booked', { id: idOf('chk'), ...booked(0) })
    ],
    ['a choice', true, () => complete().write('choice.answered', { choice: 'guest', answer: 'no' })],
    [
      'which secrets we keep',
      true,
      () =>
        complete().write('custody.answered', {
          custody: 'company-keeps',
          keeps: ['admin-password'],
          until: '2027-01-01'
        })
    ]
  ])('of the pack: %s', (_, changes, made) => {
    expect(packDigest(made().record()) !== packDigest(complete().record())).toBe(changes)
  })

  it('of the pack: another day to look at the home again', () => {
    const on = (days: number) =>
      packDigest(
        complete()
          .write('check.booked', { id: idOf('chk'), ...booked(days) })
          .record()
      )
    expect(new Set([on(0), on(1), on(2)]).size).toBe(3)
  })
})

/** A look at the home so many days on. */
function booked(days: number) {
  const day = (at: number) => new Date(Date.UTC(2026, 1, 1 + at)).toISOString()
  return { from: day(days), to: day(days + 1) }
}
