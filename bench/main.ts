import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { demoVisits } from '@pasado/demo/all'
import { loadVisits } from '../scripts/load-demo'
import { startCompany } from '@pasado/testing/company'
import { serverProcess } from '@pasado/testing/server-process'
import { benchAppend } from './append'
import { benchCore } from './core'
import { benchJudging } from './judging'
import { machine } from './machine'
import { benchRadio } from './radio'
import { benchAudit, benchChannels, benchVisit } from './visit'

console.log(`${machine()}, ${availableParallelism()} cores, Node.js ${process.version}\n`)
await benchRadio()
await benchVisit()
await benchChannels()
await benchAudit()
await benchJudging()
const company = await startCompany()
try {
  const visits = demoVisits()
  await loadVisits(company.services, visits, new Date())
  await benchCore(
    company.services,
    visits.map(({ id }) => id)
  )
  const server = await serverProcess(company.database.url, join(company.database.folder, 'key'))
  try {
    await benchAppend(company.services, server.address, company.database.url)
  } finally {
    server.child.kill('SIGKILL')
  }
} finally {
  await company.stop()
}
process.exit(0)
