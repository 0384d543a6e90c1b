import { conflictWords } from '@pasado/core/documents/conflict-words'
import type { Unsettled } from '@pasado/core/history/conflicts'
import { useVisit } from '../session/visit-state'
import { KeepOne } from '../fields/KeepOne'

/** What two people set who had not seen each other: whoever works here says which is right, by one press. */
export function ConflictLine({ conflict }: { conflict: Unsettled }) {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const findings = useVisit((state) => state.findings)
  const { what, valueOf } = conflictWords(record, catalogue, conflict, findings)
  const names = [...new Set(conflict.values.map(({ by }) => by.name))].join(' and ')
  return (
    <li aria-label={`Conflict: ${what}`} className="border-t border-rule bg-inv p-4 text-oninv">
      <p className="font-bold">Two set {what}</p>
      <p className="text-sm">
        {conflict.kind === 'secret'
          ? `${names}, without having seen each other.`
          : `${conflict.values.map(({ by, value }) => `${by.name} set ${valueOf(value)}`).join('; ')}. None had seen the other’s.`}{' '}
        {conflict.kind === 'secret' ? 'Type in the one that is right.' : 'Which is right?'}
      </p>
      {conflict.kind !== 'secret' && <KeepOne conflict={conflict} valueOf={valueOf} />}
    </li>
  )
}
