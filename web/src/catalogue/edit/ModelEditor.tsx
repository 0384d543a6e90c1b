import { Instead } from '../../ui/Instead'
import { Waiting } from '../../ui/Waiting'
import { useEffect, useMemo, useState } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { del, get, set as keep } from 'idb-keyval'
import { byMaker, newestModels, type Model } from '@pasado/core/catalogue/model'
import { useSession } from '../../app/session'
import { useModels } from '../models'
import { bareModel, EditingContext, faultPlace, faultsOf, withChange, type DraftFault, type Path } from './draft'
import { LampsSection, MovesSection } from './lamp-sections'
import { BoxSection, ButtonsSection, IdentitySection, PowerSection } from './plain-sections'
import { MethodsSection, PromptsSection } from './method-sections'
import { FirmwareSection, RadiosSection } from './radio-sections'
import { PublishSheet } from './PublishSheet'
import { Button } from '../../ui/Button'
import { Heading, Page } from '../../ui/Page'
import { List } from '../../ui/List'

/** The sections of a model, each with the parts of it that stand there. */
const sections: readonly { id: string; name: string; parts: readonly string[] }[] = [
  {
    id: 'identity',
    name: 'What it is',
    parts: [
      'id',
      'maker',
      'name',
      'family',
      'roles',
      'twin',
      'label',
      'masks',
      'defaultSsidPrefix',
      'format',
      'version'
    ]
  },
  { id: 'box', name: 'Boxes', parts: ['box', 'kits'] },
  { id: 'power', name: 'Power and ports', parts: ['power', 'ports', 'powerBudgetW'] },
  { id: 'buttons', name: 'Buttons', parts: ['buttons'] },
  { id: 'lamps', name: 'Lamps and states', parts: ['lamps', 'states', 'start', 'lampsCanBeOff'] },
  { id: 'moves', name: 'Moves', parts: ['moves'] },
  { id: 'methods', name: 'Setup methods', parts: ['methods'] },
  { id: 'prompts', name: 'Consent prompts', parts: ['prompts'] },
  { id: 'radios', name: 'Radios and mesh', parts: ['radios', 'mesh'] },
  { id: 'firmware', name: 'Firmware', parts: ['firmware', 'updates'] }
]
const sectionOf = ({ path }: DraftFault) =>
  sections.find(({ parts }) => parts.includes(String(path[0])))?.id ?? 'identity'
const draftKey = (id: string) => `pasado-model-draft-${id}`

/** A lead edits a model: its parts at the left, one of them in the middle, what is wrong at the right, at once. */
export function ModelEditor() {
  const { id = 'new' } = useParams()
  const lead = useSession((state) => state.me?.role === 'lead')
  const { models, problem } = useModels()
  const newest = useMemo(() => newestModels(models ?? []).get(id ?? '') ?? null, [models, id])
  if (problem) return <Instead message={problem} alert />
  if (models === null) return <Waiting message="Loading the model …" className="p-6" />
  if (!lead) return <Instead message="Only a lead edits the catalogue." to="/catalogue" back="Back to the catalogue" />
  if (id !== 'new' && !newest)
    return <Instead message="The catalogue has no such model." to="/catalogue" back="Back to the catalogue" />
  return <FromDraft key={id} id={id} published={newest} models={[...newestModels(models).values()].sort(byMaker)} />
}

interface Edited {
  id: string
  published: Model | null
  models: readonly Model[]
}

/**
 * A draft is kept on this device until it is published, so that nothing is lost by leaving the page. It is fetched before the form
 * is shown: one that arrived later would take away what had been typed by then.
 */
function FromDraft(edited: Edited) {
  const { id, published } = edited
  const begin = useMemo(
    (): unknown => (published ? { ...published, version: published.version + 1 } : bareModel),
    [published]
  )
  const [kept, setKept] = useState<{ draft: unknown } | null>(null)
  useEffect(() => {
    void get<unknown>(draftKey(id))
      .catch(() => undefined)
      .then((draft) =>
        setKept({ draft: draft && (draft as Model).version === (begin as Model).version ? draft : begin })
      )
  }, [id, begin])
  return kept ? (
    <Editor {...edited} begin={begin} kept={kept.draft} />
  ) : (
    <Waiting message="Loading the model …" className="p-6" />
  )
}

function Editor({ id, published, models, begin, kept }: Edited & { begin: unknown; kept: unknown }) {
  const [draft, setDraft] = useState<unknown>(kept)
  const [undone, setUndone] = useState<unknown[]>([])
  const [search, setSearch] = useSearchParams()
  const [publishing, setPublishing] = useState(false)
  const [turn, setTurn] = useState(0)
  const navigate = useNavigate()
  const { model, faults } = useMemo(() => faultsOf(draft), [draft])
  const section = sections.find((candidate) => candidate.id === search.get('part')) ?? sections[0]!
  const set = (path: Path, value: unknown) => {
    setUndone((before) => [...before.slice(-99), draft])
    const next = withChange(draft, path, value)
    setDraft(next)
    void keep(draftKey(id), next).catch(() => undefined)
  }
  const back = () => {
    const last = undone.at(-1)
    if (last === undefined) return
    setDraft(last)
    setUndone(undone.slice(0, -1))
    setTurn((now) => now + 1)
    void keep(draftKey(id), last).catch(() => undefined)
  }
  const leave = () => {
    void del(draftKey(id))
    setDraft(begin)
    setUndone([])
    setTurn((now) => now + 1)
  }
  const { maker, name, version } = draft as Model
  return (
    <EditingContext value={{ draft, faults, set }}>
      <Page title={`Edit ${published ? `${published.maker} ${published.name}` : 'a new model'}`} width="full">
        <div className="flex flex-wrap items-center justify-between gap-3">
          <div>
            <Heading>{published ? `${maker} ${name}` : 'A new model'}</Heading>
            <p className="text-soft">Version {version}, not published. Kept on this device.</p>
          </div>
          <div className="flex flex-wrap gap-2">
            <Button disabled={undone.length === 0} onClick={back}>
              Undo
            </Button>
            <Button kind="quiet" disabled={draft === begin} onClick={leave}>
              Begin again
            </Button>
            <Button kind="main" disabled={!model || faults.length > 0} onClick={() => setPublishing(true)}>
              Publish …
            </Button>
          </div>
        </div>
        <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-5 lg:grid-cols-[190px_minmax(0,1fr)_270px]">
          <nav aria-label="Parts of the model">
            <ul className="flex overflow-x-auto lg:block">
              {sections.map((listed) => {
                const count = faults.filter((fault) => sectionOf(fault) === listed.id).length
                return (
                  <li key={listed.id}>
                    <button
                      type="button"
                      aria-current={listed === section ? 'page' : undefined}
                      className={`flex min-h-11 w-full items-center justify-between gap-2 whitespace-nowrap border-l-[5px] px-3 text-left ${listed === section ? 'border-plum bg-sheet font-bold' : 'border-transparent hover:bg-sheet'}`}
                      onClick={() => setSearch({ part: listed.id }, { replace: true })}
                    >
                      {listed.name}
                      {count > 0 && <span className="bg-inv px-1.5 text-sm text-oninv">{count}</span>}
                    </button>
                  </li>
                )
              })}
            </ul>
          </nav>
          <section aria-label={section.name} key={`${section.id} ${turn}`} className="paper min-w-0 p-4">
            <h2 className="mb-3 text-lg">{section.name}</h2>
            <SectionOf id={section.id} fresh={published === null} models={models} />
          </section>
          <aside aria-label="What is wrong" className="min-w-0" aria-live="polite">
            <h2 className="text-lg">{faults.length === 0 ? 'Nothing is wrong with it' : `${faults.length} to mend`}</h2>
            <List framed className="mt-2">
              {faults.slice(0, 40).map((fault, at) => (
                <li key={at}>
                  <button
                    type="button"
                    className="block min-h-11 w-full py-2 text-left hover:bg-well"
                    onClick={() => setSearch({ part: sectionOf(fault) }, { replace: true })}
                  >
                    <b className="exact break-all text-sm">{faultPlace(fault)}</b>
                    <span className="block text-sm">{fault.message}</span>
                  </button>
                </li>
              ))}
            </List>
            {faults.length === 0 && (
              <p className="mt-2 text-soft">
                Every state can be reached and told apart, every step waits for a lamp it has, every firmware can be
                installed.
              </p>
            )}
          </aside>
        </div>
      </Page>
      {publishing && model && (
        <PublishSheet
          model={model}
          published={published}
          onClose={() => setPublishing(false)}
          onPublished={() => {
            void del(draftKey(id))
            void navigate(`/catalogue/${model.id}`)
          }}
        />
      )}
    </EditingContext>
  )
}

function SectionOf({ id, fresh, models }: { id: string; fresh: boolean; models: readonly Model[] }) {
  switch (id) {
    case 'box':
      return <BoxSection models={models} />
    case 'power':
      return <PowerSection />
    case 'buttons':
      return <ButtonsSection />
    case 'lamps':
      return <LampsSection />
    case 'moves':
      return <MovesSection />
    case 'methods':
      return <MethodsSection />
    case 'prompts':
      return <PromptsSection />
    case 'radios':
      return <RadiosSection />
    case 'firmware':
      return <FirmwareSection />
    default:
      return <IdentitySection fresh={fresh} />
  }
}
