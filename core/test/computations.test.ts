import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { calculate } from '@pasado/core/calc/registry'
import { Refusal } from '@pasado/core/values/problem'
import { firmwarePath } from '@pasado/core/catalogue/firmware-path'
import { compareVersions } from '@pasado/core/values/version'
import { poeBudget } from '@pasado/core/work/cabling/poe-budget'
import { channelOverlap } from '@pasado/core/radio/channels'
import { linkRate } from '@pasado/core/radio/link-rate'
import { pathLoss } from '@pasado/core/radio/path-loss'
import { materialNames, wallLoss } from '@pasado/core/radio/wall-loss'
import { runPlan, type RunPlanInput } from '@pasado/core/work/run/plan'

/** Minutes in quarters, so that sums are exact. */
const minutes = fc.integer({ min: 0, max: 24 }).map((quarters) => quarters / 4)
const tasksUpTo = (most: number) =>
  fc
    .array(fc.record({ handsOnMin: minutes, waitMin: minutes, after: fc.array(fc.nat(most), { maxLength: 3 }) }), {
      minLength: 1,
      maxLength: most
    })
    .map((list): RunPlanInput => ({
      tasks: list.map((task, at) => ({
        ...task,
        id: `t${at}`,
        after: [...new Set(task.after.filter((value) => value < at).map((value) => `t${value}`))]
      }))
    }))

/** The least makespan over every order, each task started as early as it can. */
function bruteForce({ tasks }: RunPlanInput): number {
  let best = Infinity
  const go = (done: Map<string, number>, free: number) => {
    if (done.size === tasks.length) best = Math.min(best, ...[Math.max(...done.values())])
    for (const task of tasks) {
      if (done.has(task.id) || !task.after!.every((candidate) => done.has(candidate))) continue
      const ready = Math.max(0, ...task.after!.map((item) => done.get(item)!))
      const start = task.handsOnMin > 0 ? Math.max(free, ready) : ready
      go(
        new Map(done).set(task.id, start + task.handsOnMin + task.waitMin!),
        task.handsOnMin > 0 ? start + task.handsOnMin : free
      )
    }
  }
  go(new Map(), 0)
  return best
}

describe('run plan', () => {
  it('is the best there is', () =>
    fc.assert(
      fc.property(tasksUpTo(6), (input) => {
        expect(runPlan(input).makespanMin).toBeCloseTo(bruteForce(input), 9)
      }),
      { numRuns: 250 }
    ))

  it('can be carried out, and its critical path holds together', () =>
    fc.assert(
      fc.property(tasksUpTo(18), (input) => {
        const { start, criticalPath, makespanMin } = runPlan(input)
        const byId = new Map(input.tasks.map((task) => [task.id, task]))
        const end = (id: string) => start[id]! + byId.get(id)!.handsOnMin + byId.get(id)!.waitMin!
        for (const task of input.tasks)
          for (const before of task.after!) expect(start[task.id]).toBeGreaterThanOrEqual(end(before) - 1e-9)
        const hands = input.tasks.filter(({ handsOnMin }) => handsOnMin > 0).sort((a, b) => start[a.id]! - start[b.id]!)
        hands.forEach((task, at) => {
          if (at)
            expect(start[task.id]).toBeGreaterThanOrEqual(start[hands[at - 1]!.id]! + hands[at - 1]!.handsOnMin - 1e-9)
        })
        expect(start[criticalPath[0]!]).toBe(0)
        expect(end(criticalPath.at(-1)!)).toBe(makespanMin)
        criticalPath.slice(1).forEach((id, at) => {
          const before = criticalPath[at]!
          const waited = byId.get(id)!.after!.includes(before) && end(before) === start[id]
          const busy =
            byId.get(id)!.handsOnMin > 0 &&
            byId.get(before)!.handsOnMin > 0 &&
            start[before]! + byId.get(before)!.handsOnMin === start[id]
          expect(waited || busy).toBe(true)
        })
      }),
      { numRuns: 120 }
    ))

  it('of no tasks is empty', () =>
    expect(runPlan({ tasks: [] })).toEqual({ makespanMin: 0, criticalPath: [], start: {} }))
})

describe('firmware path', () => {
  const version = fc.tuple(fc.nat(3), fc.nat(3)).map(([major, minor]) => `${major}.${minor}`)
  const oneCatalogue = fc.record({
    current: version,
    releases: fc.uniqueArray(
      fc.record({ version, needs: fc.option(version, { nil: undefined }), withdrawn: fc.boolean() }),
      { maxLength: 7, selector: (release) => release.version }
    )
  })

  it('is the shortest that ends as new as can be, and of those the one with the newer steps', () =>
    fc.assert(
      fc.property(oneCatalogue, ({ current, releases }) => {
        const paths: string[][] = [[]]
        const go = (at: string, path: string[]) => {
          for (const release of releases) {
            if (
              release.withdrawn ||
              compareVersions(release.version, at) <= 0 ||
              (release.needs !== undefined && compareVersions(at, release.needs) < 0)
            )
              continue
            paths.push([...path, release.version])
            go(release.version, [...path, release.version])
          }
        }
        go(current, [])
        const newerFirst = (a: string[], b: string[]) => {
          const end = compareVersions(b.at(-1) ?? current, a.at(-1) ?? current)
          if (end || a.length !== b.length) return end || a.length - b.length
          const differs = a.findIndex((candidate, at) => candidate !== b[at])
          return differs < 0 ? 0 : compareVersions(b[differs]!, a[differs]!)
        }
        const clean = releases.map(({ needs, ...rest }) => (needs === undefined ? rest : { ...rest, needs }))
        expect(firmwarePath({ current, releases: clean }).path).toEqual(paths.sort(newerFirst)[0])
      }),
      { numRuns: 400 }
    ))

  it.each(['', '1..2', 'v', '1.0-'])('a version with an empty part (%j) is refused', (current) =>
    expect(() => calculate('firmware-path', { current, releases: [] })).toThrow(Refusal)
  )
})

describe('radio', () => {
  const point = fc.record({
    x: fc.integer({ min: -8, max: 8 }),
    y: fc.integer({ min: -8, max: 8 }),
    z: fc.integer({ min: 0, max: 6 })
  })
  const wall = fc
    .record({ from: point, to: point, lossDb: fc.integer({ min: 0, max: 30 }) })
    .map(({ from, to, lossDb }) => ({ from: { x: from.x, y: from.y }, to: { x: to.x, y: to.y }, zTo: 4, lossDb }))
  const link = fc.record({
    frequencyMHz: fc.constantFrom(2437, 5500),
    from: point,
    to: point,
    walls: fc.array(wall, { maxLength: 6 }),
    floors: fc.array(fc.record({ z: fc.integer({ min: 0, max: 6 }), lossDb: fc.integer({ min: 0, max: 20 }) }), {
      maxLength: 3
    })
  })

  it('from A to B is lost what is lost from B to A', () =>
    fc.assert(
      fc.property(link, (item) => {
        const back = pathLoss({ ...item, from: item.to, to: item.from })
        expect(back.totalDb).toBeCloseTo(pathLoss(item).totalDb, 9)
        expect([back.wallsCrossed, back.floorsCrossed]).toEqual([
          pathLoss(item).wallsCrossed,
          pathLoss(item).floorsCrossed
        ])
      })
    ))

  it('a wall more never gives more signal', () =>
    fc.assert(
      fc.property(link, wall, (item, more) => {
        expect(pathLoss({ ...item, walls: [...item.walls, more] }).totalDb).toBeGreaterThanOrEqual(
          pathLoss(item).totalDb
        )
      })
    ))

  it('a slab loses a finite figure from 0 to 120 dB, whatever its material', () =>
    fc.assert(
      fc.property(
        fc.constantFrom(...materialNames),
        fc.double({ min: 1e-3, max: 1e6, noNaN: true }),
        fc.double({ min: 100, max: 1e5, noNaN: true }),
        fc.double({ min: 0, max: 89.9, noNaN: true }),
        (material, thicknessMm, frequencyMHz, incidenceDeg) => {
          const { lossDb } = wallLoss({
            material,
            thicknessMm,
            frequencyMHz,
            incidenceDeg,
            averageOverMHz: frequencyMHz / 50
          })
          expect(lossDb).toBeGreaterThanOrEqual(-1e-9)
          expect(lossDb).toBeLessThanOrEqual(120)
        }
      )
    ))

  it('more signal never holds less rate', () =>
    fc.assert(
      fc.property(fc.integer({ min: -100, max: -20 }), fc.constantFrom(20, 40, 80, 160), (rssiDbm, widthMHz) => {
        expect(linkRate({ rssiDbm: rssiDbm + 1, widthMHz: widthMHz }).phyMbps).toBeGreaterThanOrEqual(
          linkRate({ rssiDbm, widthMHz: widthMHz }).phyMbps
        )
      })
    ))

  it('two channels overlap as much from either side', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 13 }),
        fc.integer({ min: 1, max: 13 }),
        fc.constantFrom(20, 40),
        fc.constantFrom(20, 40),
        (first, other, width, otherWidth) => {
          const a = { channel: first, widthMHz: width as 20 }
          const b = { channel: other, widthMHz: otherWidth as 20 }
          expect(channelOverlap({ band: '2.4', a, b }).overlapMHz).toBe(
            channelOverlap({ band: '2.4', a: b, b: a }).overlapMHz
          )
        }
      )
    ))

  it.each([
    ['2.4', 14, 40],
    ['2.4', 1, 80],
    ['5', 34, 20],
    ['5', 144, 160],
    ['6', 2, 20],
    ['6', 225, 80],
    ['6', 225, 160]
  ])('%s GHz has no channel %i at %i MHz', (band, channel, widthMHz) => {
    expect(() =>
      calculate('channel-overlap', {
        band,
        a: { channel, widthMHz },
        b: { channel: band === '5' ? 36 : 1, widthMHz: 20 }
      })
    ).toThrow(Refusal)
  })
})

it('powered ports: sums without the dust of binary fractions', () => {
  const ports = Array.from({ length: 3 }, (_, at) => ({
    port: at + 1,
    load: { device: `d${at}`, class: 3, drawW: 0.1 }
  }))
  expect(poeBudget({ budgetW: 46.2, ports })).toEqual({ reservedW: 46.2, drawW: 0.3, headroomW: 0, findings: [] })
  expect(() => calculate('poe-budget', { budgetW: 1, ports: [{ port: 1, load: { device: 'a', class: 0 } }] })).toThrow(
    Refusal
  )
})

it('a result that is not finite is refused, not printed', () => {
  const far = { x: 1e308, y: 1e308, z: 0 }
  expect(() => calculate('path-loss', { frequencyMHz: 2437, from: far, to: { x: -1e308, y: -1e308, z: 0 } })).toThrow(
    Refusal
  )
})
