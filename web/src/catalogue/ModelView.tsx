import { Instead } from '../ui/Instead'
import { Waiting } from '../ui/Waiting'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { labelFieldWords } from '@pasado/core/labels/fields'
import { methodNeeds, type Model } from '@pasado/core/catalogue/model'
import { sightingWords } from '@pasado/core/catalogue/look'
import { boxesOf, singleBox } from '@pasado/core/work/units/boxes'
import { ask, failureWords } from '../app/api'
import { saveJson } from '../app/save-file'
import { useSession } from '../app/session'
import { StateGraph } from './StateGraph'
import { UnitBack, UnitFront } from './UnitPicture'
import { useModels } from './models'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { useTitle } from '../app/use-title'
import { Heading, Page } from '../ui/Page'
import { Select } from '../ui/Field'
import { Notice } from '../ui/Notice'

/** One model: acting out any of its states, its ports, methods, contents and firmware. */
export function ModelView() {
  const { id } = useParams()
  const lead = useSession((state) => state.me?.role === 'lead')
  const { models, retired, problem, again } = useModels()
  const [refused, setRefused] = useState<string | null>(null)
  const versions = (models ?? []).filter((candidate) => candidate.id === id).sort((a, b) => b.version - a.version)
  const [version, setVersion] = useState<number | null>(null)
  const model = versions.find((candidate) => candidate.version === version) ?? versions[0]
  useTitle(model ? `${model.maker} ${model.name}` : null)
  const offer = async (of: string, offered: boolean) => {
    try {
      await ask('POST /models/:id/offered', { params: { id: of }, body: { offered } })
      setRefused(null)
      void again()
    } catch (error) {
      setRefused(failureWords(error, 'It could not be changed; try again.'))
    }
  }
  if (problem) return <Instead message={problem} alert />
  if (models === null) return <Waiting message="Loading the model …" className="p-6" />
  if (!model) return <Instead message="The catalogue has no such model." to="/catalogue" back="Back to the catalogue" />
  return (
    <Page width="wide">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <Heading>
            {model.maker} {model.name}
          </Heading>
          <p className="text-soft">
            {model.roles.map((role) => role.replace('-', ' ')).join(', ')}
            {model.family ? ` · family ${model.family}` : ''}
            {model.mesh ? ` · at most ${model.mesh.members ?? 'any number of'} members, ${model.mesh.hops} hops` : ''}
          </p>
        </div>
        <div className="flex flex-wrap items-end gap-2">
          {versions.length > 1 && (
            <div>
              <label className="label" htmlFor="version">
                Version
              </label>
              <Select
                id="version"
                className="mt-1"
                value={model.version}
                onChange={(event) => setVersion(Number(event.target.value))}
              >
                {versions.map((other) => (
                  <option key={other.version} value={other.version}>
                    {other.version}
                  </option>
                ))}
              </Select>
            </div>
          )}
          <Button onClick={() => saveJson(`${model.id}-${model.version}.json`, model)}>Save as JSON</Button>
          {lead && (
            <Button onClick={() => void offer(model.id, retired.has(model.id))}>
              {retired.has(model.id) ? 'Offer it again' : 'Offer it no longer'}
            </Button>
          )}
          {lead && (
            <Link className="btn" to={`/catalogue/${model.id}/edit`}>
              Edit
            </Link>
          )}
        </div>
      </div>
      {retired.has(model.id) && (
        <Notice role="note" as="p" edge="plum" className="mt-3">
          <b>No longer offered.</b> Nobody chooses it for a visit any more; homes that have one keep it, with all that
          is known of it.
        </Notice>
      )}
      <Problem message={refused} className="mt-3" />
      <Acting key={`${model.id}@${model.version}`} model={model} />
      <div className="mt-6 grid gap-6 lg:grid-cols-2">
        <Methods model={model} />
        <div className="flex flex-col gap-6">
          <Contents model={model} />
          <Firmware model={model} />
        </div>
      </div>
    </Page>
  )
}

function Acting({ model }: { model: Model }) {
  const [chosen, setChosen] = useState((model.states.find(({ good }) => good) ?? model.states[0]!).state)
  const state = model.states.find((candidate) => candidate.state === chosen)!
  return (
    <section aria-label="Lamps" className="paper mt-4 grid gap-4 p-4 lg:grid-cols-[18rem_minmax(0,1fr)]">
      <div>
        <UnitFront model={model} state={state} />
        <UnitBack model={model} />
        <div className="mt-3" aria-live="polite">
          <p>
            <b>{state.meaning}.</b> {sightingWords(state.lamps, model.lamps.length > 1)}
          </p>
          <p className="mt-1">
            {state.action}.{state.usualMin !== undefined && ` Usually ${state.usualMin} min.`}
            {state.maxMin !== undefined && ` At most ${state.maxMin} min.`}
          </p>
          <p className="fine mt-1">{state.good ? 'A good state: it can stay like this.' : 'Not a good state.'}</p>
        </div>
      </div>
      <StateGraph model={model} chosen={chosen} onChoose={setChosen} />
    </section>
  )
}

function Methods({ model }: { model: Model }) {
  return (
    <section aria-label="Setup methods">
      <h2 className="text-lg">Setup methods</h2>
      {model.methods.map((method) => (
        <details key={method.id} className="mt-2 border-t border-rule pt-2" open={model.methods.length === 1}>
          <summary className="min-h-11 py-1 font-bold">{method.name}</summary>
          {method.needs.length > 0 && (
            <p className="fine">Needs {method.needs.map((need) => methodNeeds[need]).join('; ')}.</p>
          )}
          <ol className="mt-1 list-decimal pl-6">
            {method.steps.map((step, at) => (
              <li key={at} className="py-1">
                {step.do}
                {step.expect && (
                  <span className="fine"> → {model.states.find(({ state }) => state === step.expect)?.meaning}</span>
                )}
                {step.wait && (
                  <span className="fine">
                    , {step.wait.leastMin} to {step.wait.mostMin} min
                  </span>
                )}
              </li>
            ))}
          </ol>
        </details>
      ))}
      {model.buttons.length > 0 && (
        <>
          <h2 className="mt-5 text-lg">Buttons</h2>
          <ul className="mt-1">
            {model.buttons.flatMap((button) =>
              button.presses.map((press) => (
                <li key={button.id + press.leastS} className="py-0.5">
                  <b>{button.name}</b>, {press.leastS}
                  {press.mostS === null ? ' s or longer' : ` to ${press.mostS} s`}: {press.does}
                </li>
              ))
            )}
          </ul>
        </>
      )}
    </section>
  )
}

function Contents({ model }: { model: Model }) {
  return (
    <section aria-label="Contents of the box">
      <h2 className="text-lg">In the box</h2>
      {boxesOf(model).map((box) => (
        <div key={box.id}>
          {(model.kits?.length ?? 0) > 0 && (
            <h3 className="label mt-1">{box.id === singleBox ? 'Single' : box.name}</h3>
          )}
          <ul className="mt-1 list-disc pl-5">
            {box.items.map(({ item, count }) => (
              <li key={item}>
                {count} × {item}
              </li>
            ))}
          </ul>
        </div>
      ))}
      {model.power && (
        <p className="mt-1">
          Adapter: {model.power.plug}, {model.power.volts} V, {model.power.amps} A.
        </p>
      )}
      {model.twin && (
        <Notice as="p" edge="plum" small className="mt-2">
          {model.twin}
        </Notice>
      )}
      <p className="fine mt-2">
        On its label: {model.label.map((field) => labelFieldWords[field].toLowerCase()).join(', ')}.
      </p>
      {model.masks?.serial && (
        <p className="fine">
          Its serial looks like <span className="exact">{model.masks.serial}</span> (9 a digit, A a capital, X either, C
          either without look-alikes).
        </p>
      )}
      {model.powerBudgetW !== undefined && <p className="mt-1">All powered ports together: {model.powerBudgetW} W.</p>}
    </section>
  )
}

function Firmware({ model }: { model: Model }) {
  const { minimum, releases } = model.firmware
  if (releases.length === 0)
    return (
      <section aria-label="Firmware">
        <h2 className="text-lg">Firmware</h2>
        <p>It has none to update.</p>
      </section>
    )
  return (
    <section aria-label="Firmware">
      <h2 className="text-lg">Firmware</h2>
      <table className="mt-1 w-full text-left">
        <thead className="fine">
          <tr>
            <th className="py-1 font-normal">Version</th>
            <th className="font-normal">Of</th>
            <th className="font-normal">Installs from</th>
            <th className="font-normal">Remarks</th>
          </tr>
        </thead>
        <tbody>
          {releases.toReversed().map((release) => (
            <tr key={release.version} className="border-t border-rule">
              <td className="exact py-1">{release.version}</td>
              <td>{release.date}</td>
              <td className="exact">{release.needs ?? 'any'}</td>
              <td>
                {[
                  release.withdrawn ? 'withdrawn' : '',
                  release.fixesHole ? 'fixes a hole' : '',
                  release.version === minimum ? 'least approved' : ''
                ]
                  .filter(Boolean)
                  .join(', ')}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2">
        <Link className="underline" to={`/catalogue/${model.id}/homes`}>
          Which homes run which version
        </Link>
      </p>
    </section>
  )
}
