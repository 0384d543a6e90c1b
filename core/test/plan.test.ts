import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { contoursOf, signalSteps, stepOf } from '@pasado/core/radio/contours'
import { planFile, planFileProblem, planFromFile, planToFile } from '@pasado/core/work/plan/file'
import { expectedRate, joinsOf } from '@pasado/core/work/plan/hops'
import { planOf, servedBy } from '@pasado/core/work/plan/home-plan'
import { placedUnits } from '@pasado/core/work/plan/placed'
import { partnerCircuit } from '@pasado/core/work/plan/powerline'
import { planSvg } from '@pasado/core/work/plan/plan-svg'
import { planProblems } from '@pasado/core/work/plan/problems'
import { readingsFromCsv, readingsToCsv, type ReadingLine } from '@pasado/core/documents/readings-csv'
import { cabledSockets, suggestPlaces, type SuggestInput } from '@pasado/core/work/plan/suggest'
import { cautionsOf } from '@pasado/core/rules/cautions'
import { linkRate } from '@pasado/core/radio/link-rate'
import { thingsOf } from '@pasado/core/record/record'
import { demoVisits } from '@pasado/demo/all'
import { catalogue, complete, idOf, node, opened, router } from '@pasado/testing/logbook'

const ground = idOf('ground')
const drawn = () =>
  complete()
    .write('storey.set', { id: ground, set: { name: 'Ground floor', floorM: 0, heightM: 2.5 } })
    .write('room.set', {
      id: idOf('a'),
      set: { name: 'Hall', storey: ground, x: 0, y: 0, widthM: 5, depthM: 4, listed: true }
    })
    .write('room.set', {
      id: idOf('b'),
      set: { name: 'Study', storey: ground, x: 5, y: 0, widthM: 5, depthM: 4, listed: true }
    })
    .write('outlet.set', { id: idOf('o1'), set: { storey: ground, kind: 'network', x: 1, y: 1, cableTo: idOf('o2') } })
    .write('outlet.set', { id: idOf('o2'), set: { storey: ground, kind: 'network', x: 9, y: 1 } })
    .write('opening.set', { id: idOf('door'), set: { storey: ground, kind: 'door', x1: 5, y1: 1, x2: 5, y2: 2 } })
    .write('opening.set', { id: idOf('st'), set: { storey: ground, kind: 'stairs', x1: 0.2, y1: 0.2, x2: 1.2, y2: 3 } })
    .write('wall.set', {
      id: idOf('w'),
      set: { storey: ground, x1: 0, y1: 0, x2: 0, y2: 4, material: 'granite', thicknessMm: 600 }
    })
    .write('trouble.set', { id: idOf('t'), set: { storey: ground, kind: 'mirror', x: 7, y: 1 } })
    .write('brief.set', { set: { outerMaterial: 'brick', outerMm: 240 } })
    .write('unit.set', { id: router, set: { storey: ground, x: 1, y: 2 } })
    .write('unit.set', { id: node, set: { storey: ground, x: 9, y: 2 } })

describe('a plan as a file', () => {
  it('comes back as it went out, with cables between the same sockets and units where they stood', () => {
    const from = drawn().record()
    const file = planToFile(from)
    expect(planFile.parse(JSON.parse(JSON.stringify(file)))).toEqual(file)
    const into = complete()
    let count = 0
    for (const { kind, body } of planFromFile(file, into.record(), () => idOf(`n${count++}`)))
      into.write(kind as 'unit.set', body as never)
    const back = into.record()
    const bare = (record: typeof back) => {
      const plan = planToFile(record)
      const names = new Map(plan.storeys.flatMap(({ outlets = [] }) => outlets.map(({ id }, at) => [id, String(at)])))
      return {
        ...plan,
        storeys: plan.storeys.map((storey) => ({
          ...storey,
          outlets: storey.outlets?.map(({ id, cableTo, ...rest }) => ({
            ...rest,
            id: names.get(id),
            cableTo: names.get(cableTo)
          }))
        }))
      }
    }
    expect(bare(back)).toEqual(bare(from))
    expect(planOf(back).walls).toEqual(
      planOf(from).walls.map((wall) => ({ ...wall, storey: planOf(back).storeys[0]!.id }))
    )
  })

  it.each([
    ['a later format', { format: 'pasado.plan/2', storeys: [] }, 'bring Pasado up to date'],
    ['no storey', { format: 'pasado.plan/1', storeys: [] }, 'holds no storey'],
    [
      'a plan of a kilometre',
      {
        format: 'pasado.plan/1',
        storeys: [
          { name: 'G', floorM: 0, heightM: 2.5, rooms: [{ name: 'Hall', x: 1000, y: 0, widthM: 4, depthM: 4 }] }
        ]
      },
      'storeys › 1 › rooms › 1 › x: must be at most 300 m'
    ],
    [
      'a wall of no length',
      {
        format: 'pasado.plan/1',
        storeys: [
          {
            name: 'G',
            floorM: 0,
            heightM: 2.5,
            rooms: [],
            walls: [{ x1: 1, y1: 1, x2: 1, y2: 1, material: 'brick', thicknessMm: 100 }]
          }
        ]
      },
      'ends where it begins'
    ],
    [
      'five thousand walls',
      {
        format: 'pasado.plan/1',
        storeys: [
          {
            name: 'G',
            floorM: 0,
            heightM: 2.5,
            rooms: [],
            walls: Array.from({ length: 5000 }, (_, at) => ({
              x1: 0,
              y1: at / 100,
              x2: 1,
              y2: at / 100,
              material: 'brick',
              thicknessMm: 100
            }))
          }
        ]
      },
      'at most 600 single walls'
    ],
    [
      'a material that is not known',
      {
        format: 'pasado.plan/1',
        outer: { material: 'cheese', thicknessMm: 100 },
        storeys: [{ name: 'G', floorM: 0, heightM: 2.5, rooms: [] }]
      },
      'outer › material'
    ],
    ['a list', [], 'the file']
  ])('%s is refused, with the field', (_, value, problem) => {
    expect(planFileProblem(value)).toContain(problem)
  })

  it('what cannot be is told: rooms over each other, a socket outside, a stretch on no wall', () => {
    const log = drawn()
    expect(planProblems(log.record(), planOf(log.record()))).toEqual([])
    log
      .write('outlet.set', { id: idOf('o3'), set: { storey: ground, kind: 'mains', x: 30, y: 1 } })
      .write('room.set', { id: idOf('b'), set: { x: 4, depthM: 3 } })
    const problems = planProblems(log.record(), planOf(log.record()))
    expect(problems).toEqual([
      expect.stringContaining('Hall and Study lie over each other'),
      expect.stringContaining('A mains outlet on Ground floor stands outside every room')
    ])
    expect(
      planProblems(
        drawn()
          .write('room.set', { id: idOf('b'), set: { x: 12 } })
          .write('room.set', { id: idOf('a'), set: { widthM: 3 } })
          .record(),
        planOf(
          drawn()
            .write('room.set', { id: idOf('b'), set: { x: 12 } })
            .write('room.set', { id: idOf('a'), set: { widthM: 3 } })
            .record()
        )
      ).some((candidate) => candidate.includes('A door on Ground floor lies on no wall'))
    ).toBe(true)
  })
})

describe('readings as CSV', () => {
  const known = { rooms: ['Hall', 'Wine cellar'], units: ['Router', 'Attic node'] }

  it('what is written is read again, whatever it holds', () => {
    const reading: fc.Arbitrary<ReadingLine> = fc.record({
      room: fc.constantFrom(...known.rooms),
      unit: fc.constantFrom(...known.units),
      band: fc.constantFrom('2.4' as const, '5' as const, '6' as const),
      dbm: fc.integer({ min: -110, max: -10 })
    })
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            reading,
            fc.option(fc.tuple(fc.integer({ min: -300, max: 300 }), fc.integer({ min: -300, max: 300 })), { nil: null })
          )
        ),
        (list) => {
          const readings = list.map(([readingLine, at]) =>
            at ? { ...readingLine, x: at[0] / 10, y: at[1] / 10 } : readingLine
          )
          expect(readingsFromCsv(readingsToCsv(readings), known)).toEqual({ readings, problems: [] })
        }
      ),
      { numRuns: 60 }
    )
  })

  it('takes columns in any order, semicolons with decimal commas, and a true minus', () => {
    expect(
      readingsFromCsv('Signal_dBm;Band_GHz;Unit;Room;x_m;y_m\n−64,5;2,4;router;wine cellar;1,5;2\n', known)
    ).toEqual({
      readings: [{ room: 'Wine cellar', unit: 'Router', band: '2.4', dbm: -64.5, x: 1.5, y: 2 }],
      problems: []
    })
  })

  it.each([
    ['room,unit,band_ghz\nHall,Router,5', 1, 'signal_dbm is missing'],
    ['room,unit,band_ghz,signal_dbm\nHall,Router,5,20', 2, 'signals are below zero'],
    ['room,unit,band_ghz,signal_dbm\nHall,Router,5,-60\nShed,Router,5,-60', 3, 'the plan has no Shed'],
    ['room,unit,band_ghz,signal_dbm\nHall,Buoy,5,-60', 2, 'no unit is called Buoy'],
    ['room,unit,band_ghz,signal_dbm\nHall,Router,7,-60', 2, 'must be 2.4, 5 or 6'],
    ['room,unit,band_ghz,signal_dbm\nHall,Router,2,4,-60', 2, 'part the columns by semicolons'],
    ['room,unit,band_ghz,signal_dbm,x_m,y_m\nHall,Router,5,-60,3,', 2, 'give both or neither'],
    ['room,unit,band_ghz,signal_dbm\nHall,Router,5,loud', 2, 'must be a number of dBm']
  ])('%j is told by its line', (text, line, problem) => {
    expect(readingsFromCsv(text, known).problems).toEqual([
      { line, problem: expect.stringContaining(problem) as string }
    ])
  })
})

describe('hops and what they leave of the rate', () => {
  const record = drawn().record()
  const plan = planOf(record)
  const [first, second] = placedUnits(record, plan)
  const joins = (cabled: boolean) =>
    joinsOf(
      plan,
      [
        { at: first!, cabled: false },
        { at: second!, cabled }
      ],
      catalogue,
      -67
    )

  it('the router is the root; a node hangs on it by a hop, or by its cable', () => {
    expect(joins(false).get(first!.id)).toBe('root')
    expect(joins(false).get(second!.id)).toMatchObject({ from: { id: first!.id }, hops: 1 })
    expect(joins(true).get(second!.id)).toBe('cabled')
  })

  it('a hop on a shared radio halves, a cable does not, and nothing is faster than its weakest link', () => {
    const near = expectedRate(-45, second!, joins(true), catalogue, '5')
    expect(near).toMatchObject({ hops: 0, halved: 0, mbps: 0.6 * linkRate({ rssiDbm: -45, widthMHz: 80 }).phyMbps })
    // The node has a radio of its own for the hop; a router as a node has not.
    expect(expectedRate(-45, second!, joins(false), catalogue, '5')).toMatchObject({ hops: 1, halved: 0 })
    const heron = { ...second!.unit, facts: { ...second!.unit.facts, model: 'ostrel-heron' } }
    const shared = { ...second!, unit: heron, thing: heron }
    const hop = expectedRate(-45, shared, joins(false), catalogue, '5')
    expect([hop.hops, hop.halved]).toEqual([1, 1])
    expect(hop.mbps).toBeLessThanOrEqual(near.mbps / 2)
  })
})

describe('places', () => {
  it('sockets are cabled to the router over other sockets, and only where one is within reach of it', () => {
    const sockets = [
      { id: 'a', storey: 'g', x: 1, y: 0, cableTo: 'b' },
      { id: 'b', storey: 'f', x: 1, y: 0 },
      { id: 'c', storey: 'l', x: 9, y: 9, cableTo: 'b' },
      { id: 'd', storey: 'g', x: 2, y: 0 },
      { id: 'e', storey: 'l', x: 0, y: 0, cableTo: 'f' },
      { id: 'f', storey: 'l', x: 5, y: 0 }
    ]
    expect([...cabledSockets(sockets, { storey: 'g', x: 0, y: 0 })].sort()).toEqual(['a', 'b', 'c'])
    expect(cabledSockets(sockets, { storey: 'g', x: 30, y: 0 }).size).toBe(0)
  })

  const storey = {
    id: 'g',
    name: 'Ground floor',
    floorM: 0,
    heightM: 2.5,
    ceiling: { material: 'wood' as const, thicknessMm: 200 }
  }
  const room = (at: number) => ({
    id: `r${at}`,
    name: `Room ${at}`,
    storey: 'g',
    x: at * 5,
    y: 0,
    widthM: 5,
    depthM: 4,
    building: '',
    listed: true,
    complained: false
  })
  const metal = (x: number) => ({
    storey: 'g',
    x1: x,
    y1: -1,
    x2: x,
    y2: 5,
    outer: false,
    material: 'metal' as const,
    thicknessMm: 3,
    opening: null
  })
  const outlet = (at: number) => ({ id: `o${at}`, storey: 'g', x: at * 5 + 2.5, y: 2, cabinet: false, cabled: false })
  const input: SuggestInput = {
    plan: { storeys: [storey], rooms: [room(0), room(1)], walls: [metal(5)], stairs: [] },
    band: '5',
    router: { x: 2, y: 2, z: 1 },
    outlets: [outlet(0), outlet(1)],
    troubles: [],
    powerDbm: 20,
    floors: { roomDbm: -67, hopDbm: -67, clearM: 1 },
    mostUnits: 4,
    mostHops: 2
  }

  it('tells what a cable would change, where no hop gets through', () => {
    const found = suggestPlaces(input)
    expect(found.proposals.every(({ holds }) => !holds)).toBe(true)
    expect(found.cables).toMatchObject([{ where: 'Room 1', placement: { holds: true } }])
    expect(suggestPlaces({ ...input, outlets: [outlet(0), { ...outlet(1), cabled: true }] })).toMatchObject({
      proposals: [{ holds: true, units: [{ outlet: 'o1', hops: 0 }] }],
      cables: []
    })
  })

  it('a school adds units until every room holds, and says where its units do not reach each other', () => {
    const halfway = suggestPlaces(input).schools.find(({ school }) => school === 'within-12')!
    expect(halfway).toMatchObject({ joined: false, placement: { units: [{ outlet: 'o1' }] } })
  })

  it('of more outlets than it looks at it says how many, and a bound that holds', () => {
    const outlets = Array.from({ length: 50 }, (_, at) => ({
      id: `m${at}`,
      storey: 'g',
      x: 0.2 + at * 0.19,
      y: 1 + (at % 3),
      cabinet: false,
      cabled: true
    }))
    const found = suggestPlaces({ ...input, outlets, mostUnits: 2 })
    expect(found.looked).toMatchObject({ at: 40, of: 50 })
    for (const proposal of found.proposals)
      expect(proposal.marginDb).toBeLessThanOrEqual(found.looked.mostMarginDb + 1e-6)
  })

  it('walls that take more leave less', () => {
    const wood = {
      ...input,
      plan: { ...input.plan, walls: [{ ...metal(5), material: 'brick' as const, thicknessMm: 240 }] }
    }
    const [book, learned] = [suggestPlaces(wood), suggestPlaces({ ...wood, wallFactor: 2, exponent: 2.6 })]
    expect(
      learned.proposals[0]!.marginDb < book.proposals[0]!.marginDb ||
        learned.proposals[0]!.units.length > book.proposals[0]!.units.length
    ).toBe(true)
  })
})

describe('the picture', () => {
  const grid = { x: 0.5, y: 0.5, columns: 10, rows: 4, cellM: 1, z: 1 }
  const signal = Float32Array.from({ length: 40 }, (_, cell) => -40 - (cell % 10) * 5)

  it('lines of equal signal lie between the cells that they part', () => {
    const at = new Map(contoursOf(grid, signal).map(({ dbm, d }) => [dbm, d]))
    const xs = [...at.get(-67)!.matchAll(/[ML](-?[\d.]+) /g)].map(([, x]) => Number(x)).filter((x) => x > 1)
    expect(xs.some((x) => Math.abs(x - (0.5 + 27 / 5)) < 0.02)).toBe(true)
    expect(new Set([...at.values()]).size).toBe(5)
    expect(signalSteps.map(({ fromDbm }) => stepOf(Number.isFinite(fromDbm) ? fromDbm : -99))).toEqual([
      0, 1, 2, 3, 4, 5
    ])
  })

  it('is a document that names every room and unit, and escapes what people typed', () => {
    const log = drawn().write('room.set', { id: idOf('a'), set: { name: 'Hall <script> & "co"' } })
    const record = log.record()
    const plan = planOf(record)
    const svg = planSvg(plan, {
      storey: ground,
      title: 'Trawl & Co',
      units: placedUnits(record, plan),
      coverage: { grid, signal, band: '5' }
    })
    expect(svg).toContain('Hall &#60;script&#62; &#38; &#34;co&#34;')
    expect(svg).not.toContain('<script>')
    for (const name of ['Study', 'Hall router', 'Study node', 'Trawl &#38; Co', '-67']) expect(svg).toContain(name)
  })

  it('no name of a unit runs over the edge of the picture, however near to it the unit stands', () => {
    const plan = planOf(drawn().record())
    fc.assert(
      fc.property(fc.double({ min: 0, max: 12, noNaN: true }), fc.integer({ min: 1, max: 14 }), (x, letters) => {
        const name = 'M'.repeat(letters)
        const svg = planSvg(plan, { storey: ground, title: 'Ground', units: [{ storey: ground, x, y: 1, name }] })
        const [left, , width] = /viewBox="([^"]+)"/.exec(svg)![1]!.split(' ').map(Number) as [
          number,
          number,
          number,
          number
        ]
        const middle = Number(new RegExp(`<text x="(-?[\\d.]+)"[^>]*text-anchor="middle">${name}`).exec(svg)![1])
        const half = (letters * 0.34 * 0.6) / 2
        expect(middle - half).toBeGreaterThanOrEqual(left - 0.01)
        expect(middle + half).toBeLessThanOrEqual(left + width + 0.01)
      })
    )
  })

  it('a room is served by whoever serves most of it', () => {
    const by = Int16Array.from({ length: 40 }, (_, cell) => (cell % 10 < 7 ? 0 : 1))
    expect([
      servedBy({ id: 'a', storey: 'g', x: 0, y: 0, widthM: 5, depthM: 4, building: '' }, grid, by),
      servedBy({ id: 'b', storey: 'g', x: 7, y: 0, widthM: 3, depthM: 4, building: '' }, grid, by),
      servedBy({ id: 'c', storey: 'g', x: 90, y: 0, widthM: 3, depthM: 4, building: '' }, grid, by)
    ]).toEqual([0, 1, -1])
  })
})

describe('powerline', () => {
  it('the outlets of the partner’s circuit are told, strips left out; nothing where no circuit is known', () => {
    const [a, b] = [idOf('eela'), idOf('eelb')]
    const log = drawn()
      .write('unit.set', {
        id: a,
        set: {
          name: 'Eel A',
          model: 'quillet-eel',
          modelVersion: 1,
          role: 'powerline-adapter',
          storey: ground,
          x: 1,
          y: 3
        }
      })
      .write('unit.set', {
        id: b,
        set: { name: 'Eel B', model: 'quillet-eel', modelVersion: 1, role: 'powerline-adapter' }
      })
      .write('outlet.set', { id: idOf('m1'), set: { storey: ground, kind: 'mains', x: 1, y: 3.2 } })
    expect(partnerCircuit(log.record(), planOf(log.record()), b)).toBeNull()
    log
      .write('outlet.set', { id: idOf('m1'), set: { circuit: 'B' } })
      .write('outlet.set', { id: idOf('m2'), set: { storey: ground, kind: 'mains', x: 8, y: 3, circuit: 'B' } })
      .write('outlet.set', {
        id: idOf('m3'),
        set: { storey: ground, kind: 'mains', x: 9, y: 3, circuit: 'B', strip: true }
      })
      .write('outlet.set', { id: idOf('m4'), set: { storey: ground, kind: 'mains', x: 2, y: 3, circuit: 'A' } })
    expect(partnerCircuit(log.record(), planOf(log.record()), b)).toEqual({
      partner: 'Eel A',
      circuit: 'B',
      outlets: [{ id: idOf('m2'), where: 'Study' }]
    })
    // Eel B stands nowhere yet: it is no partner to go by.
    expect(partnerCircuit(log.record(), planOf(log.record()), a)).toBeNull()
  })
})

describe('cautions', () => {
  const ids = (log: ReturnType<typeof drawn>) => cautionsOf(log.record(), catalogue).map(({ id }) => id)
  it('are those that the visit calls for, and no others', () => {
    expect(ids(complete())).toEqual(['coax', 'mains'])
    expect(ids(drawn())).toContain('drilling')
    expect(ids(complete().write('unit.set', { id: node, set: { heightM: 2.6, cabinet: true } }))).toEqual([
      'coax',
      'mains',
      'ladder',
      'drilling',
      'heat'
    ])
    expect(ids(complete().write('brief.set', { set: { accessLine: 'fibre', telephone: true } }))).toEqual([
      'telephone',
      'fibre',
      'mains',
      'power-cut'
    ])
    expect(
      ids(
        drawn().write('room.set', {
          id: idOf('barn'),
          set: { name: 'Barn', storey: ground, x: 20, y: 0, widthM: 5, depthM: 4, building: 'Barn' }
        })
      )
    ).toContain('buildings')
  })
})

describe('the demo’s plans', () => {
  it('hold together: nothing overlaps, nothing stands outside, and a file of each comes back', () => {
    const planned = demoVisits()
      .map(({ steps }) => {
        const log = opened()
        for (const step of steps) if (step.does === 'entry') log.write(step.kind, step.body as never)
        return log.record()
      })
      .filter((record) => Object.keys(thingsOf(record, 'storey')).length > 0)
    expect(planned.length).toBeGreaterThanOrEqual(2)
    for (const record of planned) {
      expect(planProblems(record, planOf(record))).toEqual([])
      expect(planFileProblem(planToFile(record))).toBeNull()
    }
  })
})
