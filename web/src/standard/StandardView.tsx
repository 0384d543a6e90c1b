import { useEffect, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { nextDraft, standardProblems } from '@pasado/core/rules/check-standard'
import { standardDifferences } from '@pasado/core/rules/difference'
import { figureOf, figureWords, schoolWords, type FigureName, type SchoolName } from '@pasado/core/policy/figures'
import { allRules } from '@pasado/core/rules/all'
import type { Level, Standard } from '@pasado/core/policy/standard'
import { stageNames, stages, type Stage } from '@pasado/core/record/stages'
import { readNumber } from '@pasado/core/values/number'
import { saveFile } from '../app/save-file'
import { useSession } from '../app/session'
import { OwnRules } from './OwnRules'
import { PublishStandard } from './PublishStandard'
import { useKeptDraft } from './use-kept-draft'
import { useStandards } from './use-standards'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { FileButton } from '../ui/FileButton'
import { Instead } from '../ui/Instead'

const levelWords = { must: 'must', should: 'should', note: 'note', off: 'not in force' } as const

/** Standard: every rule with its level, the figures and schools, and rules of the house. A lead drafts and publishes the next version. */
export function StandardView() {
  const { standards, problem, reload } = useStandards()
  useEffect(() => {
    document.title = 'Standard · Pasado'
  }, [])
  if (problem) return <Instead says={problem} alert />
  if (!standards || standards.length === 0)
    return (
      <p className="p-6 text-soft" role="status">
        Loading the standard …
      </p>
    )
  return <Whole key={standards[0]!.version} standards={standards} onPublished={reload} />
}

function Whole({ standards, onPublished }: { standards: Standard[]; onPublished: () => void }) {
  const current = standards[0]!
  const lead = useSession((state) => state.me?.role === 'lead')
  const { draft, set, forget } = useKeptDraft(current)
  const [stage, setStage] = useState<Stage>('brief')
  const [publishing, setPublishing] = useState(false)
  const [against, setAgainst] = useState(standards[1]?.version ?? current.version)
  const [fileProblem, setFileProblem] = useState<string | null>(null)
  const shown = draft ?? current
  const editing = draft !== null
  const problems = useMemo(() => standardProblems(shown), [shown])
  const differences = useMemo(() => standardDifferences(current, shown), [current, shown])
  const before = standards.find(({ version }) => version === against)
  const begin = () => set(nextDraft(current))
  const change = (part: Partial<Standard>) => {
    if (draft) set({ ...draft, ...part })
  }
  const setLevel = (id: string, level: Level | 'off', own: Level) => {
    const { [id]: _, ...levels } = shown.levels
    change({ levels: level === own ? levels : { ...levels, [id]: level } })
  }
  const readFile = async (file: File) => {
    let value: unknown
    try {
      value = JSON.parse(await file.text())
    } catch {
      setFileProblem(`${file.name} is no JSON.`)
      return
    }
    const wrong = standardProblems(value)
    if (wrong.length) {
      setFileProblem(
        `${file.name}: ${wrong
          .slice(0, 3)
          .map(({ path, message }) => `${path.join('.')} ${message}`)
          .join('; ')}.`
      )
      return
    }
    setFileProblem(null)
    set({ ...(value as Standard), id: current.id, version: current.version + 1 })
  }
  return (
    <main className="mx-auto max-w-7xl p-4 lg:p-5">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <div>
          <h1 className="text-2xl">The standard</h1>
          <p className="text-soft">
            {editing
              ? `Version ${shown.version}, a draft on this device. In force: version ${current.version}.`
              : `Version ${current.version}, in force.${current.note ? ` ${current.note}` : ''}`}
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          <Link className="btn btn-quiet" to="/standard/figures">
            How rules come out
          </Link>
          <Button
            kind="quiet"
            onClick={() =>
              saveFile(`standard-${shown.version}.json`, JSON.stringify(shown, null, 2), 'application/json')
            }
          >
            As JSON
          </Button>
          {lead && (
            <FileButton accept=".json,application/json" onFile={(file) => void readFile(file)}>
              From JSON
            </FileButton>
          )}
          {lead &&
            (editing ? (
              <>
                <Button kind="quiet" onClick={forget}>
                  Throw the draft away
                </Button>
                <Button
                  kind="main"
                  disabled={problems.length > 0 || differences.length === 0}
                  onClick={() => setPublishing(true)}
                >
                  Publish …
                </Button>
              </>
            ) : (
              <Button kind="main" onClick={begin}>
                Draft the next version
              </Button>
            ))}
        </div>
      </div>
      <Problem says={fileProblem} className="mt-2" />
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-5 lg:grid-cols-[minmax(0,1fr)_330px]">
        <section aria-label="Rules" className="paper min-w-0 p-4">
          <nav aria-label="Stages">
            <ul className="flex flex-wrap gap-1">
              {stages
                .filter((one) => one !== 'signoff')
                .map((one) => (
                  <li key={one}>
                    <button
                      type="button"
                      className="min-h-11 border-b-4 border-transparent px-2 aria-[current=true]:border-plum aria-[current=true]:font-bold"
                      aria-current={stage === one}
                      onClick={() => setStage(one)}
                    >
                      {stageNames[one]}{' '}
                      <span className="fine">{allRules.filter((rule) => rule.stage === one).length}</span>
                    </button>
                  </li>
                ))}
            </ul>
          </nav>
          <ul className="mt-2 divide-y divide-rule border-y border-rule">
            {allRules
              .filter((rule) => rule.stage === stage)
              .map((rule) => {
                const known = !shown.rules || shown.rules.includes(rule.id)
                const level = known ? (shown.levels[rule.id] ?? rule.level) : 'off'
                const figures = (Object.keys(figureWords) as FigureName[]).filter(
                  (name) => figureWords[name].of === rule.id
                )
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
                      <select
                        className="box"
                        aria-label={`Level of ${rule.name}`}
                        value={level}
                        onChange={(event) => setLevel(rule.id, event.target.value as Level, rule.level)}
                      >
                        {(['must', 'should', 'note', 'off'] as const).map((one) => (
                          <option key={one} value={one}>
                            {levelWords[one]}
                            {one === rule.level ? ' (usual)' : ''}
                          </option>
                        ))}
                      </select>
                    ) : (
                      <b className="md:text-right">{levelWords[level]}</b>
                    )}
                  </li>
                )
              })}
          </ul>
          <OwnRules stage={stage} own={shown.own ?? []} editing={editing} onSet={(own) => change({ own })} />
        </section>
        <aside className="flex min-w-0 flex-col gap-4">
          <section aria-label="Schools" className="paper p-4">
            <h2 className="text-lg">Schools</h2>
            <dl className="mt-1">
              {(Object.keys(schoolWords) as SchoolName[]).map((name) => {
                const { name: words, options } = schoolWords[name]
                const value = shown.policy[name] ?? Object.keys(options)[0]!
                return (
                  <div key={name} className="py-1.5">
                    <dt className="label">{words}</dt>
                    <dd>
                      {editing ? (
                        <select
                          className="box mt-1"
                          aria-label={words}
                          value={value}
                          onChange={(event) => change({ policy: { ...shown.policy, [name]: event.target.value } })}
                        >
                          {Object.entries(options).map(([option, says]) => (
                            <option key={option} value={option}>
                              {says}
                            </option>
                          ))}
                        </select>
                      ) : (
                        (options as Record<string, string>)[value]
                      )}
                    </dd>
                  </div>
                )
              })}
            </dl>
            <label className="inline-flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="size-5 accent-plum"
                disabled={!editing}
                checked={shown.policy.fourEyes ?? false}
                onChange={(event) => change({ policy: { ...shown.policy, fourEyes: event.target.checked } })}
              />
              a lead approves before sealing
            </label>
          </section>
          {editing && problems.length > 0 && (
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
          )}
          {editing && (
            <section aria-label="What changes" className="paper p-4" aria-live="polite">
              <h2 className="text-lg">
                {differences.length === 0
                  ? 'Nothing changes yet'
                  : `${differences.length} ${differences.length === 1 ? 'change' : 'changes'} against version ${current.version}`}
              </h2>
              <ul className="mt-1 divide-y divide-rule text-sm">
                {differences.map((one) => (
                  <li key={one} className="py-1.5">
                    {one}
                  </li>
                ))}
              </ul>
            </section>
          )}
          {!editing && standards.length > 1 && before && (
            <section aria-label="Versions" className="paper p-4">
              <h2 className="text-lg">Versions</h2>
              <label className="label mt-1 block">
                Version {current.version} against
                <select
                  className="box mt-1 font-normal"
                  value={against}
                  onChange={(event) => setAgainst(Number(event.target.value))}
                >
                  {standards.slice(1).map(({ version, note }) => (
                    <option key={version} value={version}>
                      {version}
                      {note ? `: ${note.slice(0, 40)}` : ''}
                    </option>
                  ))}
                </select>
              </label>
              <ul className="mt-2 divide-y divide-rule text-sm">
                {standardDifferences(before, current).map((one) => (
                  <li key={one} className="py-1.5">
                    {one}
                  </li>
                ))}
              </ul>
            </section>
          )}
        </aside>
      </div>
      {publishing && draft && (
        <PublishStandard
          draft={draft}
          differences={differences}
          onClose={() => setPublishing(false)}
          onPublished={() => {
            forget()
            setPublishing(false)
            onPublished()
          }}
        />
      )}
    </main>
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
    <label className="label w-52 text-sm">
      {words}
      {unit && `, ${unit}`}
      <input
        className="box exact mt-1 font-normal"
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
    </label>
  )
}
