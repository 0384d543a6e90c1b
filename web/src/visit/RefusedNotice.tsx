import { dropRefused, useVisit } from './store'

/** What the server did not take, with why and what was in it. */
export function RefusedNotice() {
  const refused = useVisit((state) => state.refused)
  if (refused.length === 0) return null
  return (
    <ul className="bg-inv text-oninv" role="alert">
      {refused.map(({ draft, words }) => (
        <li key={draft.id} className="flex flex-wrap items-start gap-3 p-4">
          <div className="grow basis-72"><p className="font-bold">This was not taken</p><p className="text-sm">{words}</p>{draft.kind === 'note.written' && <p className="mt-1 text-sm">You wrote: “{draft.body.text}”</p>}</div>
          <button type="button" className="btn" onClick={() => dropRefused(draft.id)}>Put away</button>
        </li>
      ))}
    </ul>
  )
}
