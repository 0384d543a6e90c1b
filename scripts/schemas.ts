import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { z } from 'zod'
import { model } from '@pasado/core/catalogue/model'
import { recordFile } from '@pasado/core/documents/record-file'
import { planFile } from '@pasado/core/work/plan/file'
import { standard } from '@pasado/core/policy/standard'

const folder = join(import.meta.dirname, '../docs/schemas')

/** Every file format with its schema, by the name of the file it is written to. */
export const schemas = {
  'pasado.record-1': recordFile,
  'pasado.model-1': model,
  'pasado.standard-1': standard,
  'pasado.plan-1': planFile
} as const

/** The JSON Schema (draft 2020-12) of a file format, as text. */
export function schemaText(name: keyof typeof schemas): string {
  return `${JSON.stringify({ title: name, ...(z.toJSONSchema(schemas[name], { io: 'input', unrepresentable: 'any', reused: 'ref' }) as object) }, null, 2)}\n`
}

if (process.argv[1]?.endsWith('schemas.ts')) {
  for (const name of Object.keys(schemas) as (keyof typeof schemas)[])
    writeFileSync(join(folder, `${name}.schema.json`), schemaText(name))
}
