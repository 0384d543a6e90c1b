import { useState } from 'react'
import { standardDifferences } from '@pasado/core/rules/difference'
import { ask, failureTitle } from '../../app/api'
import { Sheet } from '../../ui/Sheet'
import { useMayWrite } from '../session/facts'
import { useVisit } from '../session/visit-state'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { useRead } from '../../app/read'
import { List } from '../../ui/List'

/** A newer version of the standard than the one this visit is checked by: what differs, and moving to it. */
export function NewerStandard() {
  const standard = useVisit((state) => state.standard)
  const id = useVisit((state) => state.id)
  const mayWrite = useMayWrite()
  const newest = useRead('GET /standards/newest', {}).value?.standard
  const [open, setOpen] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  if (!mayWrite || !newest || newest.id !== standard.id || newest.version <= standard.version) return null
  const differences = standardDifferences(standard, newest)
  const move = () =>
    ask('POST /visits/:id/standard', { params: { id: id! }, body: { version: newest.version } }).then(
      () => setOpen(false),
      (error: unknown) => setProblem(failureTitle(error, 'It could not be moved; try again.'))
    )
  return (
    <div className="flex flex-wrap items-center gap-3 border-b border-rule bg-well px-4 py-2 lg:px-5">
      <p className="grow">
        This visit is checked by version {standard.version} of the standard; version {newest.version} is in force.
      </p>
      <Button onClick={() => setOpen(true)}>What differs</Button>
      <Sheet
        open={open}
        onClose={() => setOpen(false)}
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
          <Button kind="quiet" onClick={() => setOpen(false)}>
            Not yet
          </Button>
        </div>
      </Sheet>
    </div>
  )
}
