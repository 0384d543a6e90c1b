import { existsSync, readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { calculate, calculations } from '@pasado/core/calc/registry'
import { Refusal } from '@pasado/core/values/problem'
import { knownModels } from '@pasado/core/labels/known-models'
import { demoModels } from '@pasado/demo/models/all'

interface Vector {
  title: string
  input: unknown
  output?: unknown
  refused?: true
}

const own = join(import.meta.dirname, 'vectors')
const shared = join(import.meta.dirname, '../../../shared/vectors')
const folder = existsSync(shared) ? shared : own

/** How far figures may be apart, as the contract says for each kind. */
function agree(name: string, path: string, got: number, wanted: number): boolean {
  if (/Mbps$/.test(path)) return Math.abs(got - wanted) <= 0.005 * Math.abs(wanted)
  if (/Db$/.test(path)) return Math.abs(got - wanted) <= 0.02
  if (/M$/.test(path)) return Math.abs(got - wanted) <= 1e-3
  if (/(Min|W|share\w*)$/.test(path) || name === 'run-plan') return Math.abs(got - wanted) <= 1e-6
  return got === wanted
}

/** Compares field by field; null in an example of run-plan stands for any right answer. */
function expectAgreement(name: string, got: unknown, wanted: unknown, path = 'output'): void {
  if (typeof wanted === 'number' && typeof got === 'number')
    expect(agree(name, path, got, wanted), `${path}: ${got} for ${wanted}`).toBe(true)
  else if (wanted && got && typeof wanted === 'object' && typeof got === 'object') {
    expect(Object.keys(got).sort(), path).toEqual(Object.keys(wanted).sort())
    for (const [key, value] of Object.entries(wanted)) {
      if (name === 'run-plan' && value === null) continue
      expectAgreement(name, (got as Record<string, unknown>)[key], value, `${path}.${key}`)
    }
  } else expect(got, path).toEqual(wanted)
}

/** The wording of a finding's detail is for people and not compared. */
function comparable(name: string, output: unknown): unknown {
  if (name !== 'address-audit') return output
  const { findings, suggestions } = output as {
    findings: { code: string; subject: string; detail: string }[]
    suggestions: unknown
  }
  for (const finding of findings) expect(finding.detail).not.toBe('')
  return { findings: findings.map(({ code, subject }) => ({ code, subject })), suggestions }
}

for (const name of Object.keys(calculations).filter(
  (calculation) => !['fault', 'label', 'verdicts'].includes(calculation)
)) {
  describe(`worked examples of ${name}`, () => {
    const vectors = JSON.parse(readFileSync(join(folder, `${name}.json`), 'utf8')) as Vector[]
    it('has examples', () => expect(vectors.length).toBeGreaterThan(0))
    for (const vector of vectors) {
      it(vector.title, () => {
        if (vector.refused) expect(() => calculate(name, vector.input)).toThrow(Refusal)
        else expectAgreement(name, comparable(name, calculate(name, vector.input)), comparable(name, vector.output))
      })
    }
  })
}

describe('worked examples of fault', () => {
  interface FaultVector {
    title: string
    input: object
    want: {
      top?: string[]
      out?: string[]
      below?: Record<string, number>
      next?: { do: string[]; id?: (string | null)[]; idNot?: string[] }
    }
  }
  interface Answer {
    causes: { cause: string; probability: number }[]
    next: { do: string; id: string | null; minutes: number; answers?: string[] }
  }
  const vectors = JSON.parse(readFileSync(join(folder, 'fault.json'), 'utf8')) as FaultVector[]
  it.each(vectors.map((vector) => [vector.title, vector] as const))('%s', (_, { input, want }) => {
    const { causes, next } = calculate('fault', input) as Answer
    const of = (cause: string) => causes.find((candidate) => candidate.cause === cause)!.probability
    if (want.top) expect(want.top).toContain(causes[0]!.cause)
    for (const cause of want.out ?? []) expect(of(cause), cause).toBeLessThanOrEqual(0.01)
    for (const [cause, most] of Object.entries(want.below ?? {})) expect(of(cause), cause).toBeLessThanOrEqual(most)
    if (!want.next) return
    expect(want.next.do).toContain(next.do)
    if (want.next.id) expect(want.next.id).toContain(next.id)
    if (want.next.idNot) expect(want.next.idNot).not.toContain(next.id)
  })

  it('a look that the home does not have, or an answer that it has not, is refused by name', () => {
    const problemOf = (input: object) => {
      try {
        calculate('fault', input)
      } catch (error) {
        return (error as Refusal).problems.map(({ path, message }) => `${path.join('.')}: ${message}`)
      }
    }
    expect(problemOf({ cannot: ['unit-link'], looks: { 'unit-link': 'none' } })).toEqual([
      expect.stringContaining('looks.unit-link: is among what this home does not have')
    ])
    expect(problemOf({ looks: { others: 'sometimes' } })).toEqual(['looks.others: must be one of fine, down, slow'])
    expect(problemOf({ looks: { hearsay: 'yes' } })).toHaveLength(1)
    expect(problemOf({ mended: { dns: 'perhaps' } })).toHaveLength(1)
  })
})

describe('worked examples of label', () => {
  interface LabelVector {
    title: string
    input: object
    truth: Record<string, string>
    found: string[]
    unsure?: string[]
  }
  const vectors = JSON.parse(readFileSync(join(folder, 'label.json'), 'utf8')) as LabelVector[]
  it.each(vectors.map((vector) => [vector.title, vector] as const))('%s', (_, { input, truth, found, unsure = [] }) => {
    const { fields } = calculate('label', { ...input, models: knownModels(demoModels) }) as {
      fields: { field: string; value: string; trust: string }[]
    }
    for (const { field, value, trust } of fields)
      if (trust === 'certain') expect([field, value]).toEqual([field, truth[field]])
    for (const field of found)
      expect(fields.find((candidate) => candidate.field === field)?.value, field).toBe(truth[field])
    for (const field of unsure)
      expect(fields.find((candidate) => candidate.field === field)?.trust, field).toBe('unsure')
  })
})

it('the copies of the worked examples are those of the contract', () => {
  for (const file of readdirSync(own)) {
    expect(readFileSync(join(own, file), 'utf8'), file).toBe(readFileSync(join(folder, file), 'utf8'))
  }
})
