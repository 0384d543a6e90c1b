import { spawn, type ChildProcess } from 'node:child_process'
import { mkdirSync, openSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** Something behind the proxy: where it listens, and where it is asked whether it may be sent anything. */
export interface Behind {
  name: string
  port: number
  check: number
}

/**
 * The settings of the proxy: one node of the database is written to, the others wait; every server process is sent calls. As
 * `deploy/haproxy.cfg` says for real machines.
 */
export function proxySettings(
  sql: { port: number; reads: number; nodes: Behind[] },
  http: { port: number; servers: Behind[] }
): string {
  return `global
  maxconn 2000

defaults
  timeout connect 3s
  timeout client 120s
  timeout server 120s
  timeout check 2s
  retries 3

# One writer: the first that is in step. What was open to one that goes is closed, and comes again to the next.
listen database
  bind 127.0.0.1:${sql.port}
  mode tcp
  option httpchk GET /
  default-server inter 1s fall 2 rise 2 on-marked-down shutdown-sessions on-marked-up shutdown-backup-sessions
${sql.nodes.map(({ name, port, check }, at) => `  server ${name} 127.0.0.1:${port} check port ${check}${at > 0 ? ' backup' : ''}`).join('\n')}

# Reads that may be a moment behind: any node in step, the one that is written to last.
listen reads
  bind 127.0.0.1:${sql.reads}
  mode tcp
  balance leastconn
  option httpchk GET /
  default-server inter 1s fall 2 rise 2 on-marked-down shutdown-sessions
${sql.nodes.map(({ name, port, check }, at) => `  server ${name} 127.0.0.1:${port} check port ${check}${at === 0 ? ' backup' : ''}`).join('\n')}

frontend pasado
  bind 127.0.0.1:${http.port}
  mode http
  option forwardfor
  unique-id-format %[uuid()]
  unique-id-header X-Request-Id
  default_backend servers

backend servers
  mode http
  balance leastconn
  option httpchk GET /readyz
  option redispatch
  retry-on conn-failure
  default-server inter 1s fall 1 rise 1
${http.servers.map(({ name, port }) => `  server ${name} 127.0.0.1:${port} check`).join('\n')}
`
}

/** Starts the proxy in a folder of its own. */
export function startProxy(folder: string, settings: string): ChildProcess {
  const own = join(folder, 'haproxy')
  mkdirSync(own, { recursive: true, mode: 0o700 })
  const file = join(own, 'haproxy.cfg')
  writeFileSync(file, settings, { mode: 0o600 })
  const log = openSync(join(own, 'haproxy.log'), 'a', 0o600)
  return spawn('haproxy', ['-db', '-f', file], { stdio: ['ignore', log, log] })
}
