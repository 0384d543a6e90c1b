import { useMemo, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { byMaker, newestModels } from '@pasado/core/catalogue/model'
import type { SentTo } from '@pasado/core/api/all'
import { allRules } from '@pasado/core/rules/all'
import { ask, failureWords } from '../app/api'
import { useModels } from '../catalogue/models'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { useRead } from '../app/read'
import { useLater } from '../app/use-later'
import { Heading, Page } from '../ui/Page'
import { Input, Field, Select } from '../ui/Field'
import { List } from '../ui/List'

type HomeQuery = NonNullable<SentTo<'GET /homes'>['query']>

const PAUSE_MS = 200
const foundWords: Record<string, string> = {
  customer: 'name',
  street: 'street',
  town: 'town',
  serial: 'serial',
  mac: 'MAC address'
}
const outcomes = { breaks: 'broken', waived: 'waived', unproven: 'unproven' } as const
const fields = ['q', 'model', 'firmware', 'rule', 'outcome'] as const

/** Homes: every home, found by name, street, serial or MAC address, by what stands there and by how a rule came out. */
export function Homes() {
  const [search, setSearch] = useSearchParams()
  const [unread, setUnread] = useState<string | null>(null)
  const [loading, setLoading] = useState(false)
  const get = (name: (typeof fields)[number]) => search.get(name) ?? ''
  const key = JSON.stringify(fields.flatMap((name) => (get(name) ? [[name, get(name)]] : [])))
  const query = useMemo(() => Object.fromEntries(JSON.parse(key) as [string, string][]) as HomeQuery, [key])
  const read = useRead(
    'GET /homes',
    { query: useLater(query, PAUSE_MS) },
    { otherwise: 'The homes could not be loaded.', keep: true }
  )
  const { value: found = null } = read
  const problem = read.problem ?? unread
  const loadMore = async () => {
    setLoading(true)
    try {
      const next = await ask('GET /homes', { query: { ...query, after: found!.next! } })
      const known = new Set(found!.homes.map(({ id }) => id))
      read.put({ homes: [...found!.homes, ...next.homes.filter(({ id }) => !known.has(id))], next: next.next })
      setUnread(null)
    } catch (error) {
      setUnread(failureWords(error, 'More homes could not be loaded; try again.'))
    } finally {
      setLoading(false)
    }
  }
  const set = (changed: Record<string, string>) => {
    const next = new URLSearchParams(search)
    for (const [name, value] of Object.entries(changed))
      if (value) next.set(name, value)
      else next.delete(name)
    setSearch(next, { replace: true })
  }
  return (
    <Page title="Homes" width="list">
      <Heading>Homes</Heading>
      <div className="mt-3">
        <label className="label" htmlFor="wanted">
          Find a home
        </label>
        <Input
          id="wanted"
          type="search"
          className="mt-1"
          autoFocus
          placeholder="name, street, serial or MAC address"
          value={get('q')}
          onChange={(event) => set({ q: event.target.value })}
        />
      </div>
      <Narrow get={get} set={set} />
      <Problem message={problem} className="mt-3" />
      {found === null && !problem && (
        <p className="mt-3 text-soft" role="status">
          Looking …
        </p>
      )}
      {found && found.homes.length > 0 && (
        <List className="paper mt-4" aria-label="Homes found">
          {found.homes.map((home) => (
            <li key={home.id}>
              <Link
                to={`/homes/${home.id}`}
                className="flex min-h-14 flex-wrap items-center justify-between gap-x-6 px-4 py-2 hover:bg-well"
              >
                <span>
                  <b>{home.street}</b> <span className="text-soft">{home.town}</span>
                </span>
                <span className="text-soft">
                  {home.customer}
                  {home.foundBy ? ` · by ${home.foundBy.map((what) => foundWords[what]).join(', ')}` : ''}
                </span>
              </Link>
            </li>
          ))}
        </List>
      )}
      {found?.homes.length === 0 && (
        <p className="mt-4">
          {query
            ? 'No home is found by that. Try the first letters of the name or street, or a serial without its hyphens; or take a model or rule away.'
            : 'No home yet. Open the first visit from Day.'}
        </p>
      )}
      {found?.next && (
        <p className="mt-3">
          <Button disabled={loading} onClick={() => void loadMore()}>
            {loading ? 'Loading …' : 'More homes'}
          </Button>{' '}
          <span className="fine">{found.homes.length} shown</span>
        </p>
      )}
    </Page>
  )
}

/** Narrows by what stands in a home and by what a rule said of it. */
function Narrow({
  get,
  set
}: {
  get: (name: (typeof fields)[number]) => string
  set: (changed: Record<string, string>) => void
}) {
  const { models } = useModels()
  const newest = [...newestModels(models ?? []).values()].sort(byMaker)
  const versions = newest.find(({ id }) => id === get('model'))?.firmware.releases ?? []
  const select = (
    label: string,
    value: string,
    none: string,
    options: readonly (readonly [string, string])[],
    choose: (value: string) => void,
    disabled = false
  ) => (
    <Field label={label} className="min-w-0">
      <Select value={value} disabled={disabled} onChange={(event) => choose(event.target.value)}>
        <option value="">{none}</option>
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </Select>
    </Field>
  )
  return (
    <div
      role="group"
      aria-label="Narrow"
      className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-3 sm:grid-cols-2 lg:grid-cols-[1.2fr_0.8fr_1.4fr_0.8fr]"
    >
      {select(
        'Model that stands there',
        get('model'),
        'any',
        newest.map(({ id, maker, name }) => [id, `${maker} ${name}`] as const),
        (model) => set({ model, firmware: '' })
      )}
      {select(
        'It runs',
        get('firmware'),
        'any version',
        versions.map(({ version, withdrawn }) => [version, `${version}${withdrawn ? ', withdrawn' : ''}`] as const),
        (firmware) => set({ firmware }),
        get('model') === ''
      )}
      {select(
        'Rule',
        get('rule'),
        'any',
        allRules.map(({ id, name }): [string, string] => [id, name]),
        (rule) => set({ rule, outcome: rule ? get('outcome') || 'waived' : '' })
      )}
      {select(
        'It came out',
        get('rule') ? get('outcome') || 'breaks' : '',
        '–',
        Object.entries(outcomes),
        (outcome) => set({ outcome }),
        get('rule') === ''
      )}
    </div>
  )
}
