import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  houseFileProblem,
  houseDefinition,
  type HouseAction,
  type HouseDefinition
} from '@pasado/core/house/definition'
import { readDotted, underOurNames } from '@pasado/core/documents/dotted'
import { House, playHouse } from '@pasado/core/house/house'
import { readingOf } from '@pasado/core/house/pages'
import { followLamps } from '@pasado/core/catalogue/follow'
import { demoModels } from '@pasado/demo/models/all'
import { demoHouses } from '@pasado/demo/houses'
import { catalogue } from '@pasado/testing/logbook'

type Step = HouseAction extends infer A ? (A extends HouseAction ? Omit<A, 'at'> : never) : never
const [mesh, conversion] = [demoHouses[0]!, demoHouses[1]!]

/** Does steps one after another, so many minutes apart. */
function play(definition: HouseDefinition, steps: readonly (Step | number)[]): House {
  let at = 0
  const actions: HouseAction[] = []
  for (const step of steps)
    if (typeof step === 'number') {
      at += step * 60
      actions.push({ at, do: 'wait' })
    } else actions.push({ at, ...step })
  return playHouse(definition, actions, catalogue)
}
const shows = (of: House, id: string) => of.shows(id).state

/** What people do, as they come: at random, valid or not. */
const anyAction = (definition: HouseDefinition): fc.Arbitrary<Step> => {
  const unit = fc.constantFrom(...definition.units.map(({ id }) => id))
  const port = unit.chain((id) =>
    fc.constantFrom(
      ...demoModels
        .find(({ id: model }) => model === definition.units.find((candidate) => candidate.id === id)!.model)!
        .ports.map((item) => ({ unit: id, port: item.id })),
      { unit: 'line', port: 'wall' }
    )
  )
  return fc.oneof(
    unit.map((id): Step => ({ do: 'plug', unit: id })),
    unit.map((id): Step => ({ do: 'unplug', unit: id })),
    unit.map((id): Step => ({ do: 'app', unit: id })),
    unit.map((id): Step => ({ do: 'activate', unit: id })),
    unit.map((id): Step => ({ do: 'adopt', unit: id })),
    unit.chain((id) => {
      const buttons = demoModels.find(
        ({ id: model }) => model === definition.units.find((candidate) => candidate.id === id)!.model
      )!.buttons
      return fc.record({
        do: fc.constant('press' as const),
        unit: fc.constant(id),
        button: buttons.length ? fc.constantFrom(...buttons.map((button) => button.id)) : fc.constant('none'),
        seconds: fc.constantFrom(1, 3, 8, 12)
      })
    }),
    fc.record({
      do: fc.constant('cable' as const),
      cable: fc.constantFrom(...definition.cables.map(({ id }) => id)),
      a: port,
      b: port
    }),
    fc.constantFrom(...definition.cables.map(({ id }): Step => ({ do: 'uncable', cable: id })))
  )
}

describe('the simulated house', () => {
  it('is the same at every run: same definition and actions, same events', () => {
    fc.assert(
      fc.property(
        fc
          .constantFrom(...demoHouses)
          .chain((definition) =>
            fc.tuple(
              fc.constant(definition),
              fc.array(fc.tuple(fc.integer({ min: 0, max: 900 }), anyAction(definition)), { maxLength: 25 })
            )
          ),
        ([definition, list]) => {
          let at = 0
          const actions = list.map(([seconds, step]) => ({ ...step, at: (at += seconds) }))
          const [first, second] = [playHouse(definition, actions, catalogue), playHouse(definition, actions, catalogue)]
          for (const house of [first, second]) house.advanceTo(at + 7200)
          expect(second.events).toEqual(first.events)
          // Played in pieces, with looks in between, it is the same again.
          const pieces = new House(definition, catalogue)
          for (const action of actions) {
            pieces.advanceTo(action.at)
            pieces.act(action)
          }
          pieces.advanceTo(at + 3600)
          pieces.advanceTo(at + 7200)
          expect(pieces.events).toEqual(first.events)
        }
      ),
      { numRuns: 40 }
    )
  })

  it('never shows what its table cannot explain: every state decodes to itself', () => {
    fc.assert(
      fc.property(
        fc
          .constantFrom(...demoHouses)
          .chain((definition) =>
            fc.tuple(
              fc.constant(definition),
              fc.array(fc.tuple(fc.integer({ min: 0, max: 600 }), anyAction(definition)), { maxLength: 20 })
            )
          ),
        ([definition, list]) => {
          const house = new House(definition, catalogue)
          const seen = new Map(
            definition.units.map(({ id }) => [
              id,
              [] as { atMin: number; lamps: ReturnType<House['shows']>['lamps'] }[]
            ])
          )
          let at = 0
          const look = () => {
            for (const [id, all] of seen) all.push({ atMin: house.now / 60, lamps: house.shows(id).lamps })
          }
          look()
          for (const [seconds, step] of list) {
            at += seconds
            while (house.nextAt !== null && house.nextAt <= at) {
              house.advanceTo(house.nextAt)
              look()
            }
            house.act({ ...step, at })
            look()
          }
          for (const [id, all] of seen) {
            const { model } = house.units.get(id)!
            if (model.lamps.length === 0) continue
            const start = definition.units.find((unit) => unit.id === id)!.running
              ? new House(definition, catalogue).shows(id).state
              : model.start
            const found = followLamps({
              states: model.states.map(({ state, lamps }) => ({ state, lamps })),
              moves: model.moves,
              start,
              seen: all
            })
            expect([id, found.impossible]).toEqual([id, []])
            expect(found.candidates).toContain(house.shows(id).state)
          }
        }
      ),
      { numRuns: 60 }
    )
  })

  const uncabled: HouseDefinition = { ...mesh, faults: [] }
  const started: (Step | number)[] = [
    { do: 'cable', cable: 'coax-1', a: { unit: 'line', port: 'wall' }, b: { unit: 'gateway', port: 'coax' } },
    { do: 'plug', unit: 'gateway' },
    8,
    { do: 'activate', unit: 'gateway' },
    35,
    { do: 'cable', cable: 'net-1', a: { unit: 'gateway', port: 'lan-1' }, b: { unit: 'router', port: 'internet' } },
    { do: 'plug', unit: 'router' },
    5
  ]
  const setUp: (Step | number)[] = [...started, { do: 'app', unit: 'router' }, 30]

  it('a gateway seeks, is activated and is well; a router behind it starts, is set up and is online', () => {
    expect(shows(play(uncabled, started.slice(0, 2)), 'gateway')).toBe('starting')
    expect(shows(play(uncabled, started.slice(0, 3)), 'gateway')).toBe('seeking')
    expect(shows(play(uncabled, started), 'gateway')).toBe('well')
    expect(shows(play(uncabled, started), 'router')).toBe('ready')
    expect(shows(play(uncabled, setUp), 'router')).toBe('well')
  })

  it('two nodes join by their buttons within the window, and not after it', () => {
    const pair = (id: string, between: number): (Step | number)[] => [
      { do: 'press', unit: 'router', button: 'sync', seconds: 1 },
      between,
      { do: 'press', unit: id, button: 'sync', seconds: 1 },
      4
    ]
    const both = play(uncabled, [
      ...setUp,
      { do: 'plug', unit: 'node-1' },
      { do: 'plug', unit: 'node-2' },
      4,
      ...pair('node-1', 0.5),
      ...pair('node-2', 1)
    ])
    expect([shows(both, 'node-1'), shows(both, 'node-2')]).toEqual(['well', 'well'])
    expect(readingOf(both, 'router')).toMatchObject({ 'wifi.clients': '2', 'wan.online': 'yes' })
    const late = play(uncabled, [...setUp, { do: 'plug', unit: 'node-1' }, 4, ...pair('node-1', 3)])
    expect(shows(late, 'node-1')).toBe('ready')
  })

  it('carried to the far end of the house a node says that it is too far or out of reach', () => {
    const far = play(uncabled, [
      ...setUp,
      { do: 'plug', unit: 'node-1' },
      4,
      { do: 'press', unit: 'router', button: 'sync', seconds: 1 },
      { do: 'press', unit: 'node-1', button: 'sync', seconds: 1 },
      3,
      { do: 'carry', unit: 'node-1', to: { storey: 'Ground floor', x: 280, y: 200 } },
      6
    ])
    expect(['too-far', 'no-mesh']).toContain(shows(far, 'node-1'))
  })

  it('every fault that can be planted shows, and its mend mends it', () => {
    const withFault = (fault: HouseDefinition['faults'][number]) => ({ ...mesh, faults: [fault] })
    expect(shows(play(withFault({ kind: 'dead-line' }), started), 'gateway')).toBe('no-line')
    const bad = withFault({ kind: 'bad-cable', cable: 'net-1' })
    expect(shows(play(bad, setUp), 'router')).toBe('no-internet')
    expect(
      shows(
        play(bad, [
          ...setUp,
          { do: 'uncable', cable: 'net-1' },
          {
            do: 'cable',
            cable: 'net-2',
            a: { unit: 'gateway', port: 'lan-1' },
            b: { unit: 'router', port: 'internet' }
          },
          2
        ]),
        'router'
      )
    ).toBe('well')
    const adapter = withFault({ kind: 'wrong-adapter', unit: 'router' })
    const loop = play(adapter, started)
    expect(['unpowered', 'starting']).toContain(shows(loop, 'router'))
    expect(loop.events.filter(({ unit }) => unit === 'router').length).toBeGreaterThan(10)
    expect(
      shows(
        play(adapter, [...started, { do: 'swap-adapter', unit: 'router' }, 5, { do: 'app', unit: 'router' }, 20]),
        'router'
      )
    ).toBe('well')
    const stuck = withFault({ kind: 'stuck-pairing', unit: 'node-1' })
    const once: (Step | number)[] = [
      { do: 'press', unit: 'router', button: 'sync', seconds: 1 },
      { do: 'press', unit: 'node-1', button: 'sync', seconds: 1 },
      4
    ]
    expect(shows(play(stuck, [...setUp, { do: 'plug', unit: 'node-1' }, 4, ...once]), 'node-1')).toBe('ready')
    expect(shows(play(stuck, [...setUp, { do: 'plug', unit: 'node-1' }, 4, ...once, ...once]), 'node-1')).toBe('well')
    const wrongKey = withFault({ kind: 'wrong-key', unit: 'node-1' })
    expect(
      shows(play(wrongKey, [...setUp, { do: 'plug', unit: 'node-1' }, 4, { do: 'app', unit: 'node-1' }, 4]), 'node-1')
    ).toBe('ready')
    expect(
      shows(
        play(wrongKey, [
          ...setUp,
          { do: 'plug', unit: 'node-1' },
          4,
          { do: 'app', unit: 'node-1' },
          4,
          { do: 'app', unit: 'node-1' },
          4
        ]),
        'node-1'
      )
    ).toBe('well')
    const radioOff: HouseDefinition = {
      ...conversion,
      units: conversion.units.map((unit) => (unit.id === 'old' ? { ...unit, model: 'oldmere-weir' } : unit)),
      faults: [{ kind: 'radio-off', unit: 'old' }]
    }
    expect(shows(play(radioOff, [{ do: 'plug', unit: 'old' }, 3]), 'old')).toBe('radio-off')
    expect(
      shows(
        play(radioOff, [
          { do: 'plug', unit: 'old' },
          3,
          { do: 'set', unit: 'old', page: 'wifi', values: { 'wifi.radio': 'on' } },
          { do: 'apply', unit: 'old', page: 'wifi' }
        ]),
        'old'
      )
    ).toBe('access-point')
    const line = demoHouses[2]!
    const trained: (Step | number)[] = [
      { do: 'cable', cable: 'line-1', a: { unit: 'line', port: 'wall' }, b: { unit: 'gateway', port: 'line' } },
      { do: 'plug', unit: 'gateway' },
      40,
      { do: 'activate', unit: 'gateway' },
      5
    ]
    expect(shows(play({ ...line, faults: [] }, trained), 'gateway')).toBe('well')
    expect(shows(play({ ...line, faults: [{ kind: 'login-refused' }] }, trained), 'gateway')).toBe('refused')
    expect(
      readingOf(
        play(withFault({ kind: 'withdrawn-firmware', unit: 'node-1', version: '3.0.0' }), [
          { do: 'plug', unit: 'node-1' },
          5
        ]),
        'node-1'
      )
    ).toMatchObject({ 'device.firmware': '3.0.0' })
  })

  it('an old router made an access point: two DHCP servers until its own is off; a page that is left is lost, mode and addresses wait for a restart', () => {
    const cabled: (Step | number)[] = [
      { do: 'plug', unit: 'old' },
      3,
      { do: 'cable', cable: 'net-1', a: { unit: 'gateway', port: 'lan-2' }, b: { unit: 'old', port: 'lan-1' } },
      1
    ]
    const two = play(conversion, cabled)
    expect(two.network.serversOf('old').sort()).toEqual(['gateway', 'old'])
    const set: Step[] = [
      { do: 'set', unit: 'old', page: 'lan', values: { 'lan.address': '192.168.20.254', 'dhcp.server': 'off' } },
      { do: 'set', unit: 'old', page: 'mode', values: { mode: 'access-point' } }
    ]
    const left = play(conversion, [
      ...cabled,
      ...set,
      { do: 'leave', unit: 'old' },
      { do: 'apply', unit: 'old', page: 'lan' },
      { do: 'press', unit: 'old', button: 'reset', seconds: 3 },
      3
    ])
    expect(left.network.serversOf('old')).toContain('old')
    const applied: (Step | number)[] = [
      ...cabled,
      ...set,
      { do: 'apply', unit: 'old', page: 'lan' },
      { do: 'apply', unit: 'old', page: 'mode' }
    ]
    expect(play(conversion, applied).network.serversOf('old')).toContain('old')
    const done = play(conversion, [...applied, { do: 'press', unit: 'old', button: 'reset', seconds: 3 }, 3])
    expect([
      done.network.serversOf('old'),
      readingOf(done, 'old')!['lan.address'],
      readingOf(done, 'old')!['wan.online'],
      shows(done, 'old')
    ]).toEqual([['gateway'], '192.168.20.254', 'yes', 'access-point'])
  })

  it.each([
    [
      'a=1\n# what\n\nb.c = "two"\nwifi.passphrase=demo-nothing\na=3\nnonsense',
      { a: '1', 'b.c': 'two' },
      ['line 6: a comes twice', 'line 7 is no name=value']
    ],
    [
      '{"lan":{"ip":["x","y"],"on":true},"wifi.psk":"demo","n":null}',
      { 'lan.ip.1': 'x', 'lan.ip.2': 'y', 'lan.on': 'true', n: '' },
      []
    ],
    ['{"a":1,"a":2}', { a: '2' }, ['a comes twice in one place']],
    ['{"a":', {}, ['begins as JSON']]
  ])('what a unit tells is read: %j', (text, values, problems) => {
    const found = readDotted(text)
    expect(found.values).toEqual(values)
    expect(found.problems).toEqual(problems.map((problem) => expect.stringContaining(problem) as string))
  })

  it('a dump in the names of the open data models comes under ours', () => {
    expect(
      underOurNames(
        readDotted(
          'Device.DeviceInfo.SerialNumber=HE1\nDevice.DHCPv4.Server.Enable=true\nDevice.WiFi.SSID.1.SSID=Gull\nDevice.WiFi.SSID.2.SSID=Guests\nDevice.WiFi.AccessPoint.1.Security.KeyPassphrase=demo-nothing'
        ).values
      )
    ).toEqual({ 'device.serial': 'HE1', 'dhcp.server': 'on', 'wifi.ssid': 'Gull', 'Device.WiFi.SSID.2.SSID': 'Guests' })
  })

  it('a unit that is off tells nothing, and no reading holds a secret', () => {
    expect(readingOf(play(uncabled, []), 'router')).toBeNull()
    expect(
      Object.keys(readingOf(play(uncabled, setUp), 'router')!).filter((name) => /pass|key|secret|login/i.test(name))
    ).toEqual([])
  })

  it('files of another version, presses of minus a second and unknown units are told', () => {
    expect(houseFileProblem({ format: 'pasado.house-run/2' })).toContain('another version')
    expect(
      houseFileProblem({
        format: 'pasado.house-run/1',
        definition: mesh,
        actions: [{ at: 0, do: 'press', unit: 'router', button: 'sync', seconds: -1 }]
      })
    ).toContain('seconds: must be 0 or more')
    for (const demoHouse of demoHouses) expect(houseDefinition.parse(demoHouse)).toEqual(demoHouse)
    expect(play(mesh, [{ do: 'plug', unit: 'nobody' }]).events).toEqual([
      { at: 0, unit: null, message: 'there is no nobody in this house' }
    ])
    expect(() => new House({ ...mesh, units: [{ ...mesh.units[0]!, model: 'nothing' }] }, catalogue)).toThrow(
      'holds no nothing'
    )
  })
})
