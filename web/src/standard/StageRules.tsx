import { useEffect, useState } from 'react'
import { figureOf, figureWords, type FigureName } from '@pasado/core/policy/figures'
import { allRules } from '@pasado/core/rules/all'
import type { Level, Standard } from '@pasado/core/policy/standard'
import { type Stage } from '@pasado/core/record/stages'
import { readNumber } from '@pasado/core/values/number'
import { List } from '../ui/List'
import { Select, Field, Input } from '../ui/Field'

const levelWords = { must: 'must', should: 'should', note: 'note', off: 'not in force' } as const

/** The rules of a stage with their levels, and the figures they judge by. */
export function StageRules({
  stage,
  shown,
  editing,
  change
}: {
  stage: Stage
  shown: Standard
  editing: boolean
  change: (part: Partial<Standard>) => void
}) {
  const setLevel = (id: string, level: Level | 'off', own: Level) => {
    const { [id]: _, ...levels } = shown.levels
    change({ levels: level === own ? levels : { ...levels, [id]: level } })
  }
  return (
    <List framed className="mt-2">
      {allRules
        .filter((rule) => rule.stage === stage)
        .map((rule) => {
          const known = !shown.rules || shown.rules.includes(rule.id)
          const level = known ? (shown.levels[rule.id] ?? rule.level) : 'off'
          const figures = (Object.keys(figureWords) as FigureName[]).filter((name) => figureWords[name].of === rule.id)
          return (
            <li
              key={rule.id}
              aria-label={rule.name}
              className="grid items-start gap-x-4 gap-y-2 py-3 md:grid-cols-[minmax(0,1fr)_9.5rem]"
            >
              <div>
                <b>{rule.name}</b> <span className="fine exact">{rule.id}</span>
                <p className="text-sm text-soft">{rule.statement}</p>
                {figures.length > 0 && (
                  <div className="mt-2 flex flex-wrap items-end gap-3">
                    {figures.map((name) => (
                      <Figure
                        key={name}
                        name={name}
                        value={figureOf(shown.policy, name)}
                        editing={editing}
                        onSet={(value) => change({ policy: { ...shown.policy, [name]: value } })}
                      />
                    ))}
                  </div>
                )}
              </div>
              {editing ? (
                <Select
                  aria-label={`Level of ${rule.name}`}
                  value={level}
                  onChange={(event) => setLevel(rule.id, event.target.value as Level, rule.level)}
                >
                  {(['must', 'should', 'note', 'off'] as const).map((choice) => (
                    <option key={choice} value={choice}>
                      {levelWords[choice]}
                      {choice === rule.level ? ' (usual)' : ''}
                    </option>
                  ))}
                </Select>
              ) : (
                <b className="md:text-right">{levelWords[level]}</b>
              )}
            </li>
          )
        })}
    </List>
  )
}

/** A figure with its unit; what is out of its range is told under it, and kept as typed. */
function Figure({
  name,
  value,
  editing,
  onSet
}: {
  name: FigureName
  value: number
  editing: boolean
  onSet: (value: number) => void
}) {
  const { name: words, unit, least, most } = figureWords[name]
  const [typed, setTyped] = useState(String(value))
  useEffect(() => setTyped((now) => (readNumber(now) === value ? now : String(value))), [value])
  const number = readNumber(typed)
  const wrong = !(number >= least && number <= most)
  if (!editing)
    return (
      <p className="text-sm">
        <span className="text-soft">{words}</span>{' '}
        <b>
          {value} {unit}
        </b>
      </p>
    )
  return (
    <Field label={`${words}${unit && `, ${unit}`}`} className="w-52 text-sm">
      <Input
        exact
        inputMode="decimal"
        autoComplete="off"
        aria-invalid={wrong}
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value)
          const next = readNumber(event.target.value)
          if (next >= least && next <= most) onSet(next)
        }}
      />
      {wrong && (
        <span role="alert" className="block">
          must be from {least} to {most}
        </span>
      )}
    </Field>
  )
}
