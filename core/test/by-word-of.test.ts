import { describe, expect, it, vi } from 'vitest'
import { wordKey, type History } from '@pasado/core/history/history'
import { byWordOf, unorderedOf, type Collecting } from '@pasado/core/rules/by-word'
import { holds, unproven, type Verdict } from '@pasado/core/rules/rule'
import { idOf, opened } from '@pasado/testing/logbook'

const person = (name: string) => ({ id: idOf(name), name, role: 'technician' as const })
const place = { stage: 'prove', kind: 'room', id: 'r', field: 'measured' } as const
const open = (evidence: string) => unproven(evidence, 'Measure.', place)
const empty = opened().folded().history
const line = (name: string, seq: number) => [seq, { place: 0, entry: { seq, by: person(name) } }] as never

/** A history in which people said which came first of pairs of lines, and that things stood there. */
function said(
  words: Record<string, [number, number]>,
  stood: Record<string, number[]> = {},
  lines: [string, number][] = []
): History {
  return {
    ...empty,
    lines: new Map(lines.map(([name, seq]) => line(name, seq))),
    words: new Map(
      Object.entries(words).map(([name, [a, b]]) => [wordKey(a, b), [{ by: person(name), came: 'before' as const }]])
    ),
    stood: new Map(Object.entries(stood))
  }
}
const told = (history: History, judge: (history: History) => readonly Verdict[], verdict = holds('Seen.')) =>
  byWordOf([verdict], history, judge)(verdict)
const when = (isSo: boolean) => [isSo ? holds('Seen.') : open('Not known.')]

describe('by whose word something holds', () => {
  const both = said({ Corin: [3, 4], Isolde: [5, 6] })
  it.each<[string, History, (history: History) => boolean, string[]]>([
    ['of two words the one that is needed', both, ({ words }) => words.has(wordKey(3, 4)), ['Corin']],
    ['both, where both are', both, ({ words }) => words.size === 2, ['Corin', 'Isolde']],
    ['both, where either would do', both, ({ words }) => words.size > 0, ['Corin', 'Isolde']],
    [
      'of two things that stood there the one that is needed, by everybody who said so',
      said({}, { hall: [7, 8], loft: [9] }, [
        ['Corin', 7],
        ['Wenna', 8],
        ['Isolde', 9]
      ]),
      ({ stood }) => stood.has('hall'),
      ['Corin', 'Wenna']
    ],
    [
      'nobody whose line is not here',
      said({}, { hall: [7, 10], loft: [9] }, [
        ['Corin', 7],
        ['Isolde', 9]
      ]),
      ({ stood }) => stood.has('hall') && stood.has('loft'),
      ['Corin', 'Isolde']
    ],
    [
      'each once',
      said({ Corin: [3, 4] }, { hall: [7] }, [['Corin', 7]]),
      ({ words, stood }) => words.size + stood.size > 0,
      ['Corin']
    ]
  ])('tells %s', (_, history, isSo, names) => {
    expect(told(history, (less) => when(isSo(less)))).toMatchObject({ byWordOf: names })
  })

  it('is told in the evidence, as it was before with the names after it', () => {
    expect(told(both, ({ words }) => when(words.size === 2)).evidence).toBe('Seen. By word of Corin and Isolde.')
  })

  it('is not told of what holds without any word, nor of what does not hold, and then nothing is judged again', () => {
    expect(told(both, () => when(true))).toEqual({})
    const judge = vi.fn(() => when(false))
    expect(told(both, judge, open('Not known.'))).toEqual({})
    expect(told(said({}), judge)).toEqual({})
    expect(judge).not.toHaveBeenCalled()
    const [yes, no] = [holds('Seen.'), open('Not known.')]
    expect(byWordOf([yes, no], both, () => when(false))(no)).toEqual({})
    expect(byWordOf([no, yes], both, () => when(false))(yes)).toMatchObject({ byWordOf: ['Corin', 'Isolde'] })
  })

  it('goes by the same thing, and the same of several that are said of it', () => {
    const [low, high] = ['2.4 GHz', '5 GHz'].map((name) => holds('Seen.', { id: 'router', name }))
    expect(told(both, () => [low!], high)).toMatchObject({ byWordOf: ['Corin', 'Isolde'] })
    expect(told(both, () => [low!], low)).toEqual({})
    expect(told(both, () => [holds('Seen.', { id: 'node', name: '5 GHz' })], high)).toMatchObject({
      byWordOf: expect.any(Array)
    })
  })
})

describe('what is not known of which came first', () => {
  const pair = (change: string, proof: string, message: string) => ({ change, proof, message })
  const collecting = {
    ...empty,
    unordered: [pair('a', 'p', 'One.'), pair('a', 'p', 'One.'), pair('b', 'p', 'One.'), pair('c', 'p', 'Two.')],
    recordedSince: [
      { thing: 'unit', id: 'u', message: 'Three.' },
      { thing: 'stays', id: 's', message: 'Four.' }
    ]
  } as unknown as Collecting

  it('is what the verdict speaks of, each pair once', () => {
    expect(unorderedOf(open('Measured. One.'), collecting)).toEqual({
      unordered: [
        { change: 'a', proof: 'p' },
        { change: 'b', proof: 'p' }
      ]
    })
    expect(unorderedOf(open('Three.'), collecting)).toEqual({ recordedSince: [{ thing: 'unit', id: 'u' }] })
  })

  it('is nothing of what holds, whatever it says', () => {
    expect(unorderedOf(holds('One. Three.'), collecting)).toEqual({})
    expect(unorderedOf(open('Measured.'), collecting)).toEqual({})
  })
})
