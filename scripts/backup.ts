import { parseArgs } from 'node:util'
import { backUp } from '@pasado/server/backup/backup'
import { openCompany } from './company-database'
import { asCommand, masterKeyOf, sealedTo } from './sealed-to'

/** `pasado backup DIR --keys FILE`: the servers may go on running. */
await asCommand(async () => {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { keys: { type: 'string' }, 'sealed-to': { type: 'string' } }
  })
  const [folder] = positionals
  if (positionals.length !== 1 || !folder || !values.keys)
    throw new Error('say where: pasado backup DIR --keys FILE (the keys better on another machine)')
  const to = sealedTo(values['sealed-to'])
  const { services, close } = await openCompany()
  try {
    const { config, db, epochs: store } = services
    const url = config.MIGRATE_URL ?? config.DATABASE_URL
    const master = await masterKeyOf(config.KEY_FILE)
    const done = await backUp({ db, url, master, store, folder, keysFile: values.keys, to })
    const { lines, octets, position } = done.sheet
    console.log(
      `${done.folder}: ${lines} lines of logbooks, ${Math.ceil(octets / 1e6)} MB before packing, read back and whole.${position ? ` The binary log stood at ${position.file}, ${position.at}.` : ''}\nThe keys are in ${values.keys}, in place of the copy before: a restore wants both.`
    )
    return 0
  } finally {
    await close()
  }
})
