import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import type { Body, EntryKind } from '@pasado/core/record/entries/all'
import { planFile, planFileProblem, planFromFile, planToFile } from '@pasado/core/work/plan/file'
import type { HomePlan } from '@pasado/core/work/plan/home-plan'
import type { PlacedUnit } from '@pasado/core/work/plan/placed'
import type { Band } from '@pasado/core/values/band'
import { planSvg } from '@pasado/core/work/plan/plan-svg'
import { readingsFromCsv, readingsToCsv, type ReadingLine } from '@pasado/core/documents/readings-csv'
import type { LineProblem } from '@pasado/core/documents/table'
import { standing, unitName } from '@pasado/core/record/record'
import { saveFile, saveJson } from '../../../app/save-file'
import type { CoverageAnswer } from '../../../workers/coverage.worker'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'
import { FileButton } from '../../../ui/FileButton'
import { Notice } from '../../../ui/Notice'

const MOST_OCTETS = 5_000_000

/** The plan and its readings as files, out and in. */
export function PlanFiles({
  plan,
  units,
  coverage,
  band,
  storey
}: {
  plan: HomePlan
  units: readonly PlacedUnit[]
  coverage: CoverageAnswer['storeys']
  band: Band
  storey: string | null
}) {
  const record = useVisit((state) => state.record)
  const mayWrite = useMayWrite()
  const [told, setTold] = useState<string | null>(null)
  const [problems, setProblems] = useState<LineProblem[]>([])
  const [lines, setLines] = useState<ReadingLine[]>([])
  const home = record.brief.facts.street ?? 'home'
  const name = `plan-${home.toLowerCase().replace(/[^a-z0-9]+/g, '-')}`
  const picture = (): string | null => {
    const on = plan.storeys.find(({ id }) => id === storey)
    if (!on) return null
    const here = coverage.find((candidate) => candidate.storey === storey)
    const outlets = standing(record.outlets ?? {}).flatMap(({ facts: { storey: at, x, y, kind } }) =>
      at === undefined || x === undefined || y === undefined
        ? []
        : [{ storey: at, x, y, kind: kind ?? ('mains' as const) }]
    )
    return planSvg(plan, {
      storey: on.id,
      title: `${home}, ${on.name}`,
      units,
      outlets,
      ...(here ? { coverage: { grid: here.grid, signal: here.signal, band } } : {})
    })
  }
  const saveSvg = () => {
    const svg = picture()
    if (svg) saveFile(`${name}.svg`, svg, 'image/svg+xml')
  }
  const savePng = () => {
    const svg = picture()
    if (svg) void pngOf(svg).then((png) => saveFile(`${name}.png`, png, 'image/png'))
  }
  const saveCsv = () => {
    const names = {
      rooms: new Map(plan.rooms.map((room) => [room.id, room.name])),
      units: new Map(standing(record.units).map((unit) => [unit.id, unitName(unit)]))
    }
    saveFile(
      `readings-${name.slice(5)}.csv`,
      readingsToCsv(
        standing(record.readings ?? {}).flatMap(({ facts: { room, unit, band: on, dbm, x, y } }) => {
          const [inRoom, from] = [names.rooms.get(room ?? ''), names.units.get(unit ?? '')]
          return inRoom === undefined || from === undefined || on === undefined || dbm === undefined
            ? []
            : [{ room: inRoom, unit: from, band: on, dbm, ...(x === undefined || y === undefined ? {} : { x, y }) }]
        })
      ),
      'text/csv'
    )
  }
  const readPlan = async (file: File) => {
    setProblems([])
    if (file.size > MOST_OCTETS) {
      setTold(`${file.name} is larger than a plan can be (5 MB): choose the plan’s own file.`)
      return
    }
    let value: unknown
    try {
      value = JSON.parse(await file.text())
    } catch {
      setTold(`${file.name} is not JSON: choose a file that was exported as a plan.`)
      return
    }
    const wrong = planFileProblem(value)
    if (wrong) {
      setTold(`${file.name} was not taken. ${wrong}.`)
      return
    }
    const entries = planFromFile(planFile.parse(value), record, uuidv7)
    for (const { kind, body } of entries) write(kind as EntryKind, body as Body<EntryKind>)
    setTold(
      `Drawn from ${file.name}: ${planFile
        .parse(value)
        .storeys.map((storey) => storey.name)
        .join(', ')}.`
    )
  }
  const take = (readings: readonly ReadingLine[]) => {
    const rooms = new Map(plan.rooms.map((room) => [room.name, room.id]))
    const byName = new Map(units.map((unit) => [unit.name, unit.id]))
    for (const { room, unit, ...rest } of readings)
      write('reading.set', {
        id: uuidv7(),
        set: { room: rooms.get(room)!, unit: byName.get(unit)!, ...rest },
        origin: 'measured'
      })
    setLines([])
    setProblems([])
    setTold(`${readings.length} ${readings.length === 1 ? 'reading' : 'readings'} written down.`)
  }
  const readCsv = async (file: File) => {
    setTold(null)
    if (file.size > MOST_OCTETS) {
      setTold(`${file.name} is larger than readings can be (5 MB).`)
      return
    }
    const found = readingsFromCsv(await file.text(), {
      rooms: plan.rooms.map((room) => room.name),
      units: units.map((unit) => unit.name)
    })
    setProblems(found.problems)
    setLines(found.problems.length ? found.readings : [])
    if (found.problems.length === 0 && found.readings.length === 0) setTold(`${file.name} holds no reading.`)
    else if (found.problems.length === 0) take(found.readings)
  }
  if (plan.rooms.length === 0 && !mayWrite) return null
  return (
    <details className="mt-4 border-t border-rule pt-2">
      <summary className="min-h-11 py-2 font-bold">Files: the plan and its readings</summary>
      <div className="flex flex-wrap gap-2">
        <Button disabled={plan.rooms.length === 0} onClick={() => saveJson(`${name}.json`, planToFile(record))}>
          Plan as JSON
        </Button>
        <Button disabled={plan.rooms.length === 0} onClick={saveSvg}>
          This storey as SVG
        </Button>
        <Button disabled={plan.rooms.length === 0} onClick={savePng}>
          This storey as PNG
        </Button>
        <Button onClick={saveCsv}>Readings as CSV</Button>
        {mayWrite && (
          <FileButton accept=".json,application/json" onFile={(file) => void readPlan(file)}>
            Draw from a plan file
          </FileButton>
        )}
        {mayWrite && (
          <FileButton accept=".csv,text/csv" onFile={(file) => void readCsv(file)}>
            Readings from CSV
          </FileButton>
        )}
      </div>
      {told && (
        <p role="status" className="mt-2 font-bold">
          {told}
        </p>
      )}
      {problems.length > 0 && (
        <Notice role="alert" edge="ink" className="mt-2">
          <p className="font-bold">
            {problems.length} {problems.length === 1 ? 'line is' : 'lines are'} not right; nothing was written yet.
          </p>
          <ul>
            {problems.slice(0, 8).map(({ line, problem }) => (
              <li key={line}>
                Line {line}: {problem}.
              </li>
            ))}
            {problems.length > 8 && <li>and {problems.length - 8} more</li>}
          </ul>
          {lines.length > 0 && (
            <Button className="mt-2" onClick={() => take(lines)}>
              Take the {lines.length} that are right
            </Button>
          )}
        </Notice>
      )}
    </details>
  )
}

/** An SVG document as a PNG, at twice its size. */
async function pngOf(svg: string): Promise<Blob> {
  const picture = new Image()
  picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`
  await picture.decode()
  const canvas = document.createElement('canvas')
  canvas.width = picture.naturalWidth * 2
  canvas.height = picture.naturalHeight * 2
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture'))), 'image/png')
  )
}
