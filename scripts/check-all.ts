import { checkAll } from '@pasado/server/logbook/check-all'
import { openCompany } from './company-database'

/** Looks at every chain, head, seal and list; what does not hold is said here and on the leads' Day. The server may go on running. */
const { services, close } = await openCompany()
let told = Date.now()
const faults = await checkAll(services.logbook, (done, of) => {
  if (Date.now() - told < 5_000) return
  told = Date.now()
  console.log(`${done} of ${of} visits …`)
})
for (const { visit, what } of faults) console.error(`${visit}: ${what}`)
console.log(faults.length === 0 ? 'Everything holds.' : `${faults.length} visits do not hold; the leads' Day says so.`)
await close()
process.exit(faults.length === 0 ? 0 : 1)
