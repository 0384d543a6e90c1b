import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { api } from '@pasado/core/api/all'
import type { Contract } from '@pasado/core/api/contract'

const calls = Object.entries(api) as [string, Contract][]
const namesIn = (path: string) => [...path.matchAll(/:(\w+)/g)].map(([, name]) => name)

describe('the calls of the API', () => {
  it('are each at an address of their own', () => {
    const addresses = calls.map(([, { method, path }]) => `${method} ${path.replace(/:\w+/g, ':')}`)
    expect(addresses.filter((address, at) => addresses.indexOf(address) !== at)).toEqual([])
  })

  it.each(calls)('%s: what its path names is what its parameters are, and nothing else', (_, { path, params }) => {
    expect(Object.keys(params?.shape ?? {}).sort()).toEqual(namesIn(path).sort())
  })

  it.each(calls)(
    '%s: takes a body only where one is sent, and says what it answers',
    (_, { method, body, upload, answer }) => {
      if (method !== 'post') expect([body, upload]).toEqual([undefined, undefined])
      if (typeof answer === 'string') expect(answer).toMatch(/^nothing$|^[a-z]+\/[a-z.-]+(?:; charset=utf-8)?$/)
      else expect(z.toJSONSchema(answer, { io: 'output', unrepresentable: 'any' })).toBeTypeOf('object')
    }
  )
})
