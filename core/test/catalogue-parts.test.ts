import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boxesOf, contentsOf, singleBox, unitsToAdd } from '@pasado/core/work/units/boxes'
import { modelChanges } from '@pasado/core/catalogue/changes'
import { breaksOnMove } from '@pasado/core/work/units/breaks-on-move'
import { byMaker, newestModels, type Model } from '@pasado/core/catalogue/model'
import { updateWork } from '@pasado/core/catalogue/firmware-work'
import { adapterFault } from '@pasado/core/work/units/adapter'
import { elsewhereNow } from '@pasado/core/record/record'
import { demoModels } from '@pasado/demo/models/all'
import { box, catalogue, complete, idOf, node, ownAdapter, router } from '@pasado/testing/logbook'

const heron = demoModels.find(({ id }) => id === 'ostrel-heron')!
const changed = (change: (model: Model) => void) => {
  const model = structuredClone(heron)
  change(model)
  return model
}

describe('what differs between two versions of a model', () => {
  it('nothing, between a model and itself', () => {
    for (const model of demoModels) expect(modelChanges(model, structuredClone(model))).toEqual([])
    // Neither the order of fields nor one that is left out is a change.
    const turned = (value: unknown): unknown => {
      if (Array.isArray(value)) return value.map(turned)
      return typeof value === 'object' && value !== null
        ? Object.fromEntries([
            ...Object.entries(value)
              .reverse()
              .map(([key, item]) => [key, turned(item)]),
            ['left out', undefined]
          ])
        : value
    }
    for (const model of demoModels)
      expect(
        modelChanges(model, turned(model) as typeof model).filter(({ section }) => section !== ('left out' as never))
      ).toEqual([])
  })

  it.each<[string, (model: Model) => void, object]>([
    [
      'a release',
      (model) => {
        model.firmware.releases.push({ version: '3.2.0', date: '2026-10-01', fixesHole: true, withdrawn: false })
      },
      { section: 'firmware', name: '3.2.0', kind: 'added' }
    ],
    [
      'a release withdrawn',
      (model) => {
        model.firmware.releases[3]!.withdrawn = true
      },
      {
        section: 'firmware',
        name: '3.1.0',
        kind: 'changed',
        fields: [{ field: 'withdrawn', before: 'false', after: 'true' }]
      }
    ],
    [
      'the approved minimum',
      (model) => {
        model.firmware.minimum = '3.1.0'
      },
      {
        section: 'firmware',
        name: '',
        kind: 'changed',
        fields: [{ field: 'minimum', before: '3.0.2', after: '3.1.0' }]
      }
    ],
    [
      'a state taken out',
      (model) => {
        model.states = model.states.filter(({ state }) => state !== 'lamp-off')
      },
      { section: 'states', name: 'lamp-off', kind: 'taken out' }
    ],
    [
      'a move',
      (model) => {
        model.moves.push({ from: 'pairing', to: 'ready' })
      },
      { section: 'moves', name: 'pairing → ready', kind: 'added' }
    ],
    [
      'a role',
      (model) => {
        model.roles = ['router', 'access-point']
      },
      { section: 'roles', name: 'access-point', kind: 'added' }
    ],
    [
      'a field that was not there',
      (model) => {
        model.powerBudgetW = 60
      },
      { section: 'powerBudgetW', kind: 'changed', fields: [{ field: 'powerBudgetW', before: 'nothing', after: '60' }] }
    ],
    [
      'a kit',
      (model) => {
        model.kits = []
      },
      { section: 'kits', name: 'trio', kind: 'taken out' }
    ]
  ])('%s is told', (_, change, expected) => {
    expect(modelChanges(heron, changed(change))).toContainEqual(expect.objectContaining(expected))
  })

  it('what was added one way was taken out the other', () => {
    fc.assert(
      fc.property(fc.constantFrom(...demoModels), fc.constantFrom(...demoModels), (a, b) => {
        const turned = { added: 'taken out', 'taken out': 'added', changed: 'changed' }
        const keys = (list: ReturnType<typeof modelChanges>, turn: boolean) =>
          list.map(({ section, name, kind }) => `${section} ${name} ${turn ? turned[kind] : kind}`).sort()
        expect(keys(modelChanges(a, b), false)).toEqual(keys(modelChanges(b, a), true))
      })
    )
  })

  it('a unit whose role, method, prompts or lamp the next version no longer knows is told so, each for itself', () => {
    const unit = complete().record().units[router]!
    expect(breaksOnMove(unit, heron)).toEqual([])
    expect(
      breaksOnMove(
        unit,
        changed((model) => {
          model.roles = ['node']
        })
      )
    ).toEqual([expect.stringContaining('router')])
    expect(
      breaksOnMove(
        unit,
        changed((model) => {
          model.methods = []
        })
      )
    ).toEqual([expect.stringContaining('method app')])
    expect(
      breaksOnMove(
        unit,
        changed((model) => {
          model.prompts = model.prompts.slice(1)
        })
      )
    ).toEqual([expect.stringContaining(heron.prompts[0]!.id)])
    expect(
      breaksOnMove(
        unit,
        changed((model) => {
          for (const state of model.states) if (state.lamps[0]!.colour === 'white') state.lamps[0]!.colour = 'green'
        })
      )
    ).toEqual([expect.stringContaining('last sighting')])
  })
})

describe('boxes', () => {
  it('every box of every model can be unpacked into units that the catalogue knows', () => {
    const newest = newestModels(demoModels)
    for (const model of demoModels) {
      for (const { id, items } of boxesOf(model)) {
        const units = unitsToAdd(items, (item) => newest.get(item), [])
        expect([model.id, id, units.length]).toEqual([
          model.id,
          id,
          items.filter(({ unit }) => unit !== undefined).reduce((sum, { count }) => sum + count, 0)
        ])
        expect(units.length).toBeGreaterThan(0)
      }
    }
  })

  it('units that are recorded are not added again, however many there are of one model', () => {
    const trio = boxesOf(heron).find(({ id }) => id === 'trio')!
    const find = (id: string) => demoModels.find((demoModel) => demoModel.id === id)
    expect(unitsToAdd(trio.items, find, []).map(({ name }) => name)).toEqual(['Heron', 'Tern 1', 'Tern 2'])
    expect(unitsToAdd(trio.items, find, ['ostrel-tern']).map(({ name }) => name)).toEqual(['Heron', 'Tern 2'])
    expect(unitsToAdd(trio.items, find, ['ostrel-tern', 'ostrel-heron', 'ostrel-tern'])).toEqual([])
  })

  it('a box is named by its kit; one that the catalogue does not hold is none', () => {
    const held = complete().record().boxes![box]!
    expect(contentsOf(held, catalogue)!.title).toBe('Ostrel Heron, set of router and two Terns')
    expect(contentsOf({ ...held, facts: { ...held.facts, kit: singleBox } }, catalogue)!.title).toBe('Ostrel Heron')
    expect(contentsOf({ ...held, facts: { ...held.facts, kit: 'none' } }, catalogue)).toBeNull()
    expect(contentsOf({ ...held, facts: { ...held.facts, modelVersion: 9 } }, catalogue)).toBeNull()
  })

  it('models in their newest version, by maker', () => {
    const newest = newestModels([{ ...heron, version: 2 }, heron, demoModels[1]!])
    expect([...newest.values()].map(({ id, version }) => `${id} ${version}`)).toEqual([
      'ostrel-heron 2',
      `${demoModels[1]!.id} 1`
    ])
    expect([...demoModels].sort(byMaker)[0]!.maker).toBe('Brackwater')
  })
})

describe('a unit out of its box', () => {
  const power = heron.power!

  it('an adapter suits at the model’s plug and voltage, and at its current or more', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 24, noNaN: true }),
        fc.double({ min: 0.1, max: 6, noNaN: true }),
        (adapterVolts, adapterAmps) => {
          const fault = adapterFault(power, { ...ownAdapter, adapterVolts, adapterAmps })
          const volts = Math.abs(adapterVolts - power.volts) <= power.volts * 0.05
          const ofAmps = adapterAmps < power.amps ? 'adapterAmps' : null
          expect(fault).toBe(volts ? ofAmps : 'adapterVolts')
        }
      )
    )
    expect(adapterFault(power, { ...ownAdapter, adapterPlug: 'Island three-pin' })).toBeNull()
    expect(adapterFault(power, { ...ownAdapter, adapterPlug: 'flat two-pin' })).toBe('adapterPlug')
    expect(adapterFault(power, { adapterPlug: 'flat two-pin' })).toBeNull()
  })

  it('its updates take as long as there are installs', () => {
    expect(updateWork(heron, '2.8.1')).toEqual({
      path: ['3.0.2', '3.1.0'],
      reachesMinimum: true,
      usualMin: 10,
      mostMin: 30
    })
    expect(updateWork(heron, '3.1.0')).toMatchObject({ path: [], usualMin: 0 })
    expect(updateWork(heron, '1.0.0')).toMatchObject({ path: ['2.8.1', '3.0.2', '3.1.0'], usualMin: 15 })
    expect(
      updateWork({ ...heron, firmware: { ...heron.firmware, releases: [], minimum: '3.0.2' } }, '2.8.1')
    ).toMatchObject({ path: [], reachesMinimum: false })
    const { installMin: _, ...firmware } = heron.firmware
    expect(updateWork({ ...heron, firmware }, '2.8.1')).toMatchObject({ usualMin: null, mostMin: null })
  })

  it('stands nowhere else once it is known to have stood here, or to have been brought from there', () => {
    const there = {
      by: 'mac' as const,
      home: idOf('other'),
      visit: idOf('v'),
      since: '2025-11-02T10:00:00.000Z',
      sealed: true
    }
    const log = complete().write('unit.elsewhere', { unit: node, found: [there] })
    expect(elsewhereNow(log.record().units[node]!)).toEqual([there])
    expect(
      elsewhereNow(
        log.write('unit.transferred', { unit: node, from: there.home, reason: 'Moved.' }).record().units[node]!
      )
    ).toEqual([])
    expect(
      elsewhereNow(
        complete()
          .write('unit.elsewhere', { unit: node, found: [there] })
          .write('unit.set', { id: node, set: { stayed: true } })
          .record().units[node]!
      )
    ).toEqual([])
    expect(elsewhereNow(complete().record().units[node]!)).toEqual([])
  })
})
