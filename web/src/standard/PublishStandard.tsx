import type { AnswerOf } from '@pasado/core/api/all'
import type { StandardEffect } from '@pasado/core/api/standards'
import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import type { Standard } from '@pasado/core/policy/standard'
import { ApiProblem, ask, failureTitle } from '../app/api'
import { Sheet } from '../ui/Sheet'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { List } from '../ui/List'
import { Field, TextArea } from '../ui/Field'

type Part = AnswerOf<'POST /standards/effect'>

const MOST_VISITS = 200

/** Before a version is published: what changes, and what it would have said differently of the last sealed visits, rule by rule. */
export function PublishStandard({
  draft,
  differences,
  reason = '',
  onClose,
  onPublished
}: {
  draft: Standard
  differences: readonly string[]
  /** Why it is made, where that is known beforehand. */
  reason?: string
  onClose: () => void
  onPublished: () => void
}) {
  const [note, setNote] = useState(reason)
  const [problem, setProblem] = useState<string | null>(null)
  const [looked, setLooked] = useState(0)
  const [done, setDone] = useState(false)
  const [changes, setChanges] = useState<StandardEffect[]>([])
  useEffect(() => {
    let here = true
    const look = async () => {
      let [before, count] = [undefined as string | undefined, 0]
      while (here && count < MOST_VISITS) {
        const part: Part = await ask('POST /standards/effect', {
          body: {
            standard: draft,
            ...(before ? { before } : {})
          }
        })
        if (!here) return
        count += part.looked
        setLooked(count)
        setChanges((now) => [...now, ...part.changes])
        if (part.next === null) break
        before = part.next
      }
      if (here) setDone(true)
    }
    look().catch((error: unknown) => {
      if (here) setProblem(failureTitle(error, 'What it would have changed could not be reckoned; try again.'))
    })
    return () => {
      here = false
    }
  }, [draft])
  const publish = () => {
    if (!note.trim()) {
      setProblem('The note is missing: say why this version is made.')
      return
    }
    ask('POST /standards', { body: { standard: { ...draft, note: note.trim() } } }).then(
      onPublished,
      (error: unknown) =>
        setProblem(
          error instanceof ApiProblem
            ? (error.document.errors?.[0]?.detail ?? error.document.title)
            : 'It could not be published; the draft is kept. Try again.'
        )
    )
  }
  const byRule = [...new Map(changes.map((change) => [change.rule, change.name]))]
    .map(([rule, name]) => ({ rule, name, all: changes.filter((change) => change.rule === rule) }))
    .sort((a, b) => b.all.length - a.all.length)
  return (
    <Sheet
      open
      onClose={onClose}
      title={`Publish version ${draft.version}`}
      description="New visits are checked by it. Open ones stay with theirs until somebody moves them; sealed ones for good."
    >
      <h3>What changes</h3>
      <List framed className="mt-1 text-sm">
        {differences.map((difference) => (
          <li key={difference} className="py-1.5">
            {difference}
          </li>
        ))}
      </List>
      <h3 className="mt-4">What would have been different</h3>
      <p role="status">
        {done
          ? `Of the last ${looked} sealed visits ${new Set(changes.map(({ visit }) => visit)).size} would have been judged otherwise.`
          : `Looking at sealed visits: ${looked} so far …`}
      </p>
      {!done && <progress className="w-full" max={MOST_VISITS} value={looked} aria-label="Sealed visits looked at" />}
      <List framed className="mt-1">
        {byRule.map(({ rule, name, all }) => (
          <li key={rule} className="py-2">
            <details>
              <summary className="min-h-11 py-2">
                <b>{name}</b>{' '}
                <span className="fine">
                  {all.length} {all.length === 1 ? 'finding' : 'findings'}
                </span>
              </summary>
              <ul className="text-sm">
                {all.slice(0, 30).map((change, at) => (
                  <li key={at}>
                    <Link className="underline" to={`/visit/${change.visit}/signoff`}>
                      {change.street}
                    </Link>
                    {change.subject ? `, ${change.subject}` : ''}: {change.was} → {change.is}
                  </li>
                ))}
              </ul>
            </details>
          </li>
        ))}
      </List>
      <Field label="Why this version" className="mt-4 block">
        <TextArea className="min-h-20" maxLength={600} value={note} onChange={(event) => setNote(event.target.value)} />
      </Field>
      <Problem message={problem} className="mt-2" />
      <div className="mt-3 flex gap-2">
        <Button kind="main" disabled={!done} onClick={publish}>
          Publish version {draft.version}
        </Button>
        <Button kind="quiet" onClick={onClose}>
          Not yet
        </Button>
      </div>
    </Sheet>
  )
}
