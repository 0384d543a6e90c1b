import { beforeEach, describe, expect, it } from 'vitest'
import { type ApiProblem, ask } from './api'
import { answers, json } from '../../test/stage'

beforeEach(() => answers.clear())

describe('asking the server', () => {
  it('no answer, a fault and a refusal are told apart', async () => {
    answers.set(
      '/homes/refused',
      json({ title: 'No.', status: 422, errors: [{ pointer: '/a', field: 'a', detail: 'is odd' }] }, 422)
    )
    answers.set('/homes/fault', () => new Response('<html>', { status: 502 }))
    const problem = await ask('GET /homes/:id', { params: { id: 'refused' } }).catch(
      (error: unknown) => error as ApiProblem
    )
    expect([(problem as ApiProblem).status, (problem as ApiProblem).passing, (problem as ApiProblem).words]).toEqual([
      422,
      false,
      'No. a is odd'
    ])
    expect(
      await ask('GET /homes/:id', { params: { id: 'fault' } }).catch((error: unknown) => (error as ApiProblem).passing)
    ).toBe(true)
  })
})
