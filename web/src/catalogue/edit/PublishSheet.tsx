import type { ModelEffect } from '@pasado/core/api/catalogue'
import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { modelChanges } from '@pasado/core/catalogue/changes'
import type { Model } from '@pasado/core/catalogue/model'
import { ask, failureWords } from '../../app/api'
import { Sheet } from '../../ui/Sheet'
import { ChangeList } from '../../visit/stages/kit/ChangeList'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'

/** Before a version is published: what changes, and what it would mean to the visits that are open. */
export function PublishSheet({
  model,
  published,
  onClose,
  onPublished
}: {
  model: Model
  published: Model | null
  onClose: () => void
  onPublished: () => void
}) {
  const [effect, setEffect] = useState<ModelEffect[] | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const changes = published ? modelChanges(published, model) : []
  useEffect(() => {
    ask('POST /models/effect', { body: { model } }).then(
      ({ visits }) => setEffect(visits),
      (error: unknown) => setProblem(failureWords(error, 'The effect could not be found out.'))
    )
  }, [model])
  const publish = async () => {
    setBusy(true)
    try {
      await ask('POST /models', { body: { model } })
      onPublished()
    } catch (error) {
      setProblem(failureWords(error, 'It could not be published; try again.'))
      setBusy(false)
    }
  }
  const broken = (effect ?? []).filter(({ units }) => units.some(({ breaks }) => breaks.length > 0))
  return (
    <Sheet
      open
      onClose={onClose}
      title={`Publish ${model.maker} ${model.name}, version ${model.version}`}
      description="New visits use it. Open ones keep the version they began with, until somebody moves them."
      wide
    >
      {published && (
        <>
          <h3>What changes</h3>
          <div className="mt-1">
            <ChangeList changes={changes} />
          </div>
        </>
      )}
      <h3 className="mt-4">Open visits with this model</h3>
      {effect === null && !problem && (
        <p className="text-soft" role="status">
          Looking …
        </p>
      )}
      {effect?.length === 0 && <p>None.</p>}
      {effect && effect.length > 0 && broken.length === 0 && (
        <p>
          {effect.length} {effect.length === 1 ? 'visit has' : 'visits have'} units of it. Each can be moved to this
          version, and everything recorded still fits.
        </p>
      )}
      {broken.length > 0 && (
        <div className="mt-1 bg-inv p-3 text-oninv">
          <p className="font-bold">
            {broken.length} of {effect!.length} could not be moved without something to mend:
          </p>
          <ul className="mt-1">
            {broken.map((visit) => (
              <li key={visit.visit} className="py-1">
                <Link className="underline" to={`/visit/${visit.visit}/kit`}>
                  {visit.street}
                </Link>
                , {visit.technician}
                {visit.units
                  .filter(({ breaks }) => breaks.length)
                  .map((unit) => (
                    <span key={unit.name} className="block text-sm">
                      {unit.name}: {unit.breaks.join('; ')}
                    </span>
                  ))}
              </li>
            ))}
          </ul>
        </div>
      )}
      <Problem message={problem} className="mt-3" />
      <div className="mt-4 flex flex-wrap gap-2">
        <Button
          kind="main"
          disabled={busy || (published !== null && changes.length === 0)}
          onClick={() => void publish()}
        >
          Publish version {model.version}
        </Button>
        <Button kind="quiet" onClick={onClose}>
          Not yet
        </Button>
      </div>
    </Sheet>
  )
}
