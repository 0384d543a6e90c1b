import { join } from 'node:path'
import { buildInterface } from '../build-interface'
import { whenStopped } from '../stopped'
import { Cluster } from './cluster'

/** `npm run cluster`: a company on three nodes and three processes on this machine, to try what happens when one of them goes. */
const stopped = whenStopped()
await buildInterface()
const folder = process.env.DATA_DIR ?? join(import.meta.dirname, '../../.data/cluster')
const cluster = new Cluster(folder, Number(process.env.CLUSTER_PORT ?? 4800))
try {
  await cluster.start((what) => console.log(what))
  const nodes = cluster.nodes.map(({ name, ports, pid }) => `  ${name}: port ${ports.sql}, process ${pid}`)
  const servers = cluster.servers.map(({ port, child }, at) => `  p${at + 1}: port ${port}, process ${child.pid}`)
  console.log(
    `\nPasado is at ${cluster.address}\n${[...nodes, ...servers].join('\n')}\nEnd one of them and look what happens; Ctrl-C stops all.`
  )
  await stopped
  console.log('\nStopping …')
  await cluster.stop()
  process.exit(0)
} catch (error) {
  console.error(`The cluster could not start.\n${(error as Error).message}`)
  cluster.kill()
  process.exit(1)
}
