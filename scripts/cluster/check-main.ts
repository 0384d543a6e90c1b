import { whenStopped } from '../stopped'
import { serveNodeCheck } from './node-check'

/** Answers a proxy beside one node of the database, until it is told to end: `deploy/pasado-node-check.service`. */
const { NODE_URL, CHECK_PORT, CHECK_HOST } = process.env
if (!NODE_URL || !Number(CHECK_PORT)) {
  console.error('NODE_URL and CHECK_PORT: must be the address of the node for a user without rights, and a port')
  process.exit(1)
}
const stopped = whenStopped()
const end = await serveNodeCheck(NODE_URL, Number(CHECK_PORT), CHECK_HOST ?? '0.0.0.0')
await stopped
await end()
process.exit(0)
