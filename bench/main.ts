import { availableParallelism } from 'node:os'
import { demoVisits } from '@pasado/demo/all'
import { loadVisits } from '../scripts/load-demo'
import { startCompany } from '../server/test/company'
import { benchAppend, machine } from './append'
import { benchCore } from './core'

console.log(`${machine()}, ${availableParallelism()} cores, Node.js ${process.version}\n`)
const company = await startCompany()
try {
  const visits = demoVisits()
  await loadVisits(company.services, visits, new Date())
  await benchCore(company.services, visits.map(({ id }) => id))
  await benchAppend(company.running, company.database.url)
} finally {
  await company.stop()
}
process.exit(0)
