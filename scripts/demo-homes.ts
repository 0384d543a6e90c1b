import { openCompany } from './company-database'
import { loadLargeCompany } from './large-company'

/** `pasado demo --homes N`: adds a generated company of many homes to the company's database; the server may go on running. */
const homes = Number(process.argv[2])
const { services, close } = await openCompany()
const began = performance.now()
let told = 0
const loaded = await loadLargeCompany(services, { homes, today: new Date() }, (so) => {
  if (performance.now() - told < 2_000) return
  told = performance.now()
  process.stderr.write(
    `\r${so.homes.toLocaleString('en')} of ${homes.toLocaleString('en')} homes, ${Math.round((100 * so.homes) / homes)} %, ${Math.round(so.visits / ((performance.now() - began) / 1000))} visits a second   `
  )
})
process.stderr.write('\n')
console.log(
  `${loaded.homes} homes, ${loaded.visits} sealed visits, ${loaded.units} units in ${Math.round((performance.now() - began) / 1000)} s`
)
await close()
process.exit(0)
