import { Tick } from '../ui/Tick'
import { useState } from 'react'
import type { standardProblems } from '@pasado/core/rules/check-standard'
import { standardDifferences } from '@pasado/core/rules/difference'
import { schoolWords, type SchoolName } from '@pasado/core/policy/figures'
import type { Standard } from '@pasado/core/policy/standard'
import { Select, Field } from '../ui/Field'
import { List } from '../ui/List'

/** The schools a company goes by, and whether a lead approves. */
export function Schools({
  policy,
  editing,
  onPolicy
}: {
  policy: Standard['policy']
  editing: boolean
  onPolicy: (policy: Standard['policy']) => void
}) {
  return (
    <section aria-label="Schools" className="paper p-4">
      <h2 className="text-lg">Schools</h2>
      <dl className="mt-1">
        {(Object.keys(schoolWords) as SchoolName[]).map((name) => {
          const { name: words, options } = schoolWords[name]
          const value = policy[name] ?? Object.keys(options)[0]!
          return (
            <div key={name} className="py-1.5">
              <dt className="label">{words}</dt>
              <dd>
                {editing ? (
                  <Select
                    className="mt-1"
                    aria-label={words}
                    value={value}
                    onChange={(event) => onPolicy({ ...policy, [name]: event.target.value })}
                  >
                    {Object.entries(options).map(([option, says]) => (
                      <option key={option} value={option}>
                        {says}
                      </option>
                    ))}
                  </Select>
                ) : (
                  (options as Record<string, string>)[value]
                )}
              </dd>
            </div>
          )
        })}
      </dl>
      <Tick
        disabled={!editing}
        checked={policy.fourEyes ?? false}
        onTick={(checked) => onPolicy({ ...policy, fourEyes: checked })}
      >
        a lead approves before sealing
      </Tick>
      <Tick
        disabled={!editing}
        checked={policy.wordNeedsLead ?? false}
        onTick={(checked) => onPolicy({ ...policy, wordNeedsLead: checked })}
      >
        a lead confirms what somebody says of which came first
      </Tick>
    </section>
  )
}

/** What has to be mended before a draft can be published. */
export function WhatIsWrong({ problems }: { problems: ReturnType<typeof standardProblems> }) {
  return (
    <section aria-label="What is wrong" className="bg-inv p-4 text-oninv">
      <h2 className="text-lg">{problems.length} to mend</h2>
      <ul>
        {problems.slice(0, 12).map(({ path, message }) => (
          <li key={path.join('.')}>
            <b className="exact">{path.join('.')}</b> {message}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** What a draft would change. */
export function WhatChanges({ differences, since }: { differences: readonly string[]; since: number }) {
  return (
    <section aria-label="What changes" className="paper p-4" aria-live="polite">
      <h2 className="text-lg">
        {differences.length === 0
          ? 'Nothing changes yet'
          : `${differences.length} ${differences.length === 1 ? 'change' : 'changes'} against version ${since}`}
      </h2>
      <List className="mt-1 text-sm">
        {differences.map((difference) => (
          <li key={difference} className="py-1.5">
            {difference}
          </li>
        ))}
      </List>
    </section>
  )
}

/** What changed from an earlier version to the one in force. */
export function Versions({ standards }: { standards: readonly Standard[] }) {
  const current = standards[0]!
  const [against, setAgainst] = useState(standards[1]?.version ?? current.version)
  const before = standards.find(({ version }) => version === against)
  if (!before) return null
  return (
    <section aria-label="Versions" className="paper p-4">
      <h2 className="text-lg">Versions</h2>
      <Field label={`Version ${current.version} against`} className="mt-1 block">
        <Select value={against} onChange={(event) => setAgainst(Number(event.target.value))}>
          {standards.slice(1).map(({ version, note }) => (
            <option key={version} value={version}>
              {version}
              {note ? `: ${note.slice(0, 40)}` : ''}
            </option>
          ))}
        </Select>
      </Field>
      <List className="mt-2 text-sm">
        {standardDifferences(before, current).map((difference) => (
          <li key={difference} className="py-1.5">
            {difference}
          </li>
        ))}
      </List>
    </section>
  )
}
