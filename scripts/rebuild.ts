import { rebuildProjections } from '@pasado/server/logbook/rebuild'
import { openCompany } from './company-database'

/** Makes every projection anew from the logbook. The server may go on running. */
const { services, close } = await openCompany()
console.log(
  `${await rebuildProjections(services.logbook)} visits gone through; everything that is found by tables is as the logbook says.`
)
await close()
process.exit(0)
