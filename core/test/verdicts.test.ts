import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { calculate } from '@pasado/core/calc/registry'
import { demoModels } from '@pasado/demo/models/all'

interface Verdicts {
  verdicts: { rule: string; subject: string | null; outcome: string }[]
  conflicts: number
}
interface Example {
  title: string
  input: object
  want: { rule: string; subject?: string; every?: string[]; none?: string[]; absent?: true }[]
  conflicts?: 'some' | 'none'
}

const shared = join(import.meta.dirname, '../../../shared/vectors')
const folder = existsSync(shared) ? shared : join(import.meta.dirname, 'vectors')
const examples = JSON.parse(readFileSync(join(folder, 'verdicts.json'), 'utf8')) as Example[]

/** What an example wants of one rule, and of one subject where it names one, held against what was said. */
function meet({ rule, subject, every, none, absent }: Example['want'][number], { verdicts }: Verdicts): void {
  const said = verdicts
    .filter((verdict) => verdict.rule === rule && (subject === undefined || verdict.subject === subject))
    .map(({ outcome }) => outcome)
  const about = `${rule} ${subject ?? ''}: ${said.join(', ')}`
  if (absent) expect(said, about).toEqual([])
  if (every) expect([said.length > 0, said.filter((outcome) => !every.includes(outcome))], about).toEqual([true, []])
  if (!none) return
  const among = said.filter((outcome) => none.includes(outcome))
  if (subject !== undefined) expect([said.length > 0, among], about).toEqual([true, []])
  else if (none.includes('holds')) expect(among.length < said.length, about).toBe(true)
  else expect(among, about).toEqual([])
}

describe('what the standard says of a logbook', () => {
  it.each(examples.map((example) => [example.title, example] as const))('%s', (_, { input, want, conflicts }) => {
    const said = calculate('verdicts', { models: demoModels, ...input }) as Verdicts
    for (const wanted of want) meet(wanted, said)
    if (conflicts) expect(said.conflicts > 0).toBe(conflicts === 'some')
  })
})
