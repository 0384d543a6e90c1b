import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inKnownOrder, knownOrder, newestRelease, releaseOf } from '@pasado/core/catalogue/firmware-order'
import { compareVersions, isOrderUnknown, versionKey } from '@pasado/core/values/version'
import { updateWork } from '@pasado/core/catalogue/firmware-work'
import { demoModels } from '@pasado/demo/models/all'
import { type Model, catalogueOf } from '@pasado/core/catalogue/model'
import { evaluate } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { complete, node } from '@pasado/testing/logbook'

const version = fc
  .array(fc.stringMatching(/^(\d{1,3}([ab]\d{0,2})?|rc\d?)$/), { minLength: 1, maxLength: 4 })
  .map((parts) => parts.join('.'))
const releases = (...list: [string, string, string?][]): Model['firmware']['releases'] =>
  list.map(([number, date, needs]) => ({
    version: number,
    date,
    fixesHole: false,
    withdrawn: false,
    ...(needs === undefined ? {} : { needs })
  }))
const tern = demoModels.find(({ id }) => id === 'ostrel-tern')!
const withFirmware = (minimum: string, list: Model['firmware']['releases']): Model => ({
  ...tern,
  firmware: { minimum, releases: list }
})

describe('versions', () => {
  it('that compare equal have one spelling, and no others', () => {
    fc.assert(
      fc.property(version, version, (a, b) => {
        expect(versionKey(a) === versionKey(b)).toBe(compareVersions(a, b) === 0)
      }),
      { numRuns: 2000 }
    )
    expect(['v3.1.0', '3.1', '3-1_0', 'V3.01'].map(versionKey)).toEqual(['3.1', '3.1', '3.1', '3.1'])
    expect(versionKey('0.0')).toBe('0')
  })

  it.each([
    ['3.0.4a', '3.0.4', true],
    ['3.0.4', '3.0.4-rc1', true],
    ['1.15b3', '1.15', true],
    ['3.0.4.0', '3.0.4-rc1', true],
    ['1.15b3', '1.14', false],
    ['1.15b3', '1.15b10', false],
    ['3.0.rc1', '3.0.4', false],
    ['3.1', '3.1.0', false],
    ['2', '10', false]
  ])('whether the numbers of %s and %s leave open which is newer', (a, b, unknown) => {
    expect([isOrderUnknown(a, b), isOrderUnknown(b, a)]).toEqual([unknown, unknown])
  })

  it('the dates of release tell what numbers do not, and only that', () => {
    const known = releases(['3.0.4', '2026-01-10'], ['3.0.4a', '2026-03-10'], ['3.1', '2025-01-01'])
    expect([
      knownOrder('3.0.4a', '3.0.4', known),
      knownOrder('3.0.4', 'v3.0.4A', known),
      knownOrder('3.1', '3.0.4', known),
      knownOrder('3.0.4b', '3.0.4', known),
      knownOrder('3.0.4a', '3.0.4', [])
    ]).toEqual(['newer', 'older', 'newer', 'unknown', 'unknown'])
    expect(['3.1', '3.0.4a', '3.0.4'].sort(inKnownOrder(known))).toEqual(['3.0.4', '3.0.4a', '3.1'])
    expect(newestRelease(releases(['3.0.4', '2026-01-10'], ['3.0.4a', '2026-01-10']))).toBeNull()
    expect([newestRelease(known)?.version, releaseOf(known, 'v3.1.0')?.version]).toEqual(['3.1', '3.1'])
  })
})

describe('what is proposed to be installed', () => {
  it('is never older than what runs, step by step, whatever the catalogue holds', () => {
    const day = fc.integer({ min: 10, max: 28 }).map((at) => `2026-01-${at}`)
    const catalogue = fc.uniqueArray(
      fc.record({ version, date: day, fixesHole: fc.constant(false), withdrawn: fc.boolean() }),
      { minLength: 1, maxLength: 8, selector: ({ version: number }) => versionKey(number) }
    )
    fc.assert(
      fc.property(catalogue, version, (list, current) => {
        const { path } = updateWork(withFirmware(list[0]!.version, list), current)
        for (const [at, to] of path.entries()) expect(knownOrder(to, path[at - 1] ?? current, list)).toBe('newer')
      }),
      { numRuns: 500 }
    )
  })

  it('goes by the dates where the numbers do not tell', () => {
    const model = withFirmware('3.0.4a', releases(['3.0.4', '2026-01-10'], ['3.0.4a', '2026-03-10']))
    expect(updateWork(model, '3.0.4')).toMatchObject({ path: ['3.0.4a'], reachesMinimum: true })
    expect(updateWork(model, '3.0.4a')).toMatchObject({ path: [], reachesMinimum: true })
    expect(updateWork(withFirmware('3.0.4', releases(['3.0.4', '2026-01-10'])), '3.0.4a')).toMatchObject({
      path: [],
      reachesMinimum: false
    })
  })
})

describe('the rules of firmware', () => {
  const judge = (model: Model, after: string) => {
    const log = complete().write('unit.set', { id: node, set: { firmwareAfter: after } })
    const models = catalogueOf([...demoModels.filter(({ id }) => id !== model.id), model])
    return evaluate(log.folded(), models, firstStandard).find(
      ({ rule, subject }) => rule === 'firm-minimum' && subject?.id === node
    )!
  }

  it('say that they do not know where the number alone does not tell, and go by the dates where the catalogue has them', () => {
    expect(judge(withFirmware('3.0.4', releases(['3.0.4', '2026-01-10'])), '3.0.4a')).toMatchObject({
      outcome: 'unproven',
      evidence: expect.stringContaining('the number alone does not tell which is newer') as string
    })
    const dated = withFirmware(
      '3.0.4',
      releases(['3.0.4', '2026-01-10'], ['3.0.4a', '2026-03-10'], ['3.0.4-rc1', '2025-12-01'])
    )
    expect([judge(dated, '3.0.4a').outcome, judge(dated, 'v3.0.4').outcome, judge(dated, '3.0.4-rc1').outcome]).toEqual(
      ['holds', 'holds', 'breaks']
    )
  })

  it('never ask for a version that is older, and none that is below the minimum', () => {
    expect(judge(withFirmware('3.2', releases(['3.0', '2026-01-10'])), '3.1').mend).toBe(
      'Ask the lead which version to install.'
    )
    expect(judge(withFirmware('3.0', releases(['3.0', '2026-01-10'], ['3.1.0', '2026-02-10'])), '2.9').mend).toBe(
      'Install 3.1.0.'
    )
  })

  it('versions that are one are one', () => {
    const models = catalogueOf(demoModels)
    const log = complete().write('unit.set', { id: node, set: { model: 'ostrel-heron', firmwareAfter: 'v3.1' } })
    expect(evaluate(log.folded(), models, firstStandard).find(({ rule }) => rule === 'firm-same')).toMatchObject({
      outcome: 'holds'
    })
  })
})
