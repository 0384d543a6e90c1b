import { useState } from 'react'
import { useRead } from '../../app/read'
import { Button } from '../../ui/Button'
import { useMayWrite } from '../session/facts'
import { useVisit } from '../session/visit-state'
import { NewerStandardSheet } from './later-sheets'

/** A newer version of the standard than the one this visit is checked by: what differs, and moving to it. */
export function NewerStandard() {
  const standard = useVisit((state) => state.standard)
  const mayWrite = useMayWrite()
  const newest = useRead('GET /standards/newest', {}).value?.standard
  const [open, setOpen] = useState(false)
  if (!mayWrite || !newest || newest.id !== standard.id || newest.version <= standard.version) return null
  return (
    <div className="flex flex-wrap items-center gap-3 border-b border-rule bg-well px-4 py-2 lg:px-5">
      <p className="grow">
        This visit is checked by version {standard.version} of the standard; version {newest.version} is in force.
      </p>
      <Button onClick={() => setOpen(true)}>What differs</Button>
      <NewerStandardSheet newest={newest} open={open} onClose={() => setOpen(false)} />
    </div>
  )
}
