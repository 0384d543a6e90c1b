import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { text } from 'node:stream/consumers'
import { parseArgs } from 'node:util'
import { putKeysBack, readKeysCopy } from '@pasado/server/backup/keys-copy'
import { epochFileOf } from '@pasado/server/config'
import { EpochStore } from '@pasado/server/vault/epoch-store'
import { renewEpochs } from '@pasado/server/vault/epochs'
import { companyKeys } from '@pasado/server/vault/master-key'
import { openCompany } from './company-database'
import { asCommand, masterKeyOf, sealedTo } from './sealed-to'

const usage = `pasado keys send           the epoch keys of this machine on standard output, for a server of this company only
pasado keys take           takes over what another machine sent, from standard input
pasado keys renew [--now]  begins an epoch where one is due, after its key was brought to every machine of KEY_NODES
pasado keys back FILE      puts the master key and the epoch keys back from the copy that a backup made, where their files are gone`

const keyFile =
  process.env.KEY_FILE ?? join(process.env.DATA_DIR ?? join(import.meta.dirname, '../.data'), 'master-key')
const epochFile = epochFileOf({ KEY_FILE: keyFile, EPOCH_FILE: process.env.EPOCH_FILE })
const storeHere = async () => new EpochStore(epochFile, companyKeys(await masterKeyOf(keyFile)).wrap)

/** Brings the keys to each other machine. @throws Error naming the first that did not take them: the epoch is not begun then */
function bringTo(nodes: readonly string[], sent: string): void {
  const taking = process.env.KEY_TAKE ?? 'cd /opt/pasado && set -a && . /etc/pasado/settings && npx pasado keys take'
  for (const node of nodes) {
    const { status, stderr } = spawnSync('ssh', ['-o', 'BatchMode=yes', node, taking], {
      input: sent,
      encoding: 'utf8'
    })
    if (status !== 0)
      throw new Error(
        `${node} did not take the keys, so no epoch was begun; it is tried again the next time.\n${stderr.trim()}`
      )
  }
}

await asCommand(async () => {
  const [what, ...more] = process.argv.slice(2)
  if (what === 'send' && more.length === 0) {
    console.log((await storeHere()).send())
    return 0
  }
  if (what === 'take' && more.length === 0) {
    console.log(`${(await storeHere()).take(await text(process.stdin))} keys taken over.`)
    return 0
  }
  if (what === 'back' && more.length >= 1) {
    const { values, positionals } = parseArgs({
      args: more,
      allowPositionals: true,
      options: { 'sealed-to': { type: 'string' } }
    })
    const copy = await readKeysCopy(positionals[0]!, sealedTo(values['sealed-to']))
    const taken = await putKeysBack(copy, keyFile, epochFile)
    console.log(`Put back as of ${copy.at}: ${taken} epoch keys that were not here.`)
    return 0
  }
  if (what !== 'renew' || more.some((word) => word !== '--now')) throw new Error(usage)
  const { services, close } = await openCompany()
  try {
    const { db, config, epochs: store } = services
    const nodes = config.KEY_NODES.split(/[\s,]+/).filter(Boolean)
    const { begun, wrapped, destroyed, othersHold } = await renewEpochs({
      db,
      url: config.MIGRATE_URL ?? config.DATABASE_URL,
      store,
      mayBegin: true,
      beginFirst: true,
      always: more.includes('--now'),
      onMade: () => Promise.resolve(bringTo(nodes, store.send()))
    })
    if (othersHold > nodes.length)
      console.error(
        `${othersHold} other machines hold epoch keys, and KEY_NODES names ${nodes.length}: what is wrapped in this epoch the rest cannot open until they take it (pasado keys send | ssh … pasado keys take).`
      )
    console.log(
      `${begun ? `The epoch ${begun} was begun.` : 'No epoch was due.'} ${wrapped} data keys were wrapped anew; ${destroyed.length} old keys were destroyed here.`
    )
    return 0
  } finally {
    await close()
  }
})
