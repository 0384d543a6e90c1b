import { whyNotWaive } from '@pasado/core/record/may'
import type { Finding } from '@pasado/core/rules/finding'
import { useSession } from '../../app/session'
import { useVisit } from '../session/visit-state'

/** Why the person here does not waive a finding, in words; null where they do. */
export function useWhyNotWaive({ level }: Pick<Finding, 'level'>): string | null {
  const me = useSession((state) => state.me)
  return useVisit(({ record, standard }) =>
    me ? whyNotWaive(record, level === 'must', standard.policy.fourEyes ?? false, me) : null
  )
}
