import { holds, rule, unproven, type Rule } from '../rule'
import { listed } from '../../values/list'

export const waitsEnded = rule({
  id: 'waits-ended',
  name: 'Waits ended',
  stage: 'signoff',
  level: 'should',
  minutes: 1,
  statement: 'No wait of the visit is still running.',
  judge: ({ record }) => {
    const waits = Object.values(record.waits)
    if (waits.length === 0) return []
    // Sealed with one running, it was running then.
    const running = waits.filter(({ endedAt }) => endedAt === null)
    if (running.length === 0) return [holds('Every wait has ended.')]
    return [
      unproven(
        `Still running: ${listed(running.map(({ what }) => what))}.`,
        'End each at the foot when it is over, and look what it ended with.',
        { stage: 'signoff', kind: 'answer', id: 'waits-ended', field: 'answer' }
      )
    ]
  }
})

/** Rules of Sign off. */
export const signOffRules: readonly Rule[] = [waitsEnded]
