import { useId, useState } from 'react'
import { problemsOf, pathText } from '@pasado/core/calc/refusal'
import { model as modelSchema, type Model } from '@pasado/core/catalogue/model'
import { modelFaultsOf } from '@pasado/core/catalogue/validate'
import { ApiProblem, ask } from '../app/api'
import { useSession } from '../app/session'
import { Sheet } from '../ui/Sheet'

/** What is wrong with the text of a model, line by line; empty where it can be published. */
export function faultsOfText(text: string): { model: Model | null; faults: string[] } {
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch {
    return { model: null, faults: ['It is not well-formed JSON; it may have been cut short.'] }
  }
  const checked = modelSchema.safeParse(raw, { reportInput: true })
  if (!checked.success) return { model: null, faults: problemsOf(checked.error).map(({ path, message }) => `${pathText(path)} ${message}`) }
  return { model: checked.data, faults: modelFaultsOf(checked.data).map(({ path, message }) => `${pathText(path)}: ${message}`) }
}

const MOST_SHOWN = 12

/** A lead publishes a model, or a new version of one, from its JSON, with the validator's findings as it is typed. */
export function ImportModel({ open, onOpen, onDone }: { open: boolean; onOpen: (open: boolean) => void; onDone: () => void }) {
  const lead = useSession((state) => state.me?.role === 'lead')
  const [text, setText] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const inputId = useId()
  if (!lead) return null
  const { model, faults } = text.trim() ? faultsOfText(text) : { model: null, faults: [] }
  const publish = async (event: React.FormEvent) => {
    event.preventDefault()
    try {
      await ask('POST', '/models', { model })
      setText('')
      setProblem(null)
      onDone()
      onOpen(false)
    } catch (error) {
      setProblem(error instanceof ApiProblem ? error.words : 'It could not be published; try again.')
    }
  }
  return (
    <>
      <button type="button" className="btn" onClick={() => onOpen(true)}>Publish a model</button>
      <Sheet open={open} onClose={() => onOpen(false)} title="Publish a model" says="From its JSON, pasado.model/1. A version higher than the newest one; open visits keep theirs." wide>
        <form onSubmit={(event) => void publish(event)} className="flex flex-col gap-3">
          <div><label className="label" htmlFor={inputId}>The model as JSON</label><textarea id={inputId} className="box exact mt-1 min-h-72 text-sm" spellCheck={false} value={text} onChange={(event) => { setText(event.target.value); setProblem(null) }} /></div>
          <input type="file" accept="application/json,.json" aria-label="Or choose a file" onChange={(event) => void event.target.files?.[0]?.text().then(setText)} />
          <div aria-live="polite">
            {faults.length > 0 && <ul className="bg-inv p-3 text-sm text-oninv">{faults.slice(0, MOST_SHOWN).map((one) => <li key={one}>{one}</li>)}{faults.length > MOST_SHOWN && <li>… and {faults.length - MOST_SHOWN} more</li>}</ul>}
            {model && faults.length === 0 && <p>{model.maker} {model.name}, version {model.version}: nothing is wrong with it.</p>}
          </div>
          {problem && <p role="alert" className="font-bold">{problem}</p>}
          <button type="submit" className="btn btn-plum" disabled={!model || faults.length > 0}>Publish it</button>
        </form>
      </Sheet>
    </>
  )
}
