import { Agent, request } from 'node:http'
import type { Caller } from '@pasado/testing/company'

/** Posts JSON as somebody who is logged in, over one connection, with as little of its own work as can be: the server is measured. */
export function lightCaller({ address, cookie }: Caller): (path: string, body: unknown) => Promise<number> {
  const agent = new Agent({ keepAlive: true, maxSockets: 1 })
  const { hostname, port } = new URL(address)
  return (path, body) =>
    new Promise((resolve, reject) => {
      const text = JSON.stringify(body)
      const headers = { cookie, 'content-type': 'application/json', 'content-length': Buffer.byteLength(text) }
      const call = request({ agent, hostname, port, path: `/api${path}`, method: 'POST', headers }, (response) => {
        response.resume()
        response.once('end', () => resolve(response.statusCode ?? 0))
      })
      call.once('error', reject)
      call.end(text)
    })
}
