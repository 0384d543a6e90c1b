import { createServer, type Server } from 'node:http'
import mysql, { type RowDataPacket } from 'mysql2/promise'

const PATIENCE_MS = 1_500

/**
 * Answers a proxy whether a node of the database may be sent anything: 200 where it is in step with the others and they are a quorum, else 503.
 * Asked as a user without any right. @returns ends it
 */
export async function serveNodeCheck(url: string, port: number, host = '127.0.0.1'): Promise<() => Promise<void>> {
  const server: Server = createServer((_, response) => {
    void Promise.race([mayBeSent(url), late()]).then((answer) =>
      response
        .writeHead(answer === 'ok' ? 200 : 503, { 'content-type': 'text/plain', connection: 'close' })
        .end(`${answer}\n`)
    )
  })
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, host, resolve)
  })
  return () =>
    new Promise((resolve) => {
      server.close(() => resolve())
      server.closeAllConnections()
    })
}

async function mayBeSent(url: string): Promise<string> {
  let connection: mysql.Connection | null = null
  try {
    connection = await mysql.createConnection({ uri: url, connectTimeout: PATIENCE_MS })
    const [rows] = await connection.query<RowDataPacket[]>(
      "SHOW GLOBAL STATUS WHERE Variable_name IN ('wsrep_local_state', 'wsrep_cluster_status', 'wsrep_ready')"
    )
    const of = new Map(rows.map((row) => [String(row.Variable_name), String(row.Value)]))
    if (of.get('wsrep_cluster_status') !== 'Primary') return 'no quorum'
    return of.get('wsrep_local_state') === '4' && of.get('wsrep_ready') === 'ON' ? 'ok' : 'not in step'
  } catch {
    return 'away'
  } finally {
    connection?.destroy()
  }
}

const late = (): Promise<string> => new Promise((resolve) => setTimeout(() => resolve('late'), PATIENCE_MS).unref())
