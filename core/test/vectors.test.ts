import { existsSync, readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { calculate, calculations } from '@pasado/core/calc/registry'
import { Refusal } from '@pasado/core/calc/refusal'

interface Vector {
  title: string
  input: unknown
  output?: unknown
  refused?: true
}

const own = join(import.meta.dirname, 'vectors')
const shared = join(import.meta.dirname, '../../../shared/vectors')
const folder = existsSync(shared) ? shared : own

/** The wording of a finding's detail is for people and not compared. */
function comparable(name: string, output: unknown): unknown {
  if (name !== 'address-audit') return output
  const { findings, suggestions } = output as { findings: { code: string; subject: string; detail: string }[]; suggestions: unknown }
  for (const finding of findings) expect(finding.detail).not.toBe('')
  return { findings: findings.map(({ code, subject }) => ({ code, subject })), suggestions }
}

for (const name of Object.keys(calculations)) {
  describe(`worked examples of ${name}`, () => {
    const vectors = JSON.parse(readFileSync(join(folder, `${name}.json`), 'utf8')) as Vector[]
    it('has examples', () => expect(vectors.length).toBeGreaterThan(0))
    for (const vector of vectors) {
      it(vector.title, () => {
        if (vector.refused) expect(() => calculate(name, vector.input)).toThrow(Refusal)
        else expect(comparable(name, calculate(name, vector.input))).toEqual(comparable(name, vector.output))
      })
    }
  })
}

it('the copies of the worked examples are those of the contract', () => {
  for (const file of readdirSync(own)) {
    expect(readFileSync(join(own, file), 'utf8'), file).toBe(readFileSync(join(folder, file), 'utf8'))
  }
})
