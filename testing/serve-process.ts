import { readConfig } from '../server/src/config'
import { makeServices, serve } from '../server/src/server'

/** A server in a process of its own, to be killed. Says its address once it listens. */
const running = await serve(await makeServices(readConfig({ LOG_LEVEL: 'silent', ...process.env })))
console.log(running.address)
