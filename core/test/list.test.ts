import { expect, it } from 'vitest'
import { listed } from '@pasado/core/values/list'

it('names are joined as people join them', () => {
  expect([[], ['a'], ['a', 'b'], ['a', 'b', 'c']].map(listed)).toEqual(['', 'a', 'a and b', 'a, b and c'])
})
