import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ApiProblem, ask, download, fetchFile } from './api'

let called: { address: string; method: string; body: unknown; type: string | null }[] = []
let answer: () => Response

beforeEach(() => {
  called = []
  answer = () => new Response(null, { status: 204 })
  vi.stubGlobal('fetch', (address: string, { method, body, headers }: RequestInit = {}) => {
    called.push({
      address,
      method: method!,
      body: body === undefined ? undefined : JSON.parse(body as string),
      type: new Headers(headers).get('content-type')
    })
    return Promise.resolve(answer())
  })
})
afterEach(() => vi.unstubAllGlobals())

describe('a call of the API', () => {
  it('goes to its path, with its parameters in their places', async () => {
    await ask('DELETE /visits/:id/pack-links/:link', { params: { id: 'v', link: 'l' } })
    expect(called).toEqual([{ address: '/api/visits/v/pack-links/l', method: 'DELETE', body: undefined, type: null }])
  })

  it('keeps what is typed out of its path: a slash, a question mark and a hash are no more than letters', async () => {
    await ask('GET /homes/:id', { params: { id: '../session?x#y %' } })
    expect(called[0]!.address).toBe('/api/homes/..%2Fsession%3Fx%23y%20%25')
  })

  it('asks what it asks behind it: lists one by one, nothing for what is left out, & and + as they are', async () => {
    await ask('GET /durations', { query: { of: ['a step', 'b&c+d'] } })
    await ask('GET /homes', { query: { q: 'a=b', model: undefined } })
    await ask('GET /figures', { query: { months: 12 } })
    await ask('GET /day', {})
    expect(called.map(({ address }) => address)).toEqual([
      '/api/durations?of=a+step&of=b%26c%2Bd',
      '/api/homes?q=a%3Db',
      '/api/figures?months=12',
      '/api/day'
    ])
  })

  it('sends JSON only where it has a body', async () => {
    await ask('POST /session/again', { body: { password: 'made-up' } })
    await ask('POST /people/:id/password', { params: { id: 'p' } })
    expect(called.map(({ body, type }) => [body, type])).toEqual([
      [{ password: 'made-up' }, 'application/json'],
      [undefined, null]
    ])
  })

  it('answers what is told, and nothing where nothing is', async () => {
    expect(await ask('DELETE /session')).toBeUndefined()
    answer = () => Response.json({ technicians: [] })
    expect(await ask('GET /technicians')).toEqual({ technicians: [] })
  })

  it('is a problem where it is refused, breaks off, or nobody is there', async () => {
    const caught = async () => ask('GET /ways').catch((error: unknown) => error as ApiProblem)
    answer = () => Response.json({ title: 'No.', status: 403, type: 'x' }, { status: 403 })
    expect(await caught()).toMatchObject({ status: 403, passing: false, words: 'No.' })
    answer = () => new Response('<html>', { status: 502 })
    expect(await caught()).toMatchObject({ passing: true })
    answer = () => {
      throw new TypeError('no network')
    }
    expect(await caught()).toBeInstanceOf(ApiProblem)
    expect(await caught()).toMatchObject({ status: 0, passing: true })
  })
})

describe('a file', () => {
  it('is fetched as it is', async () => {
    answer = () => new Response('picture')
    const file = await fetchFile('POST /visits/:id/photos/:ref/show', {
      params: { id: 'v', ref: 'r' },
      body: { why: 'checking it' }
    })
    expect(await file.text()).toBe('picture')
    expect(called[0]).toMatchObject({ address: '/api/visits/v/photos/r/show', body: { why: 'checking it' } })
  })

  it('is handed over under the name that the server gives it, and no address of it is kept', async () => {
    vi.useFakeTimers()
    const given: string[] = []
    const revoked: string[] = []
    URL.createObjectURL = () => 'blob:made'
    URL.revokeObjectURL = (address) => revoked.push(address)
    const click = vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      given.push(`${this.download} ${this.href}`)
    })
    answer = () => new Response('pdf', { headers: { 'content-disposition': 'attachment; filename="pasado-pack.pdf"' } })
    await download('POST /visits/:id/pack', { params: { id: 'v' }, body: {} })
    answer = () => new Response('ics')
    await download('GET /day/calendar', { query: { whose: 'all' } })
    expect(given).toEqual(['pasado-pack.pdf blob:made', 'pasado blob:made'])
    vi.advanceTimersByTime(60_000)
    expect(revoked).toEqual(['blob:made', 'blob:made'])
    click.mockRestore()
    vi.useRealTimers()
  })

  it('that is refused is handed to nobody', async () => {
    const click = vi.spyOn(HTMLAnchorElement.prototype, 'click')
    answer = () => Response.json({ title: 'Not sealed.', status: 409, type: 'x' }, { status: 409 })
    await expect(download('GET /visits/:id/record.pdf', { params: { id: 'v' } })).rejects.toMatchObject({ status: 409 })
    expect(click).not.toHaveBeenCalled()
    click.mockRestore()
  })
})
