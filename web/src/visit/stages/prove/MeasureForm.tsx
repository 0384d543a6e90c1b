import { useId, useRef, useState } from 'react'
import { readNumber } from '@pasado/core/values/number'
import { doubtsOf, type Doubt, type Expected } from '@pasado/core/work/prove/doubts'
import { readResultFile } from '@pasado/core/documents/result-file'
import { runFigures, type RunFigure } from '@pasado/core/work/prove/runs'
import { checkField, type Facts } from '@pasado/core/record/facts'
import { type MeasuredRun } from '@pasado/core/record/things/measurement'
import { Chips } from '../../../ui/Chips'
import { useDraft } from '../../../app/draft'
import { takeLook } from '../../session/record-now'
import { useVisit } from '../../session/visit-state'
import { runSpeedTest } from './speed-test'
import { fileMark, readBefore, recordRun, type MeasuredSpot } from './use-record-measure'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'
import { FileButton } from '../../../ui/FileButton'
import { Field, Input } from '../../../ui/Field'

type By = NonNullable<Facts<'measurement'>['by']>
const figures = Object.keys(runFigures) as RunFigure[]
const shortNames: Record<RunFigure, string> = {
  downMbps: 'Down, Mbit/s',
  upMbps: 'Up, Mbit/s',
  idleMs: 'Latency idle, ms',
  loadedMs: 'Latency loaded, ms',
  lossPercent: 'Loss, %'
}

const NO_BAND = 'Choose the band first: the phone shows it beside the network.'

/** A run typed in seconds, or read from a result file, or measured against the source that ships. */
export function MeasureForm({
  spot,
  expected,
  withSignal = false,
  onDone
}: {
  spot: MeasuredSpot
  expected: Expected | ((dbm: number | undefined) => Expected)
  withSignal?: boolean
  onDone?: () => void
}) {
  const visit = useVisit((state) => state.id)
  const [typed, setTyped] = useDraft<Partial<Record<RunFigure | 'dbm', string>>>(
    `run ${visit} ${spot.at} ${spot.room ?? spot.unit ?? ''}`,
    {}
  )
  const [by, setBy] = useState<By>(spot.at === 'room' ? 'phone' : 'laptop')
  const [problem, setProblem] = useState<string | null>(null)
  const [doubt, setDoubt] = useState<{
    run: MeasuredRun
    dbm: number | undefined
    doubts: Doubt[]
    how: 'typed' | 'result-file'
    file?: string
  } | null>(null)
  const [step, setStep] = useState<string | null>(null)
  const id = useId()
  const needsBand = spot.at === 'room' && spot.band === undefined
  // What had been seen when the measurement was begun: with the form, or with the next run in it.
  const look = useRef(takeLook())
  const keep = (
    run: MeasuredRun,
    dbm: number | undefined,
    how: NonNullable<Facts<'measurement'>['how']>,
    more: { file?: string; sure?: boolean } = {}
  ) => {
    recordRun({ ...spot, dbm: dbm ?? spot.dbm }, [run], { by, how, ...more }, look.current)
    look.current = takeLook()
    setTyped({})
    setDoubt(null)
    setProblem(null)
    onDone?.()
  }
  const offer = (run: MeasuredRun, dbm: number | undefined, how: 'typed' | 'result-file', file?: string) => {
    const doubts = doubtsOf(run, typeof expected === 'function' ? expected(dbm ?? spot.dbm) : expected)
    if (needsBand) {
      setProblem(NO_BAND)
      return
    }
    if (doubts.length) setDoubt({ run, dbm, doubts, how, ...(file ? { file } : {}) })
    else keep(run, dbm, how, file ? { file } : {})
  }
  const submit = (event: React.FormEvent) => {
    event.preventDefault()
    const run: Record<string, number> = {}
    for (const figure of figures) {
      const text = (typed[figure] ?? '').trim()
      if (text === '') continue
      const value = readNumber(text)
      if (Number.isNaN(value)) {
        setProblem(`${shortNames[figure]} must be a number.`)
        return
      }
      run[figure] = value
    }
    const signal = (typed.dbm ?? '').trim()
    const dbm = signal === '' ? undefined : readNumber(signal.replace('−', '-'))
    if (dbm !== undefined) {
      const checked = checkField('measurement', 'dbm', dbm)
      if (Number.isNaN(dbm) || 'problem' in checked) {
        setProblem(
          `Signal ${'problem' in checked && !Number.isNaN(dbm) ? checked.problem : 'must be a number in dBm'}.`
        )
        return
      }
    }
    if (Object.keys(run).length === 0) {
      setProblem('Enter a speed or a latency first.')
      return
    }
    const checked = checkField('measurement', 'runs', [run])
    if ('problem' in checked) {
      setProblem(`What was entered ${checked.problem}.`)
      return
    }
    offer(run, dbm, 'typed')
  }
  const readFile = async (file: File) => {
    const text = await file.text()
    const mark = await fileMark(text)
    const before = readBefore(mark)
    if (before) {
      setProblem(
        `${file.name} was read already, at ${new Date(before).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}. It is not taken twice.`
      )
      return
    }
    const read = readResultFile(text)
    if ('problem' in read) {
      setProblem(`${file.name} ${read.problem}.`)
      return
    }
    offer(read.run, undefined, 'result-file', mark)
  }
  const measure = async () => {
    if (needsBand) {
      setProblem(NO_BAND)
      return
    }
    setProblem(null)
    look.current = takeLook()
    try {
      setStep('latency')
      keep(await runSpeedTest(setStep), undefined, 'stand-in')
    } catch {
      setProblem('The speed source is not in reach; try again.')
    } finally {
      setStep(null)
    }
  }
  return (
    <form onSubmit={submit} aria-label="A run" className="bg-well p-3">
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
        {withSignal && (
          <Field label="Signal, dBm">
            <Input
              exact
              className="text-lg"
              inputMode="text"
              autoComplete="off"
              value={typed.dbm ?? ''}
              onChange={(event) => setTyped({ ...typed, dbm: event.target.value })}
            />
          </Field>
        )}
        {figures.map((figure) => (
          <Field key={figure} label={shortNames[figure]}>
            <Input
              exact
              className="text-lg"
              inputMode="decimal"
              autoComplete="off"
              value={typed[figure] ?? ''}
              onChange={(event) => setTyped({ ...typed, [figure]: event.target.value })}
            />
          </Field>
        ))}
      </div>
      <Problem message={problem} className="mt-2" />
      {doubt && (
        <div
          role="alertdialog"
          ref={(box) => box?.scrollIntoView({ block: 'nearest' })}
          aria-label="Is this right?"
          aria-describedby={`${id}-doubt`}
          className="mt-2 bg-inv p-3 text-oninv"
        >
          <ul id={`${id}-doubt`}>
            {doubt.doubts.map(({ figure, asks }) => (
              <li key={figure}>{asks}</li>
            ))}
          </ul>
          <div className="mt-2 flex flex-wrap gap-2">
            {doubt.doubts.some(({ instead }) => instead !== null) && (
              <Button
                onClick={() =>
                  keep(
                    {
                      ...doubt.run,
                      ...Object.fromEntries(
                        doubt.doubts.flatMap(({ figure, instead }) => (instead === null ? [] : [[figure, instead]]))
                      )
                    },
                    doubt.dbm,
                    doubt.how,
                    doubt.file ? { file: doubt.file } : {}
                  )
                }
              >
                Yes, take it so
              </Button>
            )}
            <Button
              onClick={() =>
                keep(doubt.run, doubt.dbm, doubt.how, { sure: true, ...(doubt.file ? { file: doubt.file } : {}) })
              }
            >
              It is as entered
            </Button>
            <Button onClick={() => setDoubt(null)}>Mend it</Button>
          </div>
        </div>
      )}
      <div className="mt-3 flex flex-wrap items-center gap-2">
        <Button type="submit" kind="main">
          Record this run
        </Button>
        <FileButton accept=".json,.txt,application/json,text/plain" onFile={(file) => void readFile(file)}>
          Result file
        </FileButton>
        <Button disabled={step !== null} onClick={() => void measure()}>
          {step ? `Measuring: ${step} …` : 'Measure from here'}
        </Button>
        <Chips
          label="With"
          value={by}
          options={[
            { value: 'phone', label: 'phone' },
            { value: 'tablet', label: 'tablet' },
            { value: 'laptop', label: 'laptop' }
          ]}
          onChoose={setBy}
        />
      </div>
      <p className="fine mt-1">
        “Measure from here” is a real transfer between this browser and Pasado’s server, four streams, warm-up dropped:
        a stand-in for a source on the internet.
      </p>
    </form>
  )
}
