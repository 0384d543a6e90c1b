import { standardDifferences } from '@pasado/core/rules/difference'
import { useState } from 'react'
import type { Standard } from '@pasado/core/policy/standard'
import { ask, failureTitle } from '../../app/api'
import { Button } from '../../ui/Button'
import { List } from '../../ui/List'
import { Problem } from '../../ui/Problem'
import { Sheet } from '../../ui/Sheet'
import { useVisit } from '../session/visit-state'

/** What differs in a newer version of the standard, and moving the visit to it. */
export function NewerStandardSheet({
  newest,
  open,
  onClose
}: {
  newest: Standard
  open: boolean
  onClose: () => void
}) {
  const standard = useVisit((state) => state.standard)
  const id = useVisit((state) => state.id)
  const [problem, setProblem] = useState<string | null>(null)
  const differences = standardDifferences(standard, newest)
  const move = () =>
    ask('POST /visits/:id/standard', { params: { id: id! }, body: { version: newest.version } }).then(
      onClose,
      (error: unknown) => setProblem(failureTitle(error, 'It could not be moved; try again.'))
    )
  return (
    <Sheet
      open={open}
      onClose={onClose}
      title={`Version ${newest.version} of the standard`}
      {...(newest.note ? { says: newest.note } : {})}
    >
      <List framed>
        {differences.map((difference) => (
          <li key={difference} className="py-2">
            {difference}
          </li>
        ))}
      </List>
      <Problem message={problem} className="mt-2" />
      <div className="mt-3 flex gap-2">
        <Button kind="main" onClick={() => void move()}>
          Check this visit by version {newest.version}
        </Button>
        <Button kind="quiet" onClick={onClose}>
          Not yet
        </Button>
      </div>
    </Sheet>
  )
}
