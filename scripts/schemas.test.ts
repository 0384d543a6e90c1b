import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { schemas, schemaText } from './schemas'

it.each(Object.keys(schemas))(
  'the schema of %s in docs is the one that files are checked by (else: npm run schemas)',
  (name) => {
    expect(readFileSync(join(import.meta.dirname, `../docs/schemas/${name}.schema.json`), 'utf8')).toBe(
      schemaText(name as keyof typeof schemas)
    )
  }
)
