import { useMemo } from 'react'
import { cautionsOf } from '@pasado/core/rules/cautions'
import type { Stage } from '@pasado/core/record/stages'
import { useVisit } from '../session/visit-state'

/** The cautions that this visit calls for: those of one stage, or all. */
export function Cautions({ stage }: { stage?: Stage }) {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const cautions = useMemo(
    () => cautionsOf(record, catalogue).filter((caution) => stage === undefined || caution.stage === stage),
    [record, catalogue, stage]
  )
  if (cautions.length === 0) return null
  return (
    <aside aria-label="Cautions" className="mt-4 border-l-4 border-ink bg-well p-3">
      <b>{cautions.length === 1 ? 'Caution' : 'Cautions'}</b>
      <ul className="mt-1 flex flex-col gap-1">
        {cautions.map(({ id, text }) => (
          <li key={id}>{text}</li>
        ))}
      </ul>
      <p className="fine mt-1">The local code and licensed trades have the last word.</p>
    </aside>
  )
}
