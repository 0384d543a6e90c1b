import { useState } from 'react'
import { nextDraft, rulesThatCame } from '@pasado/core/rules/check-standard'
import { standardDifferences } from '@pasado/core/rules/difference'
import type { Standard } from '@pasado/core/policy/standard'
import { stageNames } from '@pasado/core/record/stages'
import { ask, failureTitle } from '../app/api'
import { Button } from '../ui/Button'
import { List } from '../ui/List'
import { Notice } from '../ui/Notice'
import { Problem } from '../ui/Problem'
import { PublishStandard } from './PublishStandard'

/** Rules that this program brings and the standard in force does not have: what they say, and one press to put them in force. */
export function RulesThatCame({ current, onPublished }: { current: Standard; onPublished: () => void }) {
  const [looking, setLooking] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  const came = rulesThatCame(current)
  if (came.length === 0) return null
  const draft = nextDraft(current)
  const reason = `Rules that came with the program: ${came.map(({ name }) => name).join(', ')}.`
  const putInForce = () =>
    ask('POST /standards', { body: { standard: { ...draft, note: reason } } }).then(onPublished, (error: unknown) =>
      setProblem(failureTitle(error, 'They could not be put in force; try again.'))
    )
  return (
    <Notice as="section" edge="plum" aria-label="Rules that came with the program" className="mt-4">
      <h2 className="font-bold">
        {came.length === 1
          ? 'A rule came with the program, and is not in force yet'
          : `${came.length} rules came with the program, and are not in force yet`}
      </h2>
      <List className="mt-1">
        {came.map(({ id, name, stage, level, statement }) => (
          <li key={id} className="py-1.5">
            <b>{name}</b>{' '}
            <span className="fine">
              {stageNames[stage]}, {level}
            </span>
            <span className="block">{statement}</span>
          </li>
        ))}
      </List>
      <p className="fine mt-1">
        New visits are then checked by version {draft.version}. Open ones stay with theirs until somebody moves them.
      </p>
      <Problem message={problem} className="mt-2" />
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => void putInForce()}>Put in force</Button>
        <Button kind="quiet" onClick={() => setLooking(true)}>
          What they would have said of sealed visits
        </Button>
      </div>
      {looking && (
        <PublishStandard
          draft={draft}
          differences={standardDifferences(current, draft)}
          reason={reason}
          onClose={() => setLooking(false)}
          onPublished={() => {
            setLooking(false)
            onPublished()
          }}
        />
      )}
    </Notice>
  )
}
