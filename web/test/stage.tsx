import { cleanup, configure, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ReactNode } from 'react'
import { MemoryRouter, Route, Routes, useLocation } from 'react-router'
import { vi } from 'vitest'
import type { Draft, Entry } from '@pasado/core/record/entry'
import type { EntryKind } from '@pasado/core/record/entries/all'
import { planOf } from '@pasado/core/agenda/agenda'
import { worksOf } from '@pasado/core/agenda/works'
import { docketRules } from '@pasado/core/rules/docket-rules'
import { evaluate } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { useSession } from '../src/app/session'
import { useOutbox } from '../src/outbox/outbox'
import { followOutbox } from '../src/visit/session/record-now'
import { useVisit } from '../src/visit/session/visit-state'
import { catalogue, idOf, type Log } from '@pasado/testing/logbook'

// Views load their parts when they are gone to: on a busy machine that takes more than the usual second.
configure({ asyncUtilTimeout: 10_000 })

// A part of a visit is shown without its session: what is written shows all the same.
followOutbox()

const user = userEvent.setup()

/** What the server was asked, in order. */
export const asked: { method: string; path: string; body: unknown }[] = []

/** How the server answers; tests put their own in. */
export const answers = new Map<string, (body: unknown) => Response>()

vi.stubGlobal('fetch', (path: string, options: RequestInit = {}) => {
  const body = options.body === undefined ? undefined : (JSON.parse(String(options.body)) as unknown)
  asked.push({ method: options.method ?? 'GET', path, body })
  const answer = [...answers].find(([part]) => path.includes(part))?.[1]
  return answer ? Promise.resolve(answer(body)) : new Promise(() => undefined)
})

let address = ''
/** Notes where the page stands. */
export function Address() {
  const { pathname, search } = useLocation()
  address = pathname + search
  return null
}

/** Where the page stands now. */
export const currentAddress = () => address

/** Shows a part of a visit as somebody of this role sees it. */
export function show(
  log: Log,
  part: ReactNode,
  options: { role?: 'technician' | 'lead' | 'office'; at?: string; answers?: Record<string, () => Response> } = {}
) {
  cleanup()
  asked.length = 0
  answers.clear()
  for (const [path, answer] of Object.entries(options.answers ?? {})) answers.set(path, answer)
  const folded = log.folded()
  const { record } = folded
  // A technician here is the one who has the visit; a lead or the office is somebody else.
  const me = {
    id: (options.role ?? 'technician') === 'technician' ? record.visit.technician.id : idOf('me'),
    login: 'me',
    name: 'Isolde Marram',
    role: options.role ?? 'technician'
  } as const
  useSession.setState({ me })
  // What was shown before is left: the rules are not asked of it any more.
  useVisit.setState({ id: null })
  useOutbox.setState({ owner: { id: me.id, name: me.name }, id: idOf('outbox'), rows: [], stuckSince: null })
  const findings = evaluate(folded, catalogue, firstStandard)
  const works = worksOf({ folded, catalogue, findings, rules: docketRules, nowMs: Date.now() })
  useVisit.setState({
    id: record.visit.id,
    entries: log.entries as Entry[],
    confirmed: folded,
    ...folded,
    // Of its own: lines of two logbooks have the same ids here, and only one of them was asked of before.
    catalogue: new Map(catalogue),
    standard: firstStandard,
    findings,
    works,
    planned: { plan: planOf(works), at: Date.now() },
    durations: new Map(),
    judgedRecord: record,
    judging: false,
    rules: docketRules,
    pending: [],
    saving: 'saved',
    undoable: [],
    problem: null,
    verdicts: null,
    foreign: null
  })
  const path = options.at ?? `/visit/${record.visit.id}/configure`
  return render(
    <MemoryRouter initialEntries={[path]}>
      <Address />
      <Routes>
        <Route path="/visit/:id/:stage" element={part} />
      </Routes>
    </MemoryRouter>
  )
}

/** What was written on the screen, sent already or waiting to be. */
export function written<K extends EntryKind>(kind: K): Draft<K>['body'][] {
  const drafts = [
    ...asked.flatMap(({ body }) => (body as { entries?: Draft[] } | undefined)?.entries ?? []),
    ...useVisit.getState().pending
  ]
  return [...new Map(drafts.map((draft) => [draft.id, draft])).values()]
    .filter((draft) => draft.kind === kind)
    .map(({ body }) => body as Draft<K>['body'])
}

/** An answer of JSON. */
export const json =
  (body: unknown, status = 200) =>
  () =>
    new Response(JSON.stringify(body), { status })

/** One of the chips of a group. */
export const chip = (group: string, name: string) =>
  within(screen.getByRole('radiogroup', { name: group })).getByRole('radio', { name })

/** Types into a field as a person does, and leaves it. */
export async function enter(label: string, value: string): Promise<void> {
  const field = screen.getByRole('textbox', { name: label })
  await user.clear(field)
  if (value) await user.type(field, value)
  await user.tab()
}
