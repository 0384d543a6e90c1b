import { Instead } from '../ui/Instead'
import type { AffectedUnit } from '@pasado/core/api/advisory'
import type { AnswerOf } from '@pasado/core/api/all'
import Papa from 'papaparse'
import { useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import { newestModels } from '@pasado/core/catalogue/model'
import { inKnownOrder, knownOrder, releaseOf } from '@pasado/core/catalogue/firmware-order'
import { ask } from '../app/api'
import { saveFile } from '../app/save-file'
import { useModels } from '../catalogue/models'
import { Button } from '../ui/Button'
import { Waiting } from '../ui/Waiting'
import { useRead, useReading } from '../app/read'
import { useTitle } from '../app/use-title'
import { Heading, Page } from '../ui/Page'
import { List } from '../ui/List'

/** Stands for units whose version nobody recorded; no version holds a blank. */
const UNKNOWN = '?'

/** So many units are put on the page at once. */
const SHOWN = 200

/** Every unit that runs one of these versions, by street. */
async function unitsThatRun(model: string, versions: readonly string[]): Promise<ListedUnit[]> {
  const all: ListedUnit[] = []
  for (const version of versions) {
    const firmware = version === UNKNOWN ? 'not recorded' : version
    for (let last: AffectedUnit | undefined, more = true; more;) {
      const page: AnswerOf<'GET /advisory/:model/homes'> = await ask('GET /advisory/:model/homes', {
        params: { model },
        query: {
          ...(version === UNKNOWN ? { unknown: 'true' } : { version }),
          ...(last ? { afterVisit: last.visit, afterUnit: last.unit } : {})
        }
      })
      all.push(...page.units.map((unit) => ({ ...unit, firmware })))
      last = page.units.at(-1)
      more = page.more
    }
  }
  return all.sort((a, b) => {
    if (a.street < b.street) return -1
    return a.street > b.street ? 1 : 0
  })
}
type ListedUnit = AffectedUnit & { firmware: string }

/** Advisory: which homes run which version of a model's firmware now, whom to call, and visits to book. */
export function AdvisoryPage() {
  const { id = '' } = useParams()
  const { models } = useModels()
  const { value, problem: unread } = useRead('GET /advisory/:model', { params: { model: id } })
  const inUse = value?.versions
  const [chosen, setChosen] = useState<string[] | null>(null)
  const [shown, setShown] = useState(SHOWN)
  const model = useMemo(() => newestModels(models ?? []).get(id) ?? null, [models, id])
  const troubled = (version: string | null): string | null => {
    if (!model) return null
    if (version === null) return 'version not known'
    const { releases, minimum } = model.firmware
    if (releaseOf(releases, version)?.withdrawn) return 'withdrawn'
    const order = (than: string) => knownOrder(version, than, releases)
    const holes = releases.filter(({ fixesHole }) => fixesHole).map((release) => order(release.version))
    if (holes.includes('older')) return 'has a hole'
    if (order(minimum) === 'older') return 'below the approved minimum'
    return [...holes, order(minimum)].includes('unknown') ? 'the number does not tell whether it is newer' : null
  }
  useTitle('Advisory')
  const versions = inUse ?? []
  const wanted =
    chosen ??
    (model
      ? versions
          .map(({ firmware }) => firmware ?? UNKNOWN)
          .filter((candidate) => troubled(candidate === UNKNOWN ? null : candidate) !== null)
      : [])
  const key = wanted.join(' ')
  const { value: list, problem: unlisted } = useReading(
    ['units that run', id, key],
    () => unitsThatRun(id, key === '' ? [] : key.split(' ')),
    { when: inUse !== undefined && model !== null, otherwise: 'The list could not be loaded; try again.' }
  )
  const problem = unread ?? unlisted
  const csv = () =>
    saveFile(
      `${id}-to-call.csv`,
      Papa.unparse(
        (list ?? []).map(({ street, town, customer, phone, name, serial, firmware }) => ({
          street,
          town,
          customer,
          phone: phone ?? '',
          unit: name ?? '',
          serial: serial ?? '',
          firmware
        })),
        { escapeFormulae: true }
      ),
      'text/csv'
    )
  const homes = new Set((list ?? []).map(({ home }) => home)).size
  if (problem) return <Instead message={problem} alert />
  if (!models || !inUse) return <Waiting className="p-6" />
  if (!model) return <Instead message="The catalogue has no such model." to="/catalogue" back="Back to the catalogue" />
  return (
    <Page width="list">
      <Heading>
        Who runs what: {model.maker} {model.name}
      </Heading>
      <p className="text-soft">
        As the last sealed visit of each home and every open one know it. A version is marked withdrawn, or as mending a
        hole, in{' '}
        <Link className="underline" to={`/catalogue/${id}`}>
          the catalogue
        </Link>
        .
      </p>
      {versions.length === 0 && <p className="mt-4">No home has one.</p>}
      <List className="paper mt-4" aria-label="Versions in use">
        {versions
          .toSorted((a, b) => {
            if (a.firmware === null) return -1
            return b.firmware === null ? 1 : inKnownOrder(model.firmware.releases)(a.firmware, b.firmware)
          })
          .map(({ firmware: said, units, homes: count }) => {
            const firmware = said ?? UNKNOWN
            const why = troubled(said)
            return (
              <li key={firmware}>
                <label className="flex min-h-14 flex-wrap items-center gap-x-4 px-4 py-2">
                  <input
                    type="checkbox"
                    className="size-5 accent-plum"
                    checked={wanted.includes(firmware)}
                    onChange={(event) =>
                      setChosen(
                        event.target.checked
                          ? [...wanted, firmware]
                          : wanted.filter((candidate) => candidate !== firmware)
                      )
                    }
                  />
                  <b className={said === null ? 'w-28' : 'exact w-28'}>{said ?? 'not recorded'}</b>
                  <span className="grow">
                    {units} {units === 1 ? 'unit' : 'units'} at {count} {count === 1 ? 'home' : 'homes'}
                  </span>
                  {why && <b>{why}</b>}
                </label>
              </li>
            )
          })}
      </List>
      {list && wanted.length > 0 && (
        <section aria-label="To call" className="mt-5">
          <div className="flex flex-wrap items-center gap-3">
            <h2 className="grow text-lg">
              {homes} {homes === 1 ? 'home' : 'homes'} to call
            </h2>
            <Button disabled={list.length === 0} onClick={csv}>
              As CSV
            </Button>
          </div>
          <List className="paper mt-2">
            {list.slice(0, shown).map((unit) => (
              <li
                key={`${unit.visit} ${unit.unit}`}
                className="grid items-center gap-x-4 gap-y-1 px-4 py-2 sm:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)_7rem_auto]"
              >
                <span>
                  <Link className="font-bold underline" to={`/homes/${unit.home}`}>
                    {unit.street}
                  </Link>{' '}
                  <span className="text-soft">{unit.town}</span>
                </span>
                <span>
                  {unit.customer}{' '}
                  <span className="fine block">
                    {unit.name}
                    {unit.serial ? (
                      <>
                        , <span className="exact">{unit.serial}</span>
                      </>
                    ) : (
                      ''
                    )}
                    ,{' '}
                    <span className={unit.firmware === 'not recorded' ? '' : 'exact'}>
                      {unit.firmware === 'not recorded' ? 'version not recorded' : unit.firmware}
                    </span>
                  </span>
                </span>
                <span className="exact">{unit.phone ?? 'no number'}</span>
                <Link className="btn" to={`/visit/new?home=${unit.home}`} aria-label={`Book a visit at ${unit.street}`}>
                  Book a visit
                </Link>
              </li>
            ))}
          </List>
          {list.length > shown && (
            <p className="mt-2">
              <Button onClick={() => setShown(shown + SHOWN)}>More of them</Button>{' '}
              <span className="fine">
                {shown} of {list.length} units shown; the CSV has all
              </span>
            </p>
          )}
        </section>
      )}
      {!list && (
        <p className="mt-4 text-soft" role="status">
          Looking …
        </p>
      )}
    </Page>
  )
}
