import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { APPLIED_RULE, applyOrder, changeKinds } from '@pasado/core/work/configure/apply-order'
import { upstreamOf } from '@pasado/core/work/configure/upstream'
import { catalogue, complete, home, idOf, network, node, router } from '@pasado/testing/logbook'

const old = idOf('old')
const models = [
  ['oldmere-weir', 'access-point'],
  ['oldmere-weir', 'router'],
  ['brackwater-c3', 'gateway'],
  ['ostrel-tern', 'node'],
  ['quillet-reed', 'extender'],
  ['tolvane-spindle', 'access-point'],
  ['karstine-sill', 'modem']
] as const

describe('the order of applying', () => {
  it('whatever stands at a home, a unit is done before those it is reached through, and its address comes last', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            of: fc.constantFrom(...models),
            dhcp: fc.constantFrom('on' as const, 'off' as const, undefined),
            address: fc.boolean(),
            relay: fc.boolean(),
            firmware: fc.boolean()
          }),
          { maxLength: 6 }
        ),
        (list) => {
          const log = complete()
          list.forEach(({ of: [model, role], dhcp, address, relay, firmware }, at) => {
            log.write('unit.set', {
              id: idOf(`u${at}`),
              set: {
                name: `Unit ${at}`,
                model,
                modelVersion: 1,
                role,
                ...(dhcp ? { dhcpServer: dhcp } : {}),
                ...(relay ? { dhcpRelay: 'off' } : {}),
                ...(firmware ? { firmwareBefore: '1.0.7' } : {})
              }
            })
            if (address)
              log.write('host.set', {
                id: idOf(`a${at}`),
                set: { unit: idOf(`u${at}`), segment: home, address: `192.168.1.${30 + at}` }
              })
          })
          const record = log.record()
          const changes = applyOrder(record, catalogue)
          expect(new Set(changes.map(({ id }) => id)).size).toBe(changes.length)
          const up = upstreamOf(record, catalogue)
          for (const [at, { unit, kind }] of changes.entries()) {
            const isFarAddress = kind === 'address' && up.get(unit)!.through !== null
            for (let through = up.get(unit)!.through; through !== null; through = up.get(through)!.through) {
              // A fixed address of a far unit comes once whoever leads has the range.
              const [before, after] = [changes.slice(0, at), changes.slice(at)]
              if (up.get(through)!.through === null && isFarAddress)
                expect(after.some((change) => change.unit === through)).toBe(false)
              else if (!isFarAddress) expect(before.some((change) => change.unit === through)).toBe(false)
            }
          }
          for (let at = 1; at < changes.length; at++) {
            if (changes[at]!.unit === changes[at - 1]!.unit)
              expect(changeKinds.indexOf(changes[at]!.kind)).toBeGreaterThan(changeKinds.indexOf(changes[at - 1]!.kind))
          }
        }
      ),
      { numRuns: 60 }
    )
  })

  it('tells how each change cuts off, leaves names of a mesh to its router, and keeps what was applied', () => {
    const log = complete()
      .write('unit.set', {
        id: old,
        set: {
          name: 'Old router',
          model: 'oldmere-weir',
          modelVersion: 1,
          role: 'access-point',
          dhcpServer: 'off',
          dhcpRelay: 'off'
        }
      })
      .write('host.set', { id: idOf('ho'), set: { unit: old, segment: home, address: '192.168.1.250' } })
      .write('radio.set', { id: idOf('r'), set: { unit: router, band: '5', channel: 36, widthMHz: 80 } })
    const changes = applyOrder(log.record(), catalogue)
    expect(changes.filter(({ unit }) => unit === old).map(({ kind, cuts }) => [kind, cuts])).toEqual([
      ['relays', 'no'],
      ['wifi', 'join again'],
      ['dhcp', 'no'],
      ['address', 'new address']
    ])
    expect(changes.filter(({ unit, kind }) => unit === node && kind === 'wifi')).toEqual([])
    expect(changes.at(-1)).toMatchObject({ unit: old, kind: 'address' })
    expect(changes.findLast(({ kind }) => kind !== 'address')).toMatchObject({ unit: router })
    const [first] = changes
    expect(
      applyOrder(
        log.write('rule.answered', { rule: APPLIED_RULE, subject: first!.id, answer: 'yes' }).record(),
        catalogue
      )[0]
    ).toMatchObject({ id: first!.id, applied: true })
  })

  it('what the visit took over is set already; what was said since is to be applied, and all of a unit that was reset', () => {
    const log = complete().write('unit.set', { id: router, set: { dhcpServer: 'on' } })
    const since = log.record().lastSeq
    const kinds = (of: typeof log, unit: string) =>
      applyOrder(of.record(), catalogue, since).flatMap((change) => (change.unit === unit ? [change.kind] : []))
    expect(applyOrder(log.record(), catalogue).length).toBeGreaterThan(2)
    expect(applyOrder(log.record(), catalogue, since)).toEqual([])
    log.write('unit.set', { id: router, set: { dhcpServer: 'off' } })
    expect(kinds(log, router)).toEqual(['dhcp'])
    log.write('network.set', { id: network, set: { ssid: 'Guillemot' } })
    expect(kinds(log, router)).toEqual(['wifi', 'dhcp'])
    log.write('unit.event', { unit: router, what: 'reset' })
    expect(kinds(log, router).length).toBeGreaterThan(2)
  })

  it('what a controller runs has its names and its login from there; an address that its label tells is no change', () => {
    const far = idOf('far')
    const log = complete()
      .write('unit.set', {
        id: far,
        set: { name: 'Far point', model: 'tolvane-spindle', modelVersion: 1, role: 'access-point', method: 'adoption' }
      })
      .write('host.set', { id: idOf('hf'), set: { unit: far, segment: home, address: '192.168.1.251' } })
    const of = () => applyOrder(log.record(), catalogue).filter(({ unit }) => unit === far)
    expect(of().map(({ kind }) => kind)).toEqual(['address'])
    log.write('unit.set', { id: far, set: { pageAddress: 'http://192.168.1.251' } })
    expect(of()).toEqual([])
    log.write('unit.set', { id: far, set: { method: null } })
    expect(of().map(({ kind }) => kind)).toContain('wifi')
  })
})
