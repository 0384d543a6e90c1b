import { describe, expect, it } from 'vitest'
import { likeliest, likeness } from './match-score'

describe('what is meant by a few letters', () => {
  const node = ['Cellar node: firmware approved', 'Configure', 'To mend']

  it('every typed word must be somewhere in the offer', () => {
    expect(likeness(node, 'cellar firm')).toBeGreaterThan(0)
    expect(likeness(node, 'cellar lamp')).toBe(0)
    expect(likeness(node, 'CONF cell')).toBeGreaterThan(0)
  })

  it('what begins so comes before what has a word that does, then its surroundings, then the inside of a word', () => {
    const [begins, word, around, inside] = [
      likeness(['Place'], 'pl'),
      likeness(['The place'], 'pl'),
      likeness(['Docket', 'place'], 'pl'),
      likeness(['Replace'], 'pl')
    ]
    expect(begins).toBeGreaterThan(word)
    expect(word).toBeGreaterThan(around)
    expect(around).toBeGreaterThan(inside)
    expect(inside).toBeGreaterThan(0)
  })

  it('the group with the likeliest comes first, and what does not answer is left out', () => {
    const offer = (label: string, more: { hint?: string; also?: string } = {}) => ({
      id: label,
      label,
      act: () => undefined,
      ...more
    })
    const groups = [
      { name: 'To mend', offers: [offer('Gateway: modem restarted', { hint: 'Connect' }), offer('Router: serial')] },
      { name: 'Stages', offers: [offer('Start up'), offer('Connect')] },
      { name: 'Homes', offers: [offer('2 Quay Lane', { also: 'conn' })] }
    ]
    expect(likeliest(groups, 'conn').map(({ name, offers }) => [name, offers.map(({ label }) => label)])).toEqual([
      ['Stages', ['Connect']],
      ['To mend', ['Gateway: modem restarted']],
      ['Homes', ['2 Quay Lane']]
    ])
  })
})
