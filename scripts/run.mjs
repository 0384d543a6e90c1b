// @ts-check
/* `node scripts/run.mjs ENTRY [WORDS]`: runs a command of the program, built first where a source of it is newer. */
import { join } from 'node:path'
import { load } from './built.mjs'

const [entry = '', ...words] = process.argv.slice(2)
process.argv = [process.argv[0] ?? '', join(import.meta.dirname, '..', entry), ...words]
await load(entry)
