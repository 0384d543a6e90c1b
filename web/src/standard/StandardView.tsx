import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { nextDraft, standardProblems } from '@pasado/core/rules/check-standard'
import { standardDifferences } from '@pasado/core/rules/difference'
import { allRules } from '@pasado/core/rules/all'
import type { Standard } from '@pasado/core/policy/standard'
import { stageNames, stages, type Stage } from '@pasado/core/record/stages'
import { saveFile } from '../app/save-file'
import { useSession } from '../app/session'
import { OwnRules } from './OwnRules'
import { PublishStandard } from './PublishStandard'
import { RulesThatCame } from './RulesThatCame'
import { useKeptDraft } from './use-kept-draft'
import { useStandards } from './use-standards'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { FileButton } from '../ui/FileButton'
import { StageRules } from './StageRules'
import { Schools, Versions, WhatChanges, WhatIsWrong } from './StandardAside'
import { Instead } from '../ui/Instead'
import { useTitle } from '../app/use-title'
import { Heading, Page } from '../ui/Page'

/** Standard: every rule with its level, the figures and schools, and rules of the house. A lead drafts and publishes the next version. */
export function StandardView() {
  const { standards, problem, again } = useStandards()
  useTitle('Standard')
  if (problem) return <Instead message={problem} alert />
  if (!standards || standards.length === 0)
    return (
      <p className="p-6 text-soft" role="status">
        Loading the standard …
      </p>
    )
  return <Whole key={standards[0]!.version} standards={standards} onPublished={() => void again()} />
}

function Whole({ standards, onPublished }: { standards: Standard[]; onPublished: () => void }) {
  const current = standards[0]!
  const lead = useSession((state) => state.me?.role === 'lead')
  const { draft, set, forget } = useKeptDraft(current)
  const [stage, setStage] = useState<Stage>('brief')
  const [publishing, setPublishing] = useState(false)
  const [fileProblem, setFileProblem] = useState<string | null>(null)
  const shown = draft ?? current
  const editing = draft !== null
  const problems = useMemo(() => standardProblems(shown), [shown])
  const differences = useMemo(() => standardDifferences(current, shown), [current, shown])
  const begin = () => set(nextDraft(current))
  const change = (part: Partial<Standard>) => {
    if (draft) set({ ...draft, ...part })
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
    <Page width="full">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <div>
          <Heading>The standard</Heading>
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
      <Problem message={fileProblem} className="mt-2" />
      {lead && !editing && <RulesThatCame current={current} onPublished={onPublished} />}
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-5 lg:grid-cols-[minmax(0,1fr)_330px]">
        <section aria-label="Rules" className="paper min-w-0 p-4">
          <nav aria-label="Stages">
            <ul className="flex flex-wrap gap-1">
              {stages
                .filter((candidate) => allRules.some((rule) => rule.stage === candidate))
                .map((listed) => (
                  <li key={listed}>
                    <button
                      type="button"
                      className="min-h-11 border-b-4 border-transparent px-2 aria-[current=true]:border-plum aria-[current=true]:font-bold"
                      aria-current={stage === listed}
                      onClick={() => setStage(listed)}
                    >
                      {stageNames[listed]}{' '}
                      <span className="fine">{allRules.filter((rule) => rule.stage === listed).length}</span>
                    </button>
                  </li>
                ))}
            </ul>
          </nav>
          <StageRules stage={stage} shown={shown} editing={editing} change={change} />
          <OwnRules stage={stage} own={shown.own ?? []} editing={editing} onSet={(own) => change({ own })} />
        </section>
        <aside className="flex min-w-0 flex-col gap-4">
          <Schools policy={shown.policy} editing={editing} onPolicy={(policy) => change({ policy })} />
          {editing && problems.length > 0 && <WhatIsWrong problems={problems} />}
          {editing && <WhatChanges differences={differences} since={current.version} />}
          {!editing && standards.length > 1 && <Versions standards={standards} />}
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
    </Page>
  )
}
