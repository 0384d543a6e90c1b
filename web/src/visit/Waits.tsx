import { useEffect, useState } from 'react'
import { blocks } from '@pasado/core/standard/evaluate'
import { unitName } from '@pasado/core/record/record'
import { Mark } from '../ui/Mark'
import { useMayWrite } from './facts'
import { useVisit, write } from './store'

const two = (number: number) => String(number).padStart(2, '0')

/** Minutes and seconds, as a clock shows them. */
export function clock(ms: number): string {
  const seconds = Math.max(0, Math.ceil(ms / 1000))
  return `${Math.floor(seconds / 60)}:${two(seconds % 60)}`
}

/** The foot: everything that runs by itself, with its time left; on a phone the way to the docket as well. */
export function Waits({ onDocket }: { onDocket: () => void }) {
  const waits = useVisit((state) => state.record.waits)
  const units = useVisit((state) => state.record.units)
  const findings = useVisit((state) => state.findings)
  const mayWrite = useMayWrite()
  const running = Object.values(waits).filter(({ endedAt }) => endedAt === null).sort((a, b) => a.seq - b.seq)
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    if (running.length === 0) return
    setNow(Date.now())
    const timer = setInterval(() => setNow(Date.now()), 1000)
    return () => clearInterval(timer)
  }, [running.length])
  const open = findings.filter(blocks)
  return (
    <footer className="sticky bottom-0 z-10 lg:static">
      <div className="flex items-center gap-3 border-t border-rule bg-well px-4 py-2 lg:hidden">
        <Mark outcome={open.some(({ outcome }) => outcome === 'breaks') ? 'breaks' : open.length ? 'unproven' : 'holds'} />
        <p className="grow font-bold">{open.length ? `${open.length} between here and sign-off` : 'Nothing in the way'}</p>
        <button type="button" className="btn" onClick={onDocket}>Docket</button>
      </div>
      {running.length > 0 && (
        <ul aria-label="Waits" className="on-band flex gap-6 overflow-x-auto bg-band px-4 py-2 text-onband">
          {running.map((wait) => {
            const gone = Math.max(0, now - Date.parse(wait.at))
            const left = wait.mostMin * 60_000 - gone
            const share = Math.min(1, gone / (wait.mostMin * 60_000 || 1))
            const unit = wait.unit ? units[wait.unit] : undefined
            return (
              <li key={wait.id} className="min-w-60 grow">
                <p className="flex items-center gap-2"><span className="grow truncate text-sm">{wait.what}{unit ? ` · ${unitName(unit)}` : ''}</span><b className="exact text-xl">{left < 0 ? `+${clock(-left)}` : clock(left)}</b>
                  {mayWrite && <button type="button" className="min-h-11 px-2 text-sm underline" aria-label={`End the wait: ${wait.what}`} onClick={() => write('wait.ended', { id: wait.id })}>End</button>}
                </p>
                <span className="block h-1.5 bg-edge/60"><span className="block h-full bg-onband" style={{ width: `${share * 100}%` }} /></span>
                <p className="text-xs text-softband">{left < 0 ? `over its longest, ${wait.mostMin} min` : `usually ${wait.usualMin} min, at most ${wait.mostMin} min`}</p>
              </li>
            )
          })}
        </ul>
      )}
    </footer>
  )
}
