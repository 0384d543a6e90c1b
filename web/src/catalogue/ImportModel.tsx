import { textOf } from '@pasado/core/values/plain'
import { useId, useState } from 'react'
import { problemsOf, pathText } from '@pasado/core/values/problem'
import { catalogueFile } from '@pasado/core/catalogue/file'
import { model as modelSchema, type Model } from '@pasado/core/catalogue/model'
import { modelFaultsOf } from '@pasado/core/catalogue/validate'
import { ask, failureWords } from '../app/api'
import { useSession } from '../app/session'
import { Sheet } from '../ui/Sheet'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { TextArea } from '../ui/Field'

/** The models in a text, one (`pasado.model/1`) or many (`pasado.catalogue/1`), and what is wrong with it, line by line. */
export function modelsInText(text: string): { models: Model[]; faults: string[] } {
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch {
    return { models: [], faults: ['It is not well-formed JSON; it may have been cut short.'] }
  }
  const many = textOf((raw as { format?: unknown } | null)?.format).startsWith('pasado.catalogue/')
  const checked = many
    ? catalogueFile.safeParse(raw, { reportInput: true })
    : modelSchema.safeParse(raw, { reportInput: true })
  if (!checked.success)
    return { models: [], faults: problemsOf(checked.error).map(({ path, message }) => `${pathText(path)} ${message}`) }
  const models = 'models' in checked.data ? checked.data.models : [checked.data]
  const faults = models.flatMap((model, at) =>
    modelFaultsOf(model).map(({ path, message }) => `${pathText(many ? ['models', at, ...path] : path)}: ${message}`)
  )
  return { models, faults }
}

const MOST_SHOWN = 12

/** A lead takes models in from JSON, with the validator's findings at once. */
export function ImportModel({
  open,
  onOpen,
  onDone
}: {
  open: boolean
  onOpen: (open: boolean) => void
  onDone: () => void
}) {
  const lead = useSession((state) => state.me?.role === 'lead')
  const [text, setText] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const [said, setSaid] = useState<string | null>(null)
  const inputId = useId()
  if (!lead) return null
  const { models, faults } = text.trim() ? modelsInText(text) : { models: [], faults: [] }
  const change = (to: string) => {
    setText(to)
    setProblem(null)
    setSaid(null)
  }
  const publish = async (event: React.FormEvent) => {
    event.preventDefault()
    try {
      const { published, known } = await ask('POST /models/import', {
        body: {
          catalogue: { format: 'pasado.catalogue/1', models }
        }
      })
      setText('')
      setSaid(
        `${published.length ? `Published: ${published.map((key) => key.replace('@', ', version ')).join('; ')}.` : 'Nothing new in it.'}${known ? ` ${known} ${known === 1 ? 'was' : 'were'} here already.` : ''}`
      )
      onDone()
    } catch (error) {
      setProblem(failureWords(error, 'It could not be published; try again.'))
    }
  }
  return (
    <>
      <Button onClick={() => onOpen(true)}>Take in models</Button>
      <Sheet
        open={open}
        onClose={() => onOpen(false)}
        title="Take in models"
        description="From JSON: one, pasado.model/1, or many, pasado.catalogue/1. Versions that are here already are left as they are; open visits keep theirs."
        wide
      >
        <form onSubmit={(event) => void publish(event)} className="flex flex-col gap-3">
          <div>
            <label className="label" htmlFor={inputId}>
              The models as JSON
            </label>
            <TextArea
              id={inputId}
              exact
              className="mt-1 min-h-72 text-sm"
              spellCheck={false}
              value={text}
              onChange={(event) => change(event.target.value)}
            />
          </div>
          <input
            type="file"
            accept="application/json,.json"
            aria-label="Or choose a file"
            onChange={(event) => void event.target.files?.[0]?.text().then(change)}
          />
          <div aria-live="polite">
            {faults.length > 0 && (
              <ul className="bg-inv p-3 text-sm text-oninv">
                {faults.slice(0, MOST_SHOWN).map((fault) => (
                  <li key={fault}>{fault}</li>
                ))}
                {faults.length > MOST_SHOWN && <li>… and {faults.length - MOST_SHOWN} more</li>}
              </ul>
            )}
            {models.length > 0 && faults.length === 0 && (
              <p>
                {models.length === 1
                  ? `${models[0]!.maker} ${models[0]!.name}, version ${models[0]!.version}`
                  : `${models.length} models`}
                : nothing is wrong with {models.length === 1 ? 'it' : 'them'}.
              </p>
            )}
            {said && (
              <p role="status" className="font-bold">
                {said}
              </p>
            )}
          </div>
          <Problem message={problem} />
          <Button type="submit" kind="main" disabled={models.length === 0 || faults.length > 0}>
            Publish {models.length > 1 ? 'them' : 'it'}
          </Button>
        </form>
      </Sheet>
    </>
  )
}
