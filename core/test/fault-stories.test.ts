import { describe, expect, it } from 'vitest'
import { causes } from '@pasado/core/work/diagnose/causes'
import { observationOf } from '@pasado/core/work/diagnose/observations'
import { heldBackStories } from '@pasado/demo/fault-stories/held-back'
import { openStories } from '@pasado/demo/fault-stories/open'
import { isRightAtOnce, offeredIn, searched } from '@pasado/demo/fault-stories/robot'

const all = [...heldBackStories, ...openStories]

describe('stories told from the technician’s side', () => {
  it('are sixty, twelve of two faults at once and twelve of none of the list, and name only what there is', () => {
    expect(all.length).toBeGreaterThanOrEqual(60)
    expect(all.filter((story) => story.causes.length === 2).length).toBeGreaterThanOrEqual(12)
    expect(all.filter((story) => story.causes.length === 0).length).toBeGreaterThanOrEqual(12)
    expect(new Set(all.map(({ title }) => title)).size).toBe(all.length)
    for (const story of all) {
      const offered = offeredIn(story)
      for (const cause of story.causes) expect(causes.map(({ id }) => id as string)).toContain(cause)
      for (const [look, answer] of Object.entries(story.sees))
        if (offered.has(look))
          expect(
            observationOf(look)!.answers.map(({ id }) => id),
            `${story.title}: ${look}`
          ).toContain(answer)
    }
  })

  it.each([
    ['held back', heldBackStories],
    ['open', openStories]
  ] as const)(
    'the %s half: one fault is mended at once nearly always, and what is none of the list is said before half of them are mended wrongly',
    (_, stories) => {
      const right = (many: number) => {
        const these = stories.filter((story) => story.causes.length === many)
        return these.filter((story) => isRightAtOnce(story, searched(story))).length / these.length
      }
      expect(right(1)).toBeGreaterThanOrEqual(0.94)
      expect(right(2)).toBeGreaterThanOrEqual(0.5)
      expect(right(0)).toBeGreaterThanOrEqual(0.5)
    }
  )

  it('every one ends: it works, or it is handed over', () => {
    for (const story of all) expect(searched(story).how, story.title).not.toBe('neither')
  })
})
