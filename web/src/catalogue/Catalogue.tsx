import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { byMaker, newestModels, roles } from '@pasado/core/catalogue/model'
import { saveJson } from '../app/save-file'
import { useSession } from '../app/session'
import { Lens } from '../ui/Lens'
import { useModels } from './models'
import { ImportModel } from './ImportModel'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { Heading, Page } from '../ui/Page'
import { Input, Select } from '../ui/Field'

/** Every model in its newest version, found by maker, name and role. */
export function Catalogue() {
  const { models, retired, problem, again } = useModels()
  const [search, setSearch] = useSearchParams()
  const wanted = search.get('q') ?? ''
  const role = search.get('role') ?? ''
  const lead = useSession((state) => state.me?.role === 'lead')
  const [importing, setImporting] = useState(false)
  const newest = [...newestModels(models ?? []).values()].sort(byMaker)
  const found = newest.filter(
    (model) =>
      `${model.maker} ${model.name} ${model.family ?? ''}`.toLowerCase().includes(wanted.toLowerCase()) &&
      (role === '' || model.roles.some((candidate) => candidate === role))
  )
  const set = (key: string, value: string) =>
    setSearch(
      (before) => {
        if (value) before.set(key, value)
        else before.delete(key)
        return before
      },
      { replace: true }
    )
  return (
    <Page title="Catalogue" width="wide">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <Heading>Catalogue</Heading>
        <div className="flex flex-wrap gap-2">
          <Button
            disabled={!models}
            onClick={() => saveJson('pasado-catalogue.json', { format: 'pasado.catalogue/1', models })}
          >
            Save all as JSON
          </Button>
          <ImportModel open={importing} onOpen={setImporting} onDone={() => void again()} />
          {lead && (
            <Link className="btn" to="/catalogue/new/edit">
              New model
            </Link>
          )}
        </div>
      </div>
      <div className="mt-3 grid gap-3 sm:grid-cols-[2fr_1fr]">
        <div>
          <label className="label" htmlFor="model">
            Find a model
          </label>
          <Input
            id="model"
            type="search"
            className="mt-1"
            placeholder="maker, name or family"
            value={wanted}
            onChange={(event) => set('q', event.target.value)}
          />
        </div>
        <div>
          <label className="label" htmlFor="role">
            Can be
          </label>
          <Select id="role" className="mt-1" value={role} onChange={(event) => set('role', event.target.value)}>
            <option value="">anything</option>
            {roles.map((choice) => (
              <option key={choice} value={choice}>
                {choice.replace('-', ' ')}
              </option>
            ))}
          </Select>
        </div>
      </div>
      <Problem message={problem} className="mt-3" />
      {models === null && !problem && (
        <p className="mt-3 text-soft" role="status">
          Loading the catalogue …
        </p>
      )}
      <ul className="mt-4 grid gap-3 sm:grid-cols-2 xl:grid-cols-3" aria-label="Models">
        {found.map((model) => {
          const good = model.states.find((state) => state.good)
          return (
            <li key={model.id}>
              <Link to={`/catalogue/${model.id}`} className="paper flex h-full flex-col gap-2 p-4 hover:bg-well">
                <span className="flex items-baseline justify-between gap-2">
                  <b className="text-lg">
                    {model.maker} {model.name}
                  </b>
                  <span className="fine">
                    {retired.has(model.id) ? <b>no longer offered</b> : `version ${model.version}`}
                  </span>
                </span>
                <span className="fine">
                  {model.roles.map((can) => can.replace('-', ' ')).join(', ')}
                  {model.mesh ? ` · mesh of ${model.mesh.members ?? 'any number'}` : ''}
                </span>
                {good && (
                  <span className="mt-auto flex flex-wrap items-center gap-2">
                    {good.lamps.map((look) => (
                      <Lens key={look.lamp} colour={look.colour} pattern={look.pattern} size={24} />
                    ))}
                    <span className="text-sm">{good.meaning}</span>
                  </span>
                )}
              </Link>
            </li>
          )
        })}
      </ul>
      {models && found.length === 0 && <p className="mt-4">No model is found by that. Try the maker’s name alone.</p>}
    </Page>
  )
}
