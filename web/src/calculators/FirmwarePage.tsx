import { useState } from 'react'
import { Refusal } from '@pasado/core/values/problem'
import { firmwarePath } from '@pasado/core/catalogue/firmware-path'
import { versionProblem } from '@pasado/core/values/version'
import type { Model } from '@pasado/core/catalogue/model'
import { useModels } from '../catalogue/models'
import { BenchPage, BigFigure } from './parts'
import { Field, Select, Input } from '../ui/Field'
import { List } from '../ui/List'

/** The path from a version of a model, or what is wrong with the version. */
function pathFrom(
  model: Model | undefined,
  current: string
): { found: ReturnType<typeof firmwarePath> | null; problem: string | null } {
  const wrong = versionProblem(current)
  if (!model || wrong) return { found: null, problem: wrong }
  const { minimum, releases } = model.firmware
  try {
    return {
      found: firmwarePath({
        current,
        minimum,
        releases: releases.map(({ version, needs, withdrawn }) => ({
          version,
          withdrawn,
          ...(needs === undefined ? {} : { needs })
        }))
      }),
      problem: null
    }
  } catch (error) {
    const problem = error instanceof Refusal ? error.problems.map(({ message }) => message).join('; ') : 'is no version'
    return { found: null, problem }
  }
}

/** Which versions are installed one after another to come to the newest. */
export function FirmwarePage() {
  const { models } = useModels()
  const [id, setId] = useState('')
  const [current, setCurrent] = useState('')
  const newest = [...new Map((models ?? []).map((model) => [model.id, model])).values()].filter(
    ({ firmware }) => firmware.releases.length > 0
  )
  const model = newest.find((candidate) => candidate.id === id) ?? newest[0]
  const version = current || model?.firmware.releases[0]?.version || ''
  const { found, problem } = pathFrom(model, version)
  const { installMin } = model?.firmware ?? {}
  return (
    <BenchPage
      title="Firmware path"
      source="The fewest installs to the newest release that is not withdrawn; an install never goes back, and a release installs from the version it needs or a newer one. Versions are compared part by part."
      inputs={
        <>
          <Field label="Model">
            <Select
              value={model?.id ?? ''}
              onChange={(event) => {
                setId(event.target.value)
                setCurrent('')
              }}
            >
              {newest.map((model) => (
                <option key={model.id} value={model.id}>
                  {model.maker} {model.name}
                </option>
              ))}
            </Select>
          </Field>
          <Field label="Runs now">
            <Input exact autoComplete="off" value={version} onChange={(event) => setCurrent(event.target.value)} />
            {problem && (
              <span role="alert" className="block">
                Runs now: {problem}
              </span>
            )}
          </Field>
        </>
      }
      result={
        found && model ? (
          <>
            <BigFigure
              value={String(found.path.length)}
              unit={found.path.length === 1 ? 'install' : 'installs'}
              label={
                found.path.length
                  ? `${version} → ${found.path.join(' → ')}${installMin ? `, usually ${installMin.usual * found.path.length} min, at most ${installMin.most * found.path.length} min` : ''}`
                  : 'It runs the newest that it can come to.'
              }
            />
            <p className="mt-2 font-bold">
              {found.reachesMinimum
                ? `At or above the approved minimum ${model.firmware.minimum}.`
                : `It does not come to the approved minimum ${model.firmware.minimum}: no path leads there.`}
            </p>
            <List framed className="mt-3 text-sm">
              {model.firmware.releases.map((release) => (
                <li key={release.version} className="flex flex-wrap gap-x-4 py-1.5">
                  <b className="exact w-24">{release.version}</b>
                  <span>{release.date}</span>
                  <span className="text-soft">
                    {[
                      release.needs ? `from ${release.needs} on` : '',
                      release.withdrawn ? 'withdrawn' : '',
                      release.fixesHole ? 'fixes a hole' : ''
                    ]
                      .filter(Boolean)
                      .join(', ')}
                  </span>
                </li>
              ))}
            </List>
          </>
        ) : (
          <p className="text-soft">{models ? '' : 'Loading the catalogue …'}</p>
        )
      }
    />
  )
}
