import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { restore } from '@pasado/server/backup/restore'
import { settleSecrets } from '@pasado/server/backup/settle-secrets'
import { epochFileOf } from '@pasado/server/config'
import { checkAll } from '@pasado/server/logbook/check-all'
import { openCompany } from './company-database'
import { startMariaDb } from './mariadb'
import { asCommand, sealedTo } from './sealed-to'

/** `pasado restore FOLDER --keys FILE`: into an empty database; every record is looked at before it is called done. */
await asCommand(async () => {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      keys: { type: 'string' },
      'sealed-to': { type: 'string' },
      until: { type: 'string' },
      'binary-log': { type: 'string', multiple: true }
    }
  })
  const [folder] = positionals
  if (positionals.length !== 1 || !folder || !values.keys)
    throw new Error('say from where: pasado restore FOLDER --keys FILE [--binary-log FILE … --until MOMENT]')
  const until = values.until === undefined ? undefined : new Date(values.until)
  if (until && Number.isNaN(until.getTime())) throw new Error('--until must be a moment such as 2026-12-01T10:00:00Z')
  if (until && !values['binary-log']) throw new Error('--until wants the files of the binary log: --binary-log FILE …')
  const to = sealedTo(values['sealed-to'])
  const dataFolder = process.env.DATA_DIR ?? join(import.meta.dirname, '../.data')
  const local = process.env.DATABASE_URL ? null : await startMariaDb(dataFolder, Number(process.env.DB_PORT ?? 4181))
  const url = process.env.MIGRATE_URL ?? process.env.DATABASE_URL ?? local!.url
  const keyFile = process.env.KEY_FILE ?? join(dataFolder, 'master-key')
  const epochFile = epochFileOf({ KEY_FILE: keyFile, EPOCH_FILE: process.env.EPOCH_FILE })
  try {
    const { sheet, keys } = await restore({
      url,
      folder,
      keysFile: values.keys,
      to,
      keyFile,
      epochFile,
      ...(values['binary-log'] ? { binaryLogs: values['binary-log'] } : {}),
      ...(until ? { until } : {})
    })
    const { services, close } = await openCompany()
    try {
      const { erased } = await settleSecrets(services, keys, sheet.at)
      const faults = await checkAll(services.logbook)
      for (const { visit, what } of faults) console.error(`${visit}: ${what}`)
      console.log(
        `Put back as of ${until?.toISOString() ?? sheet.at}. Secrets that were erased since are erased here as well, in ${erased.length} visits. ${faults.length === 0 ? 'Every chain, seal, head and list holds.' : `${faults.length} visits do not hold; the leads' Day says so.`}`
      )
      return faults.length === 0 ? 0 : 1
    } finally {
      await close()
    }
  } finally {
    if (local && !local.wasRunning) await local.stop()
  }
})
