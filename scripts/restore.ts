import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { restore } from '@pasado/server/backup/restore'
import { settleSecrets } from '@pasado/server/backup/settle-secrets'
import { epochFileOf } from '@pasado/server/config'
import { checkAll } from '@pasado/server/logbook/check-all'
import { openCompany } from './company-database'
import { startMariaDb } from './mariadb'
import { asCommand, sealedTo } from './sealed-to'

/** What is asked for on the command line. @throws Error naming what is missing */
function askedFor() {
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
  return {
    folder,
    keysFile: values.keys,
    to: sealedTo(values['sealed-to']),
    ...(values['binary-log'] && { binaryLogs: values['binary-log'] }),
    ...(until && { until })
  }
}

/** Puts the secrets right, looks at everything, and tells. @returns the exit status */
async function settled({ sheet, keys }: Awaited<ReturnType<typeof restore>>, asOf: string): Promise<number> {
  const { services, close } = await openCompany()
  try {
    const { erased } = await settleSecrets(services, keys, sheet.at)
    const faults = await checkAll(services.logbook)
    for (const { visit, what } of faults) console.error(`${visit}: ${what}`)
    console.log(
      `Put back as of ${asOf}. Secrets that were erased since are erased here as well, in ${erased.length} visits. ${faults.length === 0 ? 'Every chain, seal, head and list holds.' : `${faults.length} visits do not hold; the leads' Day says so.`}`
    )
    return faults.length === 0 ? 0 : 1
  } finally {
    await close()
  }
}

/** `pasado restore FOLDER --keys FILE`: into an empty database; every record is looked at before it is called done. */
await asCommand(async () => {
  const asked = askedFor()
  const dataFolder = process.env.DATA_DIR ?? join(import.meta.dirname, '../.data')
  const local = process.env.DATABASE_URL ? null : await startMariaDb(dataFolder, Number(process.env.DB_PORT ?? 4181))
  const keyFile = process.env.KEY_FILE ?? join(dataFolder, 'master-key')
  try {
    const restored = await restore({
      ...asked,
      url: process.env.MIGRATE_URL ?? process.env.DATABASE_URL ?? local!.url,
      keyFile,
      epochFile: epochFileOf({ KEY_FILE: keyFile, EPOCH_FILE: process.env.EPOCH_FILE })
    })
    return await settled(restored, asked.until?.toISOString() ?? restored.sheet.at)
  } finally {
    if (local && !local.wasRunning) await local.stop()
  }
})
