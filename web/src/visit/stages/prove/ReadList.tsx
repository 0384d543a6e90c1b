import { FileButton } from '../../../ui/FileButton'
import { useState } from 'react'
import { measurementsFromCsv } from '@pasado/core/documents/measurements-csv'
import { standing, thingsOf } from '@pasado/core/record/record'
import { useVisit } from '../../session/visit-state'
import { fileMark, readBefore, recordRun } from './use-record-measure'
import { FileTold } from '../../../ui/FileTold'

/** Measurements from a list: every line a run; rooms by their names. */
export function ReadList() {
  const record = useVisit((state) => state.record)
  const [told, setTold] = useState<string | null>(null)
  const [problems, setProblems] = useState<{ line: number; problem: string }[]>([])
  const read = async (file: File) => {
    setTold(null)
    setProblems([])
    if (file.size > 2_000_000) {
      setTold(`${file.name} is larger than 2 MB: take the lines of this home.`)
      return
    }
    const text = await file.text()
    const mark = await fileMark(text)
    if (readBefore(mark)) {
      setTold(`${file.name} was read already. It is not taken twice.`)
      return
    }
    const byName = new Map(
      standing(thingsOf(record, 'room')).map(({ id, facts }) => [(facts.name ?? '').trim().toLowerCase(), id])
    )
    const found = measurementsFromCsv(text, (name) => byName.get(name.trim().toLowerCase()) ?? null)
    setProblems(found.problems.slice(0, 6))
    for (const measurement of found.measurements)
      if (measurement.runs.length)
        recordRun(
          {
            at: measurement.room === null ? 'source' : 'room',
            ...(measurement.room === null ? {} : { room: measurement.room, band: measurement.band! }),
            ...(measurement.dbm === null ? {} : { dbm: measurement.dbm })
          },
          measurement.runs,
          { by: 'laptop', how: 'list', ...(mark ? { file: mark } : {}) }
        )
    if (found.measurements.length) setTold(`${found.measurements.length} measurements taken from ${file.name}.`)
    else setTold(found.problems.length ? null : `${file.name} holds no measurement.`)
  }
  return (
    <>
      <FileButton accept=".csv,text/csv" onFile={(file) => void read(file)}>
        From a list (CSV)
      </FileButton>
      <FileTold told={told} problems={problems} className="basis-full" />
    </>
  )
}
