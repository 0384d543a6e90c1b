import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import type { HouseFile } from '@pasado/core/house/definition'
import { standing } from '@pasado/core/record/record'
import { ask, failureTitle } from '../../app/api'
import { useMayWrite } from '../session/facts'
import { keepSecret, newRef } from '../session/secrets'
import { useVisit } from '../session/visit-state'
import { write } from '../session/write'
import { Problem } from '../../ui/Problem'
import { useRead } from '../../app/read'

/** The simulated house that a visit is practised on: choosing one, and the way into it. */
export function HouseOfVisit() {
  const house = useVisit((state) => state.record.house)
  const visit = useVisit((state) => state.id)
  const mayWrite = useMayWrite()
  const { value } = useRead('GET /houses', {}, { when: !house && mayWrite })
  const navigate = useNavigate()
  if (house)
    return (
      <p className="mt-4 border-t border-rule pt-3">
        This visit is practised on a simulated house.{' '}
        <Link className="underline" to={`/practice/${house}?visit=${visit}`}>
          Go into the house
        </Link>
      </p>
    )
  const templates = (value?.houses ?? []).filter(({ template }) => template)
  if (!mayWrite || templates.length === 0) return null
  const bind = async (from: string) => {
    const id = uuidv7()
    await ask('POST /houses', { body: { id, from } })
    write('house.bound', { house: id })
    await navigate(`/practice/${id}?visit=${visit}`)
  }
  return (
    <details className="mt-4 border-t border-rule pt-1">
      <summary className="min-h-11 py-2">Practise this visit on a simulated house</summary>
      <div className="flex flex-wrap gap-2">
        {templates.map(({ id, name }) => (
          <button key={id} type="button" className="chip" onClick={() => void bind(id)}>
            {name}
          </button>
        ))}
      </div>
    </details>
  )
}

/** Units of the house that are not in the record yet: taken over from their labels. */
export function UnitsFromHouse() {
  const record = useVisit((state) => state.record)
  const mayWrite = useMayWrite()
  const { value: file, problem: unread } = useRead(
    'GET /houses/:id',
    { params: { id: record.house ?? '' } },
    { when: !!record.house }
  )
  const [refused, setProblem] = useState<string | null>(null)
  const problem = refused ?? (unread === null ? null : 'The house could not be opened.')
  if (!record.house || !file || !mayWrite) return null
  const known = new Set(standing(record.units).map(({ facts }) => facts.serial))
  const left = file.definition.units.filter(({ serial }) => !known.has(serial))
  if (left.length === 0 && !problem) return null
  const take = async (unit: HouseFile['definition']['units'][number]) => {
    const id = uuidv7()
    write('unit.set', {
      id,
      set: {
        name: unit.name,
        model: unit.model,
        modelVersion: unit.modelVersion,
        role: unit.role,
        ...(unit.running ? { stayed: true } : {})
      }
    })
    write('unit.set', { id, set: { serial: unit.serial, mac: unit.mac }, origin: 'label' })
    try {
      const { login } = await ask('GET /houses/:id/units/:unit/label', { params: { id: record.house!, unit: unit.id } })
      if (login)
        await keepSecret({ purpose: 'label-login', thing: 'unit', id }, `${login.user} / ${login.password}`, 'label', {
          wep: false,
          ref: newRef(),
          prepared: false
        })
    } catch (error) {
      setProblem(failureTitle(error, 'The login of its label was not kept: record it under Kit.'))
    }
  }
  return (
    <section aria-label="From the simulated house" className="border-b border-rule bg-well p-3">
      <h3 className="label">In the house, and not in the record yet</h3>
      <div className="mt-1 flex flex-wrap gap-2">
        {left.map((unit) => (
          <button key={unit.id} type="button" className="chip" onClick={() => void take(unit)}>
            {unit.name}: take its label
          </button>
        ))}
      </div>
      <Problem message={problem} />
    </section>
  )
}
